import type * as z from 'zod';

/**
 * What a place in a promise's sentence is asked for with: a thing of the rig, chosen by name, or a
 * number. A setting takes two fields, the device that has it and the setting itself.
 */
export type Asks =
  | 'destination'
  | 'destinations'
  | 'source'
  | 'side'
  | 'weighting'
  | 'device'
  | 'control'
  | 'setting'
  | 'device of a setting'
  | 'sound'
  | 'sounds'
  | 'number';

/**
 * What a place may hold is made of these where promises are read (`promise-schema.ts`): their words
 * are told on pages that read none.
 */
export interface Shapes {
  z: typeof z;
  id: z.ZodType<string>;
  /** A device, or one of the signals that it sends, after a slash. */
  source: z.ZodType<string>;
}

/** One place in a promise's sentence: how a person is asked for it, and what it may hold. */
export interface Field<S extends z.ZodType = z.ZodType> {
  asks: Asks;
  label: string;
  holds: (shapes: Shapes) => S;
  /** Of a number: where it starts, and its ends. */
  number?: { start: number; min: number; max: number; hint?: string };
}

/** What each place of a sentence may hold. */
export type Shape<F extends Record<string, Field>> = { [K in keyof F]: ReturnType<F[K]['holds']> };

/** Names for what a promise speaks of. */
export interface Say {
  device: (id: string) => string;
  sound: (id: string) => string;
  control: (id: string) => string;
  setting: (device: string, setting: string) => string;
  /** "in Clean and Lead", or "in every sound". */
  where: (sounds: readonly string[] | undefined) => string;
  list: (names: readonly string[]) => string;
}

const field = <S extends z.ZodType>(
  asks: Asks,
  label: string,
  holds: (shapes: Shapes) => S,
): Field<S> => ({ asks, label, holds });
export const destination = field('destination', 'Destination', (s) => s.id);
const destinations = field('destinations', 'moves only', ({ z, id }) =>
  z.array(id).min(1).max(100),
);
const source = field('source', 'Source', (s) => s.source);
/** One ear or one track of a destination with two; left out, both. */
const side = field('side', 'Side', ({ z }) => z.enum(['left', 'right']).optional());
/** One source of several that arrive; left out, each of them. */
const ofSource = field('source', 'Of this source alone', (s) => s.source.optional());
/** Weighted as it counts for loudness, of a played note; left out, a sine at 1 kHz. */
const by = field('weighting', 'Judged by', ({ z }) => z.literal('loudness').optional());
/** The sounds a promise is about; left out, all of them. */
const sounds = field('sounds', 'In these sounds', ({ z, id }) => z.array(id).max(400).optional());
const from = field('sound', 'From the sound', (s) => s.id);
const to = field('sound', 'To the sound', (s) => s.id);
const number = (
  label: string,
  [min, max]: [number, number],
  start: number,
): Field<z.ZodNumber> => ({
  asks: 'number',
  label,
  holds: ({ z }) => z.number().positive().max(max),
  number: { start, min, max },
});

/** A type of promise: its sentence to choose from a list, the places in it, and its words. */
export const promiseType = <const T extends string, F extends Record<string, Field>>(
  type: T,
  sentence: string,
  fields: F,
  words: (promise: z.infer<z.ZodObject<Shape<F>>>, say: Say) => string,
) => ({ type, sentence, fields, words });

const heard = { destination, side, source, sounds };

/** A destination, or one side of it. */
const sideOf = (
  p: { destination: string; side?: 'left' | 'right' | undefined },
  say: Say,
): string =>
  p.side ? `the ${p.side} side of ${say.device(p.destination)}` : say.device(p.destination);

/** "of Mandolin", where one source is meant. */
const ofOne = (source: string | undefined, say: Say): string =>
  source === undefined ? '' : ` of ${say.device(source)}`;

/**
 * Every type of promise. One more is its entry here and its check in `promises/`, which does not
 * compile without it. Ids that are gone break a promise; they never spoil the file.
 */
export const PROMISE_TYPES = {
  hears: promiseType(
    'hears',
    'a destination always hears a source',
    heard,
    (p, say) => `${sideOf(p, say)} always hears ${say.device(p.source)}, ${say.where(p.sounds)}`,
  ),
  'never-hears': promiseType(
    'never-hears',
    'a destination never hears a source',
    heard,
    (p, say) => `${sideOf(p, say)} never hears ${say.device(p.source)}, ${say.where(p.sounds)}`,
  ),
  'moves-only': promiseType(
    'moves-only',
    'a control moves some destinations and nothing else',
    {
      device: field('device of a setting', 'Control', (s) => s.id),
      setting: field('setting', 'Control', (s) => s.id),
      destinations,
      sounds,
    },
    (p, say) =>
      `${say.setting(p.device, p.setting)} of ${say.device(p.device)} moves ` +
      `${say.list(p.destinations.map(say.device))} and nothing else, ${say.where(p.sounds)}`,
  ),
  'control-moves-only': promiseType(
    'control-moves-only',
    'a pedal or switch with all it moves, and nothing else',
    { control: field('control', 'Pedal or switch', (s) => s.id), destinations, sounds },
    (p, say) =>
      `${say.control(p.control)} moves ${say.list(p.destinations.map(say.device))} ` +
      `and nothing else, ${say.where(p.sounds)}`,
  ),
  stereo: promiseType(
    'stereo',
    'a destination is stereo',
    { destination, sounds },
    (p, say) => `${say.device(p.destination)} is stereo, ${say.where(p.sounds)}`,
  ),
  'levels-within': promiseType(
    'levels-within',
    'levels of sounds lie close together',
    {
      destination,
      side,
      source: ofSource,
      db: number('Within, dB', [0.5, 60], 3),
      by,
      sounds,
      solos: field('sounds', 'Solos among them', ({ z, id }) => z.array(id).max(400).optional()),
      soloDb: {
        ...field('number', 'Solos over them by, dB', ({ z }) =>
          z.number().min(0).max(40).optional(),
        ),
        number: { start: 4, min: 0, max: 40 },
      },
    },
    (p, say) =>
      `${p.by ? 'loudnesses' : 'levels'}${ofOne(p.source, say)} at ${sideOf(p, say)} lie within ` +
      `${p.db} dB of one another, ` +
      say.where(p.sounds) +
      (p.solos?.length
        ? `; ${say.list(p.solos.map(say.sound))} ${p.soloDb ?? 0} dB over them`
        : ''),
  ),
  'tuner-hears': promiseType(
    'tuner-hears',
    'the tuner always hears an instrument',
    { source, sounds },
    (p, say) => `the tuner always hears ${say.device(p.source)}, ${say.where(p.sounds)}`,
  ),
  'muted-silent': promiseType(
    'muted-silent',
    'muted means silent everywhere',
    { sounds: field('sounds', 'Sounds that mute', ({ z, id }) => z.array(id).min(1).max(400)) },
    (p, say) =>
      `${say.list(p.sounds.map(say.sound))} ${p.sounds.length > 1 ? 'are' : 'is'} ` +
      'silent at every destination but the tuner',
  ),
  'tails-survive': promiseType(
    'tails-survive',
    'tails survive a change of sound',
    { from, to },
    (p, say) => `tails survive the change from ${say.sound(p.from)} to ${say.sound(p.to)}`,
  ),
  'one-press': promiseType(
    'one-press',
    'one press from one sound to another',
    { from, to },
    (p, say) => `one press from ${say.sound(p.from)} to ${say.sound(p.to)}`,
  ),
  'no-tube-unloaded': promiseType(
    'no-tube-unloaded',
    'no tube amplifier without a load',
    {},
    () => 'no tube amplifier is ever without a load',
  ),
  'noise-under': promiseType(
    'noise-under',
    'signal-to-noise stays over a figure',
    { destination, side, db: number('Over, dB', [0.5, 140], 50), by, sounds },
    (p, say) =>
      `signal-to-noise${p.by ? ', weighted as loudness is,' : ''} at ${sideOf(p, say)} is over ` +
      `${p.db} dB, ${say.where(p.sounds)}`,
  ),
  'latency-under': promiseType(
    'latency-under',
    'latency stays under a figure',
    { destination, side, source: ofSource, ms: number('Under, ms', [0.5, 1000], 10), sounds },
    (p, say) =>
      `latency${ofOne(p.source, say)} to ${sideOf(p, say)} is under ${p.ms} ms, ${say.where(p.sounds)}`,
  ),
  survives: promiseType(
    'survives',
    'if a device dies, sound comes back',
    {
      device: field('device', 'If this dies', (s) => s.id),
      destination,
      actions: {
        ...field('number', 'Within actions', ({ z }) => z.number().int().min(0).max(5)),
        number: { start: 2, min: 0, max: 5, hint: 'a press, or a plug pulled and put elsewhere' },
      },
      sounds,
    },
    (p, say) =>
      `if ${say.device(p.device)} dies, ${say.device(p.destination)} still hears something within ` +
      `${p.actions} ${p.actions === 1 ? 'action' : 'actions'}, ${say.where(p.sounds)}`,
  ),
};

export type PromiseType = keyof typeof PROMISE_TYPES;
/** What every promise says, beside the places of its sentence. */
type Promised<T extends string> = {
  id: z.ZodType<string>;
  type: z.ZodLiteral<T>;
  mustSurvive: z.ZodOptional<z.ZodBoolean>;
  notes: z.ZodOptional<z.ZodString>;
};
type FieldsOf<T extends PromiseType> = Shape<(typeof PROMISE_TYPES)[T]['fields']>;
export type PromiseOf<T extends PromiseType> = z.infer<
  z.ZodObject<Promised<T> & FieldsOf<T>, z.core.$loose>
>;
export type RigPromise = { [T in PromiseType]: PromiseOf<T> }[PromiseType];

/** The fields of a promise's type, by name. */
export const fieldsOf = (type: PromiseType): Record<string, Field> => PROMISE_TYPES[type].fields;

/** Ids that a promise names: devices (a source by its device), and sounds. */
export function namedIn(promise: RigPromise): { devices: string[]; sounds: string[] } {
  const named = { devices: [] as string[], sounds: [] as string[] };
  const into: Partial<Record<Asks, string[]>> = {
    destination: named.devices,
    destinations: named.devices,
    source: named.devices,
    device: named.devices,
    'device of a setting': named.devices,
    sound: named.sounds,
    sounds: named.sounds,
  };
  for (const [name, { asks }] of Object.entries(fieldsOf(promise.type))) {
    const value = (promise as Record<string, unknown>)[name];
    const ids = (Array.isArray(value) ? value : [value]).filter((x) => typeof x === 'string');
    into[asks]?.push(...ids.map((id) => (asks === 'source' ? (id.split('/')[0] ?? id) : id)));
  }
  return named;
}
