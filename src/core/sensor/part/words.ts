import type { Part, PartDoubt } from '.';

export const stemWords: Record<Part['stem'], string> = {
  metal: 'metal stem, clamped in',
  rubber: 'rubber stem, snapped in',
};

/** Torque by the maker, in the order of hands; empty where nothing is on file. */
export function torqueWords({ torque: { nutNm, screwNm, coreNm } }: Part): string[] {
  return [
    ...(screwNm === undefined ? [] : [`sensor screw ${screwNm} Nm`]),
    ...(nutNm === undefined ? [] : [`stem nut ${nutNm} Nm`]),
    ...(coreNm === undefined ? [] : [`core ${coreNm} Nm`]),
  ];
}

/** Both sides of a doubt, and how to settle it. */
export function doubtWords(doubt: PartDoubt): string {
  const parts = doubt.parts.map(({ title }) => title).join(', ') || 'none on file';
  switch (doubt.kind) {
    case 'year':
      return `On the job stands ${doubt.entered}, by its VIN the car is of ${doubt.byVin}; for that year: ${parts}. Look at the door plate.`;
    case 'heard':
      return `The sensor heard at this wheel sends ${[doubt.family, doubt.frequencyMHz && `${doubt.frequencyMHz} MHz`].filter(Boolean).join(', ')}, which this kind of car does not hear; that would be: ${parts}. Check the car’s year, or whether a wrong part is in.`;
  }
}
