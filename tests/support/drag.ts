import { expect, type Locator } from '@playwright/test';

/** Moves what a handle belongs to by the keys of it: pick up, one arrow, and put down or leave. */
export async function movedByKeys(handle: Locator, arrow: string, end: 'Space' | 'Escape'): Promise<void> {
  const page = handle.page();
  const said = page.locator('[id^="DndLiveRegion"]').filter({ hasText: /./ });
  await handle.focus();
  await page.keyboard.press('Space');
  await expect(said).toContainText('over its own place');
  // It says that it is picked up a moment before it listens to arrows.
  await expect(async () => {
    await page.keyboard.press(arrow);
    await expect(said).not.toContainText('its own place', { timeout: 2000 });
  }).toPass({ timeout: 20_000 });
  await page.keyboard.press(end);
  await expect(said).toContainText(end === 'Space' ? 'is put at' : 'is left where it was');
}

/** Moves it by the pointer onto another. */
export async function dragged(handle: Locator, onto: Locator): Promise<void> {
  const page = handle.page();
  await handle.hover();
  await page.mouse.down();
  const box = await onto.boundingBox();
  if (!box) throw new Error('there is nothing to put it on');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2, { steps: 8 });
  await page.mouse.up();
}
