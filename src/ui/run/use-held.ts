import { useCallback, useEffect, useRef, useState, type KeyboardEvent, type MouseEvent } from 'react';

/** So long something that ends a run is held, ms. */
export const heldMs = 1000;

/**
 * What must be no slip is held down, by finger or key. Where neither is (a screen reader presses once), it is pressed
 * twice.
 */
export function useHeld(onHeld: () => void) {
  const [isHeld, setHeld] = useState(false);
  const [isArmed, setArmed] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const letGo = useCallback(() => {
    clearTimeout(timer.current);
    timer.current = undefined;
    setHeld(false);
  }, []);
  useEffect(() => letGo, [letGo]);
  const hold = () => {
    if (timer.current !== undefined) return;
    setHeld(true);
    timer.current = setTimeout(() => {
      letGo();
      onHeld();
    }, heldMs);
  };
  return {
    isHeld,
    isArmed,
    held: {
      'data-held': isHeld,
      onPointerDown: hold,
      onPointerUp: letGo,
      onPointerLeave: letGo,
      onPointerCancel: letGo,
      onBlur: letGo,
      onKeyDown: (event: KeyboardEvent) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        if (!event.repeat) hold();
      },
      onKeyUp: letGo,
      // A long touch opens no menu here.
      onContextMenu: (event: MouseEvent) => event.preventDefault(),
      onClick: ({ detail }: MouseEvent) => {
        if (detail !== 0) return;
        if (isArmed) onHeld();
        setArmed(!isArmed);
      },
    },
  };
}
