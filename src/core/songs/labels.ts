import { at } from '../outcome';
/** Words that a label can do without. */
const SMALL = new Set(['the', 'a', 'an', 'of', 'and', 'to', 'in', 'on', 'with', 'for']);

const shorten = (word: string): string => {
  // The last vowel that is not the first letter goes first; then the last letter.
  for (let i = word.length - 2; i > 0; i--)
    if (/[aeiouyäöüåøæéèáóí]/i.test(at(word, i))) return word.slice(0, i) + word.slice(i + 1);
  return word.length > 1 ? word.slice(0, -1) : word;
};

/**
 * Fits a name to a display: as it is where it fits, else without small words, else with vowels
 * taken out of its longest words from the end, else cut. Never longer than `width`.
 *
 *     fitLabel('Observatory organ', 12) // "Observt orgn"
 */
export function fitLabel(text: string, width: number): string {
  const tidy = text.trim().replace(/\s+/g, ' ');
  if (width <= 0) return '';
  if (tidy.length <= width) return tidy;
  let words = tidy.split(' ').filter((w, i) => i === 0 || !SMALL.has(w.toLowerCase()));
  while (words.join(' ').length > width) {
    const longest = words.reduce((best, w, i) => (w.length > at(words, best).length ? i : best), 0);
    if (at(words, longest).length <= 2) {
      words = [words.join('').slice(0, width)];
      break;
    }
    words = words.map((w, i) => (i === longest ? shorten(w) : w));
  }
  return words.join(' ').slice(0, width).trimEnd();
}

/**
 * Fits names to a display so that no two are the same: where shortening makes twins, they are
 * numbered at the end.
 */
export function fitLabels(names: readonly string[], width: number): string[] {
  const used = new Set<string>();
  return names.map((name) => {
    let label = fitLabel(name, width);
    for (let n = 2; used.has(label.toLowerCase()); n++) {
      const mark = String(n);
      label = `${fitLabel(name, width - mark.length)}${mark}`.slice(0, width);
      if (n > 999) break;
    }
    used.add(label.toLowerCase());
    return label;
  });
}
