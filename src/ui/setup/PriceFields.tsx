import { useState } from 'react';
import type { Prices } from '../../core/visit/replacement/prices';
import { Field } from '../kit/Field';
import styles from './Setup.module.css';

const fields = {
  currency: { label: 'Currency', hint: 'As it stands behind a price; empty: no prices' },
  sensor: { label: 'A sensor with its kit', hint: undefined },
  tireWork: { label: 'A tire off, on and balanced', hint: undefined },
  visit: { label: 'Another visit for one that ended', hint: 'Looking for it, teaching it' },
} as const;
type Typed = Record<keyof typeof fields, string>;

/** What replacing a sensor costs here: without all of it nothing is weighed by prices. */
export function PriceFields({
  prices,
  onPrices,
}: {
  prices: Prices | null;
  /** Undefined while what is typed is not all there. */
  onPrices: (prices: Prices | null | undefined) => void;
}) {
  const [typed, setTyped] = useState<Typed>({
    currency: prices?.currency ?? '',
    sensor: String(prices?.sensor ?? ''),
    tireWork: String(prices?.tireWork ?? ''),
    visit: String(prices?.visit ?? ''),
  });
  const change = (name: keyof Typed, text: string) => {
    const next = { ...typed, [name]: text };
    setTyped(next);
    onPrices(isBegun(next) ? pricesFrom(next) : null);
  };
  const begun = isBegun(typed);
  return (
    <fieldset className={styles.row}>
      <legend>
        <b>Prices, by which one sensor or all is weighed</b>
      </legend>
      {(Object.keys(fields) as (keyof typeof fields)[]).map((name) => (
        <Field
          key={name}
          label={fields[name].label}
          hint={fields[name].hint}
          maxLength={name === 'currency' ? 8 : 10}
          inputMode={name === 'currency' ? 'text' : 'decimal'}
          value={typed[name]}
          onValue={(text) => change(name, text)}
          error={begun && !isRight(name, typed[name]) ? 'Needed, or empty all four' : undefined}
        />
      ))}
    </fieldset>
  );
}

const isBegun = (typed: Typed): boolean => Object.values(typed).some((text) => text.trim() !== '');

const isRight = (name: keyof Typed, text: string): boolean =>
  name === 'currency' ? text.trim() !== '' : text.trim() !== '' && Number(text.replace(',', '.')) >= 0;

function pricesFrom(typed: Typed): Prices | undefined {
  const names = Object.keys(typed) as (keyof Typed)[];
  if (!names.every((name) => isRight(name, typed[name]))) return undefined;
  const price = (text: string) => Number(text.replace(',', '.'));
  return {
    currency: typed.currency.trim(),
    sensor: price(typed.sensor),
    tireWork: price(typed.tireWork),
    visit: price(typed.visit),
  };
}
