import { expect, test } from '../../support/browser-shop';
import { RelearnPage } from '../../support/relearn';
import { handsOver, openJob } from '../../support/visit';

const walk = ['LF', 'RF', 'RR', 'LR'];
const heard = { LF: '71D20C14', RF: '71D20C9E', RR: '71D20D37', LR: '71D20BF2' };

test('a shop without any device: a rotated car is read, taught and proved, all of it typed', async ({
  page,
}) => {
  await openJob(page, 'ARR 186');
  const stations = page.getByRole('navigation', { name: 'Stations of the visit' });
  const dialog = page.getByRole('dialog');
  for (const [wheel, id] of Object.entries(heard)) {
    await page.keyboard.press(String(walk.indexOf(wheel) + 1));
    await page.keyboard.press('w');
    await expect(dialog.getByRole('button', { name: /^Wake/ })).toHaveCount(0);
    await dialog.getByLabel('ID the tool shows').fill(id.toLowerCase());
    await dialog.getByRole('textbox', { name: /^Pressure/ }).fill('240');
    await dialog.getByRole('button', { name: 'Save what it shows' }).click();
    await expect(dialog).toBeHidden();
  }
  await expect(page.getByRole('group', { name: 'Ledger' })).toContainText('71D2 0C14');

  // As another tool printed it: fronts and rears are still as before the rotation.
  await stations.getByRole('button', { name: /(^| )Car$/ }).click();
  await dialog.getByLabel('Paste a list').fill('LF 71D20BF2\nRF 71D20D37\nRR 71D20C9E\nLR 71D20C14');
  await dialog.getByRole('button', { name: 'This is what it holds' }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('region', { name: 'Findings' }).getByRole('button', { name: 'Relearn' }).click();
  await expect(dialog.getByRole('heading', { name: 'A relearn is needed' })).toBeVisible();
  await page.keyboard.press('Escape');

  const at = new RelearnPage(page);
  await at.start('ARR 186', 'air out at each wheel');
  await expect(page.getByText('Simulated car')).toHaveCount(0);
  await at.makesReady();
  await at.does('Ignition is on', ...Array.from({ length: 6 }, () => /^Pressed/), /horn once/);
  for (const wheel of walk) await at.does(`Air let out at ${wheel}`, /horn once/);
  await at.does(/horn twice/, 'Ignition is off', 'Type what the car holds');
  for (const [wheel, id] of Object.entries(heard))
    await page
      .getByLabel(new RegExp(`^${wheel}, [a-z ]+$`))
      .first()
      .fill(id);
  await at.does('This is what it holds');
  await expect(page.getByText('Seen: the car holds the right ID')).toBeVisible();
  for (const wheel of walk) {
    await page.getByLabel(`${wheel}, kPa`).fill('238');
    await at.does(`It shows ${wheel}`);
  }
  await at.state('done');

  // Air was let out of every tire: the visit is not proved before they are filled and gauged again.
  await page.getByRole('link', { name: 'Back to the job' }).click();
  await expect(page.locator('astro-island[ssr]')).toHaveCount(0);
  await expect(page.getByRole('group', { name: 'Ledger' }).getByText('air let out since')).toHaveCount(4);
  await stations.getByRole('button', { name: 'Prove' }).click();
  await expect(dialog.getByText('Air was let out')).toBeVisible();
  await page.keyboard.press('Escape');
  const names = { LF: 'left front', RF: 'right front', RR: 'right rear', LR: 'left rear', SP: 'spare' };
  for (const [wheel, name] of Object.entries(names)) {
    await page.keyboard.press(String(Object.keys(names).indexOf(wheel) + 1));
    await page.keyboard.press('g');
    await expect(page.getByRole('dialog', { name: `Gauge, ${name}` })).toBeVisible();
    await dialog.getByLabel(/^Reading/).fill('240 c');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog', { name: `Gauge, ${name}` })).toBeHidden();
    if (await dialog.isVisible()) await page.keyboard.press('Escape');
    await expect(dialog).toBeHidden();
  }
  await stations.getByRole('button', { name: /(^| )Car$/ }).click();
  await dialog.getByText('pressures it shows on the road').click();
  await dialog.getByLabel('At, km/h').fill('60');
  for (const wheel of walk) await dialog.getByLabel(`${wheel}, kPa`).fill('241');
  await dialog.getByRole('button', { name: 'It shows these' }).click();
  await stations.getByRole('button', { name: /(^| )Car$/ }).click();
  for (const [wheel, id] of Object.entries(heard))
    await dialog.getByLabel(new RegExp(`^${wheel}, `)).fill(id);
  await dialog.getByLabel(/Its codes were read/).check();
  await dialog.getByRole('button', { name: 'This is what it holds' }).click();
  await page.keyboard.press('l');
  await dialog.getByRole('radio', { name: 'off, after it lit for its check' }).check();
  await page.keyboard.press('Enter');
  await expect(dialog).toBeHidden();
  await stations.getByRole('button', { name: 'Hand over' }).click();
  await handsOver(page, 'proved');
  await expect(page.getByText('✓ Proved')).toBeVisible();
});
