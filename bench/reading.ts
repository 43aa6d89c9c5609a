import { chromium as browser } from '@playwright/test';
import people from '../demo/people.json' with { type: 'json' };
import { chromium } from '../playwright.config';
import { openShop } from '../tests/support/shop';
import { fullJob } from './full-job';

/**
 * From the Enter that keeps a gauge reading to the new verdict, in the browser, on a full job of five wheels:
 * until it is there from the worker, and until the frame after that. Beside it,
 * in the same page and minute: from an Enter to the frame after it where nothing is judged.
 *
 * Run: npx tsx bench/reading.ts   (after `npx astro build`)
 */
declare global {
  interface Window {
    entered: number;
    judged: [here: number, seen: number][];
    framed: number[];
  }
}

const passes = 6;
const shop = await openShop();
const window_ = await browser.launch(chromium);
try {
  const context = await window_.newContext({ viewport: { width: 1280, height: 800 } });
  const headers = { origin: shop.address };
  const who = people.find(({ role }) => role === 'technician');
  await context.request.post(`${shop.address}/api/sign-in`, { data: who, headers });
  for (const inTrouble of [false, true]) {
    const answer = await context.request.post(`${shop.address}/api/jobs/import`, {
      data: fullJob(inTrouble),
      headers,
    });
    const { id } = (await answer.json()) as { id: string };
    const page = await context.newPage();
    await page.addInitScript(() => {
      window.judged = [];
      window.framed = [];
      addEventListener(
        'keydown',
        ({ key }) => {
          if (key !== 'Enter') return;
          const entered = performance.now();
          window.entered = entered;
          requestAnimationFrame(() => window.framed.push(performance.now() - entered));
        },
        true,
      );
      const Original = Worker;
      window.Worker = class extends Original {
        constructor(url: string | URL, options?: WorkerOptions) {
          super(url, options);
          // The first news of a turn is the verdict; the evidence follows.
          this.addEventListener('message', ({ data }: MessageEvent<{ weighed: boolean; turn: number }>) => {
            if (data.weighed || data.turn === 0) return;
            const here = performance.now() - window.entered;
            requestAnimationFrame(() => window.judged.push([here, performance.now() - window.entered]));
          });
        }
      };
    });
    await page.goto(`${shop.address}/jobs/${id}`);
    await page.waitForFunction(() => !document.querySelector('astro-island[ssr]'));
    // As long as it takes to walk to the car: the worker starts meanwhile.
    await page.waitForTimeout(4000);
    const times: { here: number; seen: number }[] = [];
    for (let pass = 0; pass < passes; pass += 1) {
      for (let wheel = 0; wheel < 5; wheel += 1) {
        await page.locator('body').press(String(wheel + 1));
        await page.locator('body').press('g');
        const before = await page.evaluate(() => window.judged.length);
        await page
          .getByRole('dialog')
          .getByLabel(/^Reading/)
          .fill(String(226 + ((pass + wheel) % 6)));
        await page.keyboard.press('Enter');
        await page.waitForFunction((count) => window.judged.length > count, before, { timeout: 5000 });
        await page.waitForTimeout(250);
        await page.keyboard.press('Escape');
        const [here = Number.NaN, seen = Number.NaN] =
          (await page.evaluate(() => window.judged.at(-1))) ?? [];
        times.push({ here, seen });
      }
    }
    const frames = await page.evaluate(() => window.framed);
    await page.close();
    const of = (all: readonly number[], share: number) =>
      ([...all].sort((a, b) => a - b)[Math.floor(share * (all.length - 1))] ?? Number.NaN).toFixed(0);
    const spread = (all: readonly number[]) => `${of(all, 0.5)} ms (nine in ten within ${of(all, 0.9)})`;
    process.stdout.write(
      `${inTrouble ? 'in trouble' : 'in order'}: verdict after ${spread(times.map(({ here }) => here))}, ` +
        `on the screen after ${spread(times.map(({ seen }) => seen))}; a frame alone takes ${spread(frames)}\n`,
    );
  }
} finally {
  await window_.close();
  await shop.close();
}
