import { useEffect } from 'react';
import type { Move } from '../../core/visit';
import { needsTechnician } from '../../core/visit/rights';
import { walkingOrder } from '../../core/names/wheel';
import type { Open } from './dialogs';
import type { Sheet } from './use-sheet';

/** Keys that open something; `KeysDialog` tells them. Digits choose a wheel, Enter takes the next move. */
const opens: Record<string, (sheet: Sheet) => Open> = {
  g: ({ chosen }) => ({ dialog: 'gauge', wheel: chosen ?? 'LF' }),
  w: ({ chosen }) => ({ dialog: 'scan', wheel: chosen ?? 'LF' }),
  e: ({ chosen }) => ({ dialog: 'look', wheel: chosen ?? 'LF' }),
  l: () => ({ dialog: 'lamp' }),
  p: () => ({ dialog: 'placard' }),
  v: () => ({ dialog: 'prove' }),
  i: () => ({ dialog: 'what-if' }),
  '?': () => ({ dialog: 'keys' }),
};

/** Single keys, as long as nobody types into a field and no dialog is open. */
export function useShortcuts(sheet: Sheet, take: (move: Move) => void): void {
  const { opened, closed, columns, move, choose, open } = sheet;
  useEffect(() => {
    if (opened || closed) return undefined;
    const press = (key: string) => {
      const wheel = walkingOrder[Number(key) - 1];
      if (wheel && columns.some((column) => column.wheel === wheel)) return choose(wheel);
      if (key === 'Enter') return sheet.mayRecord || !needsTechnician(move) ? take(move) : undefined;
      const dialog = opens[key]?.(sheet);
      if (dialog) open(dialog);
    };
    const listen = (event: KeyboardEvent) => {
      const { target } = event;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (target instanceof HTMLElement && target.closest('input, textarea, select')) return;
      // A focused button or link takes Enter itself.
      if (event.key === 'Enter' && target instanceof HTMLElement && target.closest('button, a')) return;
      // The key itself must not be typed into the field that opens.
      if (event.key === 'Enter' || /^[a-z0-9?]$/i.test(event.key)) event.preventDefault();
      press(event.key.length === 1 ? event.key.toLowerCase() : event.key);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  });
}
