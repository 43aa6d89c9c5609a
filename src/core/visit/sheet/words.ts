import { partName } from '../../job/repair-outcome';
import { unexplainedDamage } from '../../tire/damage';
import { recordOf, blamesNothing, titleOf } from '../../catalogue/finding';
import type { Assessment } from '../../judgement/assessment';
import { sureness } from '../../judgement/assessment/words';
import { isFill, changesOf, ofKind } from '../../job/history';
import type { Job } from '../../job';
import { putOffWords } from '../put-off/words';
import { methodWords } from '../../relearn/procedure/words';
import { stateWords } from '../../relearn/run/words';
import { replacementWords } from '../replacement/words';
import { modeWords, programmingWords } from '../../sensor/programming/words';
import { serviceWords } from '../../sensor/service';
import { spokenDay } from '../../measure/calendar';
import { format, formatDifference, pressure, type Notation } from '../../measure/units';
import type { WriteVerdict } from '../../job/car-write';
import { inWalkingOrder, listWheels, type Position } from '../../names/wheel';
import type { Deed, Sheet } from '.';
import { daysAfter } from '../../measure/calendar/spans';

/** The sheet in words: the same on the page and on paper. */

const writeWords: Record<WriteVerdict, string> = {
  worked: 'read back and right',
  failed: 'read back and wrong',
  refused: 'refused by the car',
  unknown: 'not read back',
};

/** What was done, one sentence each. */
export function deedWords(done: Deed, units: Notation): string {
  const kPa = (value: number) => format(pressure, value, units);
  switch (done.kind) {
    case 'filled':
      return `${done.wheel} filled from ${kPa(done.fromKPa)} to ${kPa(done.toKPa)}.`;
    case 'repaired':
      return `Leak mended at ${done.wheel}.`;
    case 'wrote':
      return `IDs registered in the car${done.wheels.length > 0 ? `, changed at ${listWheels(done.wheels)}` : ''}: ${writeWords[done.verdict]}.`;
    case 'chosen':
      return replacementWords(done.replacement);
    case 'programmed': {
      const { wheel, part, mode } = done.write;
      return `Sensor programmed${wheel ? ` for ${wheel}` : ''} with ${modeWords[mode]}${part ? `, part ${part}` : ''}: ${programmingWords(done.write)}`;
    }
    case 'serviced':
      return serviceWords(done.service);
    case 'taught':
      return `Relearn, ${methodWords[done.procedure.method]} (${done.procedure.title}), ${done.minutes} min: ${stateWords[done.end].toLowerCase()}.`;
    case 'by-hand':
      return `Relearn, ${methodWords[done.method]}: ${outcomeWords[done.outcome]}.`;
    case 'aimed':
      return `Other tires at ${listWheels(done.wheels)}: ${kPa(done.kPa)} cold is aimed at, so that they carry what the placard’s tires carry at the maker’s ${kPa(done.makerKPa)}.`;
    case 'lamp-set':
      return `Lamp set to come on at ${kPa(done.asked.lowOnKPa)} and go out at ${kPa(done.asked.lowOffKPa)}: ${writeWords[done.verdict]}.`;
    case 'cleared':
      return `Codes cleared${done.codes.length > 0 ? ` (${done.codes.join(', ')})` : ''}: ${writeWords[done.verdict]}.`;
  }
}

const outcomeWords = {
  done: 'done',
  failed: 'it did not take',
  'waiting-for-drive': 'done, and wants a drive',
} as const;

/** What was found, at its surest, in one sentence; what was not looked at is not called right. */
export function foundWords({ found }: Pick<Sheet, 'found'>, job: Pick<Job, 'observations'>): string {
  const faults = found.filter(({ code }) => !blamesNothing(code));
  if (faults.length > 0)
    return `${faults.map((one) => `${titleOf(one)} (${sureness(one.probability).toLowerCase()})`).join('; ')}.`;
  const calm = found.find(({ code }) => code !== 'no-fault');
  if (calm) return `No fault: ${titleOf(calm).toLowerCase()}.`;
  if (found.some(({ code }) => code === 'no-fault')) return 'Nothing was found to be wrong.';
  return job.observations.length === 0
    ? 'Nothing was checked.'
    : 'Nothing was found so far; not everything was checked.';
}

/** What was done, in one sentence. */
export function doneWords({ done }: Pick<Sheet, 'done'>, job: Job, units: Notation): string {
  if (done.length > 0) return done.map((deed) => deedWords(deed, units)).join(' ');
  return job.observations.length === 0 ? 'Nothing was done.' : 'Measured; nothing was changed.';
}

/** A fill of more than this is air that went somewhere: it is gauged again after a week, kPa (common practice). */
const recheckKPa = 25;
const recheckDays = 7;

/** What the customer should watch, with dates. `leftAt`: when the car leaves, or now. */
export function watchWords(
  job: Job,
  { now, turnedOut }: Pick<Sheet, 'now' | 'turnedOut'>,
  leftAt: Date,
  units: Notation,
): string[] {
  const by = spokenDay(daysAfter(leftAt, recheckDays), units);
  const repaired = new Set((job.repairs ?? []).map(({ wheel }) => wheel));
  const filled = new Map<Position, number>();
  for (const change of ofKind(changesOf(job), 'air')) {
    if (isFill(change))
      filled.set(change.wheel, (filled.get(change.wheel) ?? 0) + change.toKPa - change.fromKPa);
  }
  const leaking = inWalkingOrder([
    ...new Set([
      ...(now.find(({ code }) => code === 'tire-leaking')?.wheels ?? []),
      ...turnedOut.flatMap(({ was, wheel }) =>
        was === 'tire-leaking' && wheel && !repaired.has(wheel) ? [wheel] : [],
      ),
    ]),
  ]);
  const low = unexplainedDamage(job).filter(({ found, wheel }) => found && !leaking.includes(wheel));
  const notLookedAt = low.map(
    ({ wheel, found }) =>
      `${wheel} was found at ${format(pressure, found?.kPa ?? 0, units)} and filled; nobody looked for a leak. Have it gauged again by ${by}.`,
  );
  const isTold = (wheel: Position) =>
    repaired.has(wheel) || leaking.includes(wheel) || low.some((one) => one.wheel === wheel);
  const rechecks = [...filled]
    .filter(([wheel, kPa]) => kPa > recheckKPa && !isTold(wheel))
    .map(
      ([wheel, kPa]) =>
        `Have ${wheel} gauged again by ${by}: it took ${formatDifference(pressure, kPa, units).replace('+', '')}, and where the air went was not found.`,
    );
  return [
    ...(leaking.length > 0
      ? [`${listWheels(leaking)} is losing air: have it repaired; gauge it by ${by} at the latest.`]
      : []),
    ...notLookedAt,
    ...rechecks,
    ...standing(now)
      .filter(({ code }) => code !== 'tire-leaking')
      .map(({ code, wheels, action }) => `${titleOf({ code, wheels })}. ${action}`),
  ];
}

/** What still stands, faults first. */
export const standing = (now: Assessment['findings']): Assessment['findings'] =>
  now.filter(({ code }) => code !== 'no-fault');

/** What was advised and not wanted, and what was not done on this visit. */
export function declinedWords(job: Job): string[] {
  const { replacement, putOff = [], sensorServices = [] } = job;
  return [
    ...(replacement && replacement.declined.length > 0
      ? [`New sensors at ${listWheels(replacement.declined)}: advised and declined.`]
      : []),
    ...sensorServices.flatMap(({ wheel, declined }) => (declined ? [`${wheel}: ${declined}`] : [])),
    ...putOff.map((scope) => `Not done: ${putOffWords(scope)}. ${scope.reason}.`),
  ];
}

/** What the parts turned out to be, in one sentence; empty where nobody said. */
export const turnedOutWords = ({ turnedOut }: Pick<Sheet, 'turnedOut'>): string =>
  turnedOut
    .flatMap(({ was, ...part }) => (was === 'in-order' ? [] : [`${partName(part)}: ${recordOf(was).title}.`]))
    .join(' ');
