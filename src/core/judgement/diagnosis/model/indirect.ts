import { leastVoltsToWrite } from '../../../car/supply';
import { contract, judged, physics } from '../../../measure/figure';

/** How an indirect system shows itself. */
export const rolling = {
  soundSd: judged(0.0005, 'tires of one set on a straight, steady drive'),
  oddSd: judged(0.006, 'another size or much more worn'),
  /** A low tire rolls on a smaller radius: faster by this share per kPa missing. */
  perKPaMissing: physics(0.00006, 'a quarter of its air takes about 0.35 % off the rolling radius'),
  perKPaDoubt: judged(0.6, 'carcasses differ: the share of that left open'),
  odd: { seen: judged(0.7, 'an odd size is mostly seen'), unseen: judged(0.002, 'mistaken') },
} as const;

/** Lamp of an indirect system, by its worst cause. */
export const indirectLamp = {
  baseline: {
    off: judged(0.38, 'not driven far enough to notice'),
    steady: judged(0.58, 'it compares with old figures'),
    'flash-then-steady': judged(0.03, 'some cars say it so'),
    'flash-while-driving': judged(0.01, 'seldom'),
  },
  'odd-radius': {
    off: judged(0.5, 'stored with the odd tire on'),
    steady: judged(0.47, 'taken for a low tire'),
    'flash-then-steady': judged(0.02, 'seldom'),
    'flash-while-driving': judged(0.01, 'seldom'),
  },
  'wheel-speed': {
    off: judged(0.05, 'only just gone'),
    steady: judged(0.5, 'with the other lamps'),
    'flash-then-steady': judged(0.42, 'a malfunction'),
    'flash-while-driving': judged(0.03, 'comes and goes'),
  },
  othersLit: {
    fault: judged(0.9, 'its data serves them too'),
    none: judged(0.006, 'for a cause of their own'),
  },
} as const;

export const supply = {
  leastVolts: contract(leastVoltsToWrite, 'under this, engine off, write nothing'),
  meterVolts: judged(0.03, 'a meter on the lead'),
} as const;
