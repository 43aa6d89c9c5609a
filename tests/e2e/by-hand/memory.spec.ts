import { movedByKeys } from '../../support/drag';
import { chromium } from '@playwright/test';
import { address, expect, stateOf, test } from '../../support/browser-shop';
import { chromium as started } from '../../../playwright.config';
import { cameraArguments, film } from '../../support/camera';
import { bookIn, leavesProved, names, pick, road, typist, type Wheel } from '../../support/by-hand';
import { hydrated, measureUntil } from '../../support/visit';

/** What the shop remembers of a car, its wheels and its sensors, over visits. */

const winter: Record<Wheel, string> = {
  LF: '7D31B0A4',
  RF: '7D31B1C8',
  RR: '7D31B2E0',
  LR: '7D31B3F6',
  SP: '7D31B40A',
};

test('winter change: the set is put on file and labelled, its label read by the camera, put on the car, taught and proved', async ({
  page,
}) => {
  // The summer visit leaves the set that was heard on file.
  await bookIn(page, { plate: 'WIN 1', lamp: /^off, after/ });
  const summer = typist(page, { heard: pick(road), held: [pick(road)] });
  await measureUntil(page, 'Hand over', summer);
  await leavesProved(page);

  // Found again by a part of its plate, by keyboard.
  await page.goto(`${address()}/find`);
  await hydrated(page);
  const box = page.getByRole('searchbox');
  await expect(box).toBeFocused();
  await box.fill('win1');
  await expect(page.getByRole('link', { name: /WIN 1/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/vehicles\//);
  await hydrated(page);
  const vehicle = page.url();
  await expect(page.getByRole('region', { name: 'Wheel set on the car' })).toContainText('6C20 A1F4');

  await page.getByRole('button', { name: 'Add a set' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Called').fill('winter');
  await dialog.getByLabel('Place in the store').fill('C 7');
  await dialog
    .getByLabel('Paste a list of IDs')
    .fill(road.map((wheel) => `${wheel} ${winter[wheel]}`).join('\n'));
  const left = dialog.getByRole('group', { name: names.LF });
  await expect(left.getByLabel('Sensor ID')).toHaveValue(winter.LF);
  // Wheels that were laid in another order change places; what is left where it was leaves the dialog open.
  const handle = left.getByRole('button', { name: /^Move the wheel/ });
  await movedByKeys(handle, 'ArrowDown', 'Escape');
  await expect(left.getByLabel('Sensor ID')).toHaveValue(winter.LF);
  await movedByKeys(handle, 'ArrowDown', 'Space');
  await expect(left.getByLabel('Sensor ID')).toHaveValue(winter.RF);
  await movedByKeys(handle, 'ArrowDown', 'Space');
  await expect(left.getByLabel('Sensor ID')).toHaveValue(winter.LF);
  await left.getByLabel('Tread, mm').fill('6,5');
  await left.getByLabel('Tire made').fill('9921');
  await dialog.getByRole('button', { name: 'Save the set' }).click();
  await expect(dialog.getByText(/Week and year as the sidewall ends/)).toBeVisible();
  await left.getByLabel('Tire made').fill('3924');
  await dialog.getByRole('button', { name: 'Save the set' }).click();
  const set = page.getByRole('region', { name: 'Wheel set winter' });
  await expect(set).toContainText('7D31 B0A4');
  await expect(set).toContainText('week 39 of 2024');

  await set.getByRole('button', { name: 'Labels' }).click();
  await dialog.getByRole('button', { name: 'Show them' }).click();
  await page.waitForURL(/\/labels\?/);
  await expect(page.getByRole('img')).toHaveCount(5);
  await expect(page.getByText('Place C 7')).toBeVisible();
  const pdf = await page.request.get(
    new URL((await page.getByRole('link', { name: 'PDF' }).getAttribute('href')) ?? '', page.url()).href,
  );
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  const pictures = test.info().outputPath('label.y4m');
  await film(page, 'svg[role=img]', pictures);

  // Months later: the wheels are fetched from the store, and their label is held before the tablet.
  await bookIn(page, { plate: 'WIN 1', lamp: /^off, after/, known: true });
  const job = page.url();
  const browser = await chromium.launch({
    ...started,
    args: [...started.args, ...cameraArguments(pictures)],
  });
  const tablet = await browser.newPage({ storageState: stateOf('technician') });
  await tablet.goto(`${address()}/find`);
  await hydrated(tablet);
  await tablet.getByRole('button', { name: 'Read a label' }).click();
  await tablet.waitForURL(/\/vehicles\/.*#set-/, { timeout: 30_000 });
  expect(tablet.url().startsWith(vehicle)).toBe(true);
  await browser.close();

  await page.goto(vehicle);
  await hydrated(page);
  await set.getByRole('button', { name: 'Put on the car' }).click();
  await expect(
    dialog.getByText('This car holds one set: register or relearn LF, RF, RR and LR.'),
  ).toBeVisible();
  await dialog.getByRole('button', { name: /^The wheels are on/ }).click();
  await page.waitForURL(job);
  await hydrated(page);
  const taught = typist(page, { heard: pick(road, winter), held: [pick(road), pick(road, winter)] });
  await measureUntil(page, 'Register the IDs', taught);
  await measureUntil(page, 'Hand over', taught);
  await leavesProved(page);
  await page.goto(vehicle);
  await expect(set).toContainText('winter, on the car');
  await expect(page.getByRole('region', { name: 'Wheel set on the car' })).toContainText('in our store, C 7');
});

test('a label that is torn, or of another shop, is told, and the way on', async ({ page }) => {
  await page.goto(`${address()}/find`);
  await hydrated(page);
  await page.getByRole('button', { name: 'Read a label' }).click();
  const dialog = page.getByRole('dialog');
  const typed = dialog.getByLabel(/type the eight characters/);
  await typed.fill('7K3M 9');
  await dialog.getByRole('button', { name: 'Go there' }).click();
  await expect(dialog.getByText(/A label has 8 characters, and this has 5/)).toBeVisible();
  // Its check fits, and nobody here printed it.
  await typed.fill('0000 000A');
  await dialog.getByRole('button', { name: 'Go there' }).click();
  await expect(
    dialog.getByText(/A character of this label is not as it was printed|not printed here/),
  ).toBeVisible();
});

test('a cloned sensor is traced over two cars', async ({ page }) => {
  const id = '7E00C10A';
  await bookIn(page, { plate: 'CLO 1', lamp: /^off, after/ });
  const one = typist(page, {
    heard: { ...pick(road, winter), LF: id },
    held: [{ ...pick(road, winter), LF: id }],
  });
  await measureUntil(page, 'Hand over', one);
  await leavesProved(page);
  await bookIn(page, { plate: 'CLO 2', lamp: /^flashes, then steady/ });
  const dialog = page.getByRole('dialog');
  await page.keyboard.press('1');
  await page.keyboard.press('w');
  await dialog.getByLabel('ID the tool shows').fill(id);
  await dialog.getByRole('button', { name: 'Save what it shows' }).click();
  await expect(dialog).toBeHidden();
  // Said at once on the second car.
  const note = page.getByRole('status').filter({ hasText: '7E00 C10A' });
  await expect(note).toContainText('was met at Tarn Velo, blue CLO 1 too');
  await note.getByRole('link', { name: 'Its life' }).click();
  await page.waitForURL(/\/sensors\/7E00C10A/);
  await expect(page.getByRole('note')).toContainText(/CLO 1 and at Tarn Velo, blue CLO 2/);
  await expect(page.getByRole('listitem')).toContainText([
    'Heard at LF',
    'Held by the car for LF',
    'Heard at LF',
  ]);
});
