type TextField = HTMLInputElement | HTMLTextAreaElement;

/**
 * A page is on the screen before it is alive, and a quick hand types into it meanwhile. What was typed or chosen by then
 * is handed to the view once it listens, as if it were entered now: else the screen shows one thing and another is saved.
 */
export function keepEarlyTyping(): void {
  const islands = [...document.querySelectorAll('astro-island')];
  for (const island of islands) {
    if (island.hasAttribute('ssr'))
      island.addEventListener('astro:hydrate', () => void handOver(island), { once: true });
    else void handOver(island);
  }
}

async function handOver(island: Element): Promise<void> {
  const fields = [...island.querySelectorAll<TextField | HTMLSelectElement>('input, textarea, select')];
  await Promise.all(
    fields.filter(isChanged).map(async (field) => {
      const entered = field instanceof HTMLInputElement && isTicked(field) ? field.checked : field.value;
      if (await listens(field)) enter(field, entered);
    }),
  );
}

const isTicked = ({ type }: HTMLInputElement): boolean => type === 'checkbox' || type === 'radio';

/** It is not as the server sent it. */
function isChanged(field: TextField | HTMLSelectElement): boolean {
  if (field instanceof HTMLSelectElement)
    return [...field.options].some(({ selected, defaultSelected }) => selected !== defaultSelected);
  if (field instanceof HTMLInputElement && field.type === 'file') return false;
  if (field instanceof HTMLInputElement && isTicked(field)) return field.checked !== field.defaultChecked;
  return field.value !== field.defaultValue;
}

const patienceMs = 10_000;

/** Waits until the view has taken the field over: it marks each with the properties it gave it. */
async function listens(field: Element): Promise<boolean> {
  const until = Date.now() + patienceMs;
  while (!Object.keys(field).some((key) => key.startsWith('__reactProps$'))) {
    if (Date.now() > until || !field.isConnected) return false;
    await new Promise((resolve) => setTimeout(resolve, 16));
  }
  return true;
}

/**
 * The view notices what differs from what it last saw in the field, and it saw what was typed: so the field is first put
 * back under its eyes, and then changed past them.
 */
function enter(field: TextField | HTMLSelectElement, entered: string | boolean): void {
  if (typeof entered === 'boolean') {
    if (!(field instanceof HTMLInputElement)) return;
    field.checked = !entered;
    field.click();
    return;
  }
  if (!(field instanceof HTMLSelectElement)) field.value = field.defaultValue;
  Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field) as object, 'value')?.set?.call(field, entered);
  field.dispatchEvent(new Event(field instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true }));
}
