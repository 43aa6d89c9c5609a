import type { Job } from '../job';

/** Cautions of the trade, each with where it applies. They defer to local codes, the maker and licensed practice. */
const cautions: { text: string; applies: (job: Job) => boolean }[] = [
  {
    text: 'Check the pressures with a gauge once a month, cold, and before long drives: monitoring does not replace it.',
    applies: () => true,
  },
  {
    text: 'Wheel nuts were loosened: have their torque checked again after about 100 km.',
    applies: ({ service }) => service !== undefined && service.kind !== 'none',
  },
  {
    text: 'The lamp stays on while the fault stands, and will not warn of a further loss of air. Have it put right soon.',
    applies: ({ visit }) => typeof visit === 'object' && visit !== null && 'unproved' in visit,
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
