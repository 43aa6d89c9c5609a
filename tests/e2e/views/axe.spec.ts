import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { address, expect, test } from '../../support/browser-shop';
import { memoryViews, openJob, views } from '../../support/visit';

/** Away from the shop’s own views. */
const outside = ['/sign-in', '/nowhere'];
const stations = ['Placard', 'Gauge', 'Scan', 'Register', 'Prove', 'Hand over'];
const dialogs = ['Lamp', 'Weather', 'Tonight', 'Losses', 'Tires', 'Keys'];

/** In the page itself, which takes half as long: there are no frames of other sites in it. */
const axeOn = (page: Page, part: string) => new AxeBuilder({ page }).setLegacyMode().include(part);

/** What axe finds, in the light and in the dark, and how far the page is wider than its window. */
async function findingsOn(page: Page, part = 'html'): Promise<string[]> {
  const light = await axeOn(page, part).analyze();
  await page.emulateMedia({ colorScheme: 'dark' });
  // What the dark changes is the colours.
  const dark = await axeOn(page, part).withRules('color-contrast').analyze();
  await page.emulateMedia({ colorScheme: 'light' });
  const tooWide = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  return [
    ...light.violations.map(({ id, nodes }) => `${id} ${nodes[0]?.html}`),
    ...dark.violations.map(({ id, nodes }) => `in the dark: ${id} ${nodes[0]?.html}`),
    ...(tooWide > 0 ? [`${tooWide} px too wide`] : []),
  ];
}

const complaints: string[] = [];
test.beforeEach(({ page }) => {
  complaints.length = 0;
  page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()));
});
test.afterEach(() => {
  // The one that is meant: a page that is not there.
  expect(complaints.filter((text) => !text.includes('404'))).toEqual([]);
});
test.use({ contextOptions: { reducedMotion: 'reduce' }, colorScheme: 'light' });

test('axe finds nothing on any view, light or dark', async ({ page }) => {
  for (const path of [...views, ...outside, ...(await memoryViews(page))]) {
    await page.goto(address() + path);
    expect(await findingsOn(page), path).toEqual([]);
  }
});

test('axe finds nothing on a job, its dialogs and its sheet, light or dark', async ({ page }) => {
  const job = await openJob(page, 'KUR 125');
  expect(await findingsOn(page), 'job').toEqual([]);
  // What is behind a dialog was looked at, and cannot be reached meanwhile.
  const cleanDialog = async (name: string) => {
    await expect(page.getByRole('dialog'), name).toBeVisible();
    await expect(page.getByText('Drawing…')).toHaveCount(0);
    expect(await findingsOn(page, 'dialog[open]'), name).toEqual([]);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toBeHidden();
  };
  for (const station of stations) {
    await page.getByRole('navigation').getByRole('button', { name: station }).click();
    await cleanDialog(station);
  }
  for (const button of dialogs) {
    await page.getByRole('button', { name: button, exact: true }).click();
    await cleanDialog(button);
  }
  await page.goto(`${address()}${job}/sheet`);
  expect(await findingsOn(page), 'sheet').toEqual([]);
});

test('axe finds nothing on a phone, where a job is laid out otherwise', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openJob(page, 'KUR 125');
  expect(await findingsOn(page), 'job').toEqual([]);
});
