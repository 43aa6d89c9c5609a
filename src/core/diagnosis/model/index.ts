import { codes } from './codes';
import { minutes, stakes } from './costs';
import { faults, historyMayMove, historyVisits } from './faults';
import { numbersOf } from './figure';
import { hearing, reception } from './hearing';
import { held, slips } from './ids';
import { indirectLamp, rolling, supply } from './indirect';
import { displayTells, evenOdds, questions } from './questions';
import { inaccuracy, noise, usualNowC } from './instruments';
import { mostByService, service, serviceHalfLifeHours } from './service';
import { survival } from './survival';
import { bulbCheck, endingIsMalfunction, telltale } from './telltale';
import { leakRates, signs, standing, unknownPlacard } from './tire';
import { answers, replies, stems } from './waking';

export { figuresIn, numbersOf, type Figure, type Numbers } from './figure';
export { confusable } from './ids';
export { patterns } from './maps';

/** All the numbers the engine rests on, each with its basis and reason. */
export const figures = {
  faults,
  historyMayMove,
  historyVisits,
  service,
  serviceHalfLifeHours,
  mostByService,
  survival,
  standing,
  unknownPlacard,
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
  codes,
  slips,
  held,
  rolling,
  indirectLamp,
  supply,
  minutes,
  stakes,
  questions,
  displayTells,
  evenOdds,
} as const;

/** The same, as plain numbers. */
export const model = numbersOf(figures);
export type Model = typeof model;
