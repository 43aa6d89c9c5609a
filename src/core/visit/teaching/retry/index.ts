import type { Procedure } from '../../../relearn/procedure';
import type { Run } from '../../../relearn/run';

/**
 * What is done before anything is taken apart: the IDs are where they should be, or were sent, and the car still does not
 * show it. It may not have heard its sensors yet. Waiting, switching and driving are a procedure too, with the same proof.
 */

/** Common practice: up to a minute, or five; ignition off and on; two to three kilometres. */
const waits = [{ s: 60 }, { s: 300 }] as const;
const offS = 20;
/** Two and a half kilometres at 50 km/h. */
const drive = { leastKmh: 30, leastS: 180 };

/** The procedure to try again with; undefined where the car never learned, or all of it was tried: it must be something else. */
export function retryOf(procedure: Procedure, run: Run): Procedure | undefined {
  if (!mayBeLate(run)) return undefined;
  const tried = retriesOf(procedure);
  const wait = waits[tried];
  if (!wait) return undefined;
  const { format, name, method, for: cars, wheels, optional, proof, cues, source } = procedure;
  return {
    format,
    name,
    title: tried === 0 ? 'Wait, and look again' : 'Wait longer, drive, and look again',
    method,
    for: cars,
    wheels,
    optional,
    before: [],
    enter: [],
    each: [],
    finish: [
      { do: 'wait', s: wait.s },
      { do: 'set', what: 'ignition', to: 'off' },
      { do: 'wait', s: offS },
      { do: 'set', what: 'ignition', to: 'on' },
      ...(tried === 0 ? [] : [{ do: 'drive' as const, unbroken: false, ...drive }]),
    ],
    proof,
    limits: {},
    cues,
    ...(source !== undefined && { source }),
    retry: tried + 1,
  };
}

/** Taught to the end, and the proof failed or was put off. */
const mayBeLate = ({ state, because, endedAt }: Run): boolean =>
  endedAt === undefined &&
  (state === 'unproved' || (state === 'failed' && late.some((note) => because.includes(note))));
const late = ['differs', 'lamp-on'] as const;

/** How many times a run of this procedure was such a retry already. */
export const retriesOf = ({ retry }: Procedure): number => (typeof retry === 'number' ? retry : 0);

/** What it must be, once waiting and driving have not helped. */
export function whatItMustBe({ because, differs }: Run): string[] {
  if (because.includes('differs'))
    return [
      `The car does not hold what was heard${differs.length > 0 ? ` at ${differs.join(', ')}` : ''}: it did not take it, or another sensor was learned there.`,
      'Move other wheels away and teach those wheels again, or register the IDs over the lead.',
    ];
  if (because.includes('lamp-on'))
    return [
      'The lamp is on though the IDs are right: read the codes. The wheel they name has a sensor the car cannot hear, by family, frequency or battery.',
      'No wheel named: look at the receiver, its antenna and its supply, and at the pressures once more, cold.',
    ];
  return [];
}
