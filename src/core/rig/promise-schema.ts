import { z } from 'zod';
import { idSchema } from './id-schema';

/** A source: a device, or one of the signals that it sends, after a slash. */
const source = z
  .string()
  .regex(
    /^[A-Za-z0-9][A-Za-z0-9_-]{0,63}(\/[a-z0-9 ]{1,40})?$/,
    'a source is the id of a device, or that with the name of one of its signals after a slash',
  );

const of = <const T extends string, S extends z.ZodRawShape>(type: T, shape: S) =>
  z.looseObject({
    id: idSchema,
    type: z.literal(type),
    mustSurvive: z.boolean().optional(),
    notes: z.string().max(4000).optional(),
    ...shape,
  });

/** The sounds a promise is about; left out, all of them. */
const sounds = z.array(idSchema).max(400).optional();

/**
 * A statement that a rig must keep in every sound, or in those named. Ids that are gone break it;
 * they never spoil the file.
 */
export const promiseSchema = z.discriminatedUnion('type', [
  of('hears', { destination: idSchema, source, sounds }),
  of('never-hears', { destination: idSchema, source, sounds }),
  of('moves-only', {
    device: idSchema,
    setting: idSchema,
    destinations: z.array(idSchema).min(1).max(100),
    sounds,
  }),
  of('control-moves-only', {
    control: idSchema,
    destinations: z.array(idSchema).min(1).max(100),
    sounds,
  }),
  of('stereo', { destination: idSchema, sounds }),
  of('levels-within', {
    destination: idSchema,
    db: z.number().positive().max(60),
    sounds,
    solos: z.array(idSchema).max(400).optional(),
    soloDb: z.number().min(0).max(40).optional(),
  }),
  of('tuner-hears', { source, sounds }),
  of('muted-silent', { sounds: z.array(idSchema).min(1).max(400) }),
  of('tails-survive', { from: idSchema, to: idSchema }),
  of('one-press', { from: idSchema, to: idSchema }),
  of('no-tube-unloaded', {}),
  of('noise-under', { destination: idSchema, db: z.number().positive().max(140), sounds }),
  of('latency-under', { destination: idSchema, ms: z.number().positive().max(1000), sounds }),
  of('survives', {
    device: idSchema,
    destination: idSchema,
    actions: z.number().int().min(0).max(5),
    sounds,
  }),
]);

export type RigPromise = z.infer<typeof promiseSchema>;
export type PromiseType = RigPromise['type'];
export type PromiseOf<T extends PromiseType> = Extract<RigPromise, { type: T }>;
