import { benchTriggers } from '../../core/names/kinds';
import { writeVerdict, registryWrites } from '../../core/job/car-write';
import type { Move, Station } from '../../core/visit';
import type { Sheet } from './use-sheet';

/** After a silent try another trigger: what the next one is. */

/** What taking a move does, and what going to a station does. */
export function useMoves(sheet: Sheet): {
  take: (move: Move) => void;
  visitStation: (station: Station) => void;
} {
  const { view, job, columns, chosen, open, wake, readCar, readBack, clearCodes, drive } = sheet;
  // Without a connection no device is reached: what they would say is typed.
  const { connected } = sheet.visit;
  const [hasTool, hasLead] = [view.devices.tool && connected, view.devices.lead && connected];

  function take(move: Move): void {
    switch (move.kind) {
      case 'placard':
      case 'hand-over':
        return open({ dialog: move.kind });
      case 'gauge':
      case 'fill':
        return open({ dialog: 'gauge', wheel: move.wheel });
      case 'wake':
        return hasTool
          ? void wake(move.wheel, benchTriggers[move.tries] ?? 'magnet')
          : open({ dialog: 'scan', wheel: move.wheel });
      case 'read-car':
        return hasLead ? void readCar() : open({ dialog: 'car', part: 'held' });
      case 'support-supply':
        return hasLead ? void readCar() : open({ dialog: 'car', part: 'supply' });
      case 'write-ids':
        return open({ dialog: 'write' });
      case 'read-back': {
        const unknown = (job.carWrites ?? []).findLast(
          (write) => write.kind !== 'sensor' && writeVerdict(write) === 'unknown',
        );
        if (unknown?.kind === 'clear-codes') return void readBack(unknown.key);
        return unknown && open({ dialog: 'write', write: unknown.key });
      }
      case 'clear-codes':
        return hasLead ? void clearCodes() : open({ dialog: 'codes' });
      case 'drive':
        if (!hasLead) return open({ dialog: 'car', part: 'live' });
        return void (view.devices.practice ? drive() : readCar());
      case 'look-at-lamp':
        return open({ dialog: 'lamp' });
      case 'look':
        return open({ dialog: 'look', wheel: move.wheel });
      case 'check':
        return move.test === 'baseline'
          ? open({ dialog: 'reset' })
          : open({ dialog: 'check', test: move.test });
      case 'program':
      case 'service':
      case 'explain':
        return open({ dialog: move.kind, wheel: move.wheel });
      case 'relearn':
        return open({ dialog: 'relearn' });
      case 'act':
        return move.finding.code === 'baseline-not-set'
          ? open({ dialog: 'reset' })
          : open({ dialog: 'act', finding: move.finding });
      case 'done':
        return window.location.assign(`/jobs/${view.id}/sheet`);
    }
  }

  function visitStation(station: Station): void {
    const firstUngauged = columns.find(({ gauge }) => !gauge)?.wheel ?? chosen ?? 'LF';
    const firstUnheard =
      columns.find(({ sensor }) => sensor && sensor.kind !== 'heard')?.wheel ?? chosen ?? 'LF';
    switch (station) {
      case 'placard':
      case 'prove':
      case 'hand-over':
        return open({ dialog: station });
      case 'gauge':
        return open({ dialog: 'gauge', wheel: firstUngauged });
      case 'scan':
        return open({ dialog: 'scan', wheel: firstUnheard });
      case 'car':
        return hasLead ? void readCar() : open({ dialog: 'car' });
      case 'follows':
        return document.getElementById('follows')?.focus();
      case 'write': {
        if (job.vehicle.tpms.kind !== 'direct') return open({ dialog: 'relearn' });
        const last = registryWrites(job).at(-1);
        const unfinished = last && writeVerdict(last) !== 'worked' ? { write: last.key } : {};
        return open({ dialog: 'write', ...unfinished });
      }
    }
  }

  return { take, visitStation };
}
