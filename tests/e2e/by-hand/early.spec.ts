import { address, expect, stateOf, test } from '../../support/browser-shop';
import { openJob } from '../../support/visit';

test('what is typed and pressed before the page is alive is what is saved, once', async ({ browser }) => {
  const context = await browser.newContext({
    storageState: stateOf('technician'),
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
  // Twice, as an impatient thumb does.
  await page.getByRole('button', { name: 'Book in' }).dblclick();
  await expect(page.locator('astro-island[ssr]')).not.toHaveCount(0);
  await page.waitForURL(/\/jobs\//);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Tarn Velo, early EARLY 1');
  await context.close();
});

test('a part of the app that did not come before the connection went comes with it; the sheet stays', async ({
  browser,
}) => {
  const context = await browser.newContext({
    storageState: stateOf('technician'),
    serviceWorkers: 'block',
  });
  const page = await context.newPage();
  let isAway = true;
  await page.route(/\/_astro\/(dialogs|notices|LampDialog)\..*\.js/, (route) =>
    isAway ? route.abort('internetdisconnected') : route.continue(),
  );
  await openJob(page, 'KUR 417');
  await page.keyboard.press('l');
  const late = page.getByText('This is not on the device yet');
  await expect(late).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(late).toBeHidden();
  await expect(page.getByRole('group', { name: 'Ledger' })).toBeVisible();
  await page.keyboard.press('l');
  await expect(late).toBeVisible();
  isAway = false;
  await page.getByRole('radio', { name: 'on, steady' }).check();
  await expect(late).toBeHidden();
  await context.close();
});
