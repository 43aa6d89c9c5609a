import { gzipSync } from 'node:zlib';
import { address, expect, test } from '../../support/browser-shop';
import { openJob } from '../../support/visit';

test('what is pressed is at least 48 px, and the first view of the job carries at most 136 kB of script', async ({
  page,
}) => {
  const path = await openJob(page, 'KUR 125');
  // Away from the page that is open: it still fetches its dialogs.
  await page.goto('about:blank');
  // What was asked for until the page was alive; what it fetches ahead afterwards is no part of the first view.
  await page.addInitScript(() => {
    new MutationObserver(() => {
      const isAlive = document.querySelector('astro-island') && !document.querySelector('astro-island[ssr]');
      if (isAlive) performance.mark('alive');
    }).observe(document, { subtree: true, childList: true, attributes: true, attributeFilter: ['ssr'] });
  });
  await page.goto(address() + path);
  await expect(page.locator('astro-island[ssr]')).toHaveCount(0);
  const scripts = await page.evaluate(() => {
    const alive = performance.getEntriesByName('alive')[0]?.startTime ?? Infinity;
    return performance
      .getEntriesByType('resource')
      .filter(({ name, startTime }) => startTime <= alive && name.endsWith('.js'))
      .map(({ name }) => name);
  });
  // Asked for again: the browser need not keep what it has run.
  const bodies = await Promise.all(scripts.map(async (url) => (await page.request.get(url)).body()));
  const script = bodies.reduce((total, body) => total + gzipSync(body).length, 0);
  expect(script).toBeGreaterThan(100_000);
  expect(script).toBeLessThan(136_000);
  const small = await page.locator('main button:visible, main a:visible').evaluateAll((nodes) =>
    nodes.flatMap((node) => {
      const { width, height } = node.getBoundingClientRect();
      return width < 48 || height < 48 ? [`${node.textContent} ${width}x${height}`] : [];
    }),
  );
  expect(small).toEqual([]);
});
