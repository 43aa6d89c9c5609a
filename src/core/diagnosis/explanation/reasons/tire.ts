import { damageAt } from '../../../damage';
import { tireCelsius } from '../../../gauge';
import { allOf, altitudeOf, atWheel } from '../../../job';
import { signWords } from '../../../job/words';
import { thresholdsFor } from '../../../lamp';
import { strongest } from '../../../ledger';
import { lossOf } from '../../../leak';
import { monitoredWheels, placardKPa } from '../../../placard';
import { roadKPa } from '../../../spare';
import { atTemperature } from '../../../pressure';
import { readingThatCounts } from '../../evidence';
import { clause, where, type AtWheel, type Cited, type Clause, type Known, type Reason } from './clause';

/** Why something is said of a tire. */

/** What its pressure is, by the best source there is: "RF has 238 warm, 217 at the outdoor temperature". */
export function pressureAt(at: AtWheel): { words: string; readKPa: number; seen: Cited } | undefined {
  const { job, ledger, wheel } = at;
  const gauge = readingThatCounts(atWheel(job, 'gauge', wheel));
  if (gauge) {
    const readKPa = gauge.seen.kPa;
    const by = gauge.seen.trusted === false ? ' by a gauge nobody trusts' : '';
    const figure = warmAndCold(at, readKPa, tireCelsius(job, gauge.seen));
    return { words: `${wheel} has ${figure}${by}`, readKPa, seen: gauge };
  }
  const told = (
    who: string,
    readKPa: number | null | undefined,
    tempC: number | null | undefined,
    seen: Cited,
  ) =>
    readKPa
      ? { words: `${who} ${warmAndCold(at, readKPa, tempC ?? undefined)} for ${wheel}`, readKPa, seen }
      : undefined;
  // Also where it has fallen silent since.
  const heard = atWheel(job, 'activation', wheel).findLast(({ seen }) => seen.replies.length > 0);
  const reply = heard && strongest(heard.seen.replies);
  const live = ledger.live[wheel];
  const display = ledger.display[wheel];
  return (
    (heard && told('The sensor says', reply?.kPa, reply?.tempC, heard)) ??
    (live && told('The car has', live.seen.kPa, live.seen.tempC, live)) ??
    (display && told('The display shows', display.seen.kPa, undefined, display))
  );
}

/** A figure, and what it is at the outdoor temperature where the tire is warmer or colder by more than a step of a gauge. */
function warmAndCold({ job, kPa }: Known, read: number, tireC: number | undefined): string {
  const nowC = job.climate?.nowC;
  if (nowC === undefined || tireC === undefined) return kPa(read);
  const cold = atTemperature({ kPa: read, celsius: tireC, altitudeM: altitudeOf(job) }, nowC);
  if (Math.abs(cold - read) < leastShownKPa) return kPa(read);
  return `${kPa(read)} ${cold < read ? 'warm' : 'chilled'}, ${kPa(cold)} at the outdoor temperature`;
}

/** Less than this, kPa, a gauge does not show. */
const leastShownKPa = 1.5;

/** Its pressure against a figure it is held against; what else speaks for it where nobody measured it. */
const heldAgainst = (limit: (at: AtWheel) => string | undefined): Reason => ({
  at: (at) => {
    const there = pressureAt(at);
    const against = limit(at);
    if (there) return [clause(`${there.words}${against ? ` ${against}` : ''}.`, there.seen)];
    return inferred(at);
  },
});

const lightsAt = (at: AtWheel): string | undefined => {
  const { lowOnKPa } = thresholdsFor(at.job, at.wheel);
  const isWatched = at.job.vehicle.tpms.kind === 'indirect' || monitoredWheels(at.job).includes(at.wheel);
  return lowOnKPa !== undefined && isWatched ? `where the lamp lights at ${at.kPa(lowOnKPa)}` : asksFor(at);
};

function asksFor({ job, wheel, kPa }: AtWheel): string | undefined {
  const placard = placardKPa(job, wheel);
  return placard === undefined ? undefined : `where the placard asks for ${kPa(placard)}`;
}

/** What speaks of a tire that nobody gauged and no sensor told of. */
function inferred(at: AtWheel): Clause[] {
  const { ledger, job, wheel } = at;
  const flat = atWheel(job, 'visual', wheel).findLast(({ seen }) => seen.sign === 'flat');
  if (flat) return [clause(`${wheel} looks flat, and was not gauged since.`, flat)];
  const code = ledger.codes.find(
    ({ seen }) => seen.about === 'low-pressure' && (seen.wheel ?? wheel) === wheel,
  );
  if (code) return [clause(`The car has code ${code.seen.code}: low pressure.`, code)];
  const turns = turnsClause(at);
  if (turns.length > 0) return turns;
  const others = allOf(job, 'gauge');
  return where(ledger.lamp, (lamp) =>
    lamp.seen.state === 'steady'
      ? clause(
          others.length > 0
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
  const days = (last.ms - first.ms) / 86_400_000;
  return [
    clause(
      `The sensor at ${wheel} went from ${kPa(first.kPa)} to ${kPa(last.kPa)} in ${spanOf(days)}.`,
      ...said,
    ),
  ];
}

/** "9 minutes", "3 hours", "1 day". */
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
  const there = pressureAt(at);
  const placard = placardKPa(at.job, at.wheel);
  if (!there) return inferred(at);
  return placard !== undefined && there.readKPa < placard
    ? [clause(`${there.words}; one reading does not tell since when.`, there.seen)]
    : [];
}

export const tireReasons = {
  'tire-low': heldAgainst(lightsAt),
  'tire-underinflated': heldAgainst(asksFor),
  'tire-overinflated': heldAgainst(asksFor),
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
      const there = pressureAt(at);
      if (!there || lowOnKPa === undefined || lowOffKPa === undefined) return inferred(at);
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
