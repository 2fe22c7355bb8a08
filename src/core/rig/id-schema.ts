import * as z from 'zod';
import { ID, ID_WORDS, isReserved } from './id-form';

/** An id: letters, digits, "-" and "_", starting with a letter or digit; never a word that JavaScript objects own. */
export const idSchema = z
  .string()
  .regex(ID, ID_WORDS)
  .refine((id) => !isReserved(id), 'this word is reserved; choose another id');
