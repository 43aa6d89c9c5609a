import { codes } from './codes';
import { minutes } from './minutes';
import { faults, historyMayMove, historyVisits } from './faults';
import { numbersOf } from '../../../measure/figure';
import { hearing, reception } from './hearing';
import { held, slips, taught } from './ids';
import { indirectLamp, rolling, supply } from './indirect';
import { displayTells, evenOdds } from './telling';
import { inaccuracy, noise, usualNowC } from './instruments';
import { wholeSets } from './sets';
import { mostByService, serviceHalfLifeHours } from './service';
import { survival } from './survival';
import { bulbCheck, endingIsMalfunction, telltale, warned } from './telltale';
import { foundLow, leakRates, seenFlat, signs, standing, unknownPlacard } from './tire';
import { answers, replies, stems } from './waking';

export { confusable } from './ids';
export { patterns } from './maps';

/** All the numbers the engine rests on, each with its basis and reason. */
export const figures = {
  faults,
  historyMayMove,
  historyVisits,
  serviceHalfLifeHours,
  wholeSets,
  mostByService,
  survival,
  standing,
  unknownPlacard,
  leakRates,
  seenFlat,
  signs,
  foundLow,
  noise,
  inaccuracy,
  usualNowC,
  answers,
  replies,
  stems,
  hearing,
  reception,
  telltale,
  warned,
  bulbCheck,
  endingIsMalfunction,
  codes,
  slips,
  held,
  taught,
  rolling,
  indirectLamp,
  supply,
  minutes,
  displayTells,
  evenOdds,
} as const;

/** The same, as plain numbers. */
export const model = numbersOf(figures);
export type Model = typeof model;
