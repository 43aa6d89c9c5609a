import { judged } from '../../measure/figure';
import { answer, unlitLamp } from './answer';
import type { FindingRecord } from './record';

/** What can be the matter with a tire: its air, and how it rolls. */
export const tireFindings = {
  'tire-low': {
    scope: 'tire',
    title: 'Tire low',
    action: 'Look for the leak, then fill to placard and read again.',
    remedy: 'air',
    summedWith: 'tire',
    stakes: {
      wrong: judged(3, 'a fill that was not needed, seen at once'),
      missed: judged(45, 'leaves with a low tire'),
    },
    asked: {
      lamp: answer(0.85, 0.13, unlitLamp),
      gauge: answer(0.97, 0.02, 'but for readings at the line'),
    },
  },
  'tire-underinflated': {
    scope: 'tire',
    title: 'Under placard',
    action: 'Fill to the figure under "set now" and read again.',
    remedy: 'air',
    summedWith: 'tire',
    stakes: {
      wrong: judged(2, 'a fill that was not needed'),
      missed: judged(5, 'wear, and the lamp soon'),
    },
    asked: { gauge: answer(0.9, 0.05, 'the line is nearer to where tires stand') },
  },
  'tire-overinflated': {
    scope: 'tire',
    title: 'Over placard',
    action:
      'Cold, let out to placard. Warm from driving it reads high: let it cool first, never bleed a hot tire.',
    remedy: 'air',
    work: { before: 'proof', label: (at) => `Set the pressure at ${at}` },
    summedWith: 'tire',
    stakes: { wrong: judged(3, 'air let out'), missed: judged(15, 'a hard tire') },
    asked: { gauge: answer(0.97, 0.01, 'far from where tires stand') },
  },
  'tire-hot': {
    scope: 'tire',
    title: 'Tire hot',
    action:
      'Let it cool and touch nothing hot. Find out why: a brake that drags, a tire driven low, too much load.',
    remedy: 'hands',
    work: { before: 'proof', label: (at) => `Find out why ${at} is hot` },
    caution: 'wheel-work',
    stakes: {
      wrong: judged(10, 'a wait for nothing'),
      missed: judged(60, 'a tire or a brake fails on the road'),
    },
  },
  'tire-leaking': {
    scope: 'tire',
    title: 'Losing air',
    action:
      'Fill it, then find the leak with soapy water: tread, bead, valve core, stem. Repair before it leaves.',
    remedy: 'hands',
    work: { before: 'proof', label: (at) => `Find the leak at ${at}` },
    caution: 'wheel-work',
    part: 'tire',
    summedWith: 'tire',
    prior: judged(0.03, 'of all wheels that come in; one in eight cars'),
    after: {
      'tires-fitted': judged(2, 'bead and stem were open'),
      'sensor-replaced': judged(2, 'stem and seal were opened'),
      repair: judged(3, 'the repair itself may not hold'),
    },
    stakes: { wrong: judged(12, 'a search for nothing'), missed: judged(17, 'flat again next week') },
    asked: { visual: answer(0.55, 0.02, 'half of the leaks are seen') },
  },
  'spare-in-use': {
    scope: 'tire',
    title: 'Small spare in use',
    action:
      'Set it to its own pressure, and let nothing out of it. It has no sensor: replace none. Drive only as fast and as far as its sidewall allows, mostly 80 km/h, until the road wheel is back.',
    remedy: 'hands',
    work: { before: 'proof', label: (at) => `Put the road wheel back at ${at}` },
    caution: 'wheel-work',
    stakes: {
      wrong: judged(2, 'a look at a wheel'),
      missed: judged(45, 'bled flat, or a sensor sold for a wheel that has none'),
    },
    asked: { visual: answer(0.95, 0.001, 'it is narrow, and says so') },
  },
  'temperature-drop': {
    scope: 'tire',
    title: 'Low from the cold',
    action: 'No leak: the weather explains it. Fill all tires to placard for the cold.',
    remedy: 'air',
    summedWith: 'tire',
  },
  'lamp-latched': {
    scope: 'tire',
    title: 'Lamp held on',
    action: 'Above the "on" figure, short of "off": fill to placard, not just over the line.',
    remedy: 'air',
    summedWith: 'tire',
  },
  'rolling-radius-off': {
    scope: 'tire',
    title: 'Rolling radius off',
    action: 'Compare size and wear of this tire with the others.',
    remedy: 'hands',
    work: { before: 'proof', label: (at) => `Compare the tire at ${at}` },
    caution: 'wheel-work',
    part: 'rolling',
    summedWith: 'tire',
    prior: judged(0.012, 'an odd size or a much more worn tire'),
    after: {
      'tires-fitted': judged(3, 'a tire of another make or size'),
      'wheels-swapped': judged(3, 'another size on one wheel'),
    },
    stakes: {
      wrong: judged(15, 'tires compared for nothing'),
      missed: judged(28, 'the lamp is back'),
    },
    asked: {
      visual: answer(0.7, 0.002, 'an odd size is mostly seen'),
      wheelspeed: answer(0.8, 0.02, 'where the gauge is known'),
    },
  },
} as const satisfies Record<string, FindingRecord>;
