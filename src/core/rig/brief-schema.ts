import * as z from 'zod';
import { CALLERS, CHARACTERS, SWITCHINGS, VOICES, WAYS } from './choices';
import { idSchema } from './id-schema';

const name = z.string().trim().min(1, 'give it a name').max(120);
const kind = z.string().min(1).max(64);

/** What decides the wiring of a start beside who plays and who hears; what is left out is as usual. */
const meansSchema = z.looseObject({
  /** Several instruments sound at once; else they are changed. */
  together: z.boolean().optional(),
  voice: z.enum(VOICES).optional(),
  /** Several amplifiers: all at once, or one of them in each sound. */
  amps: z.enum(['together', 'one']).optional(),
  house: z.enum(['mono', 'stereo']).optional(),
  switching: z.enum(SWITCHINGS).optional(),
  calls: z.enum(CALLERS).optional(),
  /** Supplies on hand, by kind; none named, the smallest that would do. */
  supplies: z.array(kind).max(12).optional(),
  /** Whether supplies and a board are chosen, too. */
  built: z.boolean().optional(),
  /** Choices of the proposal that were changed, by the choice. */
  changed: z.record(z.string().max(80), z.string().max(120)).optional(),
});

/** What is asked of a rig before it exists: who plays what, who must hear it, which sounds, what is on hand. */
export const briefSchema = z.looseObject({
  sources: z
    .array(z.looseObject({ id: idSchema, kind, name, wireless: z.boolean().optional() }))
    .max(20),
  destinations: z
    .array(
      z.looseObject({
        id: idSchema,
        way: z.enum(WAYS),
        name,
        /** Sources, by their line, that must never be heard there. */
        not: z.array(idSchema).max(20).optional(),
      }),
    )
    .max(20),
  sounds: z
    .array(
      z.looseObject({
        id: idSchema,
        name,
        character: z.enum(CHARACTERS).optional(),
        notes: z.string().max(4000).optional(),
      }),
    )
    .max(400),
  gear: z.array(z.looseObject({ id: idSchema, kind, name })).max(200),
  means: meansSchema.optional(),
  /** Whatever else must never happen, in words; what can be checked is a promise. */
  never: z
    .array(z.looseObject({ id: idSchema, words: name }))
    .max(100)
    .optional(),
});

export type Brief = z.infer<typeof briefSchema>;
export type Means = z.infer<typeof meansSchema>;
export type Voice = (typeof VOICES)[number];
export type Way = (typeof WAYS)[number];
export type Character = (typeof CHARACTERS)[number];
