import { Suspense, useSyncExternalStore, type ReactNode } from 'react';

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
