/** An hour's outdoor temperature; `at` is ISO 8601 with the offset of the place. */
export interface Hour {
  at: string;
  celsius: number;
}

/** The coldest hour of a night, and which night: the date of the evening it begins on. */
export interface Night {
  evening: string;
  coldest: Hour;
}

const hourMs = 3_600_000;
const noon = 12;
const morningEnds = 8;
const localHour = (at: string) => Number(at.slice(11, 13));

/**
 * The coldest hour of each night (noon to noon by the clock of the place), first night first. Of a night
 * some hour before eight in the morning must be known: an afternoon alone is no night.
 */
export function nightsOf(hours: readonly Hour[]): Night[] {
  const nights = new Map<string, Hour[]>();
  for (const hour of hours) {
    const evening = eveningOf(hour.at);
    nights.set(evening, [...(nights.get(evening) ?? []), hour]);
  }
  return [...nights].flatMap(([evening, known]) => {
    const [first, ...rest] = known;
    if (!first || !known.some(({ at }) => localHour(at) < morningEnds)) return [];
    return [{ evening, coldest: rest.reduce((a, b) => (b.celsius < a.celsius ? b : a), first) }];
  });
}

/** The date of the noon before, by the local time written in the timestamp. */
function eveningOf(at: string): string {
  const date = at.slice(0, 10);
  if (localHour(at) >= noon) return date;
  return new Date(Date.parse(`${date}T00:00:00Z`) - 24 * hourMs).toISOString().slice(0, 10);
}

/** The temperature of the hour that holds a moment, or of the nearest one within three hours. */
export function celsiusAt(hours: readonly Hour[], moment: number): number | undefined {
  const near = hours
    .map((hour) => ({ hour, away: Math.abs(Date.parse(hour.at) + hourMs / 2 - moment) }))
    .sort((a, b) => a.away - b.away)[0];
  return near && near.away <= 3 * hourMs ? near.hour.celsius : undefined;
}

/** The hours from a moment on. */
export const hoursFrom = (hours: readonly Hour[], moment: number): Hour[] =>
  hours.filter(({ at }) => Date.parse(at) + hourMs > moment);
