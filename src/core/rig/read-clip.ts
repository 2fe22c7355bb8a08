import * as z from 'zod';
import { done, type Outcome, refused } from '../outcome';
import { deviceSchema, leadSchema, stateSchema } from './schema';
import { learnSheets, sheetSchema } from './sheets';

/**
 * Devices taken out of a rig to be put into another, or into the same one again: with the leads between
 * them, and how they stand in each sound, by the name of the sound.
 */
export const clipSchema = z.object({
  format: z.literal('yantrel-clip'),
  version: z.literal(1),
  from: z.string().max(200),
  devices: z.array(deviceSchema).min(1).max(500),
  leads: z.array(leadSchema).max(2000),
  states: z.record(z.string().max(200), z.record(z.string().max(80), stateSchema)),
  /** The sheets that say what devices of one's own are. */
  sheets: z.array(sheetSchema).max(100).optional(),
});
export type Clip = z.infer<typeof clipSchema>;

const NO_CLIP = 'What was copied is no part of a rig.';

/** Reads what was copied as text; anything else is refused, in words. */
export function readClip(text: string): Outcome<Clip> {
  try {
    const read = clipSchema.safeParse(JSON.parse(text));
    if (!read.success) return refused(NO_CLIP);
    const [problem] = learnSheets(read.data.sheets);
    return problem ? refused(`${NO_CLIP} ${problem.what}.`, problem.where) : done(read.data);
  } catch {
    return refused(NO_CLIP);
  }
}
