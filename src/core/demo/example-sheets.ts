import type { Assembly, BoxControl, InnerJack, Sheet } from '../rig';

/** "drive.in" as the jack `in` of the part `drive`. */
function inner(text: string): InnerJack {
  const [part = '', jack = ''] = text.split('.');
  return { part, jack };
}

/** "drive.out > echo.in" as a link. */
const link = (text: string): Assembly['links'][number] => {
  const [from = '', to = ''] = text.split(' > ');
  return { from: inner(from), to: inner(to) };
};

const jack = (id: string, label: string, ...at: string[]): Assembly['jacks'][number] => ({
  id,
  label,
  at: at.map(inner),
});

/** Two jacks that are the two sides of one way. */
const sides = (
  left: Assembly['jacks'][number],
  right: Assembly['jacks'][number],
): Assembly['jacks'] => [
  { ...left, pair: { with: right.id, side: 'left' } },
  { ...right, pair: { with: left.id, side: 'right' } },
];

/** A knob of the box that is a knob of one part: "drive.tone". */
const knob = (id: string, label: string, moves: string, initial = 5): BoxControl => ({
  id,
  label,
  initial,
  type: 'knob',
  moves: moves.split(' + ').map((m) => ({ part: inner(m).part, setting: inner(m).jack })),
});

/** A foot switch of the box that engages one part. */
const footSwitch = (id: string, label: string, part: string, initial = false): BoxControl => ({
  id,
  label,
  initial,
  type: 'switch',
  moves: [{ part, setting: 'engaged' }],
});

/**
 * Sheets that ship with the program: boxes as techs meet them, all made up, each of a sort that no
 * single kind describes.
 */
export const EXAMPLE_SHEETS: readonly Sheet[] = [
  {
    is: 'parts',
    id: 'tandem-drive',
    name: 'Tandem Drive',
    maker: 'Salt Works',
    about: 'Two drives in one box, with jacks between them for a guest.',
    parts: [
      { id: 'first', kind: 'drive-low', name: 'First drive', engaged: 'never' },
      { id: 'between', kind: 'insert-point', name: 'Jacks between' },
      { id: 'second', kind: 'drive-mid', name: 'Second drive', engaged: 'never' },
    ],
    links: [link('first.out > between.in'), link('between.out > second.in')],
    jacks: [
      jack('in', 'input', 'first.in'),
      jack('send', 'between, out', 'between.send'),
      jack('return', 'between, in', 'between.return'),
      jack('out', 'output', 'second.out'),
    ],
    controls: [
      footSwitch('firstOn', 'First drive on', 'first'),
      footSwitch('secondOn', 'Second drive on', 'second'),
      knob('firstDrive', 'First: drive', 'first.drive'),
      knob('firstLevel', 'First: level', 'first.level'),
      knob('secondDrive', 'Second: drive', 'second.drive'),
      knob('secondLevel', 'Second: level', 'second.level'),
    ],
    power: { volts: 9, milliamps: 30 },
    size: { width: 120, depth: 120, height: 60, grams: 520 },
    switches: 2,
  },
  {
    is: 'parts',
    id: 'two-shores',
    name: 'Two Shores Delay',
    maker: 'Harbour Row',
    about:
      'A delay for each side, each with a time of its own: a dotted eighth left, a quarter right.',
    parts: [
      { id: 'left', kind: 'delay', name: 'Left echo' },
      { id: 'right', kind: 'delay', name: 'Right echo' },
    ],
    links: [],
    jacks: [
      jack('in', 'input', 'left.in', 'right.in'),
      ...sides(jack('out', 'left out', 'left.out'), jack('outR', 'right out', 'right.out')),
    ],
    controls: [
      knob('time', 'Left time', 'left.time', 4),
      knob('timeRight', 'Right time', 'right.time', 5),
      knob('repeats', 'Repeats', 'left.repeats + right.repeats', 3),
      knob('mix', 'Mix', 'left.mix + right.mix', 3),
    ],
    power: { volts: 9, milliamps: 250, noisy: true },
    size: { width: 145, depth: 125, height: 60, grams: 620 },
    switches: 2,
  },
  {
    is: 'parts',
    id: 'gantry-head',
    name: 'Gantry Head',
    maker: 'Gantry',
    about: 'A head of two channels, each with a master of its own, before one power stage.',
    cannot: 'how the two channels share one tone stack',
    job: 'amp',
    parts: [
      { id: 'clean', kind: 'amp-block', name: 'Clean channel', engaged: 'always' },
      { id: 'dirty', kind: 'amp-block', name: 'Dirty channel', engaged: 'always' },
      { id: 'channel', kind: 'input-selector', name: 'Channel relay', engaged: 'always' },
      { id: 'power', kind: 'head-tube', name: 'Power stage', engaged: 'always' },
    ],
    links: [
      link('clean.out > channel.a'),
      link('dirty.out > channel.b'),
      link('channel.out > power.return'),
    ],
    jacks: [
      jack('in', 'input', 'clean.in', 'dirty.in'),
      jack('speaker', 'speaker', 'power.speaker'),
    ],
    controls: [
      {
        id: 'channel',
        label: 'Channel',
        type: 'choice',
        initial: 'clean',
        options: [
          { value: 'clean', label: 'clean' },
          { value: 'dirty', label: 'dirty' },
        ],
        moves: [{ part: 'channel', setting: 'select', at: { clean: 'a', dirty: 'b' } }],
      },
      knob('cleanGain', 'Clean gain', 'clean.gain', 3),
      knob('cleanMaster', 'Clean master', 'clean.master', 5),
      knob('dirtyGain', 'Dirty gain', 'dirty.gain', 7),
      knob('dirtyMaster', 'Dirty master', 'dirty.master', 4),
    ],
    mains: { watts: 250 },
    size: { width: 700, depth: 260, height: 280, grams: 21_000 },
  },
  {
    is: 'parts',
    id: 'twin-hall',
    name: 'Twin Hall',
    maker: 'Harbour Row',
    about: 'A reverb with two engines, a room and a hall; one switch turns from one to the other.',
    parts: [
      { id: 'room', kind: 'reverb', name: 'Room' },
      { id: 'hall', kind: 'reverb', name: 'Hall' },
    ],
    links: [link('room.out > hall.in'), link('room.outR > hall.inR')],
    jacks: [
      ...sides(jack('in', 'left in', 'room.in'), jack('inR', 'right in', 'room.inR')),
      ...sides(jack('out', 'left out', 'hall.out'), jack('outR', 'right out', 'hall.outR')),
    ],
    controls: [
      {
        id: 'hall',
        label: 'Hall instead of room',
        type: 'switch',
        initial: false,
        moves: [
          { part: 'room', setting: 'engaged', off: true, on: false },
          { part: 'hall', setting: 'engaged' },
        ],
      },
      knob('roomDecay', 'Room: decay', 'room.decay', 3),
      knob('hallDecay', 'Hall: decay', 'hall.decay', 7),
      knob('mix', 'Mix', 'room.mix + hall.mix', 3),
    ],
    power: { volts: 9, milliamps: 300, noisy: true },
    size: { width: 145, depth: 125, height: 60, grams: 600 },
    switches: 1,
  },
  {
    is: 'parts',
    id: 'shorebird-lift',
    name: 'Shorebird Lift',
    maker: 'Salt Works',
    about: 'A booster behind a buffer of its own, which stays when the boost is off.',
    parts: [
      { id: 'buffer', kind: 'buffer', name: 'Buffer', engaged: 'always' },
      { id: 'boost', kind: 'boost', name: 'Boost' },
    ],
    links: [link('buffer.out > boost.in')],
    jacks: [jack('in', 'input', 'buffer.in'), jack('out', 'output', 'boost.out')],
    controls: [knob('gain', 'Boost', 'boost.gain')],
    power: { volts: 9, milliamps: 12 },
    size: { width: 60, depth: 110, height: 55, grams: 280 },
    switches: 1,
  },
  {
    is: 'parts',
    id: 'lantern-row',
    name: 'Lantern Row',
    maker: 'Harbour Row',
    about:
      'Compressor, drive, a loop, chorus, echo: always in this order, each with its own switch.',
    parts: [
      { id: 'squeeze', kind: 'compressor', name: 'Compressor', engaged: 'never' },
      { id: 'drive', kind: 'drive-low', name: 'Drive', engaged: 'never' },
      { id: 'loop', kind: 'insert-point', name: 'Loop' },
      { id: 'chorus', kind: 'chorus', name: 'Chorus', engaged: 'never' },
      { id: 'echo', kind: 'delay', name: 'Echo', engaged: 'never' },
    ],
    links: [
      link('squeeze.out > drive.in'),
      link('drive.out > loop.in'),
      link('loop.out > chorus.in'),
      link('chorus.out > echo.in'),
      link('chorus.outR > echo.inR'),
    ],
    jacks: [
      jack('in', 'input', 'squeeze.in'),
      jack('send', 'loop send', 'loop.send'),
      jack('return', 'loop return', 'loop.return'),
      ...sides(jack('out', 'left out', 'echo.out'), jack('outR', 'right out', 'echo.outR')),
    ],
    controls: [
      footSwitch('squeezeOn', 'Compressor on', 'squeeze'),
      footSwitch('driveOn', 'Drive on', 'drive'),
      footSwitch('chorusOn', 'Chorus on', 'chorus'),
      footSwitch('echoOn', 'Echo on', 'echo'),
      knob('sustain', 'Sustain', 'squeeze.sustain', 4),
      knob('gain', 'Drive', 'drive.drive'),
      knob('level', 'Drive level', 'drive.level'),
      knob('time', 'Echo time', 'echo.time', 4),
      knob('mix', 'Echo mix', 'echo.mix', 3),
    ],
    midi: { programs: { count: 64, bank: 'none', from: 1 } },
    power: { volts: 9, milliamps: 480, noisy: true },
    size: { width: 330, depth: 150, height: 65, grams: 1900 },
    switches: 4,
  },
  {
    is: 'parts',
    id: 'drift-and-dry',
    name: 'Drift and Dry',
    maker: 'Salt Works',
    about: 'A modulation with two outputs: one dry, one with the effect alone.',
    parts: [
      { id: 'split', kind: 'splitter-buffered', name: 'Split', engaged: 'always' },
      {
        id: 'effect',
        kind: 'modulation-digital',
        name: 'Modulation',
        settings: { mix: 10 },
      },
    ],
    links: [link('split.b > effect.in')],
    jacks: [
      jack('in', 'input', 'split.in'),
      jack('dry', 'dry out', 'split.a'),
      jack('effect', 'effect out', 'effect.out'),
    ],
    controls: [knob('rate', 'Rate', 'effect.rate'), knob('depth', 'Depth', 'effect.depth')],
    power: { volts: 9, milliamps: 120, noisy: true },
    size: { width: 75, depth: 120, height: 55, grams: 340 },
    switches: 1,
  },
  {
    is: 'changes',
    id: 'quay-station',
    name: 'Quay Station',
    maker: 'Gantry',
    about: 'A rack reverb with two power inlets, so that one may fail.',
    base: 'reverb',
    controls: [{ id: 'tails', leftOut: true, at: true }],
    mains: { watts: 30, inlets: 2 },
    midi: { programs: { count: 256, bank: 'msb', from: 0 } },
    display: { lines: 2, width: 16 },
    rackUnits: 1,
    size: { width: 483, depth: 220, height: 44, grams: 2600 },
  },
  {
    is: 'changes',
    id: 'ember-fuzz',
    name: 'Ember Fuzz',
    maker: 'Salt Works',
    about: 'A fuzz whose tone is soldered at half and whose drive begins high.',
    base: 'fuzz',
    controls: [],
    price: 140,
  },
  {
    is: 'changes',
    id: 'lighthouse-echo',
    name: 'Lighthouse Echo',
    maker: 'Harbour Row',
    about: 'A short echo: 30 to 450 ms, as its sheet says, mix to a half at most.',
    base: 'delay',
    jacks: [
      { id: 'exp', leftOut: true },
      { id: 'tap', leftOut: true },
    ],
    controls: [
      { id: 'mix', max: 5, at: 2 },
      { id: 'time', label: 'Reach' },
    ],
    figures: {
      timeLowMs: { value: 30, from: 'sheet' },
      timeHighMs: { value: 450, from: 'sheet' },
    },
    power: { volts: 9, milliamps: 90, noisy: true },
  },
  {
    is: 'changes',
    id: 'measured-lift',
    name: 'Pier Boost, the old one',
    maker: 'Salt Works',
    about: 'A boost as it was measured on the bench, a little weaker than typical.',
    base: 'boost',
    figures: { gainHighDb: { value: 17.4, from: 'measured', on: '2026-10-02', low: 17, high: 18 } },
    notes: 'crackles where the knob is turned past 9',
  },
  {
    is: 'parts',
    id: 'ferry-strip',
    name: 'Ferry Strip',
    maker: 'Gantry',
    about:
      'A boost and a three-band EQ on one switch; one knob turns the treble up as the boost rises.',
    parts: [
      { id: 'boost', kind: 'boost', name: 'Boost' },
      { id: 'eq', kind: 'eq', name: 'EQ' },
    ],
    links: [link('boost.out > eq.in')],
    jacks: [jack('in', 'input', 'boost.in'), jack('out', 'output', 'eq.out')],
    controls: [
      {
        id: 'push',
        label: 'Push',
        type: 'knob',
        initial: 4,
        moves: [
          { part: 'boost', setting: 'gain', from: 0, to: 10, curve: 'audio' },
          { part: 'eq', setting: 'high', from: 0, to: 6 },
        ],
      },
    ],
    power: { volts: 9, milliamps: 45 },
    size: { width: 60, depth: 110, height: 55, grams: 300 },
    switches: 1,
  },
];
