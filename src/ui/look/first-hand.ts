/** What a person does who is about to do more: whoever only reads from afar does none of it. */
const SIGNS = ['pointermove', 'pointerdown', 'keydown', 'wheel', 'click'] as const;

/**
 * Calls back once, at the first sign that somebody is at the page: a pointer, a key or a finger.
 *
 * @returns what calls it off
 */
export function atFirstHand(then: () => void): () => void {
  const off = () => SIGNS.forEach((sign) => removeEventListener(sign, come, true));
  const come = () => {
    off();
    then();
  };
  SIGNS.forEach((sign) => addEventListener(sign, come, { capture: true, passive: true }));
  return off;
}
