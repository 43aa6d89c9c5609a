import type { Page } from '@playwright/test';
import { address, expect, test } from '../../support/browser-shop';
import { hydrated, memoryViews, openJob, views } from '../../support/visit';

/** A small phone, a phone, a tablet held both ways, the one this is drawn for, and that one at 200 % zoom. */
const sizes = [
  { width: 360, height: 740 },
  { width: 390, height: 844 },
  { width: 768, height: 1024 },
  { width: 1024, height: 768 },
  { width: 1280, height: 800 },
  { width: 640, height: 400 },
];

/** What cannot be seen without moving the page sideways; what scrolls inside its own box can. */
const outOfSight = (page: Page) =>
  page.evaluate(() => {
    const scrolls = (element: Element | null): boolean =>
      element !== null &&
      element !== document.body &&
      (/auto|scroll/.test(getComputedStyle(element).overflowX) || scrolls(element.parentElement));
    return [...document.querySelectorAll('body *')].flatMap((element) => {
      const { left, right, width, height } = element.getBoundingClientRect();
      const isSeen = width > 1 && height > 1 && element.checkVisibility({ visibilityProperty: true });
      const isOut = right > window.innerWidth + 1 || left < -1;
      return isSeen && isOut && !scrolls(element.parentElement)
        ? [`${element.outerHTML.slice(0, 90)} from ${left.toFixed()} to ${right.toFixed()}`]
        : [];
    });
  });

/** What is pressed and is under 48 px; a link within a sentence is read, not aimed at with a glove. */
const tooSmall = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll('button, summary, select, input, a')].flatMap((element) => {
      if (!element.checkVisibility({ visibilityProperty: true })) return [];
      if (element.matches('p a, li a, td a, dd a, astro-dev-toolbar *')) return [];
      const target = element.matches('[type=radio], [type=checkbox], [type=file]')
        ? element.closest('label')
        : element;
      const { width, height } = (target ?? element).getBoundingClientRect();
      return width > 1 && (width < 47.5 || height < 47.5)
        ? [`${element.outerHTML.slice(0, 90)} ${width.toFixed()} by ${height.toFixed()}`]
        : [];
    }),
  );

async function fitsAt(page: Page, where: string, more: () => Promise<void> = async () => undefined) {
  for (const size of sizes) {
    await page.setViewportSize(size);
    const at = `${where} at ${size.width} by ${size.height}`;
    await expect.poll(() => outOfSight(page), at).toEqual([]);
    expect(await tooSmall(page), at).toEqual([]);
    await more();
  }
}

test('every view fits every screen, and what is pressed is at least 48 px', async ({ page }) => {
  for (const view of [...views, ...(await memoryViews(page))]) {
    await page.goto(address() + view);
    await hydrated(page);
    await fitsAt(page, view);
  }
});

test('a job of four wheels and one of five fit every screen, and the next move is always in sight', async ({
  page,
}) => {
  for (const plate of ['KUR 125', 'FLT 03']) {
    const job = await openJob(page, plate);
    await hydrated(page);
    const move = page.getByRole('group', { name: 'Next move' }).getByRole('button').last();
    await fitsAt(page, plate, () => expect(move).toBeInViewport({ ratio: 1 }));
    await page.goto(`${address()}${job}/sheet`);
    await fitsAt(page, `the sheet of ${plate}`);
  }
});

test('the dialogs of a job fit every screen', async ({ page }) => {
  await openJob(page, 'KUR 125');
  await hydrated(page);
  const stations = page.getByRole('navigation', { name: 'Stations of the visit' });
  const dialogs = [
    ...['Placard', 'Gauge', 'Scan', 'Register', 'Prove', 'Hand over'].map((name) =>
      stations.getByRole('button', { name: new RegExp(`${name}$`) }),
    ),
    ...['Lamp', 'Weather', 'Tonight', 'Losses', 'Tires', 'Correct the car and the visit', 'Not now'].map(
      (name) => page.getByRole('button', { name, exact: true }),
    ),
  ];
  for (const [n, button] of dialogs.entries()) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await button.click();
    await expect(page.getByRole('dialog'), `dialog ${n}`).toBeVisible();
    await fitsAt(page, `dialog ${n}`);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toBeHidden();
  }
});
