import { z } from 'zod';
import { idSchema } from './id-schema';

const name = z.string().trim().min(1, 'give it a name').max(120);
const kind = z.string().min(1).max(64);

/** Ways in which a rig can be heard. */
export const WAYS = ['head', 'combo', 'house', 'in-ears', 'recorder'] as const;

/** What a sound should be like, from the cleanest. */
export const CHARACTERS = ['clean', 'edge', 'crunch', 'saturated', 'special'] as const;

/** What is asked of a rig before it exists: who plays what, who must hear it, which sounds, what is on hand. */
export const briefSchema = z.looseObject({
  sources: z
    .array(z.looseObject({ id: idSchema, kind, name, wireless: z.boolean().optional() }))
    .max(20),
  destinations: z.array(z.looseObject({ id: idSchema, way: z.enum(WAYS), name })).max(20),
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
  /** Whatever else must never happen, in words; what can be checked is a promise. */
  never: z
    .array(z.looseObject({ id: idSchema, words: name }))
    .max(100)
    .optional(),
});

export type Brief = z.infer<typeof briefSchema>;
export type Way = (typeof WAYS)[number];
export type Character = (typeof CHARACTERS)[number];
