import { z } from 'zod';

/** Simulated universal sensors in a box, and the cradle some of them lie in while they are programmed. */

const formatSchema = z.object({ family: z.string(), frequencyMHz: z.number() });

export const blankSchema = z.object({
  serial: z.string(),
  /** The article it is one of. */
  part: z.string(),
  formats: z.array(formatSchema),
  id: z.string().nullable().default(null),
  /** What it sends; null while it is blank. */
  sends: formatSchema.nullable().default(null),
  battery: z.enum(['ok', 'low']).default('ok'),
  /** So often it can still be programmed. */
  writesLeft: z.int().default(50),
  /** What it does when it is programmed: store it, forget it, or store it and say nothing. */
  onProgram: z.enum(['stores', 'forgets', 'loses-answer']).default('stores'),
  inCradle: z.boolean().default(false),
  /** The car and wheel it was put into. */
  fitted: z.boolean().default(false),
});
export type Blank = z.infer<typeof blankSchema>;

/** What lies in the cradle, as it answers there. */
export const inCradle = (box: readonly Blank[]) =>
  box
    .filter((sensor) => sensor.inCradle && !sensor.fitted)
    .map(({ serial, part, formats, id, sends, battery, writesLeft }) => ({
      serial,
      part,
      formats,
      id,
      family: sends?.family ?? null,
      frequencyMHz: sends?.frequencyMHz ?? null,
      battery,
      writesLeft,
    }));

export const lay = (box: readonly Blank[], serials: readonly string[]): Blank[] =>
  box.map((sensor) => ({ ...sensor, inCradle: serials.includes(sensor.serial) && !sensor.fitted }));

/** What came of it: done, nothing said, or why not. */
export function program(
  box: readonly Blank[],
  { id, family, frequencyMHz }: { id: string; family: string; frequencyMHz: number },
): { box: Blank[]; answer: 'yes' | 'lost' | { refused: string } } {
  const refuse = (refused: string) => ({ box: [...box], answer: { refused } });
  const [sensor, another] = box.filter((one) => one.inCradle && !one.fitted);
  if (!sensor) return refuse('nothing lies in the cradle');
  if (another) return refuse('more than one sensor lies in the cradle');
  const sends = sensor.formats.find(
    (format) => format.family === family && Math.abs(format.frequencyMHz - frequencyMHz) < 1,
  );
  if (!sends) return refuse('this sensor has no such family');
  if (sensor.writesLeft < 1) return refuse('this sensor takes no more programs');
  const next: Blank =
    sensor.onProgram === 'forgets'
      ? { ...sensor, writesLeft: sensor.writesLeft - 1 }
      : { ...sensor, writesLeft: sensor.writesLeft - 1, id, sends };
  return {
    box: box.map((one) => (one === sensor ? next : one)),
    answer: sensor.onProgram === 'loses-answer' ? 'lost' : 'yes',
  };
}
