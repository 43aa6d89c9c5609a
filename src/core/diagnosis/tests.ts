import type { Test } from '../assessment';

/** What a test costs in minutes of work, at one wheel where it has one (judgement, common practice). */
export const minutesFor: Record<Test, number> = {
  lamp: 0.5, // ignition on, look
  gauge: 0.5, // cap off, read, cap on
  activation: 0.75, // antenna to the sidewall, wait for the answer
  registry: 2, // lead in, ignition on, read
  drive: 12, // out, above wake speed for some minutes, back
};
