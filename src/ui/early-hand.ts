type TextField = HTMLInputElement | HTMLTextAreaElement;

/**
 * A page is on the screen before it is alive, and a quick hand types into it and presses its buttons meanwhile. What was
 * typed or chosen by then is handed to the view once it listens, as if it were entered now: else the screen shows one thing
 * and another is saved. Then the button that was pressed last is pressed: else nothing comes of it, or the browser sends
 * the form off by itself, and what was typed is gone.
 *
 * Runs from the head of every page, by itself, before there is anything to press.
 */
const pressed = new WeakMap<Element, HTMLButtonElement>();

for (const type of ['click', 'submit'] as const)
  document.addEventListener(type, (event) => {
    const island = sleepingAround(event.target);
    const button = event.target instanceof Element && event.target.closest('button');
    if (island && button) pressed.set(island, button);
    if (island && (button || type === 'submit')) event.preventDefault();
  });

document.addEventListener(
  'astro:hydrate',
  ({ target }) => void (target instanceof Element && handOver(target)),
  {
    capture: true,
  },
);

/** The part of the page around this that is not alive yet. */
const sleepingAround = (target: EventTarget | null): Element | null =>
  target instanceof Element ? target.closest('astro-island[ssr]') : null;

async function handOver(island: Element): Promise<void> {
  await handOverTyped(island);
  const button = pressed.get(island);
  pressed.delete(island);
  if (button && (await listens(button))) button.click();
}

async function handOverTyped(island: Element): Promise<void> {
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

/**
 * Waits until the view around this has taken the page over: not only marked it, for what it began once it may throw away
 * and begin anew, but finished; and a moment more, in which it begins to listen to itself.
 */
async function listens(field: Element): Promise<boolean> {
  const until = Date.now() + patienceMs;
  while (!isTakenOver(field.closest('astro-island'))) {
    if (Date.now() > until) return false;
    await aMoment();
  }
  await aMoment();
  return true;
}

const aMoment = () => new Promise((resolve) => setTimeout(resolve, 16));

/** React keeps its root at the element it lives in, and says there whether all of it still is what the server sent. */
const isTakenOver = (island: Element | null): boolean =>
  Object.values((island ?? {}) as Record<string, ReactRoot | undefined>).some(
    (kept) => kept?.stateNode?.current?.memoizedState?.isDehydrated === false,
  );

interface ReactRoot {
  stateNode?: { current?: { memoizedState?: { isDehydrated?: boolean } } };
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
