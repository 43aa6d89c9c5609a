/**
 * The standard atmosphere, lowest layer: ISO 2533:1975, identical to ICAO Doc 7488 (1993),
 * constants from memory. Height is taken as geopotential height.
 */
const seaLevel = { kPa: 101.325, kelvin: 288.15 };
const lapseKelvinPerMetre = 0.0065;
/** g / (R · lapse) for dry air: 9.80665 / (287.05287 × 0.0065). */
const exponent = 9.80665 / (287.05287 * lapseKelvinPerMetre);

/** The layer the formula holds in, in metres. */
const atmosphereRangeM = { least: -500, most: 11_000 };

/** Atmospheric pressure in kPa (absolute) at a height in metres, held to −500 … 11 000 m. */
export function atmosphericKPa(altitudeM: number): number {
  const height = Math.min(Math.max(altitudeM, atmosphereRangeM.least), atmosphereRangeM.most);
  return seaLevel.kPa * (1 - (lapseKelvinPerMetre * height) / seaLevel.kelvin) ** exponent;
}
