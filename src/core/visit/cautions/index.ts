import { recordOf, type FindingCode, type FindingRecord } from '../../catalogue/finding';
import { allOf, doneLately, latest, type Job } from '../../job';
import { phases, type Procedure } from '../../relearn/procedure';

/** Cautions of the trade (common practice). They defer to local codes, the maker and licensed practice. */

/** Where air is let in. */
export const fillingCaution =
  'Clip-on chuck, stand clear of the sidewall, never above the maximum on the sidewall. Never bleed a hot tire.';

/** On the road, with a reading to take. */
export const roadCaution =
  'On the road: a licensed driver drives, a passenger reads. Nobody looks at a screen while driving.';

/** Where one sits in the car and another stands at a wheel. */
export const seatCaution = 'Someone in the seat does not start the car while another is at a wheel.';

/** What the sheet and every procedure defer to. */
export const comesFirst =
  "Local rules, the vehicle maker's procedure and licensed practice come before anything here.";

/** What to mind while a car is taught its sensors, by the steps of it. */
export function cautionsOfRelearn(procedure: Procedure): string[] {
  const steps = phases.flatMap((phase) => procedure[phase].map(({ do: kind }) => kind));
  return [
    ...(procedure.wheels.length > 0 ? [seatCaution] : []),
    ...(steps.includes('drive') ? [roadCaution] : []),
    ...(steps.includes('air') ? [fillingCaution] : []),
    comesFirst,
  ];
}

/** What to mind while working, by what the work is. */
const ofWork: Record<NonNullable<FindingRecord['caution']>, string> = {
  'wheel-work':
    'Parking brake, chocks, rated stands. Let the tire down fully through the core before the stem is loosened or the bead broken. Nut and core to the maker’s torque. On a high-voltage vehicle only trained people go beyond the wheel. Local codes and the vehicle maker’s procedure come first.',
};

/** What to mind while working on a finding, where its work can hurt somebody. */
export function cautionForWork(code: FindingCode): string | undefined {
  const { caution } = recordOf(code);
  return caution && ofWork[caution];
}

/** What the customer takes along, each with where it applies. */
const cautions: { text: string; applies: (job: Job) => boolean }[] = [
  {
    text: 'Check the pressures with a gauge once a month, cold, and before long drives: monitoring does not replace it.',
    applies: () => true,
  },
  {
    text: 'Wheel nuts were loosened: have their torque checked again after about 100 km.',
    applies: (job) => doneLately(job).length > 0,
  },
  {
    text: 'The lamp stays on while the fault stands, and will not warn of a further loss of air. Have it put right soon.',
    applies: (job) => {
      // Of a lamp that was seen off nobody says that it stays on.
      const lamp = latest(allOf(job, 'lamp'))?.seen.state;
      return job.visit?.unproved !== undefined && lamp !== 'off';
    },
  },
  {
    text: 'Never inflate above the maximum on the sidewall, and never bleed a hot tire.',
    applies: () => true,
  },
  {
    text: "Local rules, the vehicle maker's procedure and licensed practice come before anything on this sheet.",
    applies: () => true,
  },
];

export const cautionsFor = (job: Job): string[] =>
  cautions.filter(({ applies }) => applies(job)).map(({ text }) => text);
