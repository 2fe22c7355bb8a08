import type { Problem } from '../outcome';

/** What no text may hold: NUL, which no database stores, and half of a character. */
const UNSTORABLE = /\0|\p{Surrogate}/u;

/** Whether a text can be stored and read again as it is. */
export const isStorable = (text: string): boolean => !UNSTORABLE.test(text);

/** Texts anywhere in a value that cannot be stored, each with its path such as `devices[3].name`. */
export function textProblems(value: unknown, where = ''): Problem[] {
  if (typeof value === 'string')
    return isStorable(value)
      ? []
      : [
          {
            where,
            what: 'the text holds a character that cannot be stored (NUL, or half of one); type it again',
          },
        ];
  if (Array.isArray(value)) return value.flatMap((x, i) => textProblems(x, `${where}[${i}]`));
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, x]) => [
    ...(isStorable(key) ? [] : textProblems(key, where)),
    ...textProblems(x, where ? `${where}.${key}` : key),
  ]);
}

/** The first part of a text, at most so many units of UTF-16 as the format counts; no character is cut in half. */
export const cutText = (text: string, most: number): string =>
  text.slice(0, most).replace(/[\uD800-\uDBFF]$/, '');
