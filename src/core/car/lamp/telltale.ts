/** The lamp's two figures for one wheel: on at or below, off at or above, kPa. */
export interface Hysteresis {
  lowOnKPa: number;
  /** Where it is not known the lamp goes out as soon as the pressure is above `lowOnKPa`. */
  lowOffKPa?: number | undefined;
}

/** Whether a wheel keeps the lamp lit at this pressure: between the two figures it stays as it was. */
export function litAt(wasLit: boolean, kPa: number, { lowOnKPa, lowOffKPa }: Hysteresis): boolean {
  if (kPa <= lowOnKPa) return true;
  if (lowOffKPa === undefined || kPa >= lowOffKPa) return false;
  return wasLit;
}

/** The lamp over a row of pressures, one state for each. */
export function litOver(wasLit: boolean, pressures: readonly number[], figures: Hysteresis): boolean[] {
  let lit = wasLit;
  return pressures.map((kPa) => (lit = litAt(lit, kPa, figures)));
}
