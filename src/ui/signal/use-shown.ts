import { shallowEqual } from '@mantine/hooks';
import { type RefObject, useEffect, useState } from 'react';

/** The part of a pane that is on screen, in px of what it holds. */
export interface Shown {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** What of a pane is on screen, to the next `step` px; nothing until it stands. */
export function useShown(scroller: RefObject<HTMLElement | null>, step = 1): Shown | null {
  const [shown, setShown] = useState<Shown | null>(null);
  useEffect(() => {
    const el = scroller.current;
    if (!el) return;
    const round = (px: number) => Math.round(px / step) * step;
    const look = () => {
      const now: Shown = {
        left: round(el.scrollLeft),
        top: round(el.scrollTop),
        width: el.clientWidth,
        height: el.clientHeight,
      };
      setShown((was) => (shallowEqual(was, now) ? was : now));
    };
    el.addEventListener('scroll', look);
    // It looks by itself when it begins.
    const sizes = new ResizeObserver(look);
    sizes.observe(el);
    return () => {
      el.removeEventListener('scroll', look);
      sizes.disconnect();
    };
  }, [scroller, step]);
  return shown;
}
