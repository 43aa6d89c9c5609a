import type { z } from 'zod';
import type { Job } from '../../job';
import type { Move } from '../move';
import type { Position } from '../../names/wheel';
import type { needs, putOffSchema, putOffScopeSchema } from '../../job/schemas/put-off';

/**
 * Moves that are not made on this visit, each with a reason: the next best is offered then. Nothing is taken as seen
 * or done for it: what it would have shown stays open in the proof.
 */
export type PutOff = z.infer<typeof putOffSchema>;
export type PutOffScope = z.infer<typeof putOffScopeSchema>;
export type Need = (typeof needs)[number];

/** What a move cannot be made without: the activation tool, or what talks to the car. */
export function needOfMove({ kind }: Move): Need | undefined {
  switch (kind) {
    case 'wake':
      return 'tool';
    case 'read-car':
    case 'write-ids':
    case 'read-back':
    case 'support-supply':
    case 'clear-codes':
    case 'drive':
      return 'lead';
    default:
      return undefined;
  }
}

/** Closing the job is the one thing that is never put off. */
export const canBePutOff = ({ kind }: Move): boolean => kind !== 'hand-over' && kind !== 'done';

/** This move, and no other: at its wheel, about its finding. */
export function scopeOf(move: Move): PutOffScope {
  const wheel = wheelOf(move);
  const about = aboutOf(move);
  return { move: move.kind, ...(wheel && { wheel }), ...(about !== undefined && { about }) };
}

/** The wheel a move is made at. */
export const wheelOf = (move: Move): Position | undefined => ('wheel' in move ? move.wheel : undefined);

function aboutOf(move: Move): string | undefined {
  switch (move.kind) {
    case 'check':
      return move.test;
    case 'act':
      return `${move.finding.code} ${move.finding.wheels.join(' ')}`.trim();
    default:
      return undefined;
  }
}

/** Whether somebody decided that this move is not made on this visit. */
export const isPutOff = ({ putOff = [] }: Job, move: Move): boolean =>
  canBePutOff(move) && putOff.some((scope) => covers(scope, move));

function covers({ needs: device, move: kind, wheel, about }: PutOffScope, move: Move): boolean {
  if (device !== undefined) return needOfMove(move) === device;
  return (
    kind === move.kind &&
    (wheel === undefined || wheel === wheelOf(move)) &&
    (about === undefined || about === aboutOf(move))
  );
}
