import { jack } from './define';
import type { DeviceState, Jack, Kind, Loop, Pass, Point, Plugged } from './kind';
import { expressionIn, midiFigures, midiIn, midiOut, tapIn, usbDevice } from './midi-parts';
import { choice, figure, stage, through, as } from './parts';

/** What a host has: mono returns and sends (in stereo pairs), inputs, and output pairs. */
export interface HostPlan {
  loops: number;
  aux?: boolean;
  digitalIn?: number;
  digitalOut?: number;
  second?: boolean;
  thru?: boolean;
}

const outer = (id: string, label: string, direction: 'in' | 'out', rest: Partial<Jack> = {}) =>
  jack({ id, label, direction, signal: 'audio', connector: 'TS', ...rest });
type Faces = NonNullable<Jack['faces']>;
const inner = (
  id: string,
  label: string,
  is: Faces['is'],
  outside: string,
  rest: Partial<Jack> = {},
) =>
  jack({
    id,
    label,
    direction: is === 'input' || is === 'return' ? 'out' : 'in',
    faces: { is, jack: outside },
    signal: 'audio',
    connector: 'inside',
    inside: true,
    many: true,
    ...rest,
  });
const range = (n: number) => Array.from({ length: n }, (_, i) => i + 1);
const side = (n: number): 'left' | 'right' => (n % 2 ? 'left' : 'right');
const other = (n: number) => (n % 2 ? n + 1 : n - 1);

/**
 * Outer jacks, and the inner points that face the blocks: "from…" where signal comes in, "to…"
 * where it goes out.
 */
export function hostJacks(plan: HostPlan): Jack[] {
  const pair = (name: string, n: number) =>
    other(n) <= plan.loops
      ? { pair: { with: `${name}${other(n)}`, side: side(n), loose: true } }
      : {};
  return [
    outer('in', 'in', 'in'),
    ...(plan.aux ? [outer('aux', 'aux in', 'in')] : []),
    outer('out', 'out left (mono)', 'out', { pair: { with: 'outR', side: 'left', loose: true } }),
    outer('outR', 'out right', 'out', { pair: { with: 'out', side: 'right', loose: true } }),
    ...(plan.second
      ? [
          outer('out2', 'second out left', 'out', {
            connector: 'XLR',
            pair: { with: 'out2R', side: 'left', loose: true },
          }),
          outer('out2R', 'second out right', 'out', {
            connector: 'XLR',
            pair: { with: 'out2', side: 'right', loose: true },
          }),
        ]
      : []),
    ...range(plan.loops).flatMap((n) => [
      outer(`send${n}`, `send ${n}`, 'out'),
      outer(`return${n}`, `return ${n}`, 'in'),
    ]),
    ...(plan.digitalIn
      ? [
          outer('digitalIn', `digital in, ${plan.digitalIn} channels`, 'in', {
            signal: 'digital',
            connector: 'digital',
            channels: range(plan.digitalIn).map((n) => (n === 1 ? 'digitalIn' : `digitalIn${n}`)),
          }),
        ]
      : []),
    ...(plan.digitalOut
      ? [
          outer('digitalOut', `digital out, ${plan.digitalOut} channels`, 'out', {
            signal: 'digital',
            connector: 'digital',
            channels: range(plan.digitalOut).map((n) =>
              n === 1 ? 'digitalOut' : `digitalOut${n}`,
            ),
            carriesControl: true,
          }),
        ]
      : []),
    inner('fromIn', 'from the input', 'input', 'in'),
    ...(plan.aux ? [inner('fromAux', 'from the aux input', 'input', 'aux')] : []),
    ...range(plan.loops).map((n) =>
      inner(`fromReturn${n}`, `from return ${n}`, 'return', `return${n}`, pair('fromReturn', n)),
    ),
    ...range(plan.digitalIn ?? 0).map((n) =>
      inner(
        `fromDigital${n}`,
        `from digital channel ${n}`,
        'input',
        n === 1 ? 'digitalIn' : `digitalIn${n}`,
      ),
    ),
    inner('toOut', 'to the left output', 'output', 'out', {
      pair: { with: 'toOutR', side: 'left', loose: true },
    }),
    inner('toOutR', 'to the right output', 'output', 'outR', {
      pair: { with: 'toOut', side: 'right', loose: true },
    }),
    ...(plan.second
      ? [
          inner('toOut2', 'to the second left output', 'output', 'out2', {
            pair: { with: 'toOut2R', side: 'left', loose: true },
          }),
          inner('toOut2R', 'to the second right output', 'output', 'out2R', {
            pair: { with: 'toOut2', side: 'right', loose: true },
          }),
        ]
      : []),
    ...range(plan.loops).map((n) =>
      inner(`toSend${n}`, `to send ${n}`, 'send', `send${n}`, pair('toSend', n)),
    ),
    ...range(plan.digitalOut ?? 0).map((n) =>
      inner(
        `toDigital${n}`,
        `to digital channel ${n}`,
        'output',
        n === 1 ? 'digitalOut' : `digitalOut${n}`,
      ),
    ),
  ];
}

export const hostLoops = (plan: HostPlan): Loop[] =>
  range(plan.loops).map((n) => ({
    id: `loop${n}`,
    label: `send and return ${n}`,
    send: [`send${n}`],
    return: [`return${n}`],
    opensAt: 'never',
  }));

export const hostFigures = [
  figure(
    'inputOhms',
    'Input impedance at its highest setting',
    'Ω',
    1e6,
    [1, 1e8],
    'what a pickup expects',
  ),
  figure(
    'outputOhms',
    'Output impedance',
    'Ω',
    200,
    [0, 1e6],
    'a line driver behind the converter',
  ),
  figure(
    'noiseDbu',
    'Equivalent input noise',
    'dBu',
    -105,
    [-140, -40],
    'converters and the amplifier ahead of them',
  ),
  figure(
    'instrumentMaxDbu',
    'Input clips at, set to instrument',
    'dBu',
    12,
    [-20, 30],
    'full scale at the instrument setting',
  ),
  figure(
    'lineMaxDbu',
    'Inputs and outputs clip at, set to line',
    'dBu',
    20,
    [-20, 30],
    'full scale at line level',
  ),
  figure('latencyMs', 'Latency from input to output', 'ms', 3, [0, 200], 'modelers take 2 to 5 ms'),
  figure(
    'tripMs',
    'Latency of one send and return',
    'ms',
    1.5,
    [0, 100],
    'each extra trip through the converters takes 1 to 2 ms',
  ),
];

export const hostParameters = [
  as(
    'input level',
    choice('inputLevel', 'Input level', ['instrument', 'instrument'], ['line', 'line']),
  ),
  as(
    'input load',
    choice(
      'inputLoad',
      'Input impedance',
      ['full', 'highest (1 MΩ)'],
      ['230k', '230 kΩ'],
      ['90k', '90 kΩ'],
      ['22k', '22 kΩ'],
    ),
  ),
  choice(
    'loopLevel',
    'Sends and returns',
    ['line', 'line level'],
    ['instrument', 'instrument level'],
  ),
  choice(
    'outputLevel',
    'Main outputs',
    ['line', 'line level'],
    ['instrument', 'instrument level (−12 dB)'],
  ),
];

const LOADS: Record<string, number> = { '230k': 230_000, '90k': 90_000, '22k': 22_000 };

/** The converters around a host's blocks; what happens between them is the blocks' business. Off, nothing passes. */
export function hostPasses(s: DeviceState, plan: HostPlan, plugged: Plugged): Pass[] {
  const muted = !s.engaged;
  const line = s.figure('lineMaxDbu');
  const inMax = s.choice('inputLevel') === 'line' ? line : s.figure('instrumentMaxDbu');
  const low = s.choice('loopLevel') === 'instrument';
  const hard = (dbu: number) => ({ dbu, shape: 'hard' as const, meant: false });
  const half = s.figure('latencyMs') / 2;
  const trip = s.figure('tripMs') / 2;
  const into = (from: Point, to: Point, part: object) =>
    stage(s, { id: `${from}>${to}`, from, to, outOhms: 0.01, muted, ...part });
  const outOf = (from: Point, to: Point, part: object) =>
    stage(s, {
      id: `${from}>${to}`,
      from,
      to,
      inOhms: Infinity,
      noiseDbu: -110,
      ceiling: hard(line),
      muted,
      ...part,
    });
  const outputDb = s.choice('outputLevel') === 'instrument' ? -12 : 0;
  const passes: Pass[] = [
    into('in', 'fromIn', {
      latencyMs: half,
      ceiling: hard(inMax),
      noiseDbu: s.figure('noiseDbu') + Math.max(0, inMax - s.figure('instrumentMaxDbu')),
      inOhms: LOADS[s.choice('inputLoad')] ?? s.figure('inputOhms'),
    }),
  ];
  if (plan.aux) passes.push(into('aux', 'fromAux', { latencyMs: half, ceiling: hard(line) }));
  for (const n of range(plan.loops)) {
    passes.push(outOf(`toSend${n}`, `send${n}`, { latencyMs: trip, outputDb: low ? -12 : 0 }));
    passes.push(
      into(`return${n}`, `fromReturn${n}`, {
        latencyMs: trip,
        ceiling: hard(low ? line - 12 : line),
        outputDb: low ? 12 : 0,
      }),
    );
  }
  for (const n of range(plan.digitalIn ?? 0))
    passes.push(
      into(n === 1 ? 'digitalIn' : `digitalIn${n}`, `fromDigital${n}`, {
        latencyMs: half,
        noiseDbu: -120,
        ceiling: hard(line),
        inOhms: Infinity,
        groundThrough: true,
      }),
    );
  for (const n of range(plan.digitalOut ?? 0))
    passes.push(
      outOf(`toDigital${n}`, n === 1 ? 'digitalOut' : `digitalOut${n}`, {
        latencyMs: half,
        outOhms: 0.01,
        noiseDbu: -120,
      }),
    );
  const stereoOut = (left: Point, right: Point, to: Point, toR: Point, db: number) => {
    if (plugged(toR))
      passes.push(
        outOf(left, to, { latencyMs: half, outputDb: db }),
        outOf(right, toR, { latencyMs: half, outputDb: db }),
      );
    else if (plugged(to))
      for (const from of plugged(right) && plugged(left)
        ? [left, right]
        : [plugged(right) ? right : left])
        passes.push(
          outOf(from, to, {
            latencyMs: half,
            outputDb: db - (plugged(right) && plugged(left) ? 6.02 : 0),
          }),
        );
  };
  stereoOut('toOut', 'toOutR', 'out', 'outR', outputDb);
  if (plan.second) stereoOut('toOut2', 'toOut2R', 'out2', 'out2R', 0);
  return passes;
}

/** What every modeler has in common, by what it is equipped with. */
export const modelerOf = (plan: HostPlan) =>
  ({
    family: 'Modelers',
    job: 'modeler',
    jacks: [
      ...hostJacks(plan),
      midiIn,
      midiOut,
      usbDevice,
      expressionIn('exp1', 'expression 1'),
      expressionIn('exp2', 'expression 2'),
      tapIn,
    ],
    figures: [
      ...hostFigures,
      ...midiFigures({
        programMs: 35,
        gapMs: 20,
        controlMs: 3,
        thruMs: 1,
        why: 'processing is set up anew for a preset',
      }),
    ],
    midi: {
      programs: { count: 512, bank: 'msb' as const, shows: { from: 0 as const } },
      controls: [],
      clock: 'can' as const,
      sends: ['program' as const, 'control' as const, 'clock' as const],
      recalls: true,
      reports: true,
      lamps: true,
      thrus: ['merged' as const, 'software' as const, 'none' as const],
    },
    display: { lines: 2, width: 16 },
    switches: 8,
    parameters: hostParameters,
    through,
    startsEngaged: true,
    stateWords: { on: 'on', off: 'off' },
    programs: true,
    loops: hostLoops(plan),
    passes: (s, plugged) => hostPasses(s, plan, plugged),
  }) satisfies Partial<Kind>;

/** A host that was just put down plays: its input goes to both main outputs. */
export const straightLinks: [string, string][] = [
  ['fromIn', 'toOut'],
  ['fromIn', 'toOutR'],
];
