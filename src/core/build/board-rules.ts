import { PLUG_CLEARANCE, PLUG_WIDTH } from './footprint';

/**
 * Distances in mm: between switch centres, from wireless and supplies to high gain, what counts as
 * in front of a switch to each side.
 */
export const SWITCH_GAP = 60;
export const RADIO_GAP = 100;
export const FOOT_HALF = 40;
/** So much of an item in mm must lie on rails to be held. */
export const RAIL_HOLD = 15;
/** Turned about, with its switch further than this from the foot's side, a device is reached over its knobs. */
export const OVER_KNOBS = 60;
/** Half the width of a plug. */
export const PLUG_ROOM = PLUG_WIDTH / 2;
export const LONGEST = Math.max(...Object.values(PLUG_CLEARANCE));
/** Less than this in mm is no overlap. */
export const TOUCHES = 0.5;

/** What is wrong with a place: which item, with which other one (−1 for the board), and by how many mm. */
export interface Clash {
  what:
    | 'overlap'
    | 'outside'
    | 'edge'
    | 'plug'
    | 'plugs'
    | 'too-high'
    | 'half'
    | 'rail'
    | 'reach'
    | 'switches'
    | 'radio';
  a: number;
  b: number;
  mm: number;
  jack?: string;
}

/**
 * What one of each costs, in mm of lead. Bodies or plugs that hit something outweigh every rule, and a
 * rule outweighs any lead; the rest is a judgement, told in docs/formulas.md.
 */
export const LAYOUT_PRICE = {
  hit: 100_000,
  rule: 5000,
  millimetre: 10,
  crossing: 30,
  turned: 2,
  foot: 0.05,
  heavy: 0.05,
};

/** What cannot be built so. */
export const HITS: ReadonlySet<Clash['what']> = new Set<Clash['what']>([
  'overlap',
  'outside',
  'plug',
  'plugs',
  'too-high',
]);

/** What a hit and a broken rule weigh while a search is still hot, in mm of lead. */
const HOT_HIT = 150;
const HOT_RULE = 200;

export type Tell = (what: Clash['what'], a: number, b: number, mm: number, jack?: string) => void;

/** What one clash costs: as it is judged, and as a hot search feels it, which has to pass through some. */
export const priceOf = (what: Clash['what'], mm: number): { full: number; hot: number } => {
  const hit = HITS.has(what);
  const more = LAYOUT_PRICE.millimetre * mm;
  return {
    full: (hit ? LAYOUT_PRICE.hit : LAYOUT_PRICE.rule) + more,
    hot: (hit ? HOT_HIT : HOT_RULE) + more,
  };
};
