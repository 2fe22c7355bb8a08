/** One of several shares of long work: every `of`th piece, from the one numbered `part`. */
export interface Share {
  part: number;
  of: number;
}

/** All of it, by one alone. */
export const ALONE: Share = { part: 0, of: 1 };

/** Whether a piece of work is in a share. */
export const isIn = ({ part, of }: Share, piece: number): boolean => piece % of === part;
