import { useEffect, useRef } from 'react';

/** Runs something on every frame while it is wanted. */
export function useFrames(run: boolean, each: (t: number) => void): void {
  const latest = useRef(each);
  useEffect(() => {
    latest.current = each;
  });
  useEffect(() => {
    if (!run) return;
    let frame = requestAnimationFrame(function tick(t) {
      latest.current(t);
      frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [run]);
}
