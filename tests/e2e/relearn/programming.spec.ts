import type { Page } from '@playwright/test';
import { expect, test } from '../../support/browser-shop';
import { hydrated, openJob } from '../../support/visit';
import { RelearnPage } from '../../support/relearn';

/** Lays one simulated sensor of the box into the cradle, and no other. */
async function lay(page: Page, serial: string): Promise<void> {
  const box = page.getByRole('group', { name: 'Simulated sensors' });
  await expect(box.getByRole('checkbox').first()).toBeVisible();
  for (const other of await box.getByRole('checkbox', { checked: true }).all()) await other.click();
  await expect(box.getByRole('checkbox', { checked: true })).toHaveCount(0);
  await box.getByRole('checkbox', { name: new RegExp(serial) }).click();
  await expect(box.getByText(new RegExp(`${serial}.*in the cradle`))).toBeVisible();
}

const program = (page: Page, wheel: string) => page.getByRole('button', { name: `Program ${wheel}` }).click();
const choose = (page: Page, wheel: string) =>
  page
    .getByRole('list', { name: 'Wheels' })
    .getByRole('button', { name: new RegExp(`^${wheel}`) })
    .click();

test('a clone: the car needs no relearn, and hears the new sensor on the road', async ({ page }) => {
  await openJob(page, 'KUR 982');
  // One or all: which are worth it is advised, the customer chooses, and the choice leads on.
  await page.getByRole('button', { name: 'Replace', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Replace one or all' });
  await expect(dialog.getByRole('checkbox')).toHaveCount(4);
  for (const worn of await dialog.getByRole('checkbox', { checked: true }).all()) await worn.uncheck();
  await dialog.getByRole('checkbox', { name: /^LR, / }).check();
  await dialog.getByLabel(/customer’s words/).fill('The others in autumn.');
  await dialog.getByRole('button', { name: 'Save the choice, and program' }).click();
  await expect(page.getByRole('button', { name: 'Program LR', exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Program the sensor for LR' }).click();
  await lay(page, 'U4-1021');
  await page
    .getByRole('radio', { name: 'another: typed' })
    .or(page.getByRole('radio', { name: 'an ID that is typed' }))
    .first()
    .click();
  await page.getByRole('radio', { name: 'the old sensor’s ID' }).click();
  const typed = page.getByRole('radio', { name: 'another: typed' });
  if (await typed.isVisible()) await typed.click();
  await page.getByLabel('ID as printed').fill('4C31A244');
  await expect(page.getByText('four charlie three one')).toBeVisible();
  await program(page, 'LR');
  await expect(
    page.getByText('It is 4C31 A244, read back. A clone: the car needs no relearn.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Put U4-1021 into LR' }).click();
  await expect(page.getByText('U4-1021 is in LR now.')).toBeVisible();
  await page.getByRole('link', { name: 'Print the labels' }).click();
  await expect(page.getByRole('main').getByRole('listitem')).toContainText(['4C31 A244']);
  await page.getByRole('link', { name: 'Back to the job' }).click();
  await hydrated(page);
  await page.getByRole('button', { name: 'Relearn', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'no relearn is needed' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('4');
  await page.keyboard.press('w');
  await page.getByRole('button', { name: 'Wake LR' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByRole('group', { name: 'Ledger' })).toContainText('4C31 A244');
});

test('a set of four with new IDs, one answer lost, sent to the car and proved', async ({ page }) => {
  await openJob(page, 'KUR 007');
  await page.getByRole('button', { name: 'Program', exact: true }).click();
  const serials = { LF: 'U4-1022', RF: 'U4-1100', RR: 'U4-1023', LR: 'U4-1024' };
  for (const [wheel, serial] of Object.entries(serials)) {
    await choose(page, wheel);
    await lay(page, serial);
    await page.getByRole('radio', { name: 'a new ID' }).click();
    await program(page, wheel);
    await expect(page.getByText(/read back\. A new ID: the car must be taught/)).toBeVisible({
      timeout: 25_000,
    });
    await page.getByRole('button', { name: `Put ${serial} into ${wheel}` }).click();
    await expect(page.getByText(`${serial} is in ${wheel} now.`)).toBeVisible();
  }
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Relearn', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'A relearn is needed' })).toBeVisible();
  await page.keyboard.press('Escape');

  const at = new RelearnPage(page);
  await at.start('KUR 007', 'Wake all, then send');
  await at.makesReady();
  await at.does('Wake LF', 'Wake RF', 'Wake RR', 'Wake LR', 'Register the IDs', 'Ignition is off');
  await expect(page.getByRole('button', { name: 'Ignition is on' })).toBeVisible({ timeout: 40_000 });
  await at.does('Ignition is on', 'Read the car', 'goes off');
  await at.state('done');
  await page.getByRole('link', { name: 'Back to the job' }).click();
  await page.getByRole('link', { name: 'Sheet' }).click();
  await expect(page.getByText(/Sensor programmed for RF with a new ID, part UNI-4M/)).toBeVisible();
  await expect(page.getByText(/Relearn, register the IDs over the lead .*done, and proved/)).toBeVisible();
});

test('two in the cradle, and a sensor that is spent, are refused with what to do', async ({ page }) => {
  await openJob(page, 'SIE 218');
  await page.getByRole('button', { name: 'Program', exact: true }).click();
  await page.getByRole('radio', { name: 'a new ID' }).click();
  await lay(page, 'U4-0907');
  await program(page, 'LF');
  await expect(page.getByText('takes no more programs')).toBeVisible();
  await page.getByRole('checkbox', { name: /U4-1025/ }).click();
  await expect(page.getByText(/U4-1025.*in the cradle/)).toBeVisible();
  await program(page, 'LF');
  await expect(page.getByText('2 sensors answer in the cradle')).toBeVisible();
});

test('without a cradle: noted by hand, unknown until it is read back', async ({ page }) => {
  await openJob(page, 'SIE 218');
  await page.getByRole('button', { name: 'Program', exact: true }).click();
  await page.getByRole('radio', { name: 'a new ID' }).click();
  await page.getByText('Programmed with another tool').click();
  await page.getByLabel('The new ID it was given').fill('90FFE0A1');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByText('Nobody knows what it is now')).toBeVisible();
  await page.getByLabel('ID as another tool reads it').fill('90FFE0A7');
  await expect(page.getByText('digit 8 is 7, should be 1')).toBeVisible();
  await page.getByLabel('ID as another tool reads it').fill('90FFE0A1');
  await page.getByRole('button', { name: 'It reads this' }).click();
  await expect(page.getByText('It is 90FF E0A1, read back.')).toBeVisible();
});

test('the service of a sensor: the list, the printed ID photographed without its place, declined work on the sheet', async ({
  page,
}) => {
  await openJob(page, 'FLT 03');
  await page.getByRole('button', { name: 'Service', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByText('RF', { exact: true }).click();
  await dialog.getByLabel('Part').selectOption({ label: 'Universal 433, metal stem (UNI-4M)' });
  await expect(dialog.getByText('Stem first, then the nut: stem nut 5 Nm')).toBeVisible();
  for (const box of await dialog.getByRole('checkbox').all()) await box.check();
  await dialog.getByLabel('Printed on the sensor').fill('D2004F3B');
  // A picture larger than what is kept, made here: the browser draws it anew.
  const drawn = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    canvas.width = 3000;
    canvas.height = 2000;
    const paint = canvas.getContext('2d');
    for (let n = 0; n < 4000 && paint; n += 1) {
      paint.fillStyle = `hsl(${n % 360} 80% 50%)`;
      paint.fillRect((n * 97) % 3000, (n * 61) % 2000, 60, 40);
    }
    return canvas.toDataURL('image/png').split(',')[1] ?? '';
  });
  await dialog
    .getByLabel('Photograph it')
    .setInputFiles({ name: 'id.png', mimeType: 'image/png', buffer: Buffer.from(drawn, 'base64') });
  await expect(dialog.getByRole('img', { name: /printed ID/ })).toBeVisible();
  // Saved where the network does not reach, and the page lost: picture and all go out once there is one again.
  await page.context().setOffline(true);
  await dialog.getByRole('button', { name: 'Save the service of RF' }).click();
  await expect(dialog.getByText('Saved, by Ines.')).toBeVisible();
  await expect(page.getByText(/1 saved on this device/)).toBeAttached();
  const sent = page.waitForRequest(/services$/);
  await page.context().setOffline(false);
  await page.reload();
  expect(((await sent).postData() ?? '').length).toBeLessThan(420_000);
  await hydrated(page);
  await expect(page.getByText(/saved on this device/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Service', exact: true }).click();
  await dialog.getByText('RF, done', { exact: true }).click();
  await expect(dialog.getByRole('img', { name: /printed ID/ })).toBeVisible();
  await expect(dialog.getByText('Saved, by Ines.')).toBeVisible();
  await dialog.getByText('LF', { exact: true }).click();
  await page.context().setOffline(true);
  await dialog.getByText('RF, done', { exact: true }).click();
  await expect(dialog.getByRole('img', { name: /printed ID/ })).toBeVisible();
  await page.context().setOffline(false);
  await dialog.getByText('LR', { exact: true }).click();
  await dialog.getByLabel('Declined by the customer').fill('Comes back in spring.');
  await dialog.getByRole('button', { name: 'Save the service of LR' }).click();
  await expect(dialog.getByText('LR, declined')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Sheet' }).click();
  await expect(
    page.getByText('Sensor at RF serviced, part UNI-4M, kit KIT-M1, printed ID D200 4F3B.'),
  ).toBeVisible();
  await expect(
    page.getByText(/Sensor at LR: declined. Comes back in spring. The lamp stays on/),
  ).toBeVisible();
});
