import { useEffect, type RefObject } from 'react';

/** By keyboard alone: Enter does the one thing to do, a digit is the cue of that number. */
export function useRunKeys(main: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const { target } = event;
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat) return;
      if (target instanceof HTMLElement && target.closest('input, textarea, select')) return;
      // A focused button or link takes Enter itself.
      if (event.key === 'Enter' && target instanceof HTMLElement && target.closest('button, a')) return;
      const wanted =
        event.key === 'Enter' ? '[data-main]' : /^[1-9]$/.test(event.key) ? `[data-cue="${event.key}"]` : '';
      const button = wanted && main.current?.querySelector<HTMLButtonElement>(wanted);
      if (!button || button.disabled) return;
      event.preventDefault();
      if (button.dataset.held === undefined) return button.click();
      // What is held by a finger is held by its key.
      button.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
      const letGo = () => button.dispatchEvent(new PointerEvent('pointerup', { bubbles: true }));
      window.addEventListener('keyup', letGo, { once: true });
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [main]);
}
