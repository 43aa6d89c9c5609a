import { expect, type Page } from '@playwright/test';
import { expectMove, handsOver, hydrated, nextMoveOf } from './visit';
import { address } from './browser-shop';

/** A shop without any device: what stands there is typed by whoever read it elsewhere. */

export const names = { LF: 'left front', RF: 'right front', RR: 'right rear', LR: 'left rear', SP: 'spare' };
export type Wheel = keyof typeof names;
export const road: Wheel[] = ['LF', 'RF', 'RR', 'LR'];
export const ids: Record<Wheel, string> = {
  LF: '6C20A1F4',
  RF: '6C20A2E8',
  RR: '6C20A3D0',
  LR: '6C20A4C2',
  SP: '6C20A5B6',
};

/** Some of the IDs. */
export const pick = (wheels: readonly Wheel[], from = ids): Partial<Record<Wheel, string>> =>
  Object.fromEntries(wheels.map((wheel) => [wheel, from[wheel]]));

interface Car {
  plate: string;
  lamp: RegExp;
  spare?: boolean;
  indirect?: boolean;
  work?: string;
  /** It was here before: what it is and its placard are on file. */
  known?: boolean;
}

/** Books a car in whose kind is not on file. */
export async function bookIn(
  page: Page,
  { plate, lamp, spare = false, indirect = false, work, known = false }: Car,
): Promise<void> {
  await page.goto(`${address()}/book-in`);
  await hydrated(page);
  await page.getByLabel('Plate').fill(plate);
  if (known) await expect(page.getByText(/^Known here/)).toBeVisible();
  else await saysWhatItIs(page, { spare, indirect });
  await page.getByRole('radio', { name: lamp }).check();
  if (work) await page.getByRole('checkbox', { name: work }).check();
  await page.getByLabel(/^Outdoors now/).fill('10');
  await page.getByRole('button', { name: 'Book in' }).click();
  await page.waitForURL(/\/jobs\//);
  await hydrated(page);
  if (!known) await entersPlacard(page, spare);
}

async function saysWhatItIs(
  page: Page,
  { spare, indirect }: { spare: boolean; indirect: boolean },
): Promise<void> {
  await page.getByLabel('Vehicle', { exact: true }).fill('Tarn Velo, blue');
  if (indirect) await page.getByRole('radio', { name: 'by wheel speed, no sensors' }).check();
  else {
    await page
      .getByRole('group', { name: 'A sensor in the spare' })
      .getByRole('radio', { name: spare ? 'yes' : 'no' })
      .check();
    await page.getByLabel('Digits of an ID').fill('8');
  }
  await page
    .getByRole('group', { name: 'Does the car tie each ID' })
    .getByRole('radio', { name: 'yes' })
    .check({ timeout: indirect ? 1 : 5000 })
    .catch(() => undefined);
}

async function entersPlacard(page: Page, spare: boolean): Promise<void> {
  await expectMove(page, 'Enter the placard');
  await page.getByRole('button', { name: 'Enter the placard' }).click();
  const placard = page.getByRole('dialog', { name: 'Placard' });
  await placard.getByLabel(/^Front, cold/).fill('230');
  await placard.getByLabel(/^Rear, cold/).fill('230');
  if (spare) await placard.getByLabel(/^Spare, cold/).fill('230');
  await placard.getByRole('button', { name: /^Save the placard/ }).click();
  await expect(placard).toBeHidden();
  // The move that stood before it was saved may stand until the job is judged anew.
  await expect.poll(() => nextMoveOf(page)).not.toBe('Enter the placard');
}

export interface Answers {
  /** kPa, the last of which is read from then on. */
  gauge?: Partial<Record<Wheel, number[]>>;
  /** What the tool shows at a wheel; null: nothing answers. */
  heard: Partial<Record<Wheel, string | null>>;
  /** What the car holds, one reading after the other. */
  held?: Partial<Record<Wheel, string>>[];
  live?: number;
  lamp?: RegExp;
}

/** Makes the move that is asked for, by typing what the answers say. */
export function typist(page: Page, answers: Answers): (move: string) => Promise<void> {
  const dialog = page.getByRole('dialog');
  const pressures = new Map(
    Object.entries(answers.gauge ?? {}).map(([wheel, figures]) => [wheel, [...figures]]),
  );
  const held = [...(answers.held ?? [])];
  const closeAll = async () => {
    if (await dialog.isVisible()) await page.keyboard.press('Escape');
    await expect(dialog).toBeHidden();
  };
  const gauge = async (wheel: Wheel) => {
    const figures = pressures.get(wheel) ?? [230];
    const kPa = figures.length > 1 ? figures.shift() : figures[0];
    await expect(page.getByRole('dialog', { name: `Gauge, ${names[wheel]}` })).toBeVisible();
    await dialog.getByLabel(/^Reading/).fill(`${kPa} c`);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog', { name: `Gauge, ${names[wheel]}` })).toBeHidden();
    await closeAll();
  };
  return async (move) => {
    await page
      .getByRole('group', { name: 'Next move' })
      .getByRole('button', { name: move, exact: true })
      .click();
    const [what = '', at = ''] = move.split(' ');
    const wheel = at.replace(',', '') as Wheel;
    if (what === 'Gauge' || what === 'Fill') return gauge(wheel);
    if (what === 'Wake') {
      const id = answers.heard[wheel];
      if (id) {
        await dialog.getByLabel('ID the tool shows').fill(id);
        await dialog.getByRole('button', { name: 'Save what it shows' }).click();
      } else await dialog.getByRole('button', { name: 'Nothing answered' }).click();
      return expect(dialog).toBeHidden();
    }
    if (what === 'Look' && wheel in names) {
      await dialog.getByRole('radio', { name: 'metal stem' }).check();
      await dialog.getByRole('button', { name: 'Save the look' }).click();
      return expect(dialog).toBeHidden();
    }
    if (move.startsWith('Say what it was')) {
      await dialog.getByRole('button', { name: 'Looked into: in order' }).click();
      return expect(dialog).toBeHidden();
    }
    if (move === 'Look at the lamp') {
      await dialog.getByRole('radio', { name: answers.lamp ?? /^off, after it lit/ }).check();
      await dialog.getByRole('button', { name: 'Save the lamp' }).click();
      return expect(dialog).toBeHidden();
    }
    if (move === 'Read the car') {
      const now = held.length > 1 ? held.shift() : held[0];
      const list = Object.entries(now ?? {}).map(([position, id]) => `${position} ${id}`);
      await dialog.getByLabel('Paste a list').fill(list.join('\n'));
      await dialog.getByLabel(/Its codes were read/).check();
      await dialog.getByRole('button', { name: 'This is what it holds' }).click();
      return expect(dialog).toBeHidden();
    }
    if (move === 'Register the IDs') {
      await dialog.getByRole('button', { name: 'Done: now read it back' }).click();
      await expect(dialog.getByLabel('Paste a list')).toBeVisible();
      return page.keyboard.press('Escape');
    }
    if (move === 'Drive and read') {
      await dialog.getByLabel('At, km/h').fill('60');
      for (const one of Object.keys(answers.heard))
        await dialog.getByLabel(`${one}, kPa`).fill(String(answers.live ?? 232));
      await dialog.getByRole('button', { name: 'It shows these' }).click();
      return expect(dialog).toBeHidden();
    }
    if (move === 'Clear the codes') {
      await dialog.getByRole('button', { name: /none$/ }).click();
      return expect(dialog).toBeHidden();
    }
    // Anything else is not done today: the next best is offered.
    await expect(dialog).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(dialog).toBeHidden();
    await page.getByRole('button', { name: 'Not now' }).click();
    await dialog.getByRole('radio', { name: 'Cannot be done now' }).check();
    await dialog.getByRole('button', { name: 'Put it off' }).click();
    return expect(dialog).toBeHidden();
  };
}

export async function leavesProved(page: Page): Promise<void> {
  await expect(page.getByText('Proved: everything was checked and is right')).toBeVisible();
  await page.getByRole('group', { name: 'Next move' }).getByRole('button', { name: 'Hand over' }).click();
  await handsOver(page, 'proved');
  await expect(page.getByText('✓ Proved')).toBeVisible();
}
