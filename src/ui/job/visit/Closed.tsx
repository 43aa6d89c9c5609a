import { notesOf } from '../../../core/job/header';
import { Button } from '../../kit/Button';
import { Notice } from '../../kit/Notice';
import type { Sheet } from '../use-sheet';

/** A job that is closed, belongs to another, or was made ready beforehand, says so, and how to go on. */
export function Closed({ sheet: { view, job, busy, act } }: { sheet: Sheet }) {
  const { cancelled, followUpOf, followedUpBy, plannedSet, unproved } = notesOf(job);
  return (
    <>
      {followUpOf && (
        <Notice tone="note">
          Follows up <a href={`/jobs/${followUpOf.id}`}>job {followUpOf.number}</a>.
        </Notice>
      )}
      {plannedSet && view.state === 'open' && (
        <Notice
          tone="note"
          action={<a href={`/vehicles/${view.vehicleId}#set-${plannedSet.id}`}>Put it on</a>}
        >
          Made ready: the set “{plannedSet.label}”{plannedSet.rack && ` from ${plannedSet.rack}`} is to go on.
        </Notice>
      )}
      {view.state === 'cancelled' && (
        <Notice
          tone="note"
          action={
            <Button busy={busy} onClick={() => void act('Opening…', 'reopenJob', { version: view.version })}>
              Open it again
            </Button>
          }
        >
          Cancelled{cancelled?.by && ` by ${cancelled.by}`}: {cancelled?.reason}
        </Notice>
      )}
      {view.state === 'handed-over' && (
        <Notice
          tone={unproved ? 'note' : 'right'}
          action={
            followedUpBy ? (
              <a href={`/jobs/${followedUpBy.id}`}>Followed up by job {followedUpBy.number}</a>
            ) : (
              <a href={`/book-in?follow-up=${view.id}`}>Book it in again as a follow-up</a>
            )
          }
        >
          Handed over{unproved ? `, not proved: ${unproved}` : ', proved'}.
        </Notice>
      )}
    </>
  );
}
