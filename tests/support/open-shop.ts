import { chromium as browser } from '@playwright/test';
import people from '../../demo/people.json' with { type: 'json' };
import { chromium } from '../../playwright.config';
import { openShop } from './shop';

/** Opens a shop for the browser tests and signs a technician in once. */
export default async function setup(): Promise<() => Promise<void>> {
  const shop = await openShop();
  process.env.SHOP_ADDRESS = shop.address;
  const window = await browser.launch(chromium);
  const page = await window.newPage();
  await page.goto(`${shop.address}/sign-in`);
  const ines = people.find(({ role }) => role === 'technician');
  await page.getByLabel('Name').fill(ines?.name ?? '');
  await page.getByLabel('Passphrase').fill(ines?.passphrase ?? '');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL(`${shop.address}/`);
  await page.context().storageState({ path: 'test-results/signed-in.json' });
  await window.close();
  return shop.close;
}
