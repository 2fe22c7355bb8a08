import { useEffect, useState } from 'react';

/** Keeps the screen awake while it is looked at; says so where the browser cannot. */
export function useAwake(wanted: boolean): string | null {
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    if (!wanted) return;
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const ask = async () => {
      if (document.visibilityState !== 'visible') return;
      try {
        if (!('wakeLock' in navigator)) throw new Error('no lock');
        lock = await navigator.wakeLock.request('screen');
        if (gone) await lock.release();
        setSaid(null);
      } catch {
        setSaid('This browser does not keep the screen awake; set it so on the device.');
      }
    };
    const seen = () => void ask();
    seen();
    document.addEventListener('visibilitychange', seen);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', seen);
      void lock?.release().catch(() => undefined);
    };
  }, [wanted]);
  return said;
}
