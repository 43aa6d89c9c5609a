import { parse, type Quantity } from '../../core/measure/units';

/** A field's figure in the base unit: what it is, or what is wrong with it; neither while it is empty. */
export interface Read {
  base: number | undefined;
  error: string | undefined;
}

export function readField<Name extends string>(quantity: Quantity<Name>, typed: string, unit: Name): Read {
  if (typed.trim() === '') return { base: undefined, error: undefined };
  const entry = parse(quantity, typed, unit);
  return entry.ok
    ? { base: entry.value.base, error: undefined }
    : { base: undefined, error: entry.problem.message };
}
