import { codes } from './codes';
import { minutes, stakes } from './costs';
import { faults, historyMayMove } from './faults';
import { numbersOf } from './figure';
import { hearing, reception } from './hearing';
import { held, slips } from './ids';
import { indirectLamp, rolling, supply } from './indirect';
import { inaccuracy, noise, usualNowC } from './instruments';
import { mostByService, service, serviceHalfLifeHours } from './service';
import { survival } from './survival';
import { bulbCheck, endingIsMalfunction, lampOnTheWay, telltale } from './telltale';
import { leakRates, signs, standing } from './tire';
import { answers, replies, stems } from './waking';

export { figuresIn, numbersOf, type Figure, type Numbers } from './figure';
export { confusable } from './ids';
export { patterns } from './maps';

/** All the numbers the engine rests on, each with its basis and reason. */
export const figures = {
  faults,
  historyMayMove,
  service,
  serviceHalfLifeHours,
  mostByService,
  survival,
  standing,
  leakRates,
  signs,
  noise,
  inaccuracy,
  usualNowC,
  answers,
  replies,
  stems,
  hearing,
  reception,
  telltale,
  bulbCheck,
  endingIsMalfunction,
  lampOnTheWay,
  codes,
  slips,
  held,
  rolling,
  indirectLamp,
  supply,
  minutes,
  stakes,
} as const;

/** The same, as plain numbers. */
export const model = numbersOf(figures);
export type Model = typeof model;
