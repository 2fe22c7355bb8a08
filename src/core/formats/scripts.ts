/** Scripts that the printed typeface has letters for. */
const PRINTED =
  /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Common}\p{Script=Inherited}]/u;

/** Scripts that are told by name. */
const SCRIPTS = [
  'Arabic',
  'Armenian',
  'Bengali',
  'Devanagari',
  'Ethiopic',
  'Georgian',
  'Gurmukhi',
  'Han',
  'Hangul',
  'Hebrew',
  'Hiragana',
  'Katakana',
  'Khmer',
  'Tamil',
  'Telugu',
  'Thai',
] as const;

/** Scripts in texts that the printed typeface has no letters for, by name. */
export function missingScripts(texts: readonly string[]): string[] {
  const letters = [...new Set(texts.join(''))].filter((c) => !PRINTED.test(c));
  const named = letters.map(
    (c) => SCRIPTS.find((s) => new RegExp(`\\p{Script=${s}}`, 'u').test(c)) ?? 'other scripts',
  );
  return [...new Set(named)].sort();
}
