import { useEffect } from 'react';

/** Keeps the screen on while both hands are busy; a browser that cannot do so lets it sleep. */
export function useScreenKeptOn(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return undefined;
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const keep = async () => {
      if (document.visibilityState !== 'visible') return;
      try {
        lock = await navigator.wakeLock.request('screen');
        if (gone) void lock.release();
      } catch {
        // A low battery, say: then it sleeps when it sleeps.
      }
    };
    void keep();
    // The browser lets go of it whenever the page is hidden.
    const again = () => void keep();
    document.addEventListener('visibilitychange', again);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', again);
      void lock?.release();
    };
  }, [wanted]);
}
