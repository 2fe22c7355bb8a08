import { z } from 'zod';
import { rigSchema } from './schema';

/**
 * What an object is checked against once. An edit makes new objects of what it changes and leaves the
 * others what they were, so what had the right shape before has it still.
 */
function once(schema: z.ZodType): z.ZodType {
  const passed = new WeakSet<object>();
  return z.custom((value) => {
    const isObject = typeof value === 'object' && value !== null;
    if (isObject && passed.has(value)) return true;
    const { success } = schema.safeParse(value);
    if (success && isObject) passed.add(value);
    return success;
  });
}

/** A part of the document of which each entry, or the whole where it is no list, is checked once. */
function partOnce(part: z.ZodType): z.ZodType {
  const inner = part instanceof z.ZodOptional ? (part.unwrap() as z.ZodType) : part;
  const checked =
    inner instanceof z.ZodArray
      ? inner.clone({ ...inner.def, element: once(inner.element as z.ZodType) })
      : once(inner);
  return inner === part ? checked : checked.optional();
}

/**
 * The shape of a rig whose parts never change in place, as those of edited documents: it holds where
 * `rigSchema` holds, and looks only at what is new. It does not say what is wrong.
 */
export const shapedSchema = z.looseObject(
  Object.fromEntries(Object.entries(rigSchema.shape).map(([name, part]) => [name, partOnce(part)])),
);
