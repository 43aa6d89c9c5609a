/** Choices from their words, in the order of the words. */
export const optionsFrom = <Value extends string>(
  words: Readonly<Record<Value, string>>,
): { value: Value; label: string }[] =>
  // Keys of a record of these values are these values.
  (Object.keys(words) as Value[]).map((value) => ({ value, label: words[value] }));
