/** What a page of the book is made of, whatever prints it. */
export type Block =
  | { is: 'words'; words: string }
  | { is: 'heading'; words: string }
  | { is: 'list'; items: string[]; ordered?: boolean; boxes?: boolean }
  | { is: 'table'; head: string[]; rows: string[][]; bold?: number }
  | { is: 'drawing'; svg: string };

export const table = (
  head: string[],
  rows: (string | number | null | undefined)[][],
  bold?: number,
): Block => ({
  is: 'table',
  head,
  rows: rows.map((r) => r.map((c) => (c === null || c === undefined ? '' : String(c)))),
  ...(bold !== undefined && { bold }),
});
export const words = (text: string): Block => ({ is: 'words', words: text });
export const heading = (text: string): Block => ({ is: 'heading', words: text });
