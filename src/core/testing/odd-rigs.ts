import { kindOf } from '../kinds';
import type { Device, Lead, Rig, Sound } from '../rig/schema';
import { device, lead, rigOf, sound } from './rigs';

/** Pedals and boxes that signal goes through, in groups that stand one behind the other. */
const CHAINS = [
  ['guitar-single-coil', 'buffer', 'fuzz-low-impedance', 'wah', 'volume-passive', 'delay-analog'],
  ['guitar-humbucker', 'treble-booster', 'drive-low', 'boost', 'phaser', 'reverb'],
  ['guitar-baritone', 'tuner-true-bypass', 'octave', 'drive-mid', 'gate', 'looper'],
  ['electric-mandolin', 'compressor', 'eq', 'drive-high', 'tremolo', 'delay'],
  ['guitar-active', 'pickup-simulator', 'fuzz', 'envelope-filter', 'chorus', 'volume-active'],
  ['lap-steel', 'tuner-buffered', 'pitch-shifter', 'rotary', 'slicer', 'hum-isolator'],
] as const;

/** All knobs at one place of their way, from 0 to 1. */
const turned = (kind: string, share: number): Device['settings'] =>
  Object.fromEntries(
    kindOf(kind).parameters.flatMap((p) =>
      p.type === 'knob' ? [[p.id, p.min + (p.max - p.min) * share]] : [],
    ),
  );

const standing = (id: string, kind: string, share = 0.6): Device =>
  device(id, kind, id.toUpperCase(), { settings: turned(kind, share) });

/** The input of a device: the first that it has. */
const into = ({ id, kind }: Device): string =>
  `${id}.${kindOf(kind).through?.in ?? kindOf(kind).jacks.find((j) => j.direction === 'in')?.id}`;
const outOf = ({ id, kind }: Device): string =>
  `${id}.${kindOf(kind).through?.out ?? kindOf(kind).jacks.find((j) => j.direction === 'out')?.id}`;

/** Leads along a row of devices, each of another length. */
const along = (name: string, row: readonly Device[]): Lead[] =>
  row.slice(1).map((d, i) => lead(`${name}${i}`, outOf(row[i] ?? d), into(d), 0.4 + 1.3 * i));

/** Everything on but what would mute it, and every other one on. */
const soundsOf = (devices: readonly Device[]): Sound[] => [
  sound(
    'all',
    'All',
    devices.filter((d) => kindOf(d.kind).job !== 'tuner').map((d) => d.id),
  ),
  sound(
    'half',
    'Half',
    devices.filter((_, i) => i % 2 === 0).map((d) => d.id),
  ),
];

const desk = () =>
  device('desk', 'console-input', 'Desk', { settings: { input: 'line' }, place: 'house' });

const whole = (id: string, devices: Device[], leads: Lead[], rest: Partial<Rig> = {}): Rig => ({
  ...rigOf(devices, leads, soundsOf(devices), rest),
  id,
});

const chain = (kinds: readonly string[], n: number): Rig => {
  const row = kinds.map((k, i) => standing(`d${i}`, k, 0.35 + 0.1 * ((n + i) % 6)));
  const amp = standing('amp', n % 2 ? 'combo-tube' : 'combo-tube-loop', 0.5);
  return whole(`chain-${n + 1}`, [...row, amp], along('l', [...row, amp]));
};

/** Leads through a row of devices, or straight on where there are none. */
const through = (name: string, from: string, row: readonly Device[], to: string): Lead[] => {
  const [first, last] = [row[0], row.at(-1)];
  if (!first || !last) return [lead(name, from, to, 2)];
  return [
    lead(`${name}-in`, from, into(first), 1),
    ...along(name, row),
    lead(`${name}-out`, outOf(last), to, 2),
  ];
};
const rowOf = (name: string, kinds: readonly string[]): Device[] =>
  kinds.map((k, i) => standing(`${name}${i}`, k));

/** Two ways of one source, one of them late, turned or wet, into one mixer. */
function ways(id: string, left: readonly string[], right: readonly string[]): Rig {
  const [a, b] = [rowOf('a', left), rowOf('b', right)];
  const fork = device('fork', 'splitter-buffered', 'Fork', { settings: { select: 'both' } });
  return whole(
    id,
    [standing('g', 'guitar-active', 1), fork, ...a, ...b, standing('mix', 'mixer-line'), desk()],
    [
      lead('0', 'g.out', 'fork.in', 3),
      ...through('a', 'fork.a', a, 'mix.a'),
      ...through('b', 'fork.b', b, 'mix.b'),
      lead('z', 'mix.out', 'desk.in', 8),
    ],
  );
}

/** What a mixer gives goes round through some pedals into it again. */
function circle(id: string, kinds: readonly string[], share: number): Rig {
  const round = kinds.map((k, i) => standing(`r${i}`, k, share));
  const fork = device('fork', 'splitter-buffered', 'Fork', { settings: { select: 'both' } });
  return whole(
    id,
    [standing('g', 'guitar-active', 1), standing('mix', 'mixer-line'), fork, ...round, desk()],
    [
      lead('0', 'g.out', 'mix.a', 3),
      lead('1', 'mix.out', 'fork.in', 1),
      lead('2', 'fork.a', 'desk.in', 8),
      ...through('r', 'fork.b', round, 'mix.b'),
    ],
  );
}

/** A head on cabinets in series and in parallel, and a microphone and a listener in front of them. */
const stack = (id: string, kinds: readonly [string, string], ohms: readonly number[]): Rig => {
  const [headKind, micKind] = kinds;
  const head = standing('head', headKind, 0.5);
  const cabs = ohms.map((z, i) =>
    device(`cab${i}`, 'cabinet', `Cab ${i}`, {
      figures: { ohms: { value: z, from: 'sheet' }, watts: { value: 60, from: 'sheet' } },
    }),
  );
  const guitar = standing('g', 'guitar-humbucker', 1);
  const mic = device('mic', micKind, 'Mic', { place: 'amps' });
  const air = kindOf('cabinet').jacks.find((j) => j.signal === 'air' && j.direction === 'out');
  const micIn = kindOf(micKind).jacks.find((j) => j.signal === 'air' && j.direction === 'in');
  return whole(
    id,
    [guitar, head, ...cabs, mic, desk()],
    [
      lead('1', 'g.out', into(head), 6),
      ...cabs.map((c, i) =>
        lead(`s${i}`, i ? `cab${i - 1}.link` : 'head.speaker', `${c.id}.in`, 1 + i, 'speaker'),
      ),
      ...(air && micIn ? [lead('air', `cab0.${air.id}`, `mic.${micIn.id}`, 0.4, 'air')] : []),
      lead('m', 'mic.out', 'desk.in', 12, 'balanced'),
    ],
  );
};

/**
 * Small rigs of many sorts, which the demo rigs have little of: every pedal in a chain, ways beside one
 * another, circles, cabinets that do not match. They stay as they are written when kinds are added.
 */
export const oddRigs = (): Rig[] => [
  ...CHAINS.map(chain),
  ways('ways-late', ['delay'], ['drive-mid']),
  ways('ways-wet', ['reverb', 'eq'], ['chorus']),
  ways('ways-turned', ['treble-booster'], []),
  circle('circle-calm', ['volume-active', 'buffer'], 0.4),
  circle('circle-late', ['volume-active', 'delay'], 0.5),
  circle('circle-howls', ['boost', 'drive-low'], 1),
  stack('stack-heavy', ['head-tube', 'microphone'], [8, 8, 8]),
  stack('stack-light', ['head-tube-two', 'microphone-condenser'], [16]),
];
