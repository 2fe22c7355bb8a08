import stringWidth from 'string-width';

/** Words that a label can do without. */
const SMALL = new Set(['the', 'a', 'an', 'of', 'and', 'to', 'in', 'on', 'with', 'for']);

const graphemes = new Intl.Segmenter('en', { granularity: 'grapheme' });
/** The characters of a text as a reader counts them: a letter with its accents is one. */
const lettersOf = (text: string): string[] => [...graphemes.segment(text)].map((s) => s.segment);

/** How many places a text takes on a display: one a letter, two for what is as wide as it is high. */
export const widthOf = (text: string): number => stringWidth(text);

/** The beginning of a text that fits, with no character cut. */
function cut(text: string, width: number): string {
  let fits = '';
  for (const letter of lettersOf(text)) {
    if (widthOf(fits + letter) > width) break;
    fits += letter;
  }
  return fits.trimEnd();
}

const VOWEL = /^[aeiouyäöüåøæéèáóí]$/i;
const isNumbered = (word: string): boolean => /\p{N}/u.test(word);

/** A word without its last vowel that is not the first letter; where none is left, without its last letter. */
function shorten(word: string): string {
  const letters = lettersOf(word);
  const vowel = letters.findLastIndex(
    (l, i) => i > 0 && i < letters.length - 1 && VOWEL.test(l.normalize('NFC')),
  );
  letters.splice(vowel > 0 ? vowel : letters.length - 1, 1);
  return letters.join('');
}

/** The words of a name, and which of them may go first. */
const wordsOf = (text: string): string[] => text.trim().split(/\s+/).filter(Boolean);

/**
 * Fits a name to a display: as it is where it fits, else without small words, else with vowels and
 * then letters taken out of its longest words. What tells two names apart stays: numbers are never
 * shortened, the first word is last to be, and no character is cut in half. Words in `shared`, which
 * its neighbours have too, go before others. Never wider than `width` places.
 *
 *     fitLabel('Observatory organ', 12) // "Obsrvt organ"
 */
export function fitLabel(text: string, width: number, shared: ReadonlySet<string> = NONE): string {
  if (width <= 0) return '';
  const all = wordsOf(text);
  const fits = (words: readonly string[]) => widthOf(words.join(' ')) <= width;
  if (fits(all)) return all.join(' ');
  let words = all.filter((w, i) => i === 0 || isNumbered(w) || !SMALL.has(w.toLowerCase()));
  while (!fits(words)) {
    const next = toShorten(words, shared);
    if (next === undefined) break;
    words = words.map((w, i) => (i === next ? shorten(w) : w)).filter(Boolean);
  }
  if (fits(words)) return words.join(' ');
  // Not even initials fit with spaces between: what begins it, and its numbers.
  const numbers = words.slice(1).filter(isNumbered).join('');
  const [first = ''] = words;
  return numbers && widthOf(numbers) < width
    ? cut(first, width - widthOf(numbers)) + numbers
    : cut(words.join(''), width);
}

const NONE: ReadonlySet<string> = new Set();
/** The first word keeps so many letters as long as others can give some. */
const KEPT_OF_FIRST = 3;

/** Which word gives a letter: shared ones first, then the longest but the first, the first at the end. */
function toShorten(words: readonly string[], shared: ReadonlySet<string>): number | undefined {
  const can = words.flatMap((w, i) => {
    if (isNumbered(w)) return [];
    const letters = lettersOf(w).length;
    if (i === 0) return letters > 1 ? [{ i, letters, rank: letters > KEPT_OF_FIRST ? 1 : 2 }] : [];
    if (shared.has(w.toLowerCase())) return [{ i, letters, rank: 0 }];
    return letters > 1 ? [{ i, letters, rank: 1 }] : [];
  });
  can.sort((a, b) => a.rank - b.rank || b.letters - a.letters || b.i - a.i);
  return can[0]?.i;
}

/**
 * Fits names to a display so that no two are the same: where shortening makes twins, what they share
 * gives way first; where they are twins even then, they are numbered at the end.
 */
export function fitLabels(names: readonly string[], width: number): string[] {
  const alone = names.map((n) => fitLabel(n, width));
  const twins = (label: string) =>
    names.filter((_, i) => alone[i]?.toLowerCase() === label.toLowerCase());
  const used = new Set<string>();
  return names.map((name, i) => {
    let label = alone[i] ?? '';
    const group = [...new Set(twins(label))];
    if (group.length > 1) label = fitLabel(name, width, sharedBy(group));
    for (let n = 2; used.has(label.toLowerCase()) && n <= 999; n++) {
      const mark = String(n);
      label = `${cut(fitLabel(name, width - mark.length), width - mark.length)}${mark}`.slice(
        -Math.max(width, mark.length),
      );
    }
    used.add(label.toLowerCase());
    return label;
  });
}

/** Words that all of some names have, but for the one that each begins with. */
function sharedBy(names: readonly string[]): Set<string> {
  const words = names.map((n) => new Set(wordsOf(n.toLowerCase())));
  return new Set([...(words[0] ?? [])].filter((w) => words.every((set) => set.has(w))));
}
