import { chromium as browser, type Page } from '@playwright/test';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from './free-port';
import people from '../../demo/people.json' with { type: 'json' };
import { chromium } from '../../playwright.config';
import { wipe } from './cluster';
import { loadDemo } from './demo-data';
import { root, startInstance } from './instance';
import { say } from './say';

interface Shot {
  name: string;
  /** A path, or the plate whose job is opened. */
  at: string;
  plate?: boolean;
  phone?: boolean;
  dark?: boolean;
  then?: (page: Page) => Promise<void>;
}

/** Waits until the charts that are on the page are drawn. */
const drawn = async (page: Page) => {
  await page.locator('.recharts-surface').first().waitFor();
};

/** The vehicle with a past. */
const remembered = async (page: Page) => {
  await page.getByRole('link', { name: /KUR 731/ }).click();
  await page.waitForURL(/vehicles/);
  await page.waitForFunction(() => !document.querySelector('astro-island[ssr]:not([client=visible])'));
};

/** A customer list, looked at before it comes in. */
const broughtIn = async (page: Page) => {
  const rows = ['Name;Telefon;Kennzeichen', 'Odalys Brannock;+1 555 0101;ZZ 101', ';+1 555 0199;ZZ 104'];
  await page.waitForFunction(() => !document.querySelector('astro-island[ssr]'));
  await page
    .getByLabel('Choose a list')
    .setInputFiles({ name: 'customers.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) });
  await page.getByRole('button', { name: /Bring it in/ }).scrollIntoViewIfNeeded();
};

/** Starts the relearn of this title on the job that is open, and makes ready. */
const running = (title: string) => async (page: Page) => {
  await page.getByRole('button', { name: 'Relearn', exact: true }).click();
  const way = page.locator('dialog details', { hasText: title });
  await way.waitFor();
  const start = way.getByRole('button', { name: 'Start' });
  if (!(await start.isVisible())) await way.locator('summary').click();
  await start.click();
  await page.waitForURL(/runs/);
  await page.waitForFunction(() => !document.querySelector('astro-island[ssr]'));
  for (const ready of ['Parking brake set', 'Engine off', 'Other wheels'])
    await page.getByRole('button', { name: new RegExp(ready) }).click();
  await page.getByRole('button', { name: 'Ignition is on' }).click();
  for (let n = 0; n < 3; n += 1) await page.getByRole('button', { name: /^Pressed/ }).click();
};

const list: Shot[] = [
  { name: 'yard', at: '/' },
  { name: 'book-in', at: '/book-in' },
  { name: 'job', at: 'KUR 125', plate: true },
  { name: 'job-five-wheels-dark', at: 'FLT 03', plate: true, dark: true },
  { name: 'job-phone', at: 'KUR 125', plate: true, phone: true },
  { name: 'sheet', at: 'KUR 633', plate: true },
  {
    name: 'find',
    at: '/find?q=kur',
    then: async (page) => {
      await page.getByRole('link', { name: /KUR 731/ }).waitFor();
    },
  },
  { name: 'records', at: '/records', then: broughtIn },
  { name: 'vehicle', at: '/find?q=KUR731', then: remembered },
  {
    name: 'labels',
    at: '/find?q=KUR731',
    then: async (page) => {
      await remembered(page);
      await page
        .getByRole('region', { name: 'Wheel set summer' })
        .getByRole('button', { name: 'Labels' })
        .click();
      await page.getByRole('button', { name: 'Show them' }).click();
      await page.getByRole('img').first().waitFor();
    },
  },
  { name: 'devices', at: '/devices' },
  { name: 'bench', at: '/bench?tool=lamp&p=230&t=14&on=200&off=215&low=-11&h=1640', then: drawn },
  { name: 'figures', at: '/figures', then: drawn },
  {
    name: 'procedures',
    at: '/procedures',
    then: async (page) => {
      await page.getByRole('button', { name: /Corriente Vela.*with the tool/ }).click();
    },
  },
  {
    name: 'procedure-editor',
    at: '/procedures/edit?name=vela-tool',
    then: async (page) => {
      await page.getByRole('group', { name: 'Enter learning' }).evaluate((part) => part.scrollIntoView());
    },
  },
  {
    name: 'programming',
    at: 'FLT 03',
    plate: true,
    then: async (page) => {
      await page.getByRole('button', { name: 'Program', exact: true }).click();
      const box = page.getByRole('group', { name: 'Simulated sensors' });
      await box.getByRole('checkbox', { name: /U4-1021/ }).click();
      await box.getByText(/U4-1021.*in the cradle/).waitFor();
      await page.getByRole('button', { name: 'Program LF' }).click();
      await page.getByText(/read back\./).waitFor();
    },
  },
  {
    name: 'service',
    at: 'SIE 218',
    plate: true,
    then: async (page) => {
      await page.getByRole('button', { name: 'Service', exact: true }).click();
      await page.getByLabel('Part').selectOption({ label: 'Universal 433, metal stem (UNI-4M)' });
      for (const box of (await page.getByRole('dialog').getByRole('checkbox').all()).slice(0, 4))
        await box.check();
      await page.getByLabel('Printed on the sensor').fill('5C10A2E4');
    },
  },
  {
    name: 'run',
    at: 'KUR 417',
    plate: true,
    then: async (page) => {
      await running('Hazards three times')(page);
      await page.getByRole('button', { name: /horn twice/ }).click();
      await page.getByRole('button', { name: 'Wake LF' }).click();
      await page.getByRole('heading', { name: /Wait for horn once/ }).waitFor();
      await page.getByRole('button', { name: /horn once/ }).click();
      await page.getByRole('button', { name: 'Wake RF' }).click();
      await page.getByRole('heading', { name: /Wait for horn once/ }).waitFor();
    },
  },
  {
    name: 'gauges',
    at: '/gauges',
    then: async (page) => {
      await page.getByRole('button', { name: 'Show the error' }).first().click();
      await drawn(page);
    },
  },
];

/** Remakes docs/screenshots from the demo data, in a shop of its own that is gone afterwards. */
export async function shots(): Promise<number> {
  const folder = mkdtempSync(join(tmpdir(), 'hacienda-shots-'));
  const target = join(root, 'docs/screenshots');
  rmSync(target, { recursive: true, force: true });
  mkdirSync(target, { recursive: true });
  const port = await freePort();
  const shop = await startInstance({ folder, port, demo: true, prepare: loadDemo });
  const window = await browser.launch(chromium);
  try {
    const who = people.find(({ role }) => role === 'manager');
    const door = await window.newContext();
    await door.request.post(`${shop.address}/api/sign-in`, { data: who, headers: { origin: shop.address } });
    const storageState = await door.storageState();
    for (const { name, at, plate, phone, dark, then } of list) {
      const context = await window.newContext({
        storageState,
        viewport: phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
        colorScheme: dark ? 'dark' : 'light',
        reducedMotion: 'reduce',
      });
      const page = await context.newPage();
      await page.goto(shop.address + (plate ? '/' : at));
      if (plate) {
        const href = await page.getByRole('link', { name: at }).getAttribute('href');
        await page.goto(`${shop.address}${href}`, { waitUntil: 'load' });
      }
      await page.waitForFunction(() => !document.querySelector('astro-island[ssr]:not([client=visible])'));
      await page.evaluate(() => document.fonts.ready);
      await then?.(page);
      await page.screenshot({ path: join(target, `${name}.png`) });
      await context.close();
      say(`docs/screenshots/${name}.png`);
    }
  } finally {
    await window.close();
    await shop.stop();
    wipe(folder);
  }
  return 0;
}
