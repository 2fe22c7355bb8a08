/** The form of an id. */
export const ID = /^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$/;

/** What an id is made of, in words. */
export const ID_WORDS =
  'an id is 1 to 64 letters, digits, "-" or "_", and starts with a letter or digit';

/** Whether a word is one that JavaScript objects own: no id may be. */
export const isReserved = (word: string): boolean => word in Object.prototype;
