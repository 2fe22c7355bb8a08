import * as z from 'zod';
import { MOST_CHART } from './choices';
import { idSchema } from './id-schema';
import { stateSchema } from './setting-value';

const text = z.string().max(4000);
const bpm = z.number().min(20, 'a tempo is 20 to 400 bpm').max(400, 'a tempo is 20 to 400 bpm');
const states = z.record(idSchema, stateSchema);

/** Beats in a bar and the note that counts as one; a tempo always counts quarter notes. */
export const meterSchema = z.looseObject({
  beats: z.number().int().min(1).max(32),
  unit: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
});

/**
 * A stretch of a song that calls one sound. `tempos` change the tempo at a bar of the section,
 * counted from 1, until the next change.
 */
export const sectionSchema = z.looseObject({
  id: idSchema,
  name: z.string().trim().min(1, 'give the section a name').max(120),
  bars: z.number().int().min(1).max(999),
  sound: idSchema,
  tempos: z
    .array(z.looseObject({ bar: z.number().int().min(1).max(999), bpm }))
    .max(200)
    .optional(),
  meter: meterSchema.optional(),
  states: states.optional(),
  notes: text.optional(),
});

/**
 * A song: how fast, in which key and tuning, on which instrument, and which sound each section
 * calls. `states` differ from the sounds in this song only.
 */
export const songSchema = z.looseObject({
  id: idSchema,
  title: z.string().trim().min(1, 'give the song a title').max(120),
  bpm,
  meter: meterSchema.optional(),
  key: z.string().max(20).optional(),
  tuning: z.string().max(60).optional(),
  instrument: idSchema.optional(),
  sections: z.array(sectionSchema).max(100, 'a song holds at most 100 sections'),
  states: states.optional(),
  /** Note values that delays and modulations play in this song, by device. */
  divisions: z.record(idSchema, z.string().min(1).max(30)).optional(),
  notes: text.optional(),
  /** Text and chords, as a ChordPro sheet. */
  chart: z.string().max(MOST_CHART).optional(),
});

/**
 * One place in a running order. `gap` is the time before it, in seconds; left out, it follows from
 * what has to be done.
 */
export const entrySchema = z.looseObject({
  id: idSchema,
  song: idSchema,
  gap: z.number().min(0).max(7200).optional(),
  notes: text.optional(),
});

/** A running order. Times of changeovers in seconds: straight on, retuning, another instrument. */
export const setSchema = z.looseObject({
  id: idSchema,
  name: z.string().trim().min(1, 'give the set a name').max(120),
  starts: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'write a time as 20:30')
    .optional(),
  minutes: z.number().min(1).max(600).optional(),
  times: z
    .looseObject({
      plain: z.number().min(0).max(600),
      retune: z.number().min(0).max(1800),
      instrument: z.number().min(0).max(1800),
    })
    .optional(),
  entries: z.array(entrySchema).max(200, 'a set holds at most 200 songs'),
  notes: text.optional(),
});

export type Meter = z.infer<typeof meterSchema>;
export type Section = z.infer<typeof sectionSchema>;
export type Song = z.infer<typeof songSchema>;
export type SetEntry = z.infer<typeof entrySchema>;
export type SongSet = z.infer<typeof setSchema>;
