import { wrongKPa } from '../../../../sensor/agreement';
import { atWheel } from '../../../../job';
import { doneWords } from '../../../../job/words';
import { describeSlip, groupedId, sameId, slipBetween } from '../../../../names/sensor-id';
import { isAboveWakeSpeed } from '../../../../car/wake-speed';
import { listWheels, walkingOrder, type Position } from '../../../../names/wheel';
import { clause, where, type AtWheel, type Clause, type Known, type Reason } from './clause';
import { flashing, notHeard } from './sensor';

/** Why something is said of the IDs the car holds, and of where it has them. */

const heardId = ({ ledger, wheel }: AtWheel) => {
  const scan = ledger.sensor[wheel];
  return scan?.kind === 'heard' ? { id: scan.reply.id, at: scan.at } : undefined;
};

const afterWork = ({ job }: Known): Clause[] => {
  const done = doneWords(job);
  return done ? [{ words: `Done lately: ${done}.`, on: [], told: 'service' }] : [];
};

export const idReasons = {
  'id-not-registered': {
    at: (at) => {
      const { ledger, wheel } = at;
      const heard = heardId(at);
      const held = ledger.registered[wheel];
      if (!heard || !ledger.registry)
        return [
          ...notHeard(at),
          ...(notHeard(at).length === 0 ? flashing(at) : []),
          ...afterWork(at),
          ...notHeldAgainst(wheel, heard),
        ];
      if (at.job.vehicle.tpms.locates === false)
        return [
          clause(
            `${wheel} answers ${groupedId(heard.id)}; the car does not know that ID.`,
            heard.at,
            ledger.registry,
          ),
        ];
      const elsewhere = ledger.held.filter(({ id }) => id !== null && sameId(id, heard.id));
      const there =
        held === undefined
          ? 'what the car holds for it was not read'
          : `the car holds ${held === null ? 'none' : groupedId(held)} for it`;
      const nowhere =
        elsewhere.length > 0
          ? `, and that ID at ${listWheels(elsewhere.map(({ wheel: position }) => position))}`
          : held === undefined
            ? ''
            : ', and does not know that ID';
      return [
        clause(`${wheel} answers ${groupedId(heard.id)}; ${there}${nowhere}.`, heard.at, ledger.registry),
      ];
    },
  },
  'id-mistyped': {
    at: (at) => {
      const { ledger, wheel } = at;
      const heard = heardId(at);
      if (!heard) return [];
      const written =
        ledger.held.find(({ id }) => id !== null && slipBetween(heard.id, id))?.id ??
        ledger.registered[wheel];
      const slip = written != null ? slipBetween(heard.id, written) : undefined;
      return written != null && slip
        ? [
            clause(
              `${wheel} answers ${groupedId(heard.id)}, the car holds ${groupedId(written)}: ${describeSlip(slip, heard.id, written)}.`,
              heard.at,
              ledger.registry,
            ),
          ]
        : [clause(`${wheel} answers ${groupedId(heard.id)}; what the car holds is not known.`, heard.at)];
    },
  },
  'id-duplicate': {
    at: (at) => {
      const { ledger, job, wheel } = at;
      const held = ledger.registered[wheel];
      const same = ledger.held.filter(({ id }) => id !== null && held != null && sameId(id, held));
      if (held != null && same.length > 1)
        return [
          clause(
            `The car holds ${groupedId(held)} at ${listWheels(same.map(({ wheel: position }) => position))}.`,
            ledger.registry,
          ),
        ];
      const heard = heardId(at);
      if (!heard) return [];
      const others = job.observations.flatMap((seen, index) =>
        seen.kind === 'activation' &&
        seen.wheel !== wheel &&
        seen.replies.some(({ id }) => sameId(id, heard.id))
          ? [{ index, seen }]
          : [],
      );
      return [
        clause(
          `${groupedId(heard.id)} answered at ${listWheels([wheel, ...new Set(others.map(({ seen }) => seen.wheel))])}.`,
          heard.at,
          ...others,
        ),
      ];
    },
  },
  'positions-swapped': {
    at: (at) => {
      const { ledger, positions, wheel, kPa, job } = at;
      const there = positions?.[wheel];
      const shown = ledger.display[wheel]?.seen.kPa ? ledger.display[wheel] : ledger.live[wheel];
      const gauge = ledger.gauge[wheel];
      const real = there && ledger.gauge[there];
      const held = ledger.registered[wheel];
      const heard = there && ledger.sensor[there];
      const exchanged = exchangedWith(at, there);
      if (exchanged) return exchanged;
      if (held != null && heard?.kind === 'heard' && sameId(heard.reply.id, held))
        return [
          clause(
            `The car has ${groupedId(held)} at ${wheel}; it answers at ${there}.`,
            ledger.registry,
            heard.at,
          ),
        ];
      if (shown?.seen.kPa && gauge && real && isRather(shown.seen.kPa, real.seen.kPa, gauge.seen.kPa)) {
        const from = shown.seen.kind === 'display' ? 'the display' : 'the car';
        return [
          clause(
            `The gauge says ${kPa(gauge.seen.kPa)} at ${wheel} where ${from} shows ${kPa(shown.seen.kPa)}, and ${there} really has ${kPa(real.seen.kPa)}.`,
            gauge,
            shown,
            real,
          ),
        ];
      }
      const filed = held == null ? undefined : job.sensors?.find((sensor) => sameId(sensor.id, held));
      if (held != null && filed?.wheel && filed.wheel !== wheel)
        return [
          {
            ...clause(
              `The car has ${groupedId(held)} at ${wheel}; it is on record at ${filed.wheel}.`,
              ledger.registry,
            ),
            told: 'record',
          },
        ];
      const figures = shownElsewhere(at);
      return figures.length > 0 ? figures : [...ownFigure(at), ...afterWork(at), ...flashing(at)];
    },
  },
  'other-set-registered': {
    ofCar: ({ job, ledger }) => {
      const answered = (job.vehicle.tpms.positions ?? []).flatMap((wheel) => {
        const scan = ledger.sensor[wheel];
        return scan?.kind === 'heard' ? [scan] : [];
      });
      const set = job.otherSets?.find(({ ids }) =>
        ledger.held.some(({ id }) => id !== null && ids.some((one) => sameId(one, id))),
      );
      const unheard = (job.vehicle.tpms.positions ?? []).flatMap((wheel) => {
        const live = atWheel(job, 'live', wheel).findLast(({ seen }) => isAboveWakeSpeed(job, seen.speedKmh));
        return live && !live.seen.kPa ? [live] : [];
      });
      return [
        ...where(ledger.registry, (registry) =>
          clause(
            set
              ? `The car holds the IDs of a set on file: ${set.label}.`
              : 'The car holds the IDs of a set on file.',
            registry,
          ),
        ),
        ...(answered.length > 0
          ? [clause('None of the sensors that answered is among them.', ...answered.map(({ at }) => at))]
          : []),
        ...(unheard.length > 0 ? [clause('It heard none of them on the drive.', ...unheard)] : []),
      ];
    },
  },
} as const satisfies Record<string, Reason>;

/** Two wheels that have each other's ID are told once, at the first of them; undefined where these two are not so. */
function exchangedWith({ ledger, wheel }: AtWheel, there: Position | undefined): Clause[] | undefined {
  const [here, other] = [ledger.sensor[wheel], there && ledger.sensor[there]];
  const [held, heldThere] = [ledger.registered[wheel], there && ledger.registered[there]];
  if (!there || held == null || heldThere == null) return undefined;
  if (here?.kind !== 'heard' || other?.kind !== 'heard') return undefined;
  if (!sameId(here.reply.id, heldThere) || !sameId(other.reply.id, held)) return undefined;
  return walkingOrder.indexOf(there) < walkingOrder.indexOf(wheel)
    ? []
    : [
        clause(
          `The car has ${groupedId(held)} at ${wheel} and ${groupedId(heldThere)} at ${there}; they answer the other way round.`,
          ledger.registry,
          here.at,
          other.at,
        ),
      ];
}

/** What is shown is what the other wheel has, and not what this one has, kPa. */
const isRather = (shown: number, there: number, here: number): boolean =>
  Math.abs(shown - here) > wrongKPa && Math.abs(shown - there) < Math.abs(shown - here) / 2;

/** Another position shows what this wheel has, and not what is there. */
function shownElsewhere({ ledger, wheel, kPa, job }: AtWheel): Clause[] {
  const own = ledger.gauge[wheel];
  if (!own) return [];
  for (const position of job.vehicle.tpms.positions ?? []) {
    const shown = ledger.display[position]?.seen.kPa ? ledger.display[position] : ledger.live[position];
    const there = ledger.gauge[position];
    if (position === wheel || !shown?.seen.kPa || !there) continue;
    const isLikeOwn = Math.abs(shown.seen.kPa - own.seen.kPa) <= wrongKPa;
    if (isLikeOwn && Math.abs(shown.seen.kPa - there.seen.kPa) > wrongKPa)
      return [
        clause(
          `${position} is shown with ${kPa(shown.seen.kPa)} where its gauge says ${kPa(there.seen.kPa)}; ${wheel} has ${kPa(own.seen.kPa)}.`,
          shown,
          there,
          own,
        ),
      ];
  }
  return [];
}

/** What is shown of it is not what it has. */
function ownFigure({ ledger, wheel, kPa }: AtWheel): Clause[] {
  const shown = ledger.display[wheel]?.seen.kPa ? ledger.display[wheel] : ledger.live[wheel];
  const gauge = ledger.gauge[wheel];
  return shown?.seen.kPa && gauge && Math.abs(shown.seen.kPa - gauge.seen.kPa) > wrongKPa
    ? [
        clause(
          `${wheel} is shown with ${kPa(shown.seen.kPa)} where its gauge says ${kPa(gauge.seen.kPa)}.`,
          shown,
          gauge,
        ),
      ]
    : [];
}

const notHeldAgainst = (wheel: string, heard: ReturnType<typeof heardId>): Clause[] =>
  heard
    ? [clause(`${wheel} answers ${groupedId(heard.id)}; what the car holds is not known.`, heard.at)]
    : [];
