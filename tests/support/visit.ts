import { expect, type Page } from '@playwright/test';

export const address = (): string => process.env.SHOP_ADDRESS ?? '';

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

/** Waits until the next move is this, and is to be taken. */
export async function expectMove(page: Page, label: string): Promise<void> {
  const foot = page.getByRole('group', { name: 'Next move' });
  await expect(foot.getByRole('button', { name: label, exact: true })).toBeEnabled();
}

export const hydrated = (page: Page) => expect(page.locator('astro-island[ssr]')).toHaveCount(0);
