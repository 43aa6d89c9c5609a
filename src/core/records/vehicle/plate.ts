/** A plate as it is compared: upper case, letters and digits. */
export const canonicalPlate = (plate: string) => plate.toUpperCase().replace(/[^\p{L}\p{N}]/gu, '');
