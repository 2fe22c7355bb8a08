import * as z from 'zod';
import { briefSchema } from './brief-schema';
import {
  boardPlaceSchema,
  boardSchema,
  caseSchema,
  givesSchema,
  jackSpotSchema,
  limitsSchema,
  loomSchema,
  mainsSchema,
  makingSchema,
  plugShapeSchema,
  powerSchema,
  rackPlaceSchema,
  rackSchema,
  sizeSchema,
  stageSchema,
  tourSchema,
} from './build-schema';
import { idSchema } from './id-schema';
import { LEAD_TYPES } from './lead-types';
import {
  candidateSchema,
  controllerWantsSchema,
  controlSchema,
  positionsSchema,
} from './control-schema';
import { expectsSchema, midiSchema, sendSchema, tempoSchema } from './midi-schema';
import { promiseSchema } from './promise-schema';
import { settings, stateSchema } from './setting-value';
import { sheetSchema } from './sheets/sheet-schema';
import { setSchema, songSchema } from './song-schema';

export {
  type Brief,
  briefSchema,
  type Character,
  type Means,
  type Voice,
  type Way,
} from './brief-schema';
export {
  type Assignment,
  type Candidate,
  candidateSchema,
  type Control,
  controlSchema,
  type Positions,
} from './control-schema';
export {
  type Board,
  type BoardPlace,
  type Case,
  type Gives,
  type Limits,
  type Loom,
  type Making,
  type Rack,
  type RackPlace,
  type Stage,
} from './build-schema';
export { idSchema } from './id-schema';
export { CONTROL_LEADS, LEAD_TYPES } from './lead-types';
export {
  type Expects,
  type MidiSetup,
  type Send,
  type TempoSetup,
  type WrittenMessage,
} from './midi-schema';
export { type Address, type SettingValue, type State, stateSchema } from './setting-value';
export {
  type Meter,
  type Section,
  type SetEntry,
  setSchema,
  type Song,
  type SongSet,
  songSchema,
} from './song-schema';
export {
  type Asks,
  type Field,
  fieldsOf,
  namedIn,
  PROMISE_TYPES,
  type PromiseOf,
  type PromiseType,
  type RigPromise,
} from './promise-types';
export { fieldSchema, promiseSchema } from './promise-schema';

/** The version of the rig document that this program writes. */
export const RIG_VERSION = 1;

/** How much one document may hold; larger files are refused with a message that says so. */
export const LIMITS = {
  devices: 2000,
  leads: 6000,
  sounds: 400,
  songs: 500,
  text: 4000,
  name: 120,
};

const name = z.string().trim().min(1, 'give it a name').max(LIMITS.name);
const text = z.string().max(LIMITS.text);

/** A figure that replaces the kind's typical one, with where it came from. */
export const figureOverrideSchema = z.looseObject({
  value: z.number(),
  from: z.enum(['sheet', 'measured']),
  on: z.iso.date().optional(),
});

export const deviceSchema = z.looseObject({
  id: idSchema,
  kind: z.string().min(1).max(120),
  name,
  maker: text.optional(),
  model: text.optional(),
  notes: text.optional(),
  place: z.enum(['player', 'floor', 'rack', 'amps', 'house']).optional(),
  /** The device inside which this one lives as a block. */
  host: idSchema.optional(),
  /** What feeds it: the supply and, where known, its outlet. */
  supply: z
    .looseObject({
      device: idSchema,
      outlet: z.string().max(40).optional(),
      volts: z.number().positive().max(60).optional(),
      pinned: z.boolean().optional(),
    })
    .optional(),
  /** What it takes, where that is not usual for its kind. */
  power: powerSchema.optional(),
  /** What a supply gives, where that is not usual for its kind. */
  gives: givesSchema.optional(),
  /** It has its place for a reason: proposals leave it there. */
  pinned: z.boolean().optional(),
  engaged: z.boolean().optional(),
  settings: settings.optional(),
  figures: z.record(idSchema, figureOverrideSchema).optional(),
  /**
   * What the crew knows of this very unit. Weight in grams; the value in whatever money the crew
   * counts in.
   */
  gear: z
    .looseObject({
      serial: z.string().max(120).optional(),
      owner: z.string().max(120).optional(),
      grams: z.number().min(0).max(1e6).optional(),
      value: z.number().min(0).max(1e9).optional(),
      owned: z.boolean().optional(),
    })
    .optional(),
  size: sizeSchema.optional(),
  /** Units that it takes in a rack, where that is not usual for its kind. */
  units: z.number().int().min(1).max(30).optional(),
  /** Jacks that are not where they usually are on its kind. */
  jackSpots: z.record(z.string().max(40), jackSpotSchema).optional(),
  at: boardPlaceSchema.optional(),
  rack: rackPlaceSchema.optional(),
  mains: mainsSchema.optional(),
  midi: midiSchema.optional(),
  tempo: tempoSchema.optional(),
  /** What its control jacks are set to expect. */
  expects: z.record(idSchema, expectsSchema).optional(),
});

export const endSchema = z.looseObject({ device: idSchema, jack: z.string().min(1).max(40) });

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
  /** A MIDI lead that joins a type A and a type B socket: tip and ring are crossed. */
  crossed: z.boolean().optional(),
  /** Capacitance of the whole lead as measured, in pF; it takes the place of length times pF a metre. */
  pF: z.number().min(0).max(1e6).optional(),
  /** The plugs, where they are not the usual ones. */
  plugs: z
    .looseObject({ from: plugShapeSchema.optional(), to: plugShapeSchema.optional() })
    .optional(),
});

export const soundSchema = z.looseObject({
  id: idSchema,
  name,
  notes: text.optional(),
  states: z.record(idSchema, stateSchema),
  /** Where controls stand in this sound; their assignments then set what they move. */
  controls: positionsSchema.optional(),
  /**
   * Messages written out by hand. A sender with none in a sound sends what follows from the
   * programs and settings.
   */
  sends: z.array(sendSchema).max(500).optional(),
});

/** What a rig makes of a rule of order: the usual school, the other one, or neither. */
export const SCHOOLS = ['follow', 'other', 'ignore'] as const;

export const stanceSchema = z.looseObject({
  stance: z.enum(SCHOOLS),
  because: text.optional(),
  /** Devices that take another stance than the rest: a boost for level beside one for saturation. */
  devices: z.record(idSchema, z.enum(SCHOOLS)).optional(),
});

export const acceptedSchema = z.looseObject({
  finding: z.string().min(1).max(400),
  reason: text.min(1),
  on: z.iso.date().optional(),
});

export const doneSchema = z.looseObject({
  ticks: z
    .array(
      z.looseObject({
        id: z.string().min(1).max(200),
        by: z.string().max(40),
        at: z.iso.datetime(),
      }),
    )
    .max(5000),
  cureFrom: z.iso.datetime().optional(),
  cureHours: z.number().min(0).max(240).optional(),
});

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
  devices: z
    .array(deviceSchema)
    .max(
      LIMITS.devices,
      `a rig holds at most ${LIMITS.devices} devices; split it into several rigs`,
    ),
  leads: z
    .array(leadSchema)
    .max(LIMITS.leads, `a rig holds at most ${LIMITS.leads} leads; split it into several rigs`),
  sounds: z.array(soundSchema).max(LIMITS.sounds, `a rig holds at most ${LIMITS.sounds} sounds`),
  order: z.looseObject({ stances: z.record(idSchema, stanceSchema).optional() }).optional(),
  accepted: z.array(acceptedSchema).max(2000).optional(),
  reference: referenceSchema.optional(),
  brief: briefSchema.optional(),
  promises: z.array(promiseSchema).max(200, 'a rig keeps at most 200 promises').optional(),
  /**
   * What of the checklists is done: by whom and when. `cureFrom` is when adhesive began to set,
   * `cureHours` how long it needs.
   */
  done: doneSchema.optional(),
  making: makingSchema.optional(),
  boards: z.array(boardSchema).max(20).optional(),
  racks: z.array(rackSchema).max(20).optional(),
  cases: z.array(caseSchema).max(100).optional(),
  looms: z.array(loomSchema).max(200).optional(),
  stage: stageSchema.optional(),
  tour: tourSchema.optional(),
  limits: limitsSchema.optional(),
  controls: z.array(controlSchema).max(200, 'a rig holds at most 200 controls').optional(),
  songs: z
    .array(songSchema)
    .max(LIMITS.songs, `a rig holds at most ${LIMITS.songs} songs`)
    .optional(),
  sets: z.array(setSchema).max(100, 'a rig holds at most 100 sets').optional(),
  candidates: z.array(candidateSchema).max(40, 'at most 40 controllers can be compared').optional(),
  controllerWants: controllerWantsSchema.optional(),
  /** What devices of one's own are: the rig's own copy, so that its file is whole by itself. */
  sheets: z.array(sheetSchema).max(400, 'a rig holds at most 400 sheets').optional(),
});

export type Rig = z.infer<typeof rigSchema>;
export type Device = z.infer<typeof deviceSchema>;
export type Lead = z.infer<typeof leadSchema>;
export type LeadType = (typeof LEAD_TYPES)[number];
export type Sound = z.infer<typeof soundSchema>;
export type End = z.infer<typeof endSchema>;
export type Stance = z.infer<typeof stanceSchema>;
export type FigureOverride = z.infer<typeof figureOverrideSchema>;
export type Done = z.infer<typeof doneSchema>;
export type Reference = z.infer<typeof referenceSchema>;
