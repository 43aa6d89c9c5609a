import { damageAt } from '../../../../tire/damage';
import { readingThatCounts, tireCelsius } from '../../../../tire/gauge';
import { allOf, altitudeOf, atWheel, trustedAt } from '../../../../job';
import { signWords } from '../../../../job/words';
import { thresholdsFor } from '../../../../car/lamp';
import { linesAt } from '../../../../tire/thresholds/lines';
import { strongest } from '../../../../job/ledger';
import { lossOf } from '../../../../tire/leak';
import { monitoredWheels, placardKPa, placardToleranceKPa } from '../../../../job/placard';
import { roadKPa } from '../../../../job/spare';
import { atTemperature } from '../../../../measure/pressure';
import {
  clause,
  orElse,
  where,
  type AtWheel,
  type Cited,
  type Clause,
  type Known,
  type Reason,
} from './clause';
import { daysBetween } from '../../../../measure/calendar/spans';

/** Why something is said of a tire. */

/** What one source says of a tire's pressure: "RF has 238 warm, 217 at the outdoor temperature". */
interface Told {
  words: string;
  readKPa: number;
  /** At the outdoor temperature; undefined of a warm tire of which nobody knows how warm. */
  kPa: number | undefined;
  seen: Cited;
}

/** What its pressure is, the best source first: the gauge, the tool, what the car has, the display. */
export function pressuresAt(at: AtWheel): Told[] {
  const { job, ledger, wheel } = at;
  const gauge = readingThatCounts(atWheel(job, 'gauge', wheel));
  const told = (
    say: (figure: string) => string,
    readKPa: number | null | undefined,
    tempC: number | null | undefined,
    seen: Cited | undefined,
    isWarm = false,
  ): Told[] => {
    if (!readKPa || !seen) return [];
    const outdoor = outdoorOf(at, readKPa, tempC ?? undefined);
    const kPa = outdoor ?? (isWarm ? undefined : readKPa);
    return [{ words: say(warmAndCold(at, readKPa, outdoor, isWarm)), readKPa, kPa, seen }];
  };
  // Also where it has fallen silent since.
  const heard = atWheel(job, 'activation', wheel).findLast(({ seen }) => seen.replies.length > 0);
  const reply = heard && strongest(heard.seen.replies);
  const live = ledger.live[wheel];
  const display = ledger.display[wheel];
  return [
    ...told(
      (figure) => `${wheel} has ${figure}${gauge?.seen.trusted === false ? ' by a gauge nobody trusts' : ''}`,
      gauge?.seen.kPa,
      gauge && tireCelsius(job, gauge.seen),
      gauge,
      gauge?.seen.tire === 'warm',
    ),
    ...told((figure) => `The sensor says ${figure} for ${wheel}`, reply?.kPa, reply?.tempC, heard),
    ...told((figure) => `The car has ${figure} for ${wheel}`, live?.seen.kPa, live?.seen.tempC, live),
    ...told((figure) => `The display shows ${figure} for ${wheel}`, display?.seen.kPa, undefined, display),
  ];
}

function outdoorOf({ job }: Known, read: number, tireC: number | undefined): number | undefined {
  const nowC = job.climate?.nowC;
  return nowC === undefined || tireC === undefined
    ? undefined
    : atTemperature({ kPa: read, celsius: tireC, altitudeM: altitudeOf(job) }, nowC);
}

/** A figure, and what it is at the outdoor temperature where the tire is warmer or colder by more than a step of a gauge. */
function warmAndCold({ kPa }: Known, read: number, outdoor: number | undefined, isWarm: boolean): string {
  if (outdoor === undefined) return isWarm ? `${kPa(read)} warm` : kPa(read);
  if (Math.abs(outdoor - read) < leastShownKPa) return kPa(read);
  return `${kPa(read)} ${outdoor < read ? 'warm' : 'chilled'}, ${kPa(outdoor)} at the outdoor temperature`;
}

/** Less than this, kPa, a gauge does not show. */
const leastShownKPa = 1.5;

/** A figure that a tire's pressure is held against: in words, and whether a pressure lies beyond it. */
interface Limit {
  /** "the lamp lights at 175". */
  words: string;
  isBeyond: (kPa: number) => boolean;
}

/**
 * The figure that decided against the one it is held against: the best source that lies beyond it. Where none does, what
 * else speaks for it; a figure is never held against another as if it said so.
 */
const heldAgainst = (limitOf: (at: AtWheel) => Limit | undefined): Reason => ({
  at: (at) => {
    const told = pressuresAt(at);
    const limit = limitOf(at);
    if (!limit)
      return orElse(
        where(told[0], ({ words, seen }) => clause(`${words}.`, seen)),
        () => inferred(at),
      );
    const beyond = told.find(({ kPa }) => kPa !== undefined && limit.isBeyond(kPa));
    if (beyond) return [clause(`${beyond.words} where ${limit.words}.`, beyond.seen)];
    const warm = told.find(({ kPa }) => kPa === undefined);
    if (warm) return [clause(`${warm.words}, and how warm was not measured; ${limit.words}.`, warm.seen)];
    return orElse(inferred(at), () =>
      where(told[0], ({ words, seen }) => clause(`${words}; ${limit.words}.`, seen)),
    );
  },
});

const lightsAt = (at: AtWheel): Limit | undefined => {
  const { lowOnKPa } = thresholdsFor(at.job, at.wheel);
  const isWatched = at.job.vehicle.tpms.kind === 'indirect' || monitoredWheels(at.job).includes(at.wheel);
  if (lowOnKPa === undefined || !isWatched) return placardAsks('under')(at);
  const { low } = linesAt(at.job, at.wheel);
  return { words: `the lamp lights at ${at.kPa(lowOnKPa)}`, isBeyond: (kPa) => kPa <= low };
};

const placardAsks =
  (side: 'under' | 'over') =>
  ({ job, wheel, kPa }: AtWheel): Limit | undefined => {
    const placard = placardKPa(job, wheel);
    if (placard === undefined) return undefined;
    const most = placardToleranceKPa / 2;
    return {
      words: `the placard asks for ${kPa(placard)}`,
      isBeyond: (read) => (side === 'under' ? read < placard - most : read > placard + most),
    };
  };

/** What speaks of a tire that nobody gauged and no sensor told of. */
function inferred(at: AtWheel): Clause[] {
  const { ledger, job, wheel } = at;
  const flat = atWheel(job, 'visual', wheel).findLast(({ seen }) => seen.sign === 'flat');
  if (flat) return [clause(`${wheel} looks flat, and was not gauged since.`, flat)];
  const code = ledger.codes.find(
    ({ seen }) => seen.about === 'low-pressure' && (seen.wheel ?? wheel) === wheel,
  );
  if (code) return [clause(`The car has code ${code.seen.code}: low pressure.`, code)];
  // A tire that is down turns faster, never slower.
  if ((atWheel(job, 'wheelspeed', wheel).at(-1)?.seen.ratio ?? 1) > 1) return turnsClause(at);
  const gauged = allOf(job, 'gauge');
  const isGauged = gauged.some(({ seen }) => seen.wheel === wheel);
  return where(ledger.lamp, (lamp) =>
    lamp.seen.state === 'steady'
      ? clause(
          isGauged
            ? 'The lamp is on.'
            : gauged.length > 0
              ? `The lamp is on, and ${wheel} is not gauged yet.`
              : 'The lamp is on, and no tire is gauged yet.',
          lamp,
        )
      : undefined,
  );
}

function turnsClause({ job, wheel }: AtWheel): Clause[] {
  const own = atWheel(job, 'wheelspeed', wheel).at(-1);
  return where(own, (seen) => {
    const off = (seen.seen.ratio - 1) * 100;
    const by = `${Math.abs(off).toFixed(2)} % ${off > 0 ? 'faster' : 'slower'} than`;
    return clause(`${wheel} turns ${off === 0 ? 'as fast as' : by} the mean of all.`, seen);
  });
}

const leaking: Reason = {
  at: (at) => {
    const said = [...lostByGauge(at), ...lostBySensor(at), ...signsAt(at), ...foundLow(at)];
    if (said.length === 0) said.push(...lostBetween(at));
    return said.length > 0 ? said : lowAlone(at);
  },
};

function lostByGauge({ job, wheel, kPa }: AtWheel): Clause[] {
  const { levels } = lossOf(job, wheel);
  const [first, last] = [levels[0], levels.at(-1)];
  if (!first || !last || first === last || first.kPa - last.kPa < leastShownKPa) return [];
  const here = allOf(job, 'gauge').filter(({ seen }) => levels.some(({ reading }) => reading === seen));
  if (here.length === 0) return [];
  return [
    clause(
      `${wheel} went from ${kPa(first.kPa)} to ${kPa(last.kPa)} in ${spanOf(last.days - first.days)}, at one temperature.`,
      ...here,
    ),
  ];
}

function lostBySensor({ job, wheel, kPa, evidence }: AtWheel): Clause[] {
  const course = evidence.wheels.find((one) => one.wheel === wheel)?.course ?? [];
  const [first, last] = [course[0], course.at(-1)];
  if (!first || !last || first === last || first.kPa - last.kPa < 3 * leastShownKPa) return [];
  const said = [...allOf(job, 'activation'), ...allOf(job, 'live')].filter(({ seen }) =>
    course.some(({ ms }) => ms === Date.parse(seen.at)),
  );
  const days = daysBetween(first.ms, last.ms);
  return [
    clause(
      `The sensor at ${wheel} went from ${kPa(first.kPa)} to ${kPa(last.kPa)} in ${spanOf(days)}.`,
      ...said,
    ),
  ];
}

/** What the gauge read, and what its sensor says of it at a later time. */
const lostBetween = ({ job, wheel, kPa }: AtWheel): Clause[] => {
  const gauge = trustedAt(job, wheel).at(-1);
  const heard = atWheel(job, 'activation', wheel).findLast(({ seen }) => seen.replies.length > 0);
  const reply = heard && strongest(heard.seen.replies);
  if (!gauge || !heard || reply?.kPa == null) return [];
  const days = daysBetween(gauge.seen.at, heard.seen.at);
  return days <= 0 || gauge.seen.kPa - reply.kPa < 3 * leastShownKPa
    ? []
    : [
        clause(
          `${wheel} was gauged at ${kPa(gauge.seen.kPa)}, and ${spanOf(days)} later its sensor says ${kPa(reply.kPa)}.`,
          gauge,
          heard,
        ),
      ];
};

/** "9 minutes", "3 hours, "1 day". */
function spanOf(days: number): string {
  const minutes = days * 1440;
  const [count, unit] =
    minutes < 90 ? [minutes, 'minute'] : days < 2 ? [minutes / 60, 'hour'] : [days, 'day'];
  const whole = Math.max(1, Math.round(count));
  return `${whole} ${unit}${whole === 1 ? '' : 's'}`;
}

const signsAt = ({ job, wheel }: AtWheel): Clause[] =>
  atWheel(job, 'visual', wheel).flatMap((placed) =>
    ['flat', 'object', 'sidewall', 'stem-damaged'].includes(placed.seen.sign)
      ? [clause(`Seen at ${wheel}: ${signWords[placed.seen.sign]}.`, placed)]
      : [],
  );

const foundLow = ({ job, wheel, kPa }: AtWheel): Clause[] =>
  where(damageAt(job, wheel).found, (found) =>
    clause(
      `${wheel} was found at ${kPa(found.kPa)}, ${found.nearFlat ? 'nearly flat' : 'lower than the others'}; filling it does not say that it holds.`,
      found.placed,
    ),
  );

/** Low by itself: one reading does not tell a leak, it only makes it likelier. */
function lowAlone(at: AtWheel): Clause[] {
  const [there] = pressuresAt(at);
  const placard = placardKPa(at.job, at.wheel);
  if (!there) return inferred(at);
  return placard !== undefined && there.readKPa < placard
    ? [clause(`${there.words}; one reading does not tell since when.`, there.seen)]
    : [];
}

export const tireReasons = {
  'tire-low': heldAgainst(lightsAt),
  'tire-underinflated': heldAgainst(placardAsks('under')),
  'tire-overinflated': heldAgainst(placardAsks('over')),
  'tire-hot': {
    at: ({ ledger, wheel, celsius }) => {
      const scan = ledger.sensor[wheel];
      const byTool = scan?.kind === 'heard' ? scan.reply.tempC : undefined;
      const live = ledger.live[wheel];
      return [
        ...where(byTool, (said) => clause(`The sensor at ${wheel} says ${celsius(said)}.`, scan?.at)),
        ...where(live?.seen.tempC, (said) => clause(`The car has ${celsius(said)} for ${wheel}.`, live)),
      ];
    },
  },
  'tire-leaking': leaking,
  'spare-in-use': {
    at: ({ job, wheel, kPa }) => [
      ...atWheel(job, 'visual', wheel).flatMap((placed) =>
        placed.seen.sign === 'odd-size' ? [clause(`${wheel} is of another size.`, placed)] : [],
      ),
      ...where(readingThatCounts(atWheel(job, 'gauge', wheel)), (gauge) =>
        clause(
          `${wheel} has ${kPa(gauge.seen.kPa)}; a road tire there is kept at ${kPa(roadKPa(job, wheel))}.`,
          gauge,
        ),
      ),
    ],
  },
  'temperature-drop': {
    ofCar: ({ job, celsius, ledger }) => {
      const { nowC, lastFillC } = job.climate ?? {};
      const gauged = Object.values(ledger.gauge);
      return nowC === undefined || lastFillC === undefined
        ? []
        : [
            {
              ...clause(
                `Filled at ${celsius(lastFillC)}, now ${celsius(nowC)}: ${gauged.length > 1 ? 'all are down by about the share that takes' : 'that takes a share of every tire’s pressure'}.`,
                ...gauged,
              ),
              told: 'climate',
            },
          ];
    },
  },
  'lamp-latched': {
    at: (at) => {
      const { lowOnKPa, lowOffKPa } = thresholdsFor(at.job, at.wheel);
      if (lowOnKPa === undefined || lowOffKPa === undefined) return inferred(at);
      const { low, off } = linesAt(at.job, at.wheel);
      const there = pressuresAt(at).find(({ kPa }) => kPa !== undefined && kPa > low && kPa <= off);
      if (!there) return inferred(at);
      const on = `${there.words}: above ${at.kPa(lowOnKPa)}, where the lamp lights, and short of ${at.kPa(lowOffKPa)}, where it goes out.`;
      return [clause(on, there.seen, at.ledger.lamp)];
    },
  },
  'rolling-radius-off': {
    at: (at) => [
      ...turnsClause(at),
      ...atWheel(at.job, 'visual', at.wheel).flatMap((placed) =>
        placed.seen.sign === 'odd-size'
          ? [clause(`Seen at ${at.wheel}: ${signWords['odd-size']}.`, placed)]
          : [],
      ),
      ...where(at.ledger.lamp, (lamp) =>
        lamp.seen.state === 'off'
          ? undefined
          : clause('The lamp is on; a tire of another radius can light it.', lamp),
      ),
    ],
  },
} as const satisfies Record<string, Reason>;
