/**
 * Told by a long computation as it goes: how far it is, from 0 to 1, and what it is doing. It may
 * be awaited, so that others get a turn.
 */
export type Progress = (share: number, words: string) => void | Promise<void>;

/** For callers that do not want to know. */
export const silently: Progress = () => undefined;
