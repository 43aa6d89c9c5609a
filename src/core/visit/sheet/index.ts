import { hasFactsByFile } from '../../job/by-file';
import type { Procedure } from '../../relearn/procedure';
import { hasEnded, isConfirmed, replay, type RunRecord, type RunState } from '../../relearn/run';
import type { Replacement } from '../replacement';
import { withoutDoubtful } from '../../tire/set-aside';
import { serviceOf } from '../../sensor/service';
import { findingsThatHold, type Assessment } from '../../judgement/assessment';
import { verdictOn, type Experience } from '../../judgement/diagnosis';
import { repairOutcomesOf, type RepairOutcome } from '../../job/repair-outcome';
import { gaugeWarning } from '../../tire/gauge';
import { allOf, type CarWrite, type Job, type Placed, type Seen } from '../../job';
import { changesOf, isFill } from '../../job/history';
import type { LampFigures } from '../../car/lamp';
import { ledgerOf } from '../../job/ledger';
import { makerKPa, placardKPa, wheelsOf } from '../../job/placard';
import { foundOn, type Found } from '../found';
import { proofOf, type Proof } from '../proof';
import { standingOf, type Standing } from '../proof/standing';
import { sameId } from '../../names/sensor-id';
import { inWalkingOrder, listWheels, type Position } from '../../names/wheel';
import { cautionsFor } from '../cautions';
import { writeVerdict, type WriteVerdict, type SensorWrite } from '../../job/car-write';
import type { SensorService } from '../../job/schemas/sensor-service';

/** The one page a customer takes along: before and after, what was found, what was done, what to watch. */
export interface Sheet {
  wheels: SheetWheel[];
  /** What was wrong, each at its surest. */
  found: Found[];
  /** What still stands. */
  now: Assessment['findings'];
  done: Deed[];
  /** Parts that turned out to be at fault, once somebody had them in hand. */
  turnedOut: RepairOutcome[];
  /** Readings whose gauge is not to be trusted, each said once. */
  doubtful: string[];
  proof: Proof;
  standing: Standing;
  cautions: string[];
}

interface SheetWheel {
  wheel: Position;
  placardKPa: number | undefined;
  before: { kPa: number | undefined; typed: unknown; id: string | null | undefined };
  after: { kPa: number | undefined; typed: unknown; id: string | null | undefined };
  /** What the tool heard last. */
  heard: string | undefined;
}

export type Deed =
  | { kind: 'filled'; wheel: Position; fromKPa: number; toKPa: number }
  | { kind: 'repaired'; wheel: Position }
  | { kind: 'wrote'; wheels: Position[]; verdict: WriteVerdict }
  /** Another cold pressure than the maker's was chosen for other tires. */
  | { kind: 'aimed'; wheels: Position[]; kPa: number; makerKPa: number }
  /** The car's lamp was given other pressures, for other tires. */
  | { kind: 'lamp-set'; asked: LampFigures; verdict: WriteVerdict }
  | { kind: 'cleared'; codes: string[]; verdict: WriteVerdict }
  /** Which sensors were to be replaced, and which not though it was advised. */
  | { kind: 'chosen'; replacement: Replacement }
  | { kind: 'programmed'; write: SensorWrite }
  | { kind: 'serviced'; service: SensorService }
  /** A relearn that ended, and after how many minutes. */
  | { kind: 'taught'; procedure: Procedure; end: RunState; minutes: number }
  /** One that somebody did without being led through it, as they say. */
  | { kind: 'by-hand'; method: Seen<'relearn'>['method']; outcome: Seen<'relearn'>['outcome'] };

export function sheetOf(asked: Job, experience?: Experience): Sheet {
  const { job } = withoutDoubtful(asked);
  const ledger = ledgerOf(job);
  const registries = [...allOf(job, 'registry')].sort(
    (a, b) => Date.parse(a.seen.at) - Date.parse(b.seen.at),
  );
  const heldIn = (at: 0 | -1, wheel: Position) =>
    registries.at(at)?.seen.entries.find((entry) => entry.wheel === wheel)?.id;
  const reading = (placed: Placed<'gauge'> | undefined) => ({
    kPa: placed?.seen.kPa,
    typed: placed?.seen.typed,
  });
  const now = findingsThatHold(verdictOn(job, experience)).filter(({ code }) => code !== 'sensors-asleep');
  const proof = proofOf(job);
  return {
    wheels: wheelsOf(job).map((wheel) => {
      const scan = ledger.sensor[wheel];
      return {
        wheel,
        placardKPa: placardKPa(job, wheel),
        before: { ...reading(ledger.gaugeHistory[wheel]?.at(0)), id: heldIn(0, wheel) },
        after: { ...reading(ledger.gauge[wheel]), id: heldIn(-1, wheel) },
        heard: scan?.kind === 'heard' ? scan.reply.id : undefined,
      };
    }),
    found: foundOn(job, experience).filter(({ code }) => code !== 'sensors-asleep'),
    now,
    done: [
      ...(job.repairs ?? []).map(({ wheel }): Deed => ({ kind: 'repaired', wheel })),
      ...changesOf(job)
        .filter(isFill)
        .map(({ wheel, fromKPa, toKPa }): Deed => ({ kind: 'filled', wheel, fromKPa, toKPa })),
      ...aims(job),
      ...(job.replacement ? [{ kind: 'chosen' as const, replacement: job.replacement }] : []),
      ...(job.carWrites ?? []).map(deedOf),
      ...wheelsOf(job).flatMap((wheel): Deed[] => {
        const service = serviceOf(job, wheel);
        return service ? [{ kind: 'serviced', service }] : [];
      }),
      ...(job.runs ?? []).flatMap(taughtBy),
      ...allOf(job, 'relearn').flatMap(({ seen: { source, method, outcome } }): Deed[] =>
        source === 'hand' ? [{ kind: 'by-hand', method, outcome }] : [],
      ),
    ],
    turnedOut: repairOutcomesOf(job).filter(({ was }) => was !== 'in-order'),
    doubtful: doubtfulReadings(job),
    proof,
    standing: standingOf(proof, now),
    cautions: cautionsFor(job),
  };
}

function doubtfulReadings(job: Job): string[] {
  const wheels = new Map<string, Position[]>();
  for (const { seen } of allOf(job, 'gauge')) {
    const warning = gaugeWarning(seen);
    if (warning) wheels.set(warning, [...(wheels.get(warning) ?? []), seen.wheel]);
  }
  return [
    ...[...wheels].map(([warning, found]) => `${listWheels(inWalkingOrder(found))}: ${warning}.`),
    ...(hasFactsByFile(job)
      ? ['Some of this came by a file; it was not seen here, and proves nothing here.']
      : []),
  ];
}

/** An axle with another cold pressure than the maker's. */
const aims = (job: Job): Deed[] =>
  [['LF', 'RF'] as const, ['RR', 'LR'] as const, ['SP'] as const].flatMap(([wheel, ...other]): Deed[] => {
    const [kPa, maker] = [placardKPa(job, wheel), makerKPa(job, wheel)];
    return kPa === undefined || maker === undefined || kPa === maker
      ? []
      : [{ kind: 'aimed', wheels: [wheel, ...other], kPa, makerKPa: maker }];
  });

/** What a run came to; one that goes on is no deed yet. */
function taughtBy({ procedure, events }: RunRecord): Deed[] {
  const run = replay(procedure, events);
  if (!hasEnded(run) || !isConfirmed(procedure, run)) return [];
  return [{ kind: 'taught', procedure, end: run.state, minutes: Math.ceil(run.clock / 60) }];
}

function deedOf(write: CarWrite): Deed {
  const verdict = writeVerdict(write);
  if (write.kind === 'sensor') return { kind: 'programmed', write };
  if (write.kind === 'thresholds') return { kind: 'lamp-set', asked: write.asked, verdict };
  if (write.kind === 'clear-codes')
    return { kind: 'cleared', codes: write.before.map(({ code }) => code), verdict };
  const changed = write.asked.filter(({ wheel, id }) => {
    const before = write.before.find((entry) => entry.wheel === wheel)?.id ?? null;
    return id === null || before === null ? id !== before : !sameId(id, before);
  });
  return { kind: 'wrote', wheels: changed.map(({ wheel }) => wheel), verdict };
}
