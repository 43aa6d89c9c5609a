import { allOf } from '../../job';
import { lampMeaning } from '../../lamp';
import { isAboveWakeSpeed } from '../../wake-speed';
import type { Rule, Statement } from '../scene';
import { heard } from './sensors';

/** Under this, V, with the engine off, a module may brown out while it is written (common practice). */
export const leastVoltsToWrite = 12.2;

const carWide = (
  code: Statement['code'],
  certainty: Statement['certainty'],
  ...because: number[]
): Statement[] => [{ code, certainty, because }];

/** Sensors answer the tool and are registered, and the car hears none of them on the road. */
export const receiver: Rule = (scene) => {
  const { ledger, monitored } = scene;
  const lives = monitored.flatMap((wheel) => ledger.live[wheel] ?? []);
  const deaf =
    lives.length > 0 &&
    lives.length === monitored.length &&
    lives.every(({ seen }) => !seen.kPa && isAboveWakeSpeed(scene.job, seen.speedKmh));
  const matching = heard(scene).filter(
    ({ wheel }) => !scene.mismatches.some((mismatch) => mismatch.wheel === wheel),
  );
  if (!deaf || !ledger.registry || matching.length * 2 <= monitored.length) return [];
  const code = ledger.codes.find(({ seen }) => seen.about === 'receiver');
  const because = [...lives, ...(code ? [code] : []), ledger.registry].map(({ index }) => index);
  return carWide('receiver-fault', code ? 'corroborated' : 'inferred', ...because);
};

/** Parked, most sensors sleep: nothing from a wheel below wake speed is no fault. */
export const asleep: Rule = (scene) =>
  scene.monitored.flatMap((wheel): Statement[] => {
    const live = scene.ledger.live[wheel];
    const heardDriving = allOf(scene.job, 'live').some(
      ({ seen }) => seen.wheel === wheel && isAboveWakeSpeed(scene.job, seen.speedKmh),
    );
    return live && !live.seen.kPa && !heardDriving
      ? [{ code: 'sensors-asleep', wheel, certainty: 'measured', because: [live.index] }]
      : [];
  });

/** The lamp makes no bulb check, on a car that has tire-pressure monitoring. */
export const disabled: Rule = ({ job, ledger }) =>
  ledger.lamp && job.vehicle.tpms.kind !== 'none' && lampMeaning(ledger.lamp.seen) === 'not-working'
    ? carWide('system-disabled', 'inferred', ledger.lamp.index)
    : [];

/** The relearn is done and the car has not yet heard every wheel since. */
export const waitingForDrive: Rule = (scene) => {
  const { relearn, lamp } = scene.ledger;
  if (!relearn || relearn.seen.outcome === 'failed') return [];
  const since = (at: string) => Date.parse(at) > Date.parse(relearn.seen.at);
  if (lamp?.seen.state === 'off' && since(lamp.seen.at)) return [];
  const lives = allOf(scene.job, 'live').filter(({ seen }) => since(seen.at));
  const unheard = scene.monitored.filter(
    (wheel) => !lives.some(({ seen }) => seen.wheel === wheel && (seen.kPa ?? 0) > 0),
  );
  const asked = relearn.seen.outcome === 'waiting-for-drive';
  const seenEmpty = lives.some(({ seen }) => !seen.kPa && unheard.includes(seen.wheel));
  return unheard.length > 0 && (asked || seenEmpty)
    ? carWide('waiting-for-drive', asked ? 'corroborated' : 'inferred', relearn.index)
    : [];
};

/** Too little supply to write to a module. */
export const supply: Rule = ({ ledger: { voltage } }) =>
  voltage?.seen.engine === 'off' && voltage.seen.volts < leastVoltsToWrite
    ? carWide('supply-voltage-low', 'measured', voltage.index)
    : [];
