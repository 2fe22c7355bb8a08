import * as z from 'zod';

/** An id: letters, digits, "-" and "_", starting with a letter or digit; never a word that JavaScript objects own. */
export const idSchema = z
  .string()
  .regex(
    /^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$/,
    'an id is 1 to 64 letters, digits, "-" or "_", and starts with a letter or digit',
  )
  .refine((id) => !(id in Object.prototype), 'this word is reserved; choose another id');
