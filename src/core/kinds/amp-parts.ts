import { jack, parameter } from './define';
import { dbuOfVolts, fixed } from '../units';
import type { DeviceState, Kind, Loop, Pass, Point, Stage, Plugged } from './kind';
import { CABINET } from './response';
import {
  between,
  ceiling,
  choice,
  as,
  figure,
  highestGain,
  inputOhms,
  knob,
  mixed,
  noise,
  outputOhms,
  readsDb,
  stage,
  tilt,
  wire,
} from './parts';

export const ampFigures = (p: {
  low: number;
  high: number;
  watts: number;
  ohms: number;
  why: string;
}) => [
  inputOhms(1e6, 'the grid-leak resistor of the first tube'),
  outputOhms(0.5, 'an output transformer at its tap, taken as a stiff source'),
  noise(-100, 'a tube input stage'),
  ceiling(6, 'the preamplifier’s last tube, at the send'),
  figure('gainLowDb', 'Preamplifier gain with the knob down', 'dB', p.low, [-40, 80], p.why),
  highestGain('Preamplifier gain with the knob full', p.high, [-20, 100], p.why),
  figure('sendOhms', 'Send output impedance', 'Ω', 1000, [0, 1e6], 'a buffered send'),
  figure('returnOhms', 'Return input impedance', 'Ω', 47_000, [1000, 1e7], 'a buffered return'),
  figure('powerGainDb', 'Power stage gain', 'dB', 32, [0, 60], 'from loop level to the speaker'),
  figure(
    'powerNoiseDbu',
    'Power stage input noise',
    'dBu',
    -95,
    [-140, -40],
    'a phase inverter at loop level',
  ),
  figure(
    'turnsOver',
    'Turns polarity over: 1 yes, 0 no',
    '',
    0,
    [0, 1],
    'an even number of inverting stages, as most have; measure it with a battery at the input',
  ),
  figure('watts', 'Rated power', 'W', p.watts, [0.1, 2000], p.why),
  {
    ...figure('tapOhms', 'Speaker tap', 'Ω', p.ohms, [2, 32], 'the tap in use'),
    role: 'speaker tap' as const,
  },
];

export const ampKnobs = [
  knob('gain', 'Gain', 4, readsDb('gainLowDb', 'gainHighDb')),
  knob('tone', 'Tone', 5),
  knob('master', 'Master', 5, (v) => `${fixed(between(-40, 0, v))} dB`),
];

/** What the power stage turns up above 2.2 kHz, by its own knob; nothing with the knob down (typical: 6 dB). */
const PRESENCE_DB = 6;
export const presenceKnob = knob(
  'presence',
  'Presence',
  0,
  (v) => `+${((PRESENCE_DB * v) / 10).toFixed(1)} dB at 5 kHz`,
);

/** The knobs of an amplifier that has a power stage. */
export const headKnobs = [...ampKnobs, presenceKnob];

export const ampWords = { on: 'on', off: 'standby' };

export const loopJacks = [
  jack({ id: 'send', label: 'loop send', direction: 'out', signal: 'audio', connector: 'TS' }),
  jack({ id: 'return', label: 'loop return', direction: 'in', signal: 'audio', connector: 'TS' }),
];

export const ampLoops: Loop[] = [
  { id: 'loop', label: 'effects loop', send: ['send'], return: ['return'], opensAt: 'return' },
];

/** An effects loop that can be parallel, run at either level, and be taken out by a switch. */
export const loopParameters = [
  parameter({ type: 'switch', id: 'loopIn', label: 'Loop in', initial: true }),
  choice('loopMode', 'Loop', ['serial', 'serial'], ['parallel', 'parallel (wants 100 % wet)']),
  knob('loopMix', 'Loop mix', 5),
  choice(
    'loopLevel',
    'Loop level',
    ['instrument', '−10 dBV, for pedals'],
    ['line', '+4 dBu, for rack units'],
  ),
];

/**
 * Preamplifier, loop, and the point "back" from which the power stage reads. The loop is in when
 * its switch is and the return holds a plug.
 */
export function loopPasses(s: DeviceState, pre: Stage, plugged: Plugged): Pass[] {
  const levelDb = s.choice('loopLevel') === 'line' ? 12 : 0;
  const into = (id: string, from: Point, outputDb: number): Stage =>
    stage(s, {
      id,
      from,
      to: 'back',
      inOhms: s.figure('returnOhms'),
      outOhms: 0.01,
      noiseDbu: s.figure('powerNoiseDbu'),
      outputDb,
      ceiling: { dbu: levelDb ? 20 : 8, shape: 'hard', meant: false },
    });
  const preamp: Stage = { ...pre, to: 'loop', outOhms: 0.01 };
  const send = stage(s, {
    id: 'send',
    from: 'loop',
    to: 'send',
    inOhms: Infinity,
    outOhms: s.figure('sendOhms'),
    noiseDbu: -110,
    outputDb: levelDb,
    ceiling: { dbu: levelDb ? 20 : 8, shape: 'hard', meant: false },
  });
  const straight = (outputDb: number) => ({ ...into('dry', 'loop', outputDb), inOhms: Infinity });
  if (!plugged('return') || !s.on('loopIn'))
    return [
      preamp,
      send,
      straight(0),
      ...(plugged('return') ? [{ is: 'open' as const, a: 'return', b: 'back' }] : []),
    ];
  if (s.choice('loopMode') === 'serial') return [preamp, send, into('return', 'return', -levelDb)];
  const { dryDb, wetDb } = mixed(s.knob('loopMix'));
  return [
    preamp,
    send,
    ...(dryDb > -Infinity ? [straight(dryDb)] : []),
    ...(wetDb > -Infinity ? [into('return', 'return', wetDb - levelDb)] : []),
  ];
}

/** The loop of a simple amplifier: closed inside until something is plugged into the return. */
export const simpleLoop = (plugged: Plugged): Pass[] =>
  plugged('return') ? [] : [wire('send', 'return')];

export const airJack = jack({
  id: 'air',
  label: 'in front of the speaker',
  direction: 'out',
  signal: 'air',
  connector: 'air',
  many: true,
});

/** What a usual tone stack does with its knobs in the middle: a dip about 450 Hz; lows kept from clipping. */
export const ampTone = {
  before: [{ is: 'high pass 1', hertz: 90 }],
  after: [{ is: 'peak', hertz: 450, q: 0.6, db: -5 }],
} satisfies NonNullable<Stage['filters']>;

/** An amplifier's tone with a cabinet and its microphone behind. */
export const ampAndCab: Stage['filters'] = {
  before: ampTone.before,
  after: [...ampTone.after, ...CABINET],
};

/** First stages, tone and master: from the input to the loop. They clip softly and are meant to. */
export const preamp = (s: DeviceState, to: string): Stage =>
  stage(s, {
    id: 'preamp',
    to,
    outOhms: s.figure('sendOhms'),
    inverts: true,
    muted: !s.engaged,
    gainDb: between(s.figure('gainLowDb'), s.figure('gainHighDb'), s.knob('gain')),
    ceiling: { dbu: s.figure('ceilingDbu'), shape: 'soft', meant: true },
    outputDb: between(-40, 0, s.knob('master')),
    tiltDb: tilt(s.knob('tone'), 6),
    filters: ampTone,
  });

/**
 * From the loop to the speaker: rated power into the tap is the ceiling, `V = √(P·Z)`. `outside`:
 * the speaker is another box.
 */
export const powerStage = (s: DeviceState, from: string, to: string, outside = false): Stage =>
  stage(s, {
    id: 'power',
    from,
    to,
    inOhms: s.figure('returnOhms'),
    noiseDbu: s.figure('powerNoiseDbu'),
    // The first stages turn it over once: so does this, unless the amplifier as a whole does.
    inverts: s.figure('turnsOver') < 0.5,
    muted: !s.engaged,
    gainDb: s.figure('powerGainDb'),
    tiltDb: (PRESENCE_DB * s.knob('presence')) / 10,
    ceiling: {
      dbu: dbuOfVolts(Math.sqrt(s.figure('watts') * s.figure('tapOhms'))),
      shape: 'soft',
      meant: true,
    },
    ...(outside && {
      speaker: { watts: s.figure('watts'), ohms: s.figure('tapOhms'), tube: true },
    }),
  });

/**
 * A speaker as a microphone meets it: what its terminals get, brought down to what a close
 * microphone gives.
 */
export const inFrontOf = (s: DeviceState, from: string): Stage => ({
  is: 'stage',
  id: 'air',
  from,
  to: 'air',
  inOhms: Infinity,
  outOhms: 0,
  gainDb: s.figure('airDb'),
  outputDb: 0,
  noiseDbu: -Infinity,
  ceiling: { dbu: 60, shape: 'hard', meant: false },
  latencyMs: 0,
  inverts: false,
  tiltDb: -6,
  groundThrough: false,
  cabinet: true,
});

export const airFigure = figure(
  'airDb',
  'Speaker terminals to a close microphone',
  'dB',
  -43,
  [-120, 0],
  'a cabinet of usual sensitivity and a dynamic microphone at the cloth',
);

export const inputSelect = as(
  'microphone or line',
  choice('input', 'Input', ['mic', 'microphone'], ['line', 'line']),
);

/** What every tube head has in common. */
export const headParts = {
  family: 'Amplifiers and speakers',
  job: 'amp',
  through: { in: 'in', out: 'speaker' } as const,
  stateWords: ampWords,
  startsEngaged: true,
  loops: ampLoops,
  earth: 'in' as const,
} satisfies Partial<Kind>;
export const speakerOut = jack({
  id: 'speaker',
  label: 'speaker',
  direction: 'out',
  signal: 'speaker',
  connector: 'speaker',
});

/** A head of 100 W with a clean and a dirty channel. */
export const twoChannelFigures = [
  ...ampFigures({ low: 12, high: 60, watts: 100, ohms: 16, why: 'a 100 W head' }),
  figure('dirtyDb', 'What the dirty channel adds', 'dB', 18, [0, 50], 'one more tube in the way'),
];
export const channelChoice = choice('channel', 'Channel', ['clean', 'clean'], ['dirty', 'dirty']);
