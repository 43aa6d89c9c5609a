import { address, expect, stateOf, test } from '../../support/browser-shop';
import type { Job } from '../../../src/core/job';
import { openJob } from '../../support/visit';

test('on a tablet whose clock is fast, what is read stands where it belongs, without a connection too', async ({
  browser,
}) => {
  const context = await browser.newContext({ storageState: stateOf('technician') });
  const page = await context.newPage();
  await page.addInitScript(() => {
    const own = Date.now.bind(Date);
    const OwnDate = Date;
    const fast = 5 * 60_000;
    Object.defineProperty(window, 'Date', {
      value: class extends OwnDate {
        constructor(...given: []) {
          if (given.length === 0) super(own() + fast);
          else super(...given);
        }
        static override now = () => own() + fast;
      },
    });
  });
  const path = await openJob(page, 'KUR 417');
  await expect(page.getByText('The clock of this device is 5 min fast')).toBeVisible();
  const readings = async () => {
    const file = (await (await page.request.get(`${address()}/api${path}/file`)).json()) as Job;
    return file.observations.flatMap((seen) => (seen.kind === 'lamp' ? [Date.parse(seen.at)] : []));
  };
  const before = await readings();
  for (const isAway of [false, true]) {
    await context.setOffline(isAway);
    await page.keyboard.press('l');
    await page.getByRole('radio', { name: 'on, steady' }).check();
    await page.getByRole('button', { name: 'Save the lamp' }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
    await context.setOffline(false);
    await expect
      .poll(async () => (await readings()).length, { timeout: 20_000 })
      .toBe(before.length + (isAway ? 2 : 1));
    expect((await readings()).at(-1)).toBeGreaterThan(Date.now() - 60_000);
    expect((await readings()).at(-1)).toBeLessThan(Date.now() + 1000);
  }
  await context.close();
});
