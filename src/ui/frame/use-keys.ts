import { getHotkeyHandler, type HotkeyItem } from '@mantine/hooks';
import { useEffect, useLayoutEffect, useRef } from 'react';
import { paletteStore } from './palette-store';

const TYPED = new Set(['text', 'search', 'number', 'email', 'password', 'url', 'tel']);

/**
 * Whether a key belongs to where the focus is: to text being typed, to a dialog, or, for arrows, to
 * any control that uses them.
 */
function isTaken(event: KeyboardEvent): boolean {
  // Whatever has the focus took it for itself: a knob that is turned or typed into.
  if (event.defaultPrevented) return true;
  // What is typed while the palette is still opening is meant for it, not for the pedals.
  if (paletteStore.getState().opened) return true;
  const at = event.target as HTMLElement | null;
  if (!at) return false;
  if (at.isContentEditable || at.tagName === 'TEXTAREA' || at.tagName === 'SELECT') return true;
  if (at instanceof HTMLInputElement && (TYPED.has(at.type) || event.key.startsWith('Arrow')))
    return true;
  return at.closest('[role="dialog"], [role="listbox"], [role="menu"]') !== null;
}

/** Keys that work wherever the focus is, unless it is in text or in a dialog. */
export function useKeys(keys: HotkeyItem[]): void {
  const latest = useRef(keys);
  // Before the next key can come: one that acts on what was on screen a moment ago does the wrong thing.
  useLayoutEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!isTaken(event)) getHotkeyHandler(latest.current)(event);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
}
