import { expect, test } from '@playwright/test';
import { address, hydrated } from '../../support/visit';

test('what is typed before the page is alive is what is saved', async ({ browser }) => {
  const context = await browser.newContext({
    storageState: 'test-results/signed-in-by-hand.json',
    serviceWorkers: 'block',
  });
  const page = await context.newPage();
  // The scripts come late, as over bad radio; what the view is made of last.
  await page.route(/\/_astro\/.*\.js/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await page.goto(`${address()}/book-in`, { waitUntil: 'commit' });
  await page.getByLabel('Plate').fill('EARLY 1');
  await page.getByLabel('Vehicle', { exact: true }).fill('Tarn Velo, early');
  await expect(page.locator('astro-island[ssr]')).not.toHaveCount(0);
  await hydrated(page);
  await expect(page.getByLabel('Plate')).toHaveValue('EARLY 1');
  await page.getByRole('button', { name: 'Book in' }).click();
  await page.waitForURL(/\/jobs\//);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Tarn Velo, early EARLY 1');
  await context.close();
});
