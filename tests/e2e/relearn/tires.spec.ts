import { expect, test } from '../../support/browser-shop';
import { openJob } from '../../support/visit';

test('other tires on purpose: the car’s lamp is given their figures, and has them only once read back', async ({
  page,
}) => {
  await openJob(page, 'KUR 417');
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('button', { name: 'Placard' }).click();
  const placard = page.getByRole('dialog', { name: 'Placard' });
  await placard.getByLabel(/^Size, front/).fill('215/55R17 94V');
  await placard.getByLabel(/^Size, rear/).fill('215/55R17 94V');
  await page.keyboard.press('Enter');
  await expect(placard).toBeHidden();
  await page.getByRole('button', { name: 'Tires' }).click();
  const tires = page.getByRole('dialog', { name: 'Tires on the car' });
  await tires.getByLabel(/^Size, front/).fill('215/55R17 98V XL');
  await tires.getByLabel(/^Size, rear/).fill('215/55R17 98V XL');
  // By hand: 290 · (230 / 250) · (670 / 750)^1.25 = 231.7 and 290 · (220 / 250) · (670 / 750)^1.25 = 221.6.
  await expect(tires).toContainText('Carries too little at this pressure: it wants more.');
  await tires.getByRole('button', { name: 'Aim for 232 kPa' }).click();
  await expect(tires).toContainText('232 kPa cold is aimed at');
  await tires.getByRole('button', { name: 'Aim for 222 kPa' }).click();
  await expect(tires).toContainText('on at 177 kPa, out at 202 kPa');
  await page.keyboard.press('Escape');
  await page
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('button', { name: /(^| )Car$/ })
    .click();
  await expect(page.getByRole('group', { name: 'Ledger' })).toContainText('4B07 C2D1');
  await page.getByRole('button', { name: 'Tires' }).click();
  await tires.getByLabel(/^Size, front/).fill('215/55R17 98V XL');
  await tires.getByRole('button', { name: 'Send them to the car' }).click();
  await expect(tires).toContainText('set for it, read back: on at 177 kPa, out at 202 kPa');
});
