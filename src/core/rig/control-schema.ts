import * as z from 'zod';
import { idSchema } from './id-schema';
import { CURVES } from '../units';
import { settingValue } from './setting-value';

/**
 * One control moves one parameter. A pedal takes it from `min` (heel) to `max` (toe); a switch
 * between `off` and `on`.
 */
export const assignmentSchema = z.looseObject({
  id: idSchema,
  device: idSchema,
  /** A setting of the device, or `engaged`. */
  setting: idSchema,
  min: z.number().optional(),
  max: z.number().optional(),
  curve: z.enum(CURVES).optional(),
  off: settingValue.optional(),
  on: settingValue.optional(),
  /** The sounds it holds in; left out, all. */
  sounds: z.array(idSchema).max(400).optional(),
  /** The control change that carries it, where it goes over MIDI. */
  cc: z.number().int().min(0).max(127).optional(),
});

/** Something under a foot or a hand, and what it moves. */
export const controlSchema = z.looseObject({
  id: idSchema,
  name: z.string().trim().min(1, 'give it a name').max(120),
  type: z.enum(['switch', 'pedal', 'tap', 'message', 'tempo']),
  /** The device it sits on, or whose lead carries it. */
  device: idSchema.optional(),
  action: z.enum(['momentary', 'latching']).optional(),
  /** The part of a pedal's travel that counts, in percent from the heel. */
  travel: z
    .looseObject({ from: z.number().min(0).max(100), to: z.number().min(0).max(100) })
    .optional(),
  notes: z.string().max(4000).optional(),
  assigns: z.array(assignmentSchema).max(64),
});

/** Where controls stand: a pedal in percent from the heel, a switch on or off. */
export const positionsSchema = z.record(
  idSchema,
  z.union([z.number().min(0).max(100), z.boolean()]),
);

/** A foot controller that might be bought or borrowed, to hold against what is needed. */
export const candidateSchema = z.looseObject({
  id: idSchema,
  name: z.string().trim().min(1, 'give it a name').max(120),
  switches: z.number().int().min(0).max(64),
  pedals: z.number().int().min(0).max(8),
  toeSwitch: z.boolean().optional(),
  pedalJacks: z.number().int().min(0).max(16),
  sends: z.array(z.enum(['program', 'control', 'clock', 'bend', 'pressure'])),
  twoWay: z.boolean().optional(),
  power: z.enum(['usb', 'mains', '9 V', 'battery']).optional(),
  labels: z.enum(['screen', 'tape']).optional(),
  letters: z.number().int().min(0).max(80).optional(),
  widthMm: z.number().min(0).max(2000).optional(),
  depthMm: z.number().min(0).max(2000).optional(),
  grams: z.number().min(0).max(50_000).optional(),
  price: z.number().min(0).max(1e6).optional(),
  quiet: z.boolean().optional(),
  softFloor: z.boolean().optional(),
  editor: z.boolean().optional(),
});

/** What a foot controller must have besides what the rig needs of it: what the player wants, what there is room for. */
export const controllerWantsSchema = z.looseObject({
  toeSwitch: z.boolean().optional(),
  quiet: z.boolean().optional(),
  softFloor: z.boolean().optional(),
  editor: z.boolean().optional(),
  power: z.array(z.enum(['usb', 'mains', '9 V', 'battery'])).optional(),
  widthMm: z.number().min(0).max(2000).optional(),
  depthMm: z.number().min(0).max(2000).optional(),
  grams: z.number().min(0).max(50_000).optional(),
  price: z.number().min(0).max(1e6).optional(),
});

export type ControllerWants = z.infer<typeof controllerWantsSchema>;
export type Control = z.infer<typeof controlSchema>;
export type Assignment = z.infer<typeof assignmentSchema>;
export type Positions = z.infer<typeof positionsSchema>;
export type Candidate = z.infer<typeof candidateSchema>;
