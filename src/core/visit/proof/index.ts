import type { z } from 'zod';
import { hasFactsByFile, madeHere } from '../../job/by-file';
import { setAside } from '../../tire/set-aside';
import type { Job } from '../../job';
import { allOf } from '../../job';
import { ledgerOf, type Ledger } from '../../job/ledger';
import { isAboveWakeSpeed } from '../../car/wake-speed';
import { unexplainedDamage } from '../../tire/damage';
import { monitoredWheels, wheelsOf } from '../../job/placard';
import type { proofSchema } from '../../job/schemas/proof';
import { wheelsOffTarget } from '../../tire/filling';
import { lastTouchedMs, softSince } from '../../job/history';
import { needOf } from '../teaching/choice/need';
import { holdsScanned } from '../../car/registration';
import { listWheels } from '../../names/wheel';

export type Proof = z.infer<typeof proofSchema>;

/** One thing that must be shown, and how it stands. */
export type ProofItem = Proof['checks'][number];

/**
 * Whether the visit proved that it worked: pressures at their targets, registered equal to scanned at
 * every wheel, every wheel heard on the road, codes cleared and not back, lamp off. What was seen
 * before the last change to the car proves nothing, nor does what came by a file; what a file says against it counts.
 * A visit that was handed over keeps what it was then: the same on its page, its sheet, its history and in the figures.
 */
export function proofOf(job: Job): Proof {
  const { handedOverAt, proof } = job.visit ?? {};
  return handedOverAt !== undefined && proof ? proof : proofNow(job);
}

function proofNow(job: Job): Proof {
  const checks = checksOf(job);
  const own = hasFactsByFile(job) ? checksOf(madeHere(job)) : checks;
  const both = own.map((here) => {
    const all = checks.find(({ name }) => name === here.name);
    if (!all || all.state !== 'met') return all ?? here;
    return here.state === 'met'
      ? here
      : { ...here, text: `${here.text} What a file says of it proves nothing.` };
  });
  return { proved: both.every(({ state }) => state === 'met'), checks: both };
}

function checksOf(asked: Job): ProofItem[] {
  const { job } = setAside(asked);
  const ledger = ledgerOf(job);
  const since = lastTouchedMs(job);
  const { kind } = job.vehicle.tpms;
  return [
    pressures(job, ledger),
    ...damage(job),
    ...(kind === 'direct' ? [registration(job, ledger), reports(job, since)] : []),
    ...(kind === 'indirect' ? reset(job) : []),
    ...(kind === 'direct' || codesWereRead(job) ? [codes(job, ledger)] : []),
    ...(kind === 'none' ? [] : [lamp(ledger, since)]),
  ];
}

function pressures(job: Job, ledger: Ledger): ProofItem {
  const name = 'pressures';
  const wheels = wheelsOf(job);
  const soft = softSince(job);
  if (soft.length > 0)
    return {
      name,
      state: 'open',
      text: `Air was let out at ${listWheels(soft)} to teach the car: fill, then gauge again.`,
    };
  const unread = wheels.filter((wheel) => !ledger.gauge[wheel]);
  if (unread.length > 0) return { name, state: 'open', text: `Gauge ${listWheels(unread)}.` };
  const off = wheelsOffTarget(job, ledger);
  return off.length === 0
    ? { name, state: 'met', text: 'Every tire stands at its target.' }
    : { name, state: 'unmet', text: `${listWheels(off)} not at target: set the pressure and read again.` };
}

/** What was seen of a tire stands until somebody says what it was; one that was found low, until somebody looked for the leak. */
function damage(job: Job): ProofItem[] {
  const name = 'damage';
  const open = unexplainedDamage(job);
  const seen = open.filter(({ signs }) => signs.length > 0).map(({ wheel }) => wheel);
  if (seen.length > 0)
    return [{ name, state: 'unmet', text: `Seen at ${listWheels(seen)}, and not said what it was.` }];
  const low = open.map(({ wheel }) => wheel);
  return low.length === 0
    ? []
    : [
        {
          name,
          state: 'open',
          text: `${listWheels(low)} was found low and filled: nobody looked for a leak.`,
        },
      ];
}

function registration(job: Job, ledger: Ledger): ProofItem {
  const name = 'registration';
  const wheels = monitoredWheels(job);
  const unheard = wheels.filter((wheel) => ledger.sensor[wheel]?.kind !== 'heard');
  if (unheard.length > 0)
    return { name, state: 'open', text: `No clear answer from ${listWheels(unheard)}.` };
  const readMs = ledger.registry ? Date.parse(ledger.registry.seen.at) : Number.NEGATIVE_INFINITY;
  const written = (job.carWrites ?? []).filter(({ kind }) => kind === 'registry').at(-1);
  if (written && !written.readBackAt && Date.parse(written.askedAt) >= readMs) {
    return { name, state: 'open', text: 'The IDs were registered and not read back yet.' };
  }
  if (!ledger.registry) return { name, state: 'open', text: 'Read what the car holds.' };
  const unread = wheels.filter((wheel) => holdsScanned(job, ledger, wheel) === undefined);
  if (unread.length > 0)
    return { name, state: 'open', text: `Read what the car holds for ${listWheels(unread)}.` };
  const differ = wheels.filter((wheel) => !holdsScanned(job, ledger, wheel));
  if (differ.length > 0)
    return {
      name,
      state: 'unmet',
      text: `The car does not hold what was heard at ${listWheels(differ)}.`,
    };
  const text =
    job.vehicle.tpms.locates === false
      ? 'The car holds every ID that was heard.'
      : 'Registered equals scanned at every wheel.';
  return { name, state: 'met', text };
}

function reports(job: Job, since: number): ProofItem {
  const name = 'reports';
  const heard = allOf(job, 'live').filter(
    ({ seen }) => (seen.kPa ?? 0) > 0 && Date.parse(seen.at) >= since && isAboveWakeSpeed(job, seen.speedKmh),
  );
  const missing = monitoredWheels(job).filter((wheel) => !heard.some(({ seen }) => seen.wheel === wheel));
  return missing.length === 0
    ? { name, state: 'met', text: 'The car hears every wheel on the road.' }
    : { name, state: 'open', text: `Not heard on the road since the last change: ${listWheels(missing)}.` };
}

/** A system without sensors compares with what it stored: after work on tires or air that is stored anew. */
function reset(job: Job): ProofItem[] {
  const name = 'reset';
  if (needOf(job).action === 'store-reference')
    return [{ name, state: 'open', text: 'Reset the system once all tires are right, then drive.' }];
  const done = allOf(job, 'relearn').some(({ seen }) => seen.method === 'reset' && seen.outcome === 'done');
  return done ? [{ name, state: 'met', text: 'The system was reset after the last change of air.' }] : [];
}

/** Somebody read the codes, or noted one. IDs that were typed say nothing of codes; a lead reads both. */
const codesWereRead = (job: Job): boolean =>
  allOf(job, 'dtc').length > 0 ||
  allOf(job, 'registry').some(({ seen }) => seen.codes !== undefined || seen.source !== 'hand') ||
  (job.carWrites ?? []).some(({ kind, readBackAt }) => kind === 'clear-codes' && readBackAt !== undefined);

function codes(job: Job, ledger: Ledger): ProofItem {
  const name = 'codes';
  const standing = ledger.codes.map(({ seen }) => seen.code);
  if (standing.length > 0)
    return { name, state: 'unmet', text: `Codes stand: ${standing.join(', ')}. Clear and read again.` };
  const cleared =
    (job.carWrites ?? []).some(({ kind, readBackAt }) => kind === 'clear-codes' && readBackAt) ||
    allOf(job, 'registry').some(({ seen }) => seen.cleared);
  const isClear =
    cleared || allOf(job, 'registry').some(({ seen }) => seen.codes !== undefined || seen.source !== 'hand');
  return isClear
    ? { name, state: 'met', text: cleared ? 'Codes cleared, and not back.' : 'No codes stored.' }
    : { name, state: 'open', text: 'Read the codes.' };
}

function lamp(ledger: Ledger, since: number): ProofItem {
  const name = 'lamp';
  const seen = ledger.lamp?.seen;
  if (!seen || Date.parse(seen.at) < since)
    return { name, state: 'open', text: 'Look at the lamp after the drive.' };
  if (seen.state === 'off' && seen.bulbCheck === undefined)
    return { name, state: 'open', text: 'The lamp is off; watch its check at ignition on.' };
  return seen.state === 'off' && seen.bulbCheck
    ? { name, state: 'met', text: 'The lamp is off, and lights for its check.' }
    : { name, state: 'unmet', text: 'The lamp is not off.' };
}
