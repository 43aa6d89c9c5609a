import { agreementAt, wrongKPa } from '../../../../sensor/agreement';
import { allOf, atWheel } from '../../../../job';
import { strongest } from '../../../../job/ledger';
import { groupedId, sameId } from '../../../../names/sensor-id';
import { isAboveWakeSpeed } from '../../../../car/wake-speed';
import { inWalkingOrder, listWheels } from '../../../../names/wheel';
import { clause, orElse, where, type AtWheel, type Clause, type Reason } from './clause';
import { pressuresAt } from './tire';

/** Why something is said of a sensor. */

const noAnswer = ({ job, ledger, wheel }: AtWheel): Clause[] => {
  const scan = ledger.sensor[wheel];
  if (scan?.kind !== 'silent') {
    const last = atWheel(job, 'activation', wheel).at(-1);
    return last?.seen.replies.length === 0 ? [clause(`The last try at ${wheel} had no answer.`, last)] : [];
  }
  const [first, ...others] = [...new Set(scan.tries.map(({ seen }) => seen.trigger))];
  if (first === undefined) return [];
  const words =
    others.length === 0
      ? `${wheel} does not answer the ${first} trigger.`
      : `${wheel} answers neither ${[first, ...others].map((trigger) => `the ${trigger}`).join(' nor ')} trigger.`;
  return [clause(words, ...scan.tries)];
};

/** What the car says of hearing it: codes, empty figures on a drive. */
export const notHeard = ({ ledger, job, wheel }: AtWheel): Clause[] => {
  const code = ledger.codes.find(({ seen }) => seen.about === 'no-signal' && seen.wheel === wheel);
  const driven = atWheel(job, 'live', wheel).findLast(({ seen }) => isAboveWakeSpeed(job, seen.speedKmh));
  return [
    ...where(code, (placed) =>
      clause(`The car has code ${placed.seen.code} for ${wheel}: no signal.`, placed),
    ),
    ...(driven && !driven.seen.kPa
      ? [clause(`The car had nothing from ${wheel} on the drive.`, driven)]
      : []),
  ];
};

const failedThere = ({ ledger: { relearn }, wheel }: AtWheel): Clause[] =>
  relearn?.seen.failedAt === wheel ? [clause(`The relearn failed at ${wheel}.`, relearn)] : [];

const stemSeen = ({ job, wheel }: AtWheel, ...signs: ('stem-rubber' | 'stem-damaged')[]): Clause[] =>
  atWheel(job, 'visual', wheel).flatMap((placed) => {
    const sign = signs.find((one) => one === placed.seen.sign);
    if (!sign) return [];
    return [
      clause(
        sign === 'stem-rubber' ? `${wheel} has a plain rubber stem.` : `The stem at ${wheel} is damaged.`,
        placed,
      ),
    ];
  });

const holdsNone = ({ ledger, wheel }: AtWheel): Clause[] =>
  ledger.registered[wheel] === null ? [clause(`The car holds no ID for ${wheel}.`, ledger.registry)] : [];

/** The lamp's own sign for a sensor that is not heard, where nothing was looked at more closely. */
export const flashing = ({ ledger: { lamp } }: Pick<AtWheel, 'ledger'>): Clause[] =>
  where(lamp, (placed) =>
    placed.seen.state === 'flash-then-steady'
      ? clause('The lamp flashes at ignition on: a sensor is not heard.', placed)
      : placed.seen.state === 'flash-while-driving'
        ? clause('The lamp flashes now and then on the road: check-ins are missed.', placed)
        : undefined,
  );

const ageOf = ({ job, wheel }: AtWheel): Clause[] =>
  where(job.sensors?.find((sensor) => sensor.wheel === wheel)?.ageYears, (years) =>
    years < old
      ? undefined
      : {
          words: `By its record the sensor at ${wheel} is ${Math.round(years)} years old.`,
          on: [],
          told: 'record',
        },
  );
/** Years from which the age of a sensor is worth saying (common practice: five to ten are its life). */
const old = 6;

const heardOf = ({ ledger, wheel }: AtWheel) => {
  const scan = ledger.sensor[wheel];
  return scan?.kind === 'heard' ? { reply: scan.reply, at: scan.at } : undefined;
};

/** Another wheel's sensor was heard here. */
function misheard(at: AtWheel): Clause[] {
  const { job, ledger, wheel } = at;
  const tried = atWheel(job, 'activation', wheel).findLast(({ seen }) => seen.replies.length > 0);
  if (!tried) return [];
  const { replies } = tried.seen;
  const reply = strongest(replies);
  if (!reply)
    return [clause(`${replies.length} sensors answered at ${wheel}, and none clearly nearest.`, tried)];
  const other = allOf(job, 'activation').find(
    ({ seen }) => seen.wheel !== wheel && seen.replies.some(({ id }) => sameId(id, reply.id)),
  );
  if (other)
    return [
      clause(
        `${groupedId(reply.id)} answered at ${listWheels(inWalkingOrder([wheel, other.seen.wheel]))}.`,
        tried,
        other,
      ),
    ];
  const held = ledger.held.find(({ wheel: at, id }) => at !== wheel && id !== null && sameId(id, reply.id));
  if (held)
    return [
      clause(
        `${groupedId(reply.id)} answered at ${wheel}; the car has it at ${held.wheel}.`,
        tried,
        ledger.registry,
      ),
    ];
  const filed = job.sensors?.find((sensor) => sameId(sensor.id, reply.id) && sensor.wheel !== wheel);
  if (filed?.wheel)
    return [
      {
        ...clause(`${groupedId(reply.id)} answered at ${wheel}; it is on record at ${filed.wheel}.`, tried),
        told: 'record',
      },
    ];
  const strength = reply.rssiDbm === undefined ? '' : ` (${Math.round(reply.rssiDbm)} dBm)`;
  const gauge = ledger.gauge[wheel];
  return reply.kPa != null && gauge && Math.abs(reply.kPa - gauge.seen.kPa) > wrongKPa
    ? [
        clause(
          `What answered at ${wheel}${strength} says ${at.kPa(reply.kPa)} where the gauge says ${at.kPa(gauge.seen.kPa)}.`,
          tried,
          gauge,
        ),
      ]
    : [clause(`What answered at ${wheel}${strength} may be another wheel’s.`, tried)];
}

/** Where something answered at a wheel whose own sensor did not. */
const heardAnother = (at: AtWheel): Clause[] => (noAnswer(at).length > 0 ? [] : misheard(at));

export const sensorReasons = {
  'sensor-silent': {
    at: (at) =>
      orElse(
        [
          ...noAnswer(at),
          ...heardAnother(at),
          ...notHeard(at),
          ...failedThere(at),
          ...stemSeen(at, 'stem-damaged'),
        ],
        () => orElse(flashing(at), () => ageOf(at)),
      ),
  },
  'sensor-absent': {
    at: (at) =>
      orElse(
        [
          ...noAnswer(at),
          ...stemSeen(at, 'stem-rubber'),
          ...notHeard(at),
          ...holdsNone(at),
          ...heardAnother(at),
        ],
        () => flashing(at),
      ),
  },
  'sensor-battery-low': {
    at: (at) => {
      const heard = heardOf(at);
      const live = at.ledger.live[at.wheel];
      const code = at.ledger.codes.find(
        ({ seen }) => seen.about === 'low-battery' && seen.wheel === at.wheel,
      );
      return orElse(
        [
          ...(heard?.reply.battery === 'low'
            ? [clause(`The sensor at ${at.wheel} says that its battery is low.`, heard.at)]
            : []),
          ...(live?.seen.battery === 'low'
            ? [clause(`The car has the battery at ${at.wheel} as low.`, live)]
            : []),
          ...where(code, (placed) =>
            clause(`The car has code ${placed.seen.code} for ${at.wheel}: battery low.`, placed),
          ),
        ],
        () => [
          ...where(heard?.reply.rssiDbm, (dbm) =>
            clause(`${at.wheel} answers at ${Math.round(dbm)} dBm.`, heard?.at),
          ),
          ...noAnswer(at),
          ...ageOf(at),
        ],
      );
    },
  },
  'sensor-inaccurate': {
    at: (at) => {
      const { ledger, wheel, kPa } = at;
      const heard = heardOf(at);
      const there = agreementAt(at.job, wheel, ledger)?.readings.at(-1) ?? ledger.gauge[wheel];
      const differs = (kPa: number | null | undefined) =>
        kPa != null && there !== undefined && Math.abs(kPa - there.seen.kPa) > wrongKPa;
      if (heard?.reply.kPa != null && there && differs(heard.reply.kPa))
        return [
          clause(
            `The sensor at ${wheel} says ${kPa(heard.reply.kPa)} where the gauge says ${kPa(there.seen.kPa)}.`,
            heard.at,
            there,
          ),
        ];
      const shown = ledger.live[wheel]?.seen.kPa ? ledger.live[wheel] : ledger.display[wheel];
      if (shown?.seen.kPa && there && differs(shown.seen.kPa))
        return [
          clause(
            `The car shows ${kPa(shown.seen.kPa)} for ${wheel} where the gauge says ${kPa(there.seen.kPa)}.`,
            shown,
            there,
          ),
        ];
      return where(pressuresAt(at)[0], (told) =>
        clause(`${told.words}, and what else was seen speaks otherwise.`, told.seen, ledger.lamp),
      );
    },
  },
  'sensor-wrong-type': {
    at: (at) => {
      const { frequencyMHz, family } = at.job.vehicle.tpms;
      const heard = heardOf(at);
      const kind = (of: { family?: string | undefined; frequencyMHz?: number | undefined }) =>
        [of.family, of.frequencyMHz && `${of.frequencyMHz} MHz`].filter(Boolean).join(' at ');
      return heard && kind(heard.reply)
        ? [
            clause(
              `${at.wheel} sends ${kind(heard.reply)}; the car hears ${kind({ family, frequencyMHz })}.`,
              heard.at,
            ),
          ]
        : orElse([...noAnswer(at), ...notHeard(at)], () => flashing(at));
    },
  },
  'sensor-intermittent': {
    at: (at) => {
      const heard = heardOf(at);
      const ofRecord = at.job.sensors?.find((sensor) => sensor.wheel === at.wheel)?.id;
      // Whose counts they are is known by what answered, else by what the car holds there, else by the record.
      const its = heard?.reply.id ?? at.ledger.registered[at.wheel] ?? ofRecord;
      const counts = allOf(at.job, 'reception').filter(({ seen }) =>
        its === undefined ? false : sameId(its, seen.id),
      );
      return orElse(
        counts.slice(-1).map((placed): Clause => {
          const { received, expected } = placed.seen;
          const words = `${at.wheel} got through ${Math.min(received, expected)} of ${expected} times.`;
          const known = heard?.at ?? at.ledger.registry;
          return known ? clause(words, placed, known) : { ...clause(words, placed), told: 'record' };
        }),
        () => orElse([...notHeard(at)], () => flashing(at)),
      );
    },
  },
  'cross-read': { at: misheard },
  'sensors-asleep': {
    at: ({ ledger: { live }, wheel }) =>
      where(live[wheel], (placed) =>
        clause(`The car had nothing from ${wheel} while it stood; no drive is noted since.`, placed),
      ),
  },
} as const satisfies Record<string, Reason>;

/** The wheels whose sensor answered, with the tries it shows in. */
export const answering = ({ job, ledger }: Pick<AtWheel, 'job' | 'ledger'>) => {
  const wheels = (job.vehicle.tpms.positions ?? []).filter((wheel) => ledger.sensor[wheel]?.kind === 'heard');
  return { words: listWheels(wheels), wheels, seen: wheels.map((wheel) => ledger.sensor[wheel]?.at) };
};
