import type { Problem } from '../outcome';

/** What no text may hold: NUL, which no database stores, and half of a character. */
const UNSTORABLE = /\0|\p{Surrogate}/u;

/** Whether a text can be stored and read again as it is. */
export const isStorable = (text: string): boolean => !UNSTORABLE.test(text);

/** Texts anywhere in a value that cannot be stored, each with its path such as `devices[3].name`. */
export const textProblems = (value: unknown): Problem[] =>
  isAllStorable(value) ? [] : unstorableIn(value, '');

/** Whether every text in a value can be stored: most are, and need no paths. */
function isAllStorable(value: unknown): boolean {
  if (typeof value === 'string') return isStorable(value);
  if (typeof value !== 'object' || value === null) return true;
  if (Array.isArray(value)) return value.every(isAllStorable);
  for (const [key, x] of Object.entries(value))
    if (!isStorable(key) || !isAllStorable(x)) return false;
  return true;
}

function unstorableIn(value: unknown, where: string): Problem[] {
  if (typeof value === 'string')
    return isStorable(value)
      ? []
      : [
          {
            where,
            what: 'the text holds a character that cannot be stored (NUL, or half of one); type it again',
          },
        ];
  if (Array.isArray(value)) return value.flatMap((x, i) => unstorableIn(x, `${where}[${i}]`));
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, x]) => [
    ...(isStorable(key) ? [] : unstorableIn(key, where)),
    ...unstorableIn(x, where ? `${where}.${key}` : key),
  ]);
}

/** The first part of a text, at most so many units of UTF-16 as the format counts; no character is cut in half. */
export const cutText = (text: string, most: number): string =>
  text.slice(0, most).replace(/[\uD800-\uDBFF]$/, '');
