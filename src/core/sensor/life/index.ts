import { practice } from '../../measure/figure';
import { aliveAt } from '../../measure/survival';

/**
 * How long a sensor lasts: its battery cannot be changed, so its life is the battery's. A Weibull curve,
 * S(t) = exp(-(t/scale)^shape), t in years. Common practice has 5 to 10 years: S(5) = 0.95, S(8) = 0.58, S(10) = 0.18.
 */
export const curve = {
  shape: practice(5, 'few go early, most between 7 and 10 years'),
  scaleYears: practice(9, 'two thirds are gone after nine years'),
} as const;

/** A curve of a shop's own, and how many of its sensors ended to tell it. */
export interface LifeCurve {
  shape: number;
  scaleYears: number;
  ended: number;
}

/** The share of sensors, 0 to 1, whose battery lasts so many years and more: by the shop's own curve, where it has one. */
export const aliveAfter = (years: number, own?: LifeCurve): number =>
  aliveAt(
    { shape: own?.shape ?? curve.shape.value, scale: own?.scaleYears ?? curve.scaleYears.value },
    years,
  );
