import { lazy, Suspense, useSyncExternalStore, type ComponentType, type ReactNode } from 'react';

const nothing = () => () => undefined;

/**
 * What is fetched when it is first needed, and shown in the browser only: the server would have to send it in pieces, by
 * scripts in the page, which the policy refuses.
 */
export function Later({ children, fallback = null }: { children: ReactNode; fallback?: ReactNode }) {
  const inBrowser = useSyncExternalStore(
    nothing,
    () => true,
    () => false,
  );
  return inBrowser ? <Suspense fallback={fallback}>{children}</Suspense> : fallback;
}

/** So long a part that did not come is left alone before it is asked for again, ms. */
const untilNextTryMs = 1000;

/**
 * A part of the app that `Later` shows. Without a connection it does not come, and is asked for until it does: a part that
 * were given up would take the whole view off the screen, with what was entered there.
 */
export function part<Props>(load: () => Promise<ComponentType<Props>>) {
  const untilItComes = async (): Promise<{ default: ComponentType<Props> }> => {
    for (;;) {
      try {
        return { default: await load() };
      } catch {
        await new Promise((resolve) => setTimeout(resolve, untilNextTryMs));
      }
    }
  };
  return lazy(untilItComes);
}
