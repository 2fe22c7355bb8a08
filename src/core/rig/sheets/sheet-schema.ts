import * as z from 'zod';
import { BANK_SELECTS, JOBS, THRUS } from '../../kinds';
import { CURVES } from '../../units';
import { idSchema } from '../id-schema';
import { jackSpotSchema, powerSchema, sizeSchema } from '../build-schema';
import { settings, settingValue } from '../setting-value';

const name = z.string().trim().min(1, 'give it a name').max(120);
const text = z.string().max(4000);
const kindId = z.string().min(1).max(64);

/**
 * A figure of a sheet, with where it came from; `low` and `high` are the range in which it is
 * believed, where that is not the range of the kind.
 */
export const sheetFigureSchema = z.looseObject({
  value: z.number(),
  from: z.enum(['typical', 'sheet', 'measured']),
  on: z.iso.date().optional(),
  low: z.number().optional(),
  high: z.number().optional(),
});

/** What a sheet says of the box as a whole, whichever way its inside is described. */
const box = {
  id: idSchema,
  name,
  maker: text.optional(),
  model: text.optional(),
  about: text.optional(),
  notes: text.optional(),
  /** What the box does that the sheet cannot say; shown wherever its figures are. */
  cannot: text.optional(),
  job: z.enum(JOBS).optional(),
  figures: z.record(idSchema, sheetFigureSchema).optional(),
  /** What it measures, in mm, and weighs, in grams. */
  size: sizeSchema.extend({ grams: z.number().min(0).max(1e6) }).optional(),
  /** What it takes of a supply: volts, milliamps. */
  power: powerSchema.required({ volts: true, milliamps: true }).optional(),
  /** What it takes from the mains: watts in all, and by how many inlets. */
  mains: z
    .looseObject({
      watts: z.number().min(0).max(20_000),
      inlets: z.number().int().min(1).max(4).optional(),
      volts: z
        .array(z.tuple([z.number(), z.number()]))
        .min(1)
        .max(4)
        .optional(),
    })
    .optional(),
  midi: z
    .looseObject({
      programs: z
        .looseObject({
          count: z.number().int().min(1).max(16_384),
          bank: z.enum(BANK_SELECTS),
          from: z.union([z.literal(0), z.literal(1)]),
        })
        .optional(),
      controls: z
        .array(
          z.looseObject({
            setting: idSchema,
            cc: z.number().int().min(0).max(127),
            ways: z.array(z.enum(['absolute', 'toggle'])).min(1),
          }),
        )
        .max(64)
        .optional(),
      clock: z.enum(['can', 'wants', 'leads']).optional(),
      thru: z.enum(THRUS).optional(),
    })
    .optional(),
  display: z
    .looseObject({
      lines: z.number().int().min(1).max(20),
      width: z.number().int().min(1).max(80),
    })
    .optional(),
  switches: z.number().int().min(0).max(40).optional(),
  rackUnits: z.number().int().min(1).max(30).optional(),
  /** In whatever money the crew counts in. */
  price: z.number().min(0).max(1e6).optional(),
  jackSpots: z.record(z.string().max(40), jackSpotSchema).optional(),
  /** What a unit holds, number by number, as on the wire. */
  programs: z
    .array(z.looseObject({ number: z.number().int().min(0).max(16_383), name }))
    .max(2048)
    .optional(),
};

/** A kind that ships with the program, with changes. */
export const changedKindSchema = z.looseObject({
  is: z.literal('changes'),
  ...box,
  base: kindId,
  jacks: z
    .array(z.looseObject({ id: idSchema, label: name.optional(), leftOut: z.boolean().optional() }))
    .max(80)
    .optional(),
  /** A control that is left out stands where `at` says; a knob goes from `min` to `max` only. */
  controls: z
    .array(
      z.looseObject({
        id: idSchema,
        label: name.optional(),
        leftOut: z.boolean().optional(),
        at: settingValue.optional(),
        min: z.number().optional(),
        max: z.number().optional(),
      }),
    )
    .max(80)
    .optional(),
});

/** A jack of a part inside a box. */
export const innerJackSchema = z.looseObject({ part: idSchema, jack: z.string().min(1).max(40) });

/**
 * What one control of a box moves inside: a setting of a part, or `engaged`. A knob takes a number
 * from `from` to `to`; a switch sets `off` or `on`; a choice what `at` says for each option.
 */
export const moveSchema = z.looseObject({
  part: idSchema,
  setting: idSchema,
  from: z.number().optional(),
  to: z.number().optional(),
  curve: z.enum(CURVES).optional(),
  off: settingValue.optional(),
  on: settingValue.optional(),
  at: z.record(z.string().max(40), settingValue).optional(),
});

export const boxControlSchema = z.looseObject({
  id: idSchema,
  label: name,
  type: z.enum(['knob', 'switch', 'choice']),
  min: z.number().optional(),
  max: z.number().optional(),
  unit: z.string().max(8).optional(),
  initial: settingValue.optional(),
  options: z
    .array(z.looseObject({ value: z.string().min(1).max(40), label: name }))
    .max(40)
    .optional(),
  moves: z.array(moveSchema).max(40),
});

/** Several kinds in one box. */
export const assemblySchema = z.looseObject({
  is: z.literal('parts'),
  ...box,
  /** `engaged`: with the box's own switch, always, or never; a control that moves it has the last word. */
  parts: z
    .array(
      z.looseObject({
        id: idSchema,
        kind: kindId,
        name,
        engaged: z.enum(['box', 'always', 'never']).optional(),
        settings: settings.optional(),
      }),
    )
    .min(1, 'put at least one part into the box')
    .max(40, 'a box holds at most 40 parts'),
  /** Links inside, which cost nothing: from an output to an input. */
  links: z.array(z.looseObject({ from: innerJackSchema, to: innerJackSchema })).max(200),
  /** The jacks of the box, each tied to one inner jack or several; `pair` is the other side of a stereo pair. */
  jacks: z
    .array(
      z.looseObject({
        id: idSchema,
        label: name,
        at: z.array(innerJackSchema).min(1, 'tie the jack to something inside').max(8),
        pair: z.looseObject({ with: idSchema, side: z.enum(['left', 'right']) }).optional(),
      }),
    )
    .min(1, 'give the box a jack')
    .max(60),
  controls: z.array(boxControlSchema).max(60),
});

/** What a device of one's own is, written down once. */
export const sheetSchema = z.discriminatedUnion('is', [changedKindSchema, assemblySchema]);

export type Sheet = z.infer<typeof sheetSchema>;
export type ChangedKind = z.infer<typeof changedKindSchema>;
export type Assembly = z.infer<typeof assemblySchema>;
export type BoxControl = z.infer<typeof boxControlSchema>;
export type InnerJack = z.infer<typeof innerJackSchema>;
export type SheetFigure = z.infer<typeof sheetFigureSchema>;
