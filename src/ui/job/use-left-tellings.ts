import { useEffect } from 'react';
import type { Kept } from '../outbox';

/** The first look at the sheet comes before it. */
const afterMs = 300;

/** Has what was on its way when the page of a run was left, go out from here. */
export function useLeftTellings({ id, name }: NonNullable<Kept['by']>): void {
  useEffect(() => {
    let stop: (() => void) | undefined;
    let isGone = false;
    const timer = setTimeout(() => {
      // Where it does not come, the page of the run sends it when it is opened again.
      void import('../run/tellings')
        .then(({ sendWhatWasLeft }) => {
          if (!isGone) stop = sendWhatWasLeft({ id, name });
        })
        .catch(() => undefined);
    }, afterMs);
    return () => {
      isGone = true;
      clearTimeout(timer);
      stop?.();
    };
  }, [id, name]);
}
