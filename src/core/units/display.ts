import { sure } from '../outcome';
import { dbvOfDbu } from './level';

/** What the person has chosen to read levels and lengths in. */
export interface UnitChoice {
  level: 'dBu' | 'dBV';
  length: 'metric' | 'imperial';
}

const MINUS = '−';
const PREFIXES: [number, string][] = [
  [1e9, 'G'],
  [1e6, 'M'],
  [1e3, 'k'],
  [1, ''],
  [1e-3, 'm'],
  [1e-6, 'µ'],
  [1e-9, 'n'],
  [1e-12, 'p'],
];

/** A number with a true minus sign and a fixed count of decimals; "−0.0" is written "0.0". */
export function fixed(value: number, decimals = 1): string {
  const text = Math.abs(value).toFixed(decimals);
  return value < 0 && Number(text) !== 0 ? MINUS + text : text;
}

/** A value as somebody set it, in its unit if it has one, with a true minus sign: "−58 dBu", "0.25". */
export const asSet = (value: number, unit: string): string =>
  `${value} ${unit}`.trim().replace('-', MINUS);

/** So many of something, as it is said: "1 lead", "12 leads", "2 presses". */
export const howMany = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;

const ALL = new Intl.ListFormat('en-GB', { type: 'conjunction' });
const ANY = new Intl.ListFormat('en-GB', { type: 'disjunction' });

/** Several, as they are said: "A", "A and B", "A, B and C". */
export const allOf = (names: Iterable<string | number>): string =>
  ALL.format(Array.from(names, String));

/** One of several, as they are said: "A", "A or B", "A, B or C". */
export const anyOf = (names: Iterable<string | number>): string =>
  ANY.format(Array.from(names, String));

/** A value with the usual prefix: 62 500 Ω is "62.5 kΩ", 3.3e-10 F is "330 pF". */
export function withPrefix(value: number, unit: string, digits = 3): string {
  if (value === 0) return `0 ${unit}`;
  if (!Number.isFinite(value)) return value > 0 ? 'open' : 'none';
  const magnitude = Math.abs(value);
  const [scale, prefix] = PREFIXES.find(([s]) => magnitude >= s * 0.9995) ?? sure(PREFIXES.at(-1));
  return `${Number((value / scale).toPrecision(digits))} ${prefix}${unit}`.replace('-', MINUS);
}

/** A figure of a kind with its unit: ohms, henries and watts with a prefix, others as they stand. */
export const showFigure = (unit: string, value: number): string =>
  ['Ω', 'H', 'W'].includes(unit)
    ? withPrefix(value, unit)
    : asSet(Number(value.toPrecision(4)), unit);

/** A level in the chosen unit, "silent" for none at all. */
export function showLevel(
  dbu: number | null,
  unit: UnitChoice['level'] = 'dBu',
  decimals = 1,
): string {
  if (dbu === null || dbu === -Infinity) return 'silent';
  return `${fixed(unit === 'dBV' ? dbvOfDbu(dbu) : dbu, decimals)} ${unit}`;
}

/** A change in decibels with its sign: "+3.0 dB". */
export const showChange = (db: number, decimals = 1): string =>
  `${db > 0 && Number(db.toFixed(decimals)) !== 0 ? '+' : ''}${fixed(db, decimals)} dB`;

/** A length in the chosen system; the value is in metres. */
export function showLength(metres: number, system: UnitChoice['length'] = 'metric'): string {
  if (system === 'imperial') return `${fixed(metres / 0.3048, 1)} ft`;
  return metres < 1 ? `${Math.round(metres * 100)} cm` : `${Number(metres.toFixed(2))} m`;
}

/**
 * Where a knob of 0 to 10 points, as a clock hour: 0 is 7 o'clock, 5 is 12, 10 is 5 o'clock, to the
 * nearest half hour.
 *
 *     clockHour(5)   // "12 o'clock"
 *     clockHour(7.5) // "half past 2"
 */
export function clockHour(value: number): string {
  const halves = Math.round((7 + value) * 2);
  const hour = ((Math.floor(halves / 2) + 11) % 12) + 1;
  return halves % 2 ? `half past ${hour}` : `${hour} o'clock`;
}

const PLAIN: Record<string, number> = {
  noon: 5,
  middle: 5,
  half: 5,
  full: 10,
  max: 10,
  up: 10,
  off: 0,
  min: 0,
  down: 0,
};

/**
 * What was typed for a knob of 0 to 10, as its position: a number, or where it points, as a tech says it;
 * nothing where it is neither. A comma is a decimal point.
 *
 *     readKnob('7,5')         // 7.5
 *     readKnob('half past 2') // 7.5
 *     readKnob('2:30')        // 7.5
 *     readKnob('noon')        // 5
 */
export function readKnob(text: string): number | undefined {
  const said = text.trim().toLowerCase().replace(',', '.').replace('’', "'");
  if (Object.hasOwn(PLAIN, said)) return PLAIN[said];
  if (/^\d+(\.\d+)?$/.test(said)) return Number(said) <= 10 ? Number(said) : undefined;
  const [, half, quarter, hour, minutes] =
    /^(half past )?(quarter past )?(\d{1,2})(?::(\d\d))?(?: ?o'?clock)?$/.exec(said) ?? [];
  if (hour === undefined) return undefined;
  const past = half ? 0.5 : quarter ? 0.25 : Number(minutes ?? 0) / 60;
  const at = (Number(hour) + past - 7 + 12) % 12;
  return Number(hour) >= 1 && Number(hour) <= 12 && at <= 10 ? at : undefined;
}
