import type { Page } from '@playwright/test';
import { expect, stateOf, test } from '../../support/browser-shop';
import {
  bookIn,
  ids,
  leavesProved,
  names,
  pick,
  road,
  typist,
  type Answers,
  type Wheel,
} from '../../support/by-hand';
import { found, measureUntil, nextMoveOf } from '../../support/visit';

/** Any car is finished in a shop without any device: each is proved by what somebody typed. */

test('one tire is low: filled, gauged again, and proved', async ({ page }) => {
  await bookIn(page, { plate: 'ANY 1', lamp: /^on, steady/ });
  const take = typist(page, { gauge: { RF: [160, 230] }, heard: pick(road), held: [pick(road)] });
  await measureUntil(page, 'Fill RF, read again', take);
  await expect(found(page, 'Tire low: RF')).toBeVisible();
  await measureUntil(page, 'Hand over', take);
  await leavesProved(page);
  await expect(page.getByText(/Have RF gauged again by/)).toBeVisible();
});

test('a sensor that was replaced and never registered is registered with another tool, read back, and proved', async ({
  page,
}) => {
  await bookIn(page, { plate: 'ANY 2', lamp: /^flashes, then steady/, work: 'sensor replaced' });
  const take = typist(page, {
    heard: pick(road),
    held: [{ ...pick(road), RR: '6C0FFEE1' }, pick(road)],
  });
  await measureUntil(page, 'Register the IDs', take);
  await expect(found(page, 'ID unknown to the car: RR')).toBeVisible();
  await measureUntil(page, 'Hand over', take);
  await leavesProved(page);
});

test('positions swapped since a rotation are put right and proved', async ({ page }) => {
  await bookIn(page, { plate: 'ANY 3', lamp: /^off, after/, work: 'wheels rotated' });
  const swapped = { ...pick(road), LR: ids.RR, RR: ids.LR };
  const take = typist(page, { heard: pick(road), held: [swapped, pick(road)] });
  await measureUntil(page, 'Register the IDs', take);
  await expect(found(page, /^Positions swapped/)).toBeVisible();
  await measureUntil(page, 'Hand over', take);
  await leavesProved(page);
});

test('a car without sensors is filled, reset and driven, by keyboard', async ({ page }) => {
  await bookIn(page, { plate: 'ANY 4', lamp: /^on, steady/, indirect: true, work: 'tires fitted' });
  const typing = typist(page, { heard: {} });
  const take = async (move: string) => {
    if (move !== 'Reset the system') return typing(move);
    await page.locator('body').focus();
    await page.keyboard.press('Enter');
    const reset = page.getByRole('dialog', { name: 'Reset the system' });
    const confirmed = reset.getByRole('button', { name: 'The car confirmed it' });
    for (let n = 0; n < 12 && !(await confirmed.evaluate((node) => node === document.activeElement)); n += 1)
      await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    await expect(reset.getByText('The reset is noted.')).toBeVisible();
    await page.keyboard.press('Escape');
  };
  await measureUntil(page, 'Hand over', take);
  await leavesProved(page);
  await expect(page.getByRole('article')).toContainText('Relearn, reset the system: done.');
  await expect(page.getByRole('article')).not.toContainText('No codes stored');
});

test('five wheels: a low spare lights the lamp, and all five are proved', async ({ page }) => {
  const all: Wheel[] = [...road, 'SP'];
  await bookIn(page, { plate: 'ANY 5', lamp: /^on, steady/, spare: true });
  const take = typist(page, { gauge: { SP: [120, 230] }, heard: pick(all), held: [pick(all)] });
  await measureUntil(page, 'Fill SP, read again', take);
  await measureUntil(page, 'Hand over', take);
  await leavesProved(page);
});

test('a dead sensor: found by hand, a new one fitted and registered, and proved', async ({ page }) => {
  await bookIn(page, { plate: 'ANY 6', lamp: /^flashes, then steady/ });
  const heard: Answers['heard'] = { ...pick(road), LR: null };
  const before = typist(page, { heard, held: [pick(road)] });
  await measureUntil(page, 'Replace the LR sensor', before);
  await expect(found(page, 'Sensor silent: LR')).toBeVisible();
  // Fitted without a catalogue or a cradle here: what answers at the wheel now says so.
  await page.keyboard.press('4');
  await page.keyboard.press('w');
  await page.getByRole('dialog').getByLabel('ID the tool shows').fill('6C2B77A0');
  await page.getByRole('dialog').getByRole('button', { name: 'Save what it shows' }).click();
  const now = { ...pick(road), LR: '6C2B77A0' };
  const take = typist(page, { heard: now, held: [now] });
  await measureUntil(page, 'Hand over', take);
  await leavesProved(page);
});

test('a check by hand keeps every wheel, and a list of the tool comes in at once', async ({ page }) => {
  await bookIn(page, { plate: 'ANY 8', lamp: /^on, steady/ });
  const dialog = page.getByRole('dialog');
  const ledger = page.getByRole('group', { name: 'Ledger' });
  await page.getByRole('button', { name: 'Other checks' }).click();
  await dialog.getByRole('button', { name: 'Note the display' }).click();
  for (const [at, wheel] of road.entries()) await dialog.getByLabel(`Display, ${wheel}`).fill(`${221 + at}`);
  await dialog.getByRole('button', { name: 'Save what it shows' }).click();
  await expect(dialog).toBeHidden();
  for (const kPa of ['221', '222', '223', '224']) await expect(ledger.getByText(kPa)).toBeVisible();

  await page.keyboard.press('w');
  await dialog.getByText('paste the tool’s list').click();
  await dialog.getByLabel('A wheel and its ID a line').fill(road.map((wheel) => ids[wheel]).join('\n'));
  await dialog.getByRole('button', { name: 'Save 4 sensors' }).click();
  await expect(dialog).toBeHidden();
  for (const shown of ['6C20 A1F4', '6C20 A2E8', '6C20 A3D0', '6C20 A4C2'])
    await expect(ledger.getByText(shown)).toBeVisible();
  await expect(page.getByText(/saved on this device/)).toHaveCount(0);
  await expect(page.getByText(/^Not stored/)).toHaveCount(0);
});

test('wheel speeds are typed as the speeds a tool shows', async ({ page }) => {
  await bookIn(page, { plate: 'ANY 9', lamp: /^on, steady/, indirect: true });
  const dialog = page.getByRole('dialog');
  await page.getByRole('button', { name: 'Other checks' }).click();
  await dialog.getByRole('button', { name: 'Compare wheel speeds' }).click();
  const speeds = { LF: '60.0', RF: '60.0', RR: '60.6', LR: '60.0' };
  for (const [wheel, speed] of Object.entries(speeds))
    await dialog.getByLabel(`${wheel}, ${names[wheel as Wheel]}`).fill(speed);
  await dialog.getByRole('button', { name: 'Save the speeds' }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: 'Correct the car and the visit' }).click();
  await dialog.getByRole('button', { name: 'History of this job' }).click();
  await expect(dialog.getByText('RR turns 0.75 % faster than the mean')).toBeVisible();
  await expect(dialog.getByText(/turns 0.25 % slower than the mean/)).toHaveCount(3);
});

test('on a phone, by touch, a car whose tire is low leaves proved in at most 30 taps and what is typed', async ({
  browser,
}) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    storageState: stateOf('technician'),
  });
  const page = await context.newPage();
  await bookIn(page, { plate: 'ANY 7', lamp: /^on, steady/, indirect: true });
  let taps = 0;
  const tap = async (name: string | RegExp, within = page.locator('body'), force = false) => {
    taps += 1;
    const button = within.getByRole('button', { name, exact: typeof name === 'string' }).first();
    await expect(button).toBeEnabled();
    await button.tap({ force });
  };
  const dialog = page.getByRole('dialog');
  const figures: Record<string, string[]> = { LF: ['230'], RF: ['166', '230'], RR: ['230'], LR: ['230'] };
  for (let n = 0; n < 20; n += 1) {
    const move = await nextMoveOf(page);
    if (move === 'Hand over') break;
    // The dialog opens under the thumb and takes the end of the tap: that is no tap that missed.
    await tap(move, page.getByRole('group', { name: 'Next move' }), true);
    const [what = ''] = move.split(' ');
    if (what === 'Gauge' || what === 'Fill') {
      await expect(dialog).toBeVisible();
      // The dialog goes on round the car by itself.
      for (let wheel = await gaugedWheel(page); wheel; wheel = await gaugedWheel(page)) {
        await dialog.getByLabel(/^Reading/).fill(figures[wheel]?.shift() ?? '230');
        // It is asked once: the others stand as the first did.
        if (!(await dialog.getByRole('radio', { name: 'cold' }).isChecked())) {
          taps += 1;
          await dialog.locator('label', { hasText: /^cold$/ }).tap();
        }
        await tap(`Save ${wheel}`);
      }
    } else if (move === 'Look at the lamp') {
      taps += 1;
      await page.locator('label', { hasText: /^off, after it lit/ }).tap();
      await tap('Save the lamp');
    } else if (what === 'Look') {
      taps += 1;
      await page.locator('label', { hasText: 'rubber stem' }).tap();
      await tap('Save the look');
    } else if (what === 'Say') {
      await tap('Looked into: in order');
    } else if (move === 'Reset the system') {
      await tap('The car confirmed it');
      await tap('Later');
    }
    await expect(dialog).toBeHidden();
    await expect.poll(() => nextMoveOf(page)).not.toBe(move);
  }
  await expect(page.getByText('Proved: everything was checked and is right')).toBeVisible();
  await tap('Hand over', page.getByRole('group', { name: 'Next move' }));
  await tap('Hand over, proved');
  await page.waitForURL(/\/sheet$/);
  await expect(page.getByText('✓ Proved')).toBeVisible();
  expect(taps).toBeLessThanOrEqual(30);
  await context.close();
});

/** The wheel the gauge dialog asks for; undefined once it has closed. */
async function gaugedWheel(page: Page): Promise<Wheel | undefined> {
  const gauge = page.getByRole('dialog', { name: /^Gauge, / });
  await expect
    .poll(async () => !(await gauge.isVisible()) || (await gauge.getByLabel(/^Reading/).inputValue()) === '')
    .toBe(true);
  if (!(await gauge.isVisible())) return undefined;
  const title = await gauge.getByRole('heading').first().textContent();
  return Object.entries(names).find(([, name]) => title?.endsWith(name))?.[0] as Wheel | undefined;
}
