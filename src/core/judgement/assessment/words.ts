/** How sure, in a word. */
export function sureness(probability: number): string {
  if (probability >= 0.97) return 'Sure';
  if (probability >= 0.9) return 'Very likely';
  return probability >= 0.7 ? 'Likely' : 'Possible';
}

/** Never "100 %": nothing measured is that sure. */
export const percent = (probability: number): string =>
  probability > 0.99 ? 'over 99 %' : `${Math.round(probability * 100)} %`;
