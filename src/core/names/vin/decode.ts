import { canonicalVin, judgeVin, type VinVerdict } from '.';

/** What a VIN says by its places alone. The rest of it belongs to the maker. */
interface DecodedVin {
  verdict: VinVerdict;
  /** Where the maker's code was assigned: the first character (ISO 3780, from memory). */
  region: string | undefined;
  /** World manufacturer identifier: characters 1 to 3. A third of 9 is a maker of few vehicles. */
  maker: string;
  fewVehicles: boolean;
  /** Vehicle descriptor: characters 4 to 8, the maker's own. */
  descriptor: string;
  /** Model years the tenth character can mean; the likelier first. Empty where it means none. */
  modelYears: number[];
  plant: string;
  serial: string;
}

/** Regions by first character: ISO 3780, from memory. */
const regions: [RegExp, string][] = [
  [/[A-H]/, 'Africa'],
  [/[J-R]/, 'Asia'],
  [/[S-Z]/, 'Europe'],
  [/[1-5]/, 'North America'],
  [/[67]/, 'Oceania'],
  [/[89]/, 'South America'],
];

/** Model-year characters in order, a round of thirty years: 49 CFR 565.15 table VII, from memory. */
const yearCharacters = 'ABCDEFGHJKLMNPRSTVWXY123456789';
const firstYear = 1980;
const round = yearCharacters.length;

/** Decodes what is there, also of a VIN that fails its check: the verdict says so. */
export function decodeVin(vin: string): DecodedVin {
  const text = canonicalVin(vin);
  const first = text.charAt(0);
  const maker = text.slice(0, 3);
  return {
    verdict: judgeVin(vin),
    region: regions.find(([characters]) => first !== '' && characters.test(first))?.[1],
    maker,
    fewVehicles: maker.charAt(2) === '9',
    descriptor: text.slice(3, 8),
    modelYears: modelYearsOf(text),
    plant: text.charAt(10),
    serial: text.slice(11),
  };
}

/** The seventh character tells the round where the US rule applies: a digit before 2010, a letter since. */
function modelYearsOf(text: string): number[] {
  const place = yearCharacters.indexOf(text.charAt(9) || '-');
  if (place < 0) return [];
  const years = [firstYear + place, firstYear + round + place];
  return /\d/.test(text.charAt(6)) ? years : years.reverse();
}
