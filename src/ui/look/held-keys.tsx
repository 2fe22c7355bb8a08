import { useLayoutEffect } from 'react';

/** How many frames the field that was waited for has to take the focus. */
const FRAMES = 60;

/**
 * Stands where something with a field is still being fetched, and holds what is typed meanwhile: the
 * field gets it, once it is there. Otherwise the first letters would act as keys of the page, or be
 * lost.
 */
export function HeldKeys() {
  useLayoutEffect(() => {
    const held: KeyboardEvent[] = [];
    const hold = (e: KeyboardEvent) => {
      if (!e.isTrusted) return;
      e.preventDefault();
      e.stopImmediatePropagation();
      held.push(e);
    };
    addEventListener('keydown', hold, true);
    return () => {
      // One key a frame, so that what each does is there before the next.
      const give = (left: number) => {
        const field = document.activeElement;
        if (!(field instanceof HTMLInputElement) && left > 0)
          return requestAnimationFrame(() => give(left - 1));
        const key = left > 0 ? held.shift() : undefined;
        if (!key || !field) return removeEventListener('keydown', hold, true);
        type(field, key);
        requestAnimationFrame(() => give(FRAMES));
      };
      give(FRAMES);
    };
  }, []);
  return null;
}

/** Does with a key what the browser does with one that is pressed in a field. */
function type(field: Element, { key, code, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent) {
  const again = { key, code, ctrlKey, metaKey, altKey, shiftKey, bubbles: true, cancelable: true };
  const isTaken = !field.dispatchEvent(new KeyboardEvent('keydown', again));
  if (isTaken || ctrlKey || metaKey || altKey || !(field instanceof HTMLInputElement)) return;
  const [start, end] = [field.selectionStart ?? 0, field.selectionEnd ?? 0];
  if (key === 'Backspace')
    field.setRangeText('', start === end ? Math.max(0, start - 1) : start, end, 'end');
  else if (key.length === 1) field.setRangeText(key, start, end, 'end');
  else return;
  field.dispatchEvent(new InputEvent('input', { bubbles: true }));
}
