import { expect, type Browser, type Locator, type Page } from '@playwright/test';
import { contracts } from '../../src/contract';
import { replay, timePasses, type RunState } from '../../src/core/relearn/run';
import { openJob } from './visit';
import { address, stateOf } from './browser-shop';

/** Leads a relearn on its screen, as a person would: by what stands there. */
export class RelearnPage {
  constructor(readonly page: Page) {}

  /** Opens the job of a plate and starts the way with this title. */
  async start(plate: string, title: string): Promise<void> {
    const { page } = this;
    await openJob(page, plate);
    await page.getByRole('region', { name: 'Findings' }).getByRole('button', { name: 'Relearn' }).click();
    const way = page.locator('dialog details', { hasText: title });
    const button = way.getByRole('button', { name: 'Start' });
    await expect(way).toBeVisible();
    if (!(await button.isVisible())) await way.locator('summary').click();
    await button.click();
    const refusal = page.getByRole('dialog').getByRole('alert');
    await expect(refusal.or(page.locator('main[data-state]'))).toBeVisible({ timeout: 60_000 });
    if (await refusal.isVisible()) throw new Error((await refusal.textContent()) ?? '');
    await expect(page.getByRole('heading', { level: 2 })).toBeVisible();
    // What is told before the page listens would be told to nobody.
    await expect(page.locator('astro-island[ssr]')).toHaveCount(0);
  }

  async does(...names: (string | RegExp)[]): Promise<void> {
    for (const name of names) {
      const button = this.page.getByRole('button', { name }).first();
      await expect(button).toBeEnabled({ timeout: 15_000 });
      await button.click();
    }
  }

  /** The car says this, and whoever hears it presses it. */
  async hears(cue: string): Promise<void> {
    await expect(this.page.getByText('Simulated car:').locator('b')).toHaveText(cue, { timeout: 15_000 });
    await this.does(new RegExp(`^(\\d ?)?${cue}`));
  }

  /** The car says this, and it ends the run: held for a second, so that no slip does that. */
  async hearsTheEnd(cue: string): Promise<void> {
    await expect(this.page.getByText('Simulated car:').locator('b')).toHaveText(cue, { timeout: 15_000 });
    await this.page.getByRole('button', { name: new RegExp(`^(\\d ?)?${cue}`) }).click({ delay: 1200 });
  }

  /** Confirms all that must hold before, one by one, by a tap or however it is told. */
  async makesReady(confirm = (move: Locator): Promise<void> => move.click()): Promise<void> {
    const { page } = this;
    for (;;) {
      const open = page.locator('main[data-state=before] [data-main]');
      if ((await open.count()) === 0) break;
      const name = await open.first().textContent();
      await confirm(open.first());
      await expect(page.locator('[data-main]', { hasText: name ?? '' })).toHaveCount(0);
    }
    await expect(page.locator('main[data-state=before]')).toHaveCount(0);
  }

  shows(state: RunState): Promise<void> {
    return expect(this.page.locator(`main[data-state=${state}]`)).toBeVisible({ timeout: 20_000 });
  }

  /** It stands so on the screen, and in the shop: a car whose relearn has not ended there is not begun with anew. */
  async state(state: RunState): Promise<void> {
    await this.shows(state);
    const { page } = this;
    const address = page.url().replace('/runs/', '/api/runs/');
    const stored = async () => {
      const { procedure, events, elapsedS } = contracts.run.answer.parse(
        await (await page.request.get(address)).json(),
      );
      return timePasses(procedure, replay(procedure, events), elapsedS).state;
    };
    await expect.poll(stored, { timeout: 20_000 }).toBe(state);
  }
}

/** Somebody else of the shop, on a device of their own. */
export async function signedIn(browser: Browser, role: string, more: object = {}): Promise<Page> {
  const context = await browser.newContext({ storageState: stateOf(role), ...more });
  const page = await context.newPage();
  await page.goto(`${address()}/`);
  return page;
}
