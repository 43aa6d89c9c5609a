import people from '../../../demo/people.json' with { type: 'json' };
import type { Page } from '@playwright/test';
import { address, expect, test } from '../../support/browser-shop';
import type { Job } from '../../../src/core/job';
import { signedIn } from '../../support/relearn';
import { hydrated } from '../../support/visit';

const pressures = { LF: '231', RF: '229', RR: '221', LR: '219' };
const ids = { LF: '5A0C11D7', RF: '5A0C12E8', RR: '5A0C1404', LR: '5A0C150B' };
const digit = { LF: '1', RF: '2', RR: '3', LR: '4' };

/** The worker has the app and this page on the device. */
const isKept = (page: Page) =>
  expect
    .poll(
      () => page.evaluate(async (path) => Boolean(await caches.match(path)), new URL(page.url()).pathname),
      { timeout: 30_000 },
    )
    .toBe(true);

async function bookIn(page: Page, plate: string): Promise<string> {
  await page.goto(`${address()}/book-in`);
  await hydrated(page);
  await page.getByLabel('Plate').fill(plate);
  await page.getByLabel('Vehicle', { exact: true }).fill('Tarn Velo, red');
  // The sheet listens for news as soon as it listens for keys.
  const listening = page.waitForRequest(/\/events$/);
  await page.getByRole('button', { name: 'Book in' }).click();
  await listening;
  return new URL(page.url()).pathname;
}

async function types(page: Page): Promise<void> {
  await page.keyboard.press('p');
  const placard = page.getByRole('dialog', { name: 'Placard' });
  await placard.getByLabel(/^Front, cold/).fill('230');
  await placard.getByLabel(/^Rear, cold/).fill('220');
  await placard.getByRole('button', { name: /^Save the placard/ }).click();
  await expect(placard).toBeHidden();
  await page.keyboard.press('1');
  await page.keyboard.press('g');
  const gauge = page.getByRole('dialog', { name: /^Gauge/ });
  for (const kPa of Object.values(pressures)) {
    await expect(gauge.getByLabel(/^Reading/)).toHaveValue('');
    await gauge.getByLabel(/^Reading/).fill(`${kPa} c`);
    await page.keyboard.press('Enter');
  }
  await expect(gauge).toBeHidden();
}

test('a whole walk without the network, over a closed tab and on two devices: all of it arrives, once, in order', async ({
  page,
  browser,
}) => {
  const path = await bookIn(page, 'OFF 101');
  await isKept(page);
  const other = await signedIn(browser, 'manager');
  await other.goto(address() + path);
  await hydrated(other);
  await isKept(other);

  await page.context().setOffline(true);
  await other.context().setOffline(true);
  await types(page);
  await expect(page.getByText(/No connection\. 5 saved on this device, not sent yet/)).toBeVisible();

  // The tab is closed, and the job opened again in another, all without a connection.
  const context = page.context();
  await page.close();
  const again = await context.newPage();
  await again.goto(address() + path);
  await hydrated(again);
  const ledger = again.getByRole('group', { name: 'Ledger' });
  for (const kPa of Object.values(pressures)) await expect(ledger.getByText(kPa).first()).toBeVisible();
  await expect(ledger.getByText('230').first()).toBeVisible();
  for (const [wheel, id] of Object.entries(ids)) {
    await again.keyboard.press(digit[wheel as keyof typeof digit]);
    await again.keyboard.press('w');
    const scan = again.getByRole('dialog');
    await scan.getByLabel('ID the tool shows').fill(id);
    await scan.getByRole('button', { name: 'Save what it shows' }).click();
    await expect(scan).toBeHidden();
  }
  await again.getByRole('button', { name: 'Service', exact: true }).click();
  const service = again.getByRole('dialog', { name: 'Service of a sensor' });
  await service.getByRole('checkbox').first().check();
  await service.getByRole('button', { name: 'Save the service of LF' }).click();
  await expect(service.getByText('Saved, by')).toBeVisible();
  await again.keyboard.press('Escape');
  await again.reload();
  await hydrated(again);
  await expect(ledger).toContainText('5A0C 11D7');
  await expect(again.getByText(/No connection\. 10 saved on this device/)).toBeVisible();
  // What cannot be done without the shop says so before it is tried.
  await again.getByRole('button', { name: 'Hand over' }).click();
  await expect(again.getByRole('dialog')).toContainText('No connection to the shop');
  await again.keyboard.press('Escape');

  await other.keyboard.press('l');
  await other.getByRole('radio', { name: 'on, steady' }).check();
  await other.getByRole('button', { name: 'Save the lamp' }).click();
  await expect(other.getByText(/1 saved on this device/)).toBeVisible();

  await other.context().setOffline(false);
  await context.setOffline(false);
  await expect(again.getByText(/saved on this device/)).toHaveCount(0, { timeout: 30_000 });
  await expect(other.getByText(/saved on this device/)).toHaveCount(0, { timeout: 30_000 });

  const file = (await (await again.request.get(`${address()}/api${path}/file`)).json()) as Job;
  expect(file.placard).toMatchObject([
    { position: 'front', coldKPa: 230 },
    { position: 'rear', coldKPa: 220 },
  ]);
  const read = file.observations.filter(({ kind }) => kind === 'gauge');
  expect(read.map((seen) => 'kPa' in seen && String(seen.kPa))).toEqual(Object.values(pressures));
  const heard = file.observations.flatMap((seen) => (seen.kind === 'activation' ? seen.replies : []));
  expect(heard.map(({ id }) => id)).toEqual(Object.values(ids));
  expect(file.observations.filter(({ kind }) => kind === 'lamp')).toHaveLength(1);
  expect(file.observations).toHaveLength(9);
  expect(file.sensorServices).toMatchObject([{ wheel: 'LF', done: [expect.any(String)] }]);
  await other.context().close();
});

test('what one person typed on a device goes out under no other name', async ({ browser }) => {
  // The page alone speaks to the shop: what a worker sends, an aborted route does not hold back.
  const page = await signedIn(browser, 'technician', { serviceWorkers: 'block' });
  const path = await bookIn(page, 'OFF 202');
  await page.context().route('**/observations', (route) => route.abort());
  await page.keyboard.press('l');
  await page.getByRole('radio', { name: 'on, steady' }).check();
  await page.getByRole('button', { name: 'Save the lamp' }).click();
  await expect(page.getByText(/1 saved on this device/)).toBeVisible();
  await page.goto('about:blank');
  await page.context().clearCookies();
  await page.context().unroute('**/observations');

  const sign = async (role: string) => {
    const who = people.find((person) => person.role === role);
    await page.goto(`${address()}/sign-in`);
    await page.getByLabel('Name').fill(who?.name ?? '');
    await page.getByLabel('Passphrase').fill(who?.passphrase ?? '');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.waitForURL(`${address()}/`);
    await page.goto(address() + path);
    await hydrated(page);
  };
  const lamps = async () =>
    ((await (await page.request.get(`${address()}/api${path}/file`)).json()) as Job).observations.length;
  await sign('manager');
  await expect(page.getByText(/entered by Ines, and goes out once they sign in here/)).toBeVisible();
  expect(await lamps()).toBe(0);
  await page.context().clearCookies();
  await sign('technician');
  await expect.poll(lamps, { timeout: 15_000 }).toBe(1);
  const history = (await (await page.request.get(`${address()}/api${path}/history`)).json()) as {
    by: string;
  }[];
  expect(history.map(({ by }) => by)).toEqual(['Ines']);
  await page.context().close();
});

test('signing out with something unsent asks first; it waits on the device, and the rest is forgotten', async ({
  browser,
}) => {
  const page = await signedIn(browser, 'technician', { serviceWorkers: 'block' });
  const path = await bookIn(page, 'OFF 203');
  await page.context().route('**/observations', (route) => route.abort());
  await page.keyboard.press('l');
  await page.getByRole('radio', { name: 'on, steady' }).check();
  await page.getByRole('button', { name: 'Save the lamp' }).click();
  await expect(page.getByText(/1 saved on this device/)).toBeVisible();
  await page.goto(address());
  await page.getByRole('button', { name: 'Sign out' }).click();
  const asked = page.getByRole('dialog');
  await expect(asked).toContainText('1 entry is not sent yet');
  await asked.getByRole('button', { name: 'Stay' }).click();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await asked.getByRole('button', { name: 'Sign out' }).click();
  await page.waitForURL(/sign-in/);
  await page.context().unroute('**/observations');
  const who = people.find(({ role }) => role === 'technician');
  await page.getByLabel('Name').fill(who?.name ?? '');
  await page.getByLabel('Passphrase').fill(who?.passphrase ?? '');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL(`${address()}/`);
  await page.goto(address() + path);
  await expect
    .poll(
      async () =>
        ((await (await page.request.get(`${address()}/api${path}/file`)).json()) as Job).observations.length,
      { timeout: 15_000 },
    )
    .toBe(1);
  await page.context().close();
});
