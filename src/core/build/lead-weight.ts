import type { Lead } from '../rig/schema';

/** What a metre of lead weighs, in g, typical of what is sold by the metre. */
const GRAMS_A_METRE: Record<Lead['type'], number> = {
  instrument: 55,
  balanced: 60,
  stereo: 60,
  insert: 70,
  speaker: 130,
  digital: 60,
  midi: 45,
  usb: 35,
  control: 45,
  air: 0,
  inside: 0,
};
/** A plug of metal with its screws, in g. */
const PLUG_GRAMS = 25;

/** A mains lead of a kettle's length with its two plugs, and a low-voltage one, in g. */
export const MAINS_LEAD_GRAMS = 280;
export const POWER_LEAD_GRAMS = 25;

/** What a lead of a type weighs with its plugs, in g: typical, not weighed. */
export const leadGrams = (type: Lead['type'], metres: number): number =>
  type === 'air' || type === 'inside' ? 0 : GRAMS_A_METRE[type] * metres + 2 * PLUG_GRAMS;
