import { expect, type Page } from '@playwright/test';
import { address } from './browser-shop';

/** Views that need no address made of something that is kept; what is seen of all of them is in `tests/e2e/views/`. */
export const views = ['/', '/book-in', '/bench', '/procedures', '/gauges', '/devices', '/figures', '/setup'];

/** Opens the job of a plate from the Yard and waits until it is alive. */
export async function openJob(page: Page, plate: string): Promise<string> {
  await page.goto(`${address()}/`);
  const href = await page.getByRole('link', { name: plate }).getAttribute('href');
  const path = (href ?? '').replace(/\/sheet$/, '');
  // The sheet listens for news as soon as it listens for keys.
  const listening = page.waitForRequest(/\/events$/);
  await page.goto(address() + path);
  await listening;
  return path;
}

/** Views of what the shop remembers: the box, a vehicle, a sensor, and a sheet of labels. */
export async function memoryViews(page: Page): Promise<string[]> {
  const found = await page.request.get(`${address()}/api/find?q=KUR731`);
  const [vehicle] = (await found.json()) as { id: string }[];
  const labelled = await page.request.post(`${address()}/api/labels`, {
    headers: { origin: address() },
    data: { targets: [{ of: 'key', vehicleId: vehicle?.id }] },
  });
  const codes = ((await labelled.json()) as string[]).join();
  return ['/find', `/vehicles/${vehicle?.id}`, '/sensors/5A0E6C41', `/labels?codes=${codes}&stock=roll-62`];
}

/** Waits until the next move is this, and is to be taken. */
export async function expectMove(page: Page, label: string): Promise<void> {
  const foot = page.getByRole('group', { name: 'Next move' });
  await expect(foot.getByRole('button', { name: label, exact: true })).toBeEnabled();
}

/** What the next move is, once it can be taken. */
export async function nextMoveOf(page: Page): Promise<string> {
  const button = page.getByRole('group', { name: 'Next move' }).getByRole('button').last();
  await expect(button).toBeEnabled();
  return (await button.textContent())?.trim() ?? '';
}

/**
 * Takes the moves that measure, in whatever order the job asks for them, until it asks for this one. Fails
 * after more of them than any car needs.
 */
export async function measureUntil(
  page: Page,
  until: string,
  take: (move: string) => Promise<void>,
): Promise<void> {
  for (let n = 0; n < 30; n += 1) {
    const move = await settledMoveOf(page);
    if (move === until) return;
    await take(move);
    await expect.poll(() => nextMoveOf(page), { timeout: 15_000 }).not.toBe(move);
  }
  throw new Error(`${until} was never asked for`);
}

/** The move that stands once all readings on their way were judged: the same for a while. */
async function settledMoveOf(page: Page): Promise<string> {
  let last = '';
  await expect
    .poll(
      async () => {
        const before = last;
        last = await nextMoveOf(page);
        return last === before;
      },
      { intervals: [400] },
    )
    .toBe(true);
  return last;
}

/** All that is alive at once is; what lies further down wakes once it is seen. */
export const hydrated = (page: Page) =>
  expect(page.locator('astro-island[ssr]:not([client=visible])')).toHaveCount(0);

/** A finding as the panel of findings names it. */
export const found = (page: Page, title: string | RegExp) =>
  page.getByRole('region', { name: 'Findings' }).getByText(title);

/** Presses what hands the car over; what keeps the sheet from coming is told, not waited out. */
export async function handsOver(page: Page, how: 'proved' | 'not proved'): Promise<void> {
  const dialog = page.getByRole('dialog', { name: 'Hand over' });
  await dialog.getByRole('button', { name: `Hand over, ${how}` }).click();
  const says = () => dialog.textContent({ timeout: 1000 }).catch(() => 'no dialog');
  await expect
    .poll(async () => (page.url().endsWith('/sheet') ? 'the sheet' : await says()), 'what is shown')
    .toBe('the sheet');
}
