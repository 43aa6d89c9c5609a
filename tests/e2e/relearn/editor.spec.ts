import { address, expect, test } from '../../support/browser-shop';
import { dragged, movedByKeys } from '../../support/drag';
import { RelearnPage, signedIn } from '../../support/relearn';

test('a procedure is written, told what is wrong as it is written, tried dry, kept, followed, and found wrong', async ({
  page,
  browser,
}) => {
  const desk = await signedIn(browser, 'manager');
  await desk.goto(`${address()}/procedures/edit`);
  await expect(desk.locator('astro-island[ssr]')).toHaveCount(0);
  await desk.getByLabel('Short name').fill('menta-of-ours');
  await desk.getByLabel('Title').fill('Hold it, as we do');
  await desk.getByLabel('Method').selectOption('reset');
  await desk.getByRole('checkbox', { name: 'Ostrel Menta' }).check();
  for (const wheel of ['LF', 'RF', 'RR', 'LR'])
    await desk
      .getByRole('group', { name: /^Taught in the order/ })
      .getByRole('checkbox', { name: wheel })
      .uncheck();
  for (const condition of ['Parking brake set', 'Engine off'])
    await desk.getByRole('group', { name: 'Before' }).getByRole('checkbox', { name: condition }).uncheck();
  const proof = desk.getByRole('group', { name: 'It worked when' });
  await proof.getByRole('checkbox', { name: /right ID/ }).uncheck();
  await expect(desk.getByText('nothing proves that it worked')).toBeVisible();
  await proof.getByRole('checkbox', { name: /lamp is off/ }).check();
  const enter = desk.getByRole('group', { name: 'Enter learning' });
  await enter.getByLabel('Add a step').selectOption('set');
  await enter.getByLabel('Add a step').selectOption('hold');
  await expect(desk.getByText('Enter learning 2: fill this in')).toBeVisible();
  const hold = enter.getByRole('listitem').nth(1);
  await hold.getByLabel('What').fill('set-button');
  await hold.getByLabel('Least, s').fill('9');
  await hold.getByLabel('Most, s').fill('6');
  await expect(hold.getByText('the least, 9 s, is above the most, 6 s')).toBeVisible();
  await expect(desk.getByRole('button', { name: 'Save as a new version' })).toBeDisabled();
  await hold.getByLabel('Least, s').fill('4');
  await hold.getByLabel('Most, s').fill('60');
  await expect(desk.getByText('It makes sense.')).toBeVisible();

  // By keyboard, by pointer, and left where it was: the order is what is followed.
  const steps = enter.getByRole('listitem');
  await movedByKeys(enter.getByRole('button', { name: 'Move step 2', exact: true }), 'ArrowUp', 'Space');
  await expect(steps.first()).toContainText('Hold');
  await movedByKeys(enter.getByRole('button', { name: 'Move step 1', exact: true }), 'ArrowDown', 'Escape');
  await expect(steps.first()).toContainText('Hold');
  await dragged(enter.getByRole('button', { name: 'Move step 1', exact: true }), steps.nth(1));
  await expect(steps.first()).toContainText('Switch something');
  await expect(steps.nth(1).getByLabel('Least, s')).toHaveValue('4');

  // A page that is closed by mistake loses nothing.
  await desk.reload();
  await desk.getByRole('button', { name: 'Go on with it' }).click();
  await expect(desk.getByText('It makes sense.')).toBeVisible();

  await desk.getByRole('button', { name: 'Try it dry' }).click();
  const dry = new RelearnPage(desk);
  const dialog = desk.getByRole('dialog');
  await dialog.getByLabel('On the simulated car').selectOption({ label: 'Ostrel Menta MEN 220' });
  await dry.does('Ignition is on', 'Holding it now');
  await expect(dialog.getByRole('timer')).toContainText('left', { timeout: 10_000 });
  await dry.does('Let go');
  await expect(dialog.getByText('lamp flash 3 times')).toBeVisible();
  await dry.does('goes off');
  await expect(dialog.getByText('Done, and proved')).toBeVisible();
  await desk.keyboard.press('Escape');

  await desk.getByRole('button', { name: 'Save as a new version' }).click();
  await desk.waitForURL(/procedures\?name=menta-of-ours/);
  await expect(desk.getByText('Version 1, imported')).toBeVisible();
  await expect(desk.getByText('Nobody has checked it on a car')).toBeVisible();

  const at = new RelearnPage(page);
  await at.start('MEN 220', 'Hold it, as we do');
  await at.makesReady();
  await at.does('Another cue, or the car does something else');
  const other = page.getByRole('dialog');
  await other.getByRole('button', { name: 'Save it' }).click();
  await expect(other.getByText('How often, which colour, or which words.')).toBeVisible();
  await other.getByLabel('How often').fill('3');
  await other.getByText('the car gave up').click();
  await other.getByLabel('Anything else').fill('The button is on the left.');
  await at.does('Save it', 'Go on');
  await expect(page.getByText('This cue means nothing here')).toBeVisible();
  await at.does('Stop', 'Stop it');
  await at.state('stopped');

  await desk.reload();
  await expect(desk.getByText('Found wrong at a car')).toBeVisible();
  await expect(desk.getByText('The button is on the left.')).toBeVisible();
  await desk.getByRole('button', { name: 'Take it in' }).click();
  await expect(desk.getByText('Taken, as version 2,')).toBeVisible();
  await expect(desk.getByRole('row', { name: /horn 3 times/ })).toContainText('the car gave up');
  await desk.getByRole('link', { name: 'Change it' }).click();
  await desk.waitForURL(/procedures\/edit/);
  await desk.getByLabel('Title').fill('Hold it left of the wheel');
  await desk.getByRole('button', { name: 'Save as a new version' }).click();
  await expect(desk.getByText('Version 3, imported')).toBeVisible();
  await expect(desk.getByText('in version 1')).toBeVisible();
  await desk.context().close();
});
