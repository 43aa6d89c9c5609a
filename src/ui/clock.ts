import { betterOf, clockWords, offsetOf, type Contact, type Offset } from '../core/measure/clock';

/**
 * The shop's clock, as this device knows it. How far its own is off is kept with the device, so that what is entered
 * without a connection is written down by the shop's time too.
 */
const place = 'hacienda.clock';
let offset: Offset | undefined;
const listeners = new Set<() => void>();

function known(): Offset | undefined {
  if (offset || typeof localStorage === 'undefined') return offset;
  const [ms = Number.NaN, doubtMs = Number.NaN] = (localStorage.getItem(place) ?? '').split(' ').map(Number);
  if (Number.isFinite(ms) && Number.isFinite(doubtMs)) offset = { ms, doubtMs };
  return offset;
}

/** The shop was heard, and said what time it is. */
export function heardShop(contact: Contact): void {
  if (!Number.isFinite(contact.shopMs)) return;
  const before = known();
  const next = betterOf(before, offsetOf(contact));
  if (next === before) return;
  offset = next;
  try {
    localStorage.setItem(place, `${next.ms} ${next.doubtMs}`);
  } catch {
    // A private window keeps it as long as the page is open.
  }
  for (const listener of listeners) listener();
}

/** The shop's time, ms. */
export const shopNow = (): number => Date.now() + (known()?.ms ?? 0);

/** The shop's time, as it is written down with what is seen. */
export const shopTime = (): string => new Date(shopNow()).toISOString();

/** How far this device's clock is off, in words, where that is worth a word. */
export const clockIsOff = (): string | undefined => {
  const found = known();
  return found && clockWords(found);
};

export function onClock(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
