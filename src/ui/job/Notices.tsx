import { Closed } from './visit/Closed';
import { MetElsewhere } from './MetElsewhere';
import type { Sheet } from './use-sheet';

/** What most jobs need not say: that one is closed or follows another, and IDs that other cars had. */
export function Notices({ sheet }: { sheet: Sheet }) {
  return (
    <>
      <Closed sheet={sheet} />
      {sheet.job.vehicle.tpms.kind === 'direct' && <MetElsewhere view={sheet.view} />}
    </>
  );
}
