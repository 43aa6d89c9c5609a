import type { TireClass } from '../../names/tire-size';

/**
 * Where the law has the lamp light, for cars whose own figures are not known. Tables as data, each with
 * its source; all from memory. How soon it must (US: within 20 minutes of driving; UN: 10 where one tire loses air, 60 where
 * all lose it slowly, 10 for a malfunction) is not among them: nothing a job holds says how long the car was driven.
 */
export interface Regulation {
  /** As it is named on screen. */
  title: string;
  source: string;
  /** The lamp lights this far down, as a share of placard pressure. */
  lowShareOfPlacard: number;
  /** However low the placard, the lamp lights at this at least, kPa. */
  leastOnKPa: (tire: TireClass | undefined) => number;
}

/**
 * Minimum activation pressures in kPa by tire type: 49 CFR 571.138, table 1 (20, 23, 29, 38 and 46 psi).
 * Where the type is not known, that of a standard-load passenger tire.
 */
const usLeastKPa: Record<TireClass, number> = {
  'standard-load': 140,
  'extra-load': 160,
  'load-range-C': 200,
  'load-range-D': 260,
  'load-range-E': 320,
};

export const regulations = {
  US: {
    title: 'US rule, 25 % below placard',
    source: '49 CFR 571.138 S4.2 and table 1',
    lowShareOfPlacard: 0.75,
    leastOnKPa: (tire) => usLeastKPa[tire ?? 'standard-load'],
  },
  UN: {
    // The rule speaks of the warm running pressure; of a tire brought back to cold the share is the same.
    title: 'UN rule, 20 % below placard',
    source: 'UN Regulation 141, 5.2 and 5.3',
    lowShareOfPlacard: 0.8,
    leastOnKPa: () => 150,
  },
} as const satisfies Record<string, Regulation>;

export type RegulationName = keyof typeof regulations;
export const regulationNames = Object.keys(regulations) as [RegulationName, ...RegulationName[]];
