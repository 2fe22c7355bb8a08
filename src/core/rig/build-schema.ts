import * as z from 'zod';
import { MAINS_PLUGS, POWER_PLUGS } from '../kinds';
import { EDGES, PLUG_SHAPES } from './choices';
import { idSchema } from './id-schema';

const name = z.string().trim().min(1, 'give it a name').max(120);
const mm = (most: number) => z.number().min(0).max(most);
const grams = z.number().min(0).max(1e6);

/** What a device takes of a supply: in V and mA. */
export const powerSchema = z.looseObject({
  volts: z.number().positive().max(60).optional(),
  maxVolts: z.number().positive().max(60).optional(),
  milliamps: z.number().positive().max(20_000).optional(),
  ac: z.boolean().optional(),
  centre: z.enum(['negative', 'positive']).optional(),
  plug: z.enum(POWER_PLUGS).optional(),
  noisy: z.boolean().optional(),
  sensitive: z.boolean().optional(),
  positiveGround: z.boolean().optional(),
});

export const plugShapeSchema = z.enum(PLUG_SHAPES);
/**
 * Where a jack is: the edge, seen from above with the front towards the player, and how far along
 * it, in mm from its left or rear end.
 */
export const jackSpotSchema = z.looseObject({ edge: z.enum(EDGES), mm: mm(2000) });

/** What a device measures, in mm, where that is not usual for its kind. */
export const sizeSchema = z.looseObject({
  width: z.number().min(5).max(3000),
  depth: z.number().min(5).max(3000),
  height: z.number().min(2).max(3000),
});

/**
 * Where a device stands on a board: its rear left corner, in mm from the board's, as turned
 * (clockwise, seen from above). `under`: below the deck.
 */
export const boardPlaceSchema = z.looseObject({
  board: idSchema,
  x: z.number().min(-3000).max(6000),
  y: z.number().min(-3000).max(6000),
  turn: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]).optional(),
  under: z.boolean().optional(),
  pinned: z.boolean().optional(),
});

/**
 * Where a device is mounted in a rack: its lowest unit counted from 1 at the bottom, on the front
 * or the rear rails; on a shelf, how far from the left, in mm.
 */
export const rackPlaceSchema = z.looseObject({
  rack: idSchema,
  unit: z.number().int().min(1).max(60),
  rear: z.boolean().optional(),
  x: mm(500).optional(),
});

/**
 * A board, seen from above with the player at the front. Distances in mm from its rear edge. Rails
 * (or, on a plate, the openings) are where leads are run and tied; a raised strip lifts what stands
 * on it.
 */
export const boardSchema = z.looseObject({
  id: idSchema,
  name,
  width: z.number().min(50).max(3000),
  depth: z.number().min(50).max(1500),
  rails: z.array(z.looseObject({ y: mm(1500), depth: z.number().min(1).max(1500) })).max(20),
  raised: z
    .array(
      z.looseObject({
        y: mm(1500),
        depth: z.number().min(1).max(1500),
        by: z.number().min(1).max(300),
      }),
    )
    .max(4)
    .optional(),
  /** Free height below the deck, in mm; nothing where nothing fits under it. */
  under: mm(300).optional(),
  /** The foot that presses most. */
  foot: z.enum(['left', 'right']).optional(),
  grams: grams.optional(),
});

/**
 * A 19-inch rack: height in units, depth in mm from the front rails to the inside of the rear,
 * weight of the empty case.
 */
export const rackSchema = z.looseObject({
  id: idSchema,
  name,
  units: z.number().int().min(1).max(60),
  depth: z.number().min(50).max(1500),
  grams: grams.optional(),
  wheels: z.boolean().optional(),
});

/**
 * A case that is carried: what is in it, by the ids of devices, boards and racks. Cases are loaded
 * in their order.
 */
export const caseSchema = z.looseObject({
  id: idSchema,
  name,
  grams: grams.optional(),
  width: mm(3000).optional(),
  depth: mm(3000).optional(),
  height: mm(3000).optional(),
  holds: z.array(idSchema).max(500),
});

/** Leads in one sleeve. `mains`: a mains lead runs in it too. */
export const loomSchema = z.looseObject({
  id: idSchema,
  name,
  leads: z.array(idSchema).max(500),
  mains: z.boolean().optional(),
});

/**
 * The stage from above: where things stand, in metres from its rear left corner, the audience at
 * the front. A spot names a device, a board or a rack; marks are words.
 */
export const stageSchema = z.looseObject({
  width: z.number().min(1).max(100),
  depth: z.number().min(1).max(100),
  spots: z
    .array(
      z.looseObject({
        id: idSchema,
        x: z.number().min(-50).max(150),
        y: z.number().min(-50).max(150),
      }),
    )
    .max(500),
  marks: z
    .array(
      z.looseObject({
        id: idSchema,
        words: name,
        x: z.number().min(-50).max(150),
        y: z.number().min(-50).max(150),
      }),
    )
    .max(60),
});

/** Where the rig plays: countries by two letters. */
export const tourSchema = z.looseObject({
  countries: z.array(z.string().regex(/^[A-Z]{2}$/, 'two capital letters')).max(80),
});

/** What the whole may weigh, measure, cost, draw and take to build; what is left out is not limited. */
export const limitsSchema = z.looseObject({
  grams: z.number().positive().max(1e7).optional(),
  boardWidth: z.number().positive().max(3000).optional(),
  boardDepth: z.number().positive().max(3000).optional(),
  rackUnits: z.number().int().positive().max(200).optional(),
  price: z.number().positive().max(1e9).optional(),
  watts: z.number().positive().max(1e6).optional(),
  hours: z.number().positive().max(1e4).optional(),
});

/**
 * What a device takes from the mains, where that is not usual for its kind; and the conditioner
 * that it is plugged into.
 */
export const mainsSchema = z.looseObject({
  from: idSchema.optional(),
  watts: z.number().min(0).max(20_000).optional(),
  volts: z
    .array(z.tuple([z.number().min(50).max(500), z.number().min(50).max(500)]))
    .min(1)
    .max(4)
    .optional(),
  hz: z
    .array(z.union([z.literal(50), z.literal(60)]))
    .min(1)
    .max(2)
    .optional(),
  inrushAmps: z.number().min(0).max(1000).optional(),
  /** The voltage that its selector is set to, where it has one. */
  setTo: z.number().min(50).max(500).optional(),
  /** The plug of its mains lead, by its letter. */
  plug: z.enum(MAINS_PLUGS).optional(),
});

/**
 * Outlets of a supply, and what all give together at most, in mA. Those that are not isolated share
 * one return.
 */
export const givesSchema = z.looseObject({
  outlets: z
    .array(
      z.looseObject({
        id: z
          .string()
          .regex(/^[\w-]+$/, 'letters, digits, _ and -')
          .max(40),
        label: z.string().trim().min(1).max(40).optional(),
        volts: z.number().positive().max(60),
        also: z.array(z.number().positive().max(60)).max(8).optional(),
        milliamps: z.number().positive().max(20_000),
        isolated: z.boolean(),
        ac: z.boolean().optional(),
        centre: z.enum(['negative', 'positive']).optional(),
        plug: z.enum(POWER_PLUGS).optional(),
      }),
    )
    .min(1, 'a supply has at least one outlet')
    .max(40),
  totalMilliamps: z.number().positive().max(200_000).optional(),
});

/**
 * How leads are made: slack for each end, service loop and cutting step in metres, minutes of work,
 * prices in the crew's money. `codes`: how leads are marked.
 */
export const makingSchema = z.looseObject({
  slack: mm(10),
  step: z.number().min(0.001).max(10),
  perJoint: mm(240),
  perLead: mm(240),
  perTie: mm(240).optional(),
  loop: mm(10).optional(),
  codes: z.enum(['numbers', 'colours']).optional(),
  metrePrice: mm(10_000).optional(),
  plugPrice: mm(10_000).optional(),
  hourPrice: mm(100_000).optional(),
});

/** What of a device can be put back to what is usual for its kind. */
export const USUAL = ['power', 'gives', 'size', 'units', 'jackSpots', 'mains'] as const;

export type Board = z.infer<typeof boardSchema>;
export type BoardPlace = z.infer<typeof boardPlaceSchema>;
export type Rack = z.infer<typeof rackSchema>;
export type RackPlace = z.infer<typeof rackPlaceSchema>;
export type Case = z.infer<typeof caseSchema>;
export type Loom = z.infer<typeof loomSchema>;
export type Stage = z.infer<typeof stageSchema>;
export type Gives = z.infer<typeof givesSchema>;
export type Limits = z.infer<typeof limitsSchema>;
export type Making = z.infer<typeof makingSchema>;
