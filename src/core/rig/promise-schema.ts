import * as z from 'zod';
import { idSchema } from './id-schema';
import { type Field, PROMISE_TYPES, type RigPromise, type Shapes } from './promise-types';

const source = z
  .string()
  .regex(
    /^[A-Za-z0-9][A-Za-z0-9_-]{0,63}(\/[a-z0-9 ]{1,40})?$/,
    'a source is the id of a device, or that with the name of one of its signals after a slash',
  );

const SHAPES: Shapes = { z, id: idSchema, source };

/** What one place of a promise may hold. */
export const fieldSchema = (field: Field): z.ZodType => field.holds(SHAPES);

const schemaOf = ({ type, fields }: { type: string; fields: Record<string, Field> }) =>
  z.looseObject({
    id: idSchema,
    type: z.literal(type),
    mustSurvive: z.boolean().optional(),
    notes: z.string().max(4000).optional(),
    ...Object.fromEntries(Object.entries(fields).map(([name, f]) => [name, fieldSchema(f)])),
  });

/** Reads promises of the types given. */
export function promiseSchemaOf(
  types: Record<string, { type: string; fields: Record<string, Field> }>,
): z.ZodType<RigPromise> {
  const schemas = Object.values(types).map(schemaOf);
  const [first, ...others] = schemas;
  if (!first) throw new Error('no type of promise is known');
  return z.discriminatedUnion('type', [first, ...others]) as unknown as z.ZodType<RigPromise>;
}

/** A statement that a rig must keep in every sound, or in those named. */
export const promiseSchema = promiseSchemaOf(PROMISE_TYPES);
