/** The tests a shop can do next. */
export const tests = [
  'lamp',
  'gauge',
  'visual',
  'activation',
  'registry',
  'display',
  'drive',
  'reception',
  'shift',
  'wheelspeed',
  'baseline',
] as const;
export type Test = (typeof tests)[number];
