import { useSyncExternalStore } from 'react';

const listeners = new Set<() => void>();

/** A choice that this browser keeps, by its name; empty until one was made. In a private window it lasts as long as the page. */
export function useKept(name: string): [string, (value: string) => void] {
  const place = `hacienda.${name}`;
  const value = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => unkept.get(place) ?? localStorage.getItem(place) ?? '',
    () => '',
  );
  const keep = (next: string) => {
    try {
      localStorage.setItem(place, next);
    } catch {
      unkept.set(place, next);
    }
    for (const listener of listeners) listener();
  };
  return [value, keep];
}

const unkept = new Map<string, string>();
