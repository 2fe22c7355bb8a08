import { z } from 'zod';
import {
  boardPlaceSchema,
  boardSchema,
  caseSchema,
  limitsSchema,
  loomSchema,
  makingSchema,
  rackPlaceSchema,
  rackSchema,
  stageSchema,
  tourSchema,
  USUAL,
} from './build-schema';
import { candidateSchema, controlSchema } from './control-schema';
import { expectsSchema, midiSchema, sendSchema, tempoSchema } from './midi-schema';
import { addressSchema } from './setting-value';
import { setSchema, songSchema } from './song-schema';
import {
  briefSchema,
  deviceSchema,
  endSchema,
  figureOverrideSchema,
  idSchema,
  leadSchema,
  promiseSchema,
  referenceSchema,
  rigSchema,
  soundSchema,
  stanceSchema,
} from './schema';

const setting = z.union([z.number(), z.string().max(200), z.boolean()]);
const edit = <const N extends string, S extends z.ZodRawShape>(name: N, shape: S) =>
  z.object({ edit: z.literal(name), ...shape });

/**
 * Every change to a rig is one of these values. They carry the ids of what they make, so that
 * applying one twice gives the
 * same document. `sound` left out means the device's own setting, which holds in every sound that
 * does not say otherwise.
 */
export const editSchema = z.discriminatedUnion('edit', [
  edit('renameRig', { name: z.string() }),
  edit('setRigNotes', { notes: z.string() }),
  edit('addDevice', { device: deviceSchema }),
  edit('insertInLead', {
    lead: idSchema,
    device: deviceSchema,
    newLeads: z.array(idSchema).length(2),
  }),
  edit('append', { after: endSchema, device: deviceSchema, newLead: idSchema }),
  edit('removeDevice', { device: idSchema }),
  edit('moveDevice', { device: idSchema, lead: idSchema, newLeads: z.array(idSchema).length(2) }),
  edit('replaceDevice', { device: idSchema, kind: z.string(), name: z.string().optional() }),
  edit('connect', { lead: leadSchema }),
  edit('disconnect', { lead: idSchema }),
  edit('setLead', {
    lead: idSchema,
    metres: z.number().optional(),
    pfPerMetre: z.number().optional(),
    type: leadSchema.shape.type.optional(),
    label: z.string().optional(),
    shieldLifted: z.boolean().optional(),
    squareMm: z.number().optional(),
    conductor: leadSchema.shape.conductor,
    crossed: z.boolean().optional(),
    pF: leadSchema.shape.pF.unwrap().nullable().optional(),
    plugs: leadSchema.shape.plugs,
  }),
  edit('swapEnds', { leads: z.array(idSchema).length(2) }),
  edit('setDevice', {
    device: idSchema,
    name: z.string().optional(),
    maker: z.string().optional(),
    model: z.string().optional(),
    notes: z.string().optional(),
    place: deviceSchema.shape.place,
    supply: deviceSchema.shape.supply,
    power: deviceSchema.shape.power,
    gives: deviceSchema.shape.gives,
    gear: deviceSchema.shape.gear,
    size: deviceSchema.shape.size,
    units: deviceSchema.shape.units,
    jackSpots: deviceSchema.shape.jackSpots,
    mains: deviceSchema.shape.mains,
    pinned: z.boolean().optional(),
  }),
  edit('asUsual', { device: idSchema, what: z.array(z.enum(USUAL)).min(1) }),
  edit('setEngaged', { device: idSchema, sound: idSchema.optional(), engaged: z.boolean() }),
  edit('setSetting', {
    device: idSchema,
    sound: idSchema.optional(),
    setting: idSchema,
    value: setting,
  }),
  edit('clearState', { device: idSchema, sound: idSchema }),
  edit('overrideFigure', { device: idSchema, figure: idSchema, override: figureOverrideSchema }),
  edit('clearFigure', { device: idSchema, figure: idSchema }),
  edit('addSound', { sound: soundSchema, at: z.number().int().min(0).optional() }),
  edit('copySound', { sound: idSchema, id: idSchema, name: z.string() }),
  edit('renameSound', { sound: idSchema, name: z.string() }),
  edit('setSoundNotes', { sound: idSchema, notes: z.string() }),
  edit('moveSound', { sound: idSchema, to: z.number().int().min(0) }),
  edit('removeSound', { sound: idSchema }),
  edit('setStance', { rule: idSchema, stance: stanceSchema }),
  edit('acceptFinding', { finding: z.string(), reason: z.string(), on: z.iso.date().optional() }),
  edit('reopenFinding', { finding: z.string() }),
  edit('setReference', { reference: referenceSchema }),
  edit('tick', { step: z.string().min(1).max(200), by: z.string().max(40), at: z.iso.datetime() }),
  edit('untick', { step: z.string().min(1).max(200) }),
  edit('setCure', { from: z.iso.datetime().nullable(), hours: z.number().min(0).max(240) }),
  edit('setMaking', { making: makingSchema }),
  edit('setBrief', { brief: briefSchema }),
  edit('addPromise', { promise: promiseSchema }),
  edit('setPromise', { promise: promiseSchema }),
  edit('removePromise', { promise: idSchema }),
  edit('moveToLoop', {
    device: idSchema,
    loops: z.array(z.string().max(40)).min(1).max(2),
    newLeads: z.array(idSchema).min(2).max(4),
  }),
  edit('moveFromLoop', { device: idSchema }),
  edit('setMidi', { device: idSchema, midi: midiSchema }),
  edit('setTempo', { device: idSchema, tempo: tempoSchema }),
  edit('unplugPower', { device: idSchema }),
  edit('setExpects', { device: idSchema, jack: z.string().max(40), expects: expectsSchema }),
  edit('setProgram', { device: idSchema, sound: idSchema, program: addressSchema.nullable() }),
  edit('setSends', {
    sound: idSchema,
    from: idSchema,
    sends: z.array(sendSchema).max(500).nullable(),
  }),
  edit('addControl', { control: controlSchema }),
  edit('setControl', { control: controlSchema }),
  edit('removeControl', { control: idSchema }),
  edit('setPosition', {
    sound: idSchema,
    control: idSchema,
    at: z.union([z.number().min(0).max(100), z.boolean()]).nullable(),
  }),
  edit('addSong', { song: songSchema, at: z.number().int().min(0).optional() }),
  edit('setSong', { song: songSchema }),
  edit('removeSong', { song: idSchema }),
  edit('addSet', { set: setSchema }),
  edit('setSet', { set: setSchema }),
  edit('removeSet', { set: idSchema }),
  edit('setCandidates', { candidates: z.array(candidateSchema).max(40) }),
  edit('placeOnBoard', { device: idSchema, at: boardPlaceSchema.nullable() }),
  edit('placeInRack', { device: idSchema, rack: rackPlaceSchema.nullable() }),
  edit('addBoard', { board: boardSchema }),
  edit('setBoard', { board: boardSchema }),
  edit('removeBoard', { board: idSchema }),
  edit('addRack', { rack: rackSchema }),
  edit('setRack', { rack: rackSchema }),
  edit('removeRack', { rack: idSchema }),
  edit('setCases', { cases: z.array(caseSchema).max(100) }),
  edit('addLoom', { loom: loomSchema }),
  edit('setLoom', { loom: loomSchema }),
  edit('removeLoom', { loom: idSchema }),
  edit('setStage', { stage: stageSchema }),
  edit('setTour', { tour: tourSchema }),
  edit('setLimits', { limits: limitsSchema }),
  edit('replaceRig', { rig: rigSchema }),
]);

export type Edit = z.infer<typeof editSchema>;
export type EditName = Edit['edit'];
export type EditOf<N extends EditName> = Extract<Edit, { edit: N }>;
