import { createServer } from 'node:http';
import { chromium as browser } from '@playwright/test';
import people from '../../demo/people.json' with { type: 'json' };
import { chromium } from '../../playwright.config';
import { addressVariable, projects, restartVariable } from './visit';
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
  const remote = await remoteControl(shop.restartServer);
  process.env[restartVariable(project)] = remote.address;
  return {
    close: async () => {
      remote.close();
      await shop.close();
    },
  };
}

/** A test runs in another process than the shop: by this it has its server killed and started again. */
async function remoteControl(restart: () => Promise<void>): Promise<{ address: string; close: () => void }> {
  const server = createServer((_, response) => {
    void restart().then(
      () => response.end('restarted'),
      (error: unknown) => response.writeHead(500).end(String(error)),
    );
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const at = server.address();
  if (at === null || typeof at === 'string') throw new Error('no address to be asked at');
  return { address: `http://127.0.0.1:${at.port}`, close: () => server.close() };
}
