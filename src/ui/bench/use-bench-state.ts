import { useState } from 'react';

/** What is typed on the bench, held in the address, so that a link brings it back. */
interface BenchState<Name extends string> {
  values: Record<Name, string>;
  set: (name: Name, value: string) => void;
  /** The path of the page as it stands. */
  link: string;
}

/** `search` is the address's query as the page was asked for; names that are not in it start as given. */
export function useBenchState<Name extends string>(
  tool: string,
  search: string,
  start: Record<Name, string>,
): BenchState<Name> {
  const [values, setValues] = useState(() => {
    const query = new URLSearchParams(search);
    const mine = query.get('tool') === tool;
    return Object.fromEntries(
      Object.entries<string>(start).map(([name, value]) => [name, (mine ? query.get(name) : null) ?? value]),
    ) as Record<Name, string>;
  });
  const link = linkOf(tool, values);
  const set = (name: Name, value: string) => {
    const next = { ...values, [name]: value };
    setValues(next);
    window.history.replaceState(null, '', linkOf(tool, next));
  };
  return { values, set, link };
}

function linkOf(tool: string, values: Record<string, string>): string {
  const query = new URLSearchParams({ tool });
  for (const [name, value] of Object.entries(values)) if (value !== '') query.set(name, value);
  return `/bench?${query.toString()}`;
}
