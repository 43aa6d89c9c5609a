import { createStore, keys } from 'idb-keyval';
import { forgetPagesHere } from './keep-app';

/**
 * Signing out forgets what this browser kept of the shop. Where something entered here was not sent yet, it is asked about
 * first, and stays under the name of who entered it.
 */
export function askBeforeSignOut(form: HTMLFormElement, dialog: HTMLDialogElement): void {
  let isAsked = false;
  form.addEventListener('submit', (event) => {
    if (isAsked) return;
    event.preventDefault();
    void waiting().then(async (count) => {
      if (count > 0 && !(await agrees(dialog, count))) return;
      isAsked = true;
      await forgetPagesHere();
      if (count === 0) form.append(hidden('waiting', 'none'));
      form.requestSubmit();
    });
  });
}

/** So many entries on this device have not reached the shop. */
const waiting = (): Promise<number> =>
  keys(createStore('hacienda-outbox', 'entries')).then(
    (found) => found.length,
    () => 0,
  );

function agrees(dialog: HTMLDialogElement, count: number): Promise<boolean> {
  const said = dialog.querySelector('p');
  if (said)
    said.textContent = `${count} ${count === 1 ? 'entry is' : 'entries are'} not sent yet. They stay on this device, and go out once you sign in here again.`;
  dialog.returnValue = '';
  dialog.showModal();
  return new Promise((resolve) =>
    dialog.addEventListener('close', () => resolve(dialog.returnValue === 'out'), { once: true }),
  );
}

function hidden(name: string, value: string): HTMLInputElement {
  const input = document.createElement('input');
  input.type = 'hidden';
  Object.assign(input, { name, value });
  return input;
}
