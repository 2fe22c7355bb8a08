import * as z from 'zod';
import { sameJson } from './same-json';
import { rigSchema } from './schema';

/**
 * What an object is checked against once. An edit makes new objects of what it changes and leaves the
 * others what they were, so what had the right shape before has it still.
 */
function once(schema: z.ZodType): z.ZodType {
  const passed = new WeakSet<object>();
  return z.unknown().transform((value, wrong) => {
    const isObject = typeof value === 'object' && value !== null;
    if (isObject && passed.has(value)) return value;
    const read = schema.safeParse(value);
    if (!read.success) wrong.addIssue('is wrong');
    // What is read as it stands stays the same object, and is known again.
    if (!read.success || !isObject || !sameJson(read.data, value)) return read.data;
    passed.add(value);
    return value;
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
 * `rigSchema` holds, and looks only at what is new. It does not say what is wrong. What it reads is
 * what `rigSchema` reads, in the very objects that it was given where they are well as they stand.
 */
export const shapedSchema = z.looseObject(
  Object.fromEntries(Object.entries(rigSchema.shape).map(([name, part]) => [name, partOnce(part)])),
);
