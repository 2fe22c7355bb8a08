/** A part of a place, shown as a tab: what the tab says, and what the palette says. */
export interface PartOf {
  label: string;
  words: string;
}

/** A place: what the navigation says, and the parts it has. */
export interface PlaceOf {
  label: string;
  parts?: Record<string, PartOf>;
}

/**
 * Every place and every part of one, in working order. Navigation, keys, palette, addresses and
 * tabs all follow from this list; a place or part without a view does not compile. History stands
 * apart at the end.
 */
export const PLACES = {
  brief: { label: 'Brief' },
  signal: { label: 'Signal' },
  sounds: {
    label: 'Sounds',
    parts: {
      matrix: { label: 'Devices by sounds', words: 'Devices by sounds' },
      arrivals: { label: 'What arrives', words: 'What arrives where, in each sound' },
      ladder: { label: 'Gain ladder', words: 'Gain ladder' },
      compare: { label: 'Compare two', words: 'Compare two sounds' },
      list: { label: 'Names and order', words: 'Names and order of sounds' },
    },
  },
  control: {
    label: 'Control',
    parts: {
      controls: { label: 'Controls', words: 'Controls and what they move' },
      reach: { label: 'Reach and sweeps', words: 'Reach and sweeps' },
      presses: { label: 'Presses', words: 'Presses from sound to sound' },
      wiring: { label: 'MIDI wiring', words: 'MIDI wiring' },
      numbers: { label: 'Numbers', words: 'Program numbers' },
      bus: { label: 'Bus', words: 'MIDI bus' },
      rehearse: { label: 'Rehearse', words: 'Rehearse a set' },
    },
  },
  songs: {
    label: 'Songs',
    parts: {
      songs: { label: 'Songs', words: 'Songs and their sections' },
      sets: { label: 'Sets', words: 'Sets' },
      delays: { label: 'Times', words: 'Delay times' },
      map: { label: 'Program map', words: 'Program map and cue sheet' },
      controller: { label: 'Controller', words: 'Choose a controller, label strips' },
      instead: { label: 'Stand-ins', words: 'Stand-ins for a device' },
    },
  },
  build: {
    label: 'Build',
    parts: {
      board: { label: 'Board', words: 'Board layout' },
      rack: { label: 'Rack', words: 'Rack and panels' },
      stage: { label: 'Stage', words: 'Stage plot and input list' },
      power: { label: 'Power', words: 'Power: plan the outlets, mains, countries' },
      leads: { label: 'Leads', words: 'Leads to cut, looms' },
      gear: { label: 'Gear', words: 'Gear list' },
      own: { label: 'Own gear', words: 'Gear of your own: sheets, several kinds in one box' },
      bill: { label: 'Bill and packing', words: 'Bill of materials, cases and pack list' },
      checklist: { label: 'Checklist', words: 'Checklist of the build' },
      labels: { label: 'Labels', words: 'Labels at true size' },
      book: { label: 'Rig book', words: 'Rig book, to print' },
    },
  },
  show: {
    label: 'Show',
    parts: {
      now: { label: 'Show view', words: 'Show view: what is played now and next' },
      check: { label: 'Line check', words: 'Line check' },
      finder: { label: 'It broke', words: 'It broke: find the fault, get sound back' },
      drill: { label: 'Failure drill', words: 'Failure drill and spares' },
      log: { label: 'Logbook', words: 'Logbook: faults, repairs, what is due' },
      calendar: { label: 'Shows', words: 'Shows: dates, venues, the day worked back from doors' },
      trainer: { label: 'Trainer', words: 'Trainer: find hidden faults' },
    },
  },
  history: { label: 'History' },
} as const satisfies Record<string, PlaceOf>;

export type PlaceId = keyof typeof PLACES;
/** Ids of the parts of a place. */
export type PartId<P extends PlaceId> = (typeof PLACES)[P] extends { parts: infer Parts }
  ? keyof Parts & string
  : never;

export const isPlace = (id: string): id is PlaceId => Object.hasOwn(PLACES, id);
export const PLACE_IDS = Object.keys(PLACES).filter(isPlace);

/** The places with their parts, as any of them is read. */
export const placeOf = (id: PlaceId): PlaceOf => PLACES[id];

/** Where a place, or a part of it, is found. */
export const pathOf = (rig: string, place: PlaceId, part?: string): string =>
  `/rigs/${rig}/${place}${part === undefined ? '' : `?part=${part}`}`;

/** The key that opens a place: Alt and its number in the list. */
export const keyOf = (place: PlaceId): string => `alt+${PLACE_IDS.indexOf(place) + 1}`;
