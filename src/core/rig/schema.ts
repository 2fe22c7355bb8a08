import { z } from 'zod';
import { briefSchema } from './brief-schema';
import { idSchema } from './id-schema';
import { promiseSchema } from './promise-schema';

export { type Brief, briefSchema, type Character, CHARACTERS, type Way, WAYS } from './brief-schema';
export { idSchema } from './id-schema';
export { type PromiseOf, promiseSchema, type PromiseType, type RigPromise } from './promise-schema';

/** The version of the rig document that this program writes. */
export const RIG_VERSION = 1;

/** How much one document may hold; larger files are refused with a message that says so. */
export const LIMITS = { devices: 2000, leads: 6000, sounds: 400, text: 4000, name: 120 };

const name = z.string().trim().min(1, 'give it a name').max(LIMITS.name);
const text = z.string().max(LIMITS.text);

const settingValue = z.union([z.number(), z.string().max(200), z.boolean()]);
const settings = z.record(idSchema, settingValue);

/** What a device is doing: engaged or bypassed, and where its controls stand. */
export const stateSchema = z.looseObject({ engaged: z.boolean().optional(), settings: settings.optional() });

/** A figure that replaces the kind's typical one, with where it came from. */
export const figureOverrideSchema = z.looseObject({
  value: z.number(),
  from: z.enum(['sheet', 'measured']),
  on: z.iso.date().optional(),
});

export const deviceSchema = z.looseObject({
  id: idSchema,
  kind: z.string().min(1).max(64),
  name,
  maker: text.optional(),
  model: text.optional(),
  notes: text.optional(),
  place: z.enum(['player', 'floor', 'rack', 'amps', 'house']).optional(),
  /** The device inside which this one lives as a block. */
  host: idSchema.optional(),
  /** What feeds it: the supply and, where known, its outlet. */
  supply: z.looseObject({ device: idSchema, outlet: z.string().max(40).optional() }).optional(),
  /** It has its place for a reason: proposals leave it there. */
  pinned: z.boolean().optional(),
  engaged: z.boolean().optional(),
  settings: settings.optional(),
  figures: z.record(idSchema, figureOverrideSchema).optional(),
});

export const endSchema = z.looseObject({ device: idSchema, jack: z.string().min(1).max(40) });

export const LEAD_TYPES = ['instrument', 'balanced', 'stereo', 'insert', 'speaker', 'digital', 'midi', 'air', 'inside'] as const;

export const leadSchema = z.looseObject({
  id: idSchema,
  from: endSchema,
  to: endSchema,
  type: z.enum(LEAD_TYPES),
  metres: z.number().min(0).max(500),
  pfPerMetre: z.number().min(0).max(2000).optional(),
  label: text.optional(),
  /** Which conductor of a two-conductor jack this branch of an insert lead uses. */
  conductor: z.enum(['tip', 'ring']).optional(),
  /** The shield of the signal lead is open at one end, so ground does not cross. Never a protective earth. */
  shieldLifted: z.boolean().optional(),
  /** Cross-section of a speaker lead, in mm². */
  squareMm: z.number().min(0.1).max(16).optional(),
});

export const soundSchema = z.looseObject({
  id: idSchema,
  name,
  notes: text.optional(),
  states: z.record(idSchema, stateSchema),
});

export const stanceSchema = z.looseObject({
  stance: z.enum(['follow', 'other', 'ignore']),
  because: text.optional(),
});

export const acceptedSchema = z.looseObject({ finding: z.string().min(1).max(400), reason: text.min(1), on: z.iso.date().optional() });

export const referenceSchema = z.looseObject({
  metres: z.number().min(0).max(100),
  pfPerMetre: z.number().min(0).max(2000),
  ohms: z.number().positive().max(1e9),
});

export const rigSchema = z.looseObject({
  format: z.literal('yantrel-rig'),
  version: z.literal(RIG_VERSION),
  id: idSchema,
  name,
  notes: text.optional(),
  devices: z.array(deviceSchema).max(LIMITS.devices, `a rig holds at most ${LIMITS.devices} devices; split it into several rigs`),
  leads: z.array(leadSchema).max(LIMITS.leads, `a rig holds at most ${LIMITS.leads} leads; split it into several rigs`),
  sounds: z.array(soundSchema).max(LIMITS.sounds, `a rig holds at most ${LIMITS.sounds} sounds`),
  order: z.looseObject({ stances: z.record(idSchema, stanceSchema).optional() }).optional(),
  accepted: z.array(acceptedSchema).max(2000).optional(),
  reference: referenceSchema.optional(),
  brief: briefSchema.optional(),
  promises: z.array(promiseSchema).max(200, 'a rig keeps at most 200 promises').optional(),
});

export type Rig = z.infer<typeof rigSchema>;
export type Device = z.infer<typeof deviceSchema>;
export type Lead = z.infer<typeof leadSchema>;
export type LeadType = (typeof LEAD_TYPES)[number];
export type Sound = z.infer<typeof soundSchema>;
export type State = z.infer<typeof stateSchema>;
export type End = z.infer<typeof endSchema>;
export type Stance = z.infer<typeof stanceSchema>;
export type FigureOverride = z.infer<typeof figureOverrideSchema>;
export type SettingValue = number | string | boolean;
export type Reference = z.infer<typeof referenceSchema>;

/** The lead that tone is compared with when the rig names none: 3 m of 100 pF/m into 1 MΩ. */
export const DEFAULT_REFERENCE: Reference = { metres: 3, pfPerMetre: 100, ohms: 1e6 };

/** Capacitance of a lead where none is stated, in pF per metre (typical; 60 to 160 are found). */
export const DEFAULT_PF_PER_METRE = 100;
