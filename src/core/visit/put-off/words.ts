import type { PutOffScope } from '.';

/** What is put off, as a list names it. */
export function putOffWords({ needs: device, move, wheel }: PutOffScope): string {
  if (device === 'tool') return 'All that needs an activation tool';
  if (device === 'lead') return 'All that needs a scan tool at the car';
  const what = moveNames[move ?? ''] ?? 'A move';
  return wheel ? `${what}, ${wheel}` : what;
}

/** Each kind of move, as it is spoken of when it is not made. */
const moveNames: Record<string, string> = {
  placard: 'The placard',
  gauge: 'Gauge',
  fill: 'Fill',
  wake: 'Wake',
  look: 'Look',
  'read-car': 'Read the car',
  'write-ids': 'Register the IDs',
  'read-back': 'Read back',
  'support-supply': 'Support the supply',
  'clear-codes': 'Clear the codes',
  drive: 'The drive',
  'look-at-lamp': 'Look at the lamp',
  check: 'A check',
  program: 'Program the sensor',
  service: 'Fit the sensor',
  explain: 'Say what it was',
  relearn: 'Relearn',
  act: 'The repair',
};

/** Reasons people give, so that a glove has to type none of them. */
export const putOffReasons = {
  tool: ['No activation tool here'],
  lead: ['No scan tool here'],
  any: ['The customer does not want it', 'Cannot be done now', 'No time, later visit'],
} as const;
