import type { Browser, Page } from '@playwright/test';
import { address, expect, restartServer, test } from '../../support/browser-shop';
import { v7 as newKey } from 'uuid';
import type { VisitView } from '../../../src/contract/views';
import { expectMove, openJob } from '../../support/visit';
import { RelearnPage, signedIn } from '../../support/relearn';

/** A procedure the manager writes for this test alone. */
async function putOnFile(browser: Browser, procedure: object): Promise<void> {
  const boss = await signedIn(browser, 'manager');
  const response = await boss.request.post(`${address()}/api/procedures`, {
    data: [{ format: 'hacienda.procedure/1', ...procedure }],
    headers: { origin: address() },
  });
  expect(response.status()).toBe(200);
  await boss.context().close();
}

const four = ['LF', 'RF', 'RR', 'LR'];

async function entersVela(at: RelearnPage): Promise<void> {
  await at.makesReady();
  await at.does('Ignition is on', /^Pressed/, /^Pressed/, /^Pressed/);
}

/** Reads the sensors with the tool first: where the car finds them without it, what it should hold is known from here. */
async function wakesAll(page: Page, plate: string): Promise<void> {
  await openJob(page, plate);
  for (const wheel of four) {
    await page.keyboard.press(String(four.indexOf(wheel) + 1));
    await page.keyboard.press('w');
    await page
      .getByRole('dialog')
      .getByRole('button', { name: `Wake ${wheel}` })
      .click();
    await expect(page.getByRole('dialog')).toBeHidden({ timeout: 15_000 });
  }
}

test.describe('each of the seven methods, once to its proved end', () => {
  test('with the tool: two people on one run, one of them on a phone, a reload and a network that goes away', async ({
    page,
    browser,
  }) => {
    const seat = new RelearnPage(page);
    await seat.start('KUR 417', 'Hazards three times');
    const phone = await signedIn(browser, 'manager', {
      viewport: { width: 390, height: 844 },
      hasTouch: true,
    });
    await phone.goto(page.url());
    const wheels = new RelearnPage(phone);

    await entersVela(seat);
    await seat.hears('horn twice');
    await wheels.state('each');
    await expect(phone.getByRole('heading', { level: 2 })).toContainText('Wake the sensor');
    await phone.getByRole('button', { name: 'Wake LF' }).tap();
    await expect(phone.getByText('Simulated car:').locator('b')).toHaveText('horn once');
    await phone.getByRole('button', { name: /horn once/ }).tap();
    await expect(page.getByRole('button', { name: 'Wake RF' })).toBeVisible();

    await page.reload();
    await expect(page.getByText('RF, right front: wheel 2 of 4')).toBeVisible();
    await seat.does('Wake RF');
    await expect(page.getByRole('heading', { level: 2 })).toContainText('Wait for horn once');
    await page.context().setOffline(true);
    await seat.does(/horn once/);
    await expect(page.getByText('RR, right rear: wheel 3 of 4')).toBeVisible();
    await expect(page.getByText('saved on this device')).toBeVisible();
    await expect(phone.getByText('RF, right front: wheel 2 of 4')).toBeVisible();
    await page.context().setOffline(false);
    await expect(phone.getByText('RR, right rear: wheel 3 of 4')).toBeVisible({ timeout: 15_000 });

    // The server goes away and comes back in the middle: what was told meanwhile arrives, once, and both go on.
    await wheels.does('Wake RR');
    await expect(phone.getByRole('heading', { level: 2 })).toContainText('Wait for horn once');
    const restarted = restartServer();
    await wheels.does(/horn once/);
    await restarted;
    await expect(page.getByText('LR, left rear: wheel 4 of 4')).toBeVisible({ timeout: 15_000 });
    await wheels.does('Wake LR', /horn once/);
    await seat.state('finish');
    await seat.does(/horn twice/, 'Ignition is off', 'Read the car');
    await expect(page.getByText('Seen: the car holds the right ID')).toBeVisible();
    await seat.does('goes off');
    await seat.state('done');
    await wheels.state('done');
    await phone.context().close();

    await page.getByRole('link', { name: 'Back to the job' }).click();
    await page.getByRole('button', { name: 'Relearn', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'No relearn is needed' })).toBeVisible();
    await expect(page.getByText('Done, and proved')).toBeVisible();
  });

  test('letting air out: the tires are softer afterwards, and the car hears them on the road', async ({
    page,
  }) => {
    const at = new RelearnPage(page);
    await wakesAll(page, 'ARR 186');
    await at.start('ARR 186', 'air out at each wheel');
    await expect(page.getByText('71D2 0C14')).toBeVisible();
    await at.makesReady();
    await at.does('Ignition is on', ...Array.from({ length: 6 }, () => /^Pressed/));
    await at.hears('horn once');
    for (const wheel of four.slice(0, 3)) {
      await at.does(`Air let out at ${wheel}`);
      await at.hears('horn once');
    }
    await at.does('Air let out at LR');
    await expect(page.getByText('Simulated car:').locator('b')).toHaveText('horn twice');
    await at.does(/horn once/, /horn twice/, 'Ignition is off', 'Read the car');
    await expect(page.getByText('Seen: the car holds the right ID')).toBeVisible();
    // Standing, its sensors sleep: the display of a driven car shows them.
    for (const wheel of four) {
      await page.getByLabel(`${wheel}, kPa`).fill('215');
      await at.does(`It shows ${wheel}`);
    }
    await at.state('done');
  });

  test('with the magnet', async ({ page, browser }) => {
    await putOnFile(browser, {
      name: 'arriero-lock',
      title: 'Hold the lock button, then the magnet',
      method: 'magnet',
      for: { profiles: ['pelluca-arriero'], fromYear: 2018 },
      wheels: four,
      before: ['engine-off'],
      enter: [
        { do: 'set', what: 'ignition', to: 'on' },
        { do: 'hold', what: 'lock-button', leastS: 3, mostS: 10 },
        { do: 'cue', means: 'entered', withinS: 10 },
      ],
      each: [{ do: 'magnet' }, { do: 'cue', means: 'accepted', withinS: 20 }],
      finish: [{ do: 'cue', means: 'finished', withinS: 20 }],
      proof: ['registry'],
      cues: [
        { cue: 'horn 1', means: 'accepted', during: 'each' },
        { cue: 'horn 1', means: 'entered', during: 'enter' },
        { cue: 'horn 2', means: 'finished', during: 'finish' },
      ],
      minutes: 4,
    });
    const at = new RelearnPage(page);
    await wakesAll(page, 'ARR 186');
    await at.start('ARR 186', 'Hold the lock button');
    await at.makesReady();
    await at.does('Ignition is on', 'Holding it now');
    await expect(page.getByRole('timer')).toContainText('left', { timeout: 10_000 });
    await at.does('Let go');
    await at.hears('horn once');
    for (const wheel of four.slice(0, 3)) {
      await at.does(`Magnet held at ${wheel}`);
      await at.hears('horn once');
    }
    await at.does('Magnet held at LR');
    await expect(page.getByText('Simulated car:').locator('b')).toHaveText('horn twice');
    await at.does(/horn once/, /horn twice/, 'Read the car');
    await at.state('done');
  });

  test('with the magnet: a dead sensor is refused, and what it means is said', async ({ page }) => {
    const at = new RelearnPage(page);
    await at.start('ARR 774', 'the magnet at each wheel');
    await at.makesReady();
    await at.does('Ignition is on', ...Array.from({ length: 6 }, () => /^Pressed/));
    await at.hears('horn once');
    for (const wheel of ['LF', 'RF', 'RR']) {
      await at.does(`Magnet held at ${wheel}`);
      await at.hears('horn once');
    }
    await at.does('Magnet held at LR');
    await at.hearsTheEnd('hazards 3 times');
    await at.state('failed');
    await expect(page.getByText('look at the sensor at LR')).toBeVisible();
    await expect(page.getByText(/^Told after .* at LR: hazards 3 times/)).toBeVisible();
  });

  test('sending the IDs: one answer is lost, and the read-back alone decides', async ({ page }) => {
    const at = new RelearnPage(page);
    await at.start('KUR 007', 'Wake all, then send');
    await at.makesReady();
    await at.does(...four.map((wheel) => `Wake ${wheel}`), 'Register the IDs', 'Ignition is off');
    await expect(page.getByRole('timer')).toBeVisible();
    await expect(page.getByRole('heading', { level: 2 })).toContainText('Wait');
    await expect(page.getByRole('button', { name: 'Ignition is on' })).toBeVisible({ timeout: 30_000 });
    await at.does('Ignition is on', 'Read the car', 'goes off');
    await at.state('done');
  });

  test('typing the IDs into the car', async ({ page }) => {
    const at = new RelearnPage(page);
    await at.start('FLT 03', 'five IDs by hand');
    for (const [wheel, id] of Object.entries({ RR: 'D2004E90', LR: 'D2004F81', SP: 'D2004EC7' })) {
      const missing = page.getByRole('button', { name: `Save ${wheel}` });
      if (!(await missing.isVisible())) continue;
      await page.getByRole('textbox', { name: /^ID, / }).first().fill(id);
      await at.does(`Save ${wheel}`);
    }
    await at.makesReady();
    await at.does('Ignition is on', 'Chosen', 'Chosen');
    await at.hears('message IDs stored');
    await at.does('Read the car');
    await at.state('done');
  });

  test('storing the reference: held too short first, then long enough, then driven', async ({
    page,
    browser,
  }) => {
    await putOnFile(browser, {
      name: 'menta-short',
      title: 'Hold the button, a short way',
      method: 'reset',
      for: { profiles: ['ostrel-menta'] },
      before: ['pressures-set'],
      enter: [
        { do: 'set', what: 'ignition', to: 'on' },
        { do: 'hold', what: 'set-button', leastS: 4, mostS: 30 },
      ],
      finish: [{ do: 'drive', leastKmh: 40, leastS: 3 }],
      proof: ['lamp'],
      cues: [{ cue: 'lamp flash 3', during: 'finish', means: 'entered' }],
      minutes: 1,
    });
    const at = new RelearnPage(page);
    await at.start('MEN 220', 'Hold the button, a short way');
    await at.makesReady();
    await at.does('Ignition is on', 'Holding it now', 'Let go');
    await expect(page.getByText('Let go too soon.')).toBeVisible();
    await at.does('Holding it now');
    await expect(page.getByRole('timer')).toContainText('left', { timeout: 10_000 });
    await at.does('Let go');
    await expect(page.getByText('Simulated car:').locator('b')).toHaveText('lamp flash 3 times');
    await at.does('40 km/h or faster now');
    await at.state('prove');
    await at.does('goes off');
    await at.state('done');
  });

  test('driving: a car without a lead, its lamp looked at; the page left before the shop heard of it', async ({
    page,
    browser,
  }) => {
    await putOnFile(browser, {
      name: 'brisa-short',
      title: 'A short way on the road',
      method: 'drive',
      for: { profiles: ['corriente-brisa'] },
      before: ['pressures-set'],
      finish: [{ do: 'drive', leastKmh: 40, leastS: 4, unbroken: true }],
      proof: ['lamp'],
      minutes: 1,
    });
    const at = new RelearnPage(page);
    await at.start('BRI 550', 'A short way on the road');
    await at.makesReady();
    await at.does('40 km/h or faster now', /Slower than 40/);
    await expect(page.getByRole('timer')).toContainText('still to go');
    await at.does('40 km/h or faster now');
    await at.state('prove');
    const onItsWay = '**/api/runs/*/events';
    await page.route(onItsWay, (route) => route.abort());
    await at.does('goes off');
    await at.shows('done');
    await page.getByRole('link', { name: 'Back to the job' }).click();
    await page.waitForURL(/\/jobs\//);
    await page.unroute(onItsWay);
    const job = `${address()}/api/jobs/${page.url().split('/').at(-1) ?? ''}`;
    await expect
      .poll(async () => ((await (await page.request.get(job)).json()) as VisitView).job.observations)
      .toContainEqual(expect.objectContaining({ kind: 'relearn', outcome: 'done' }));
  });
});

test.describe('what goes wrong is said as what it means', () => {
  test('a car that differs from its procedure on file', async ({ page }) => {
    const at = new RelearnPage(page);
    await at.start('KUR 982', 'Hazards three times');
    await entersVela(at);
    await expect(page.getByText('Simulated car:').locator('b')).toHaveText('hazards twice');
    await expect(page.getByRole('button', { name: /hazards twice/ })).toHaveCount(0);
    await at.does('Stop', 'Stop it');
    await at.state('stopped');
  });

  test('a car that leaves learning too soon; then by keyboard alone until it fails', async ({ page }) => {
    const at = new RelearnPage(page);
    await at.start('KUR 007', 'Hazards three times');
    const key = (name: string) => page.keyboard.press(name);
    await page.locator('body').focus();
    await at.makesReady(() => key('Enter'));
    await at.state('enter');
    await key('Enter');
    await expect(page.getByRole('button', { name: /^Pressed: 0/ })).toBeVisible();
    await key('Enter');
    await key('Enter');
    await key('Enter');
    await expect(page.getByText('Simulated car:').locator('b')).toHaveText('horn twice');
    await key('1');
    await at.state('each');
    await expect(page.getByText('Simulated car:').locator('b')).toHaveText('horn 3 times', {
      timeout: 20_000,
    });
    // A slip of the finger ends nothing: it is held for a second.
    await key('3');
    await expect(page.getByRole('button', { name: /^3?horn 3 times/ })).toHaveAttribute('data-held', 'false');
    await at.state('each');
    await page.keyboard.down('3');
    await at.state('expired');
    await page.keyboard.up('3');
    await expect(page.getByText('It ran out at LF')).toBeVisible();
  });

  test('a car that keeps no IDs it is sent is taught with the tool instead', async ({ page }) => {
    await openJob(page, 'KUR 125');
    const at = new RelearnPage(page);
    // One write has failed before. After the second another way is offered.
    await at.does('Register the IDs', /^Register 4 IDs/);
    await expect(page.getByRole('dialog').getByText(/^It failed/)).toBeVisible();
    await page.keyboard.press('Escape');
    await expectMove(page, 'Relearn');
    await at.start('KUR 125', 'Hazards three times');
    await entersVela(at);
    await at.hears('horn twice');
    for (const wheel of four) await at.does(`Wake ${wheel}`, /horn once/);
    await at.does(/horn twice/, 'Ignition is off', 'Read the car');
    await expect(page.getByText('Seen: the car holds the right ID')).toBeVisible();
    await at.does('goes off');
    await at.state('done');
  });

  test('a misheard end is put right by whoever sees it, and a cue for a sensor nobody woke is asked about', async ({
    page,
    browser,
  }) => {
    const at = new RelearnPage(page);
    await at.start('KUR 417', 'Hazards three times');
    await entersVela(at);
    await at.hears('horn twice');
    await at.state('each');
    await at.does(/horn once/);
    await expect(page.getByRole('dialog', { name: 'Nobody has woken LF' })).toBeVisible();
    await at.does('No, wake it first', 'Wake LF');
    await expect(page.getByRole('heading', { level: 2 })).toContainText('Wait for horn once');
    await expect(page.getByRole('button', { name: /^2?horn twice/ })).toBeEnabled();
    // A tap is not enough, and is told so by the button itself.
    await at.does(/horn twice/);
    await at.state('each');
    await page.getByRole('button', { name: /^2?horn twice/ }).click({ delay: 1200 });
    await at.state('failed');

    const phone = await signedIn(browser, 'manager', {
      viewport: { width: 390, height: 844 },
      hasTouch: true,
    });
    await phone.goto(page.url());
    await expect(phone.locator('astro-island[ssr]')).toHaveCount(0);
    await phone.getByRole('button', { name: 'It was horn once' }).tap();
    await at.state('each');
    await expect(page.getByText('RF, right front: wheel 2 of 4')).toBeVisible();
    await expect(page.getByText('The last act was taken back.')).toBeVisible();
    await phone.getByRole('button', { name: 'Take back: horn once' }).tap();
    await expect(page.getByText('LF, left front: wheel 1 of 4. Step 2 of 2')).toBeVisible();
    await phone.context().close();
    await at.does('Stop', 'Stop it');
    await at.state('stopped');
  });

  test('a run that is nowhere', async ({ page }) => {
    await page.goto(`${address()}/runs/${newKey()}`);
    await expect(page.getByText(/nothing here|not here|no such/i).first()).toBeVisible();
  });
});
