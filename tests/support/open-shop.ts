import { chromium as browser } from '@playwright/test';
import people from '../../demo/people.json' with { type: 'json' };
import { chromium } from '../../playwright.config';
import { addressVariable, projects } from './visit';
import { openShop } from './shop';

/** Opens a shop of its own for each group of browser tests, so that none finds another's cars, and signs a technician in. */
export default async function setup(): Promise<() => Promise<void>> {
  const shops: Awaited<ReturnType<typeof openFor>>[] = [];
  // One after the other: the demo is loaded by this process, which has one database at a time.
  for (const project of projects) shops.push(await openFor(project));
  return async () => {
    await Promise.all(shops.map(({ close }) => close()));
  };
}

async function openFor(project: (typeof projects)[number]) {
  // One of them has no device at all.
  const shop = await openShop(project === 'by-hand' ? { devices: false } : {});
  process.env[addressVariable(project)] = shop.address;
  const window = await browser.launch(chromium);
  const page = await window.newPage();
  await page.goto(`${shop.address}/sign-in`);
  const ines = people.find(({ role }) => role === 'technician');
  await page.getByLabel('Name').fill(ines?.name ?? '');
  await page.getByLabel('Passphrase').fill(ines?.passphrase ?? '');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL(`${shop.address}/`);
  await page.context().storageState({ path: `test-results/signed-in-${project}.json` });
  await window.close();
  return shop;
}
