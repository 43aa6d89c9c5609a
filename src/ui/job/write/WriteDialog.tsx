import { useState } from 'react';
import type { Position } from '../../../core/names/wheel';
import type { Sheet } from '../use-sheet';
import { WriteRun } from './WriteRun';
import { registryWrites } from '../../../core/job/car-write';

/** A new write of the IDs, from what is to be sent to what was read back; or one that was made before. */
export function WriteDialog({ sheet, write }: { sheet: Sheet; write: string | undefined }) {
  const { job, busy, problem, act, readBack, close } = sheet;
  /** The writes there were before the one that is being sent: the new one is the one not among them. */
  const [before, setBefore] = useState<ReadonlySet<string>>();
  const writes = registryWrites(job);
  const made = before && writes.find(({ key }) => !before.has(key));
  const send = (entries: { wheel: Position; id: string | null }[]) => {
    setBefore(new Set(writes.map(({ key }) => key)));
    void act('Sending, do not unplug…', 'writeIds', { entries });
  };
  return (
    <WriteRun
      {...{ job, busy, problem }}
      write={made ?? writes.find(({ key }) => key === write)}
      onSend={send}
      onReadBack={(key) => void readBack(key)}
      onClose={close}
    />
  );
}
