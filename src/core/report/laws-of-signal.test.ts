import fc from 'fast-check';
import type { Device, Lead, Rig } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { analyse } from './report';
import { cases } from '../testing/cases';

const destination = (rig: Rig, at = 'desk') =>
  analyse(rig).sounds[0]!.destinations.find((d) => d.device === at)!;
const on = (devices: readonly Device[]) => [
  sound(
    's',
    'S',
    devices.map((d) => d.id),
  ),
];

/** Boxes that bend nothing at these levels, each with a setting that is drawn. */
const linear = fc.array(
  fc.record({
    kind: fc.constantFrom('buffer', 'eq', 'volume-active', 'volume-passive', 'boost'),
    value: fc.integer({ min: 3, max: 9 }),
  }),
  { maxLength: 5 },
);
type Box = { kind: string; value: number };
const KNOB: Record<string, string> = {
  eq: 'mid',
  'volume-active': 'pedal',
  'volume-passive': 'pedal',
  boost: 'gain',
};
const boxesOf = (boxes: readonly Box[], name: string): Device[] =>
  boxes.map(({ kind, value }, i) =>
    device(`${name}${i}`, kind, `${name} ${i}`, {
      ...(KNOB[kind] && { settings: { [KNOB[kind]]: kind === 'boost' ? value / 4 : value } }),
    }),
  );
/** Leads from one end through boxes to another. */
const through = (from: string, boxes: readonly Device[], to: string): Lead[] =>
  [from, ...boxes.map((b) => `${b.id}.out`)].map((end, i) =>
    lead(`${from}-${i}`, end, boxes[i] ? `${boxes[i].id}.in` : to, 1),
  );
/** An instrument that plays at a level. */
const played = (dbu: number) =>
  device('g', 'guitar-active', 'G', {
    figures: {
      nominalDbu: { value: dbu, from: 'measured' },
      peakDbu: { value: dbu + 12, from: 'measured' },
    },
  });
const desk = device('desk', 'console-input', 'Desk', { settings: { input: 'line' } });
const fork = device('fork', 'splitter-buffered', 'Fork', { settings: { select: 'both' } });
const mix = device('mix', 'mixer-line', 'Mix');

test('a linear rig that is driven 6 dB harder: every level and every S/N is 6 dB more, no bend anywhere', () => {
  fc.assert(
    fc.property(linear, linear, linear, (before, a, b) => {
      const [lead1, way1, way2] = [boxesOf(before, 'p'), boxesOf(a, 'a'), boxesOf(b, 'b')];
      const rig = (dbu: number): Rig => {
        const devices = [played(dbu), ...lead1, fork, ...way1, ...way2, mix, desk];
        return rigOf(
          devices,
          [
            ...through('g.out', lead1, 'fork.in'),
            ...through('fork.a', way1, 'mix.a'),
            ...through('fork.b', way2, 'mix.b'),
            lead('end', 'mix.out', 'desk.in', 3),
          ],
          on(devices),
        );
      };
      const [soft, hard] = [-66, -60].map((dbu) => analyse(rig(dbu)).sounds[0]!);
      for (const [i, s] of soft!.stations.entries()) {
        const h = hard!.stations[i]!;
        for (const touch of ['soft', 'normal', 'hard'] as const)
          if (s.output.levelDbu)
            expect(h.output.levelDbu![touch] - s.output.levelDbu[touch]).toBeCloseTo(6, 6);
        expect(h.output.noiseDbu).toBeCloseTo(s.output.noiseDbu ?? NaN, 6);
        expect(h.output.thdPercent?.hard ?? 0).toBeLessThan(1e-6);
      }
      const [d, e] = [soft!, hard!].map((x) => x.destinations[0]!);
      expect(e!.signalToNoiseDb! - d!.signalToNoiseDb!).toBeCloseTo(6, 6);
      expect(e!.peakDbu! - d!.peakDbu!).toBeCloseTo(6, 6);
    }),
    { numRuns: cases(12, 25) },
  );
});

test('a signal that is split and joined again at once: 6.02 dB more, S/N the same', () => {
  fc.assert(
    fc.property(linear, (before) => {
      const first = boxesOf(before, 'p');
      // Much gain ahead, so that what hisses is ahead of the split.
      const gain = device('gain', 'boost', 'Gain', { settings: { gain: 10 } });
      const devices = [played(-70), ...first, gain, fork, mix, desk];
      const rig = rigOf(
        devices,
        [
          ...through('g.out', [...first, gain], 'fork.in'),
          lead('a', 'fork.a', 'mix.a', 1),
          lead('b', 'fork.b', 'mix.b', 1),
          lead('end', 'mix.out', 'desk.in', 1),
        ],
        on(devices),
      );
      const half = { ...rig, leads: rig.leads.filter((l) => l.id !== 'b') };
      const [one, two] = [destination(half), destination(rig)];
      expect(two.levelDbu!.normal - one.levelDbu!.normal).toBeCloseTo(6.02, 1);
      expect(Math.abs(two.signalToNoiseDb! - one.signalToNoiseDb!)).toBeLessThan(1);
      expect(two.signalToNoiseDb!).toBeGreaterThan(one.signalToNoiseDb! - 0.05);
    }),
    { numRuns: cases(12, 25) },
  );
});

/** A wide effect, boxes on each of its ways, and a stereo input; the ways exchanged where it is mirrored. */
function wide(left: readonly Device[], right: readonly Device[], isMirrored: boolean): Rig {
  const [l, r] = isMirrored ? ['R', ''] : ['', 'R'];
  const devices = [
    played(-20),
    device('wide', 'chorus', 'Wide'),
    ...left,
    ...right,
    device('room', 'reverb', 'Room'),
    device('desk', 'console-input-stereo', 'Desk', { settings: { input: 'line' } }),
  ];
  return rigOf(
    devices,
    [
      lead('in', 'g.out', 'wide.in', 1),
      ...through(`wide.out${l}`, left, `room.in${l}`),
      ...through(`wide.out${r}`, right, `room.in${r}`),
      lead('l', `room.out${l}`, `desk.in${l}`, 5),
      lead('r', `room.out${r}`, `desk.in${r}`, 5),
    ],
    on(devices),
  );
}
const turned = (words: string) =>
  words.replace(/left|right/g, (side) => (side === 'left' ? 'right' : 'left'));

test('left and right exchanged throughout: the report is mirrored', () => {
  const boxes = fc.array(
    fc.record({
      kind: fc.constantFrom('buffer', 'eq', 'boost', 'drive-mid', 'delay'),
      value: fc.integer({ min: 2, max: 9 }),
    }),
    { maxLength: 3 },
  );
  fc.assert(
    fc.property(boxes, boxes, (a, b) => {
      const [left, right] = [boxesOf(a, 'a'), boxesOf(b, 'b')];
      const [plain, mirrored] = [wide(left, right, false), wide(left, right, true)].map(analyse);
      const [d, e] = [plain!, mirrored!].map((r) => r.sounds[0]!.destinations[0]!);
      expect(e!.channels).toBe(d!.channels);
      const figures = (side: (typeof d & object)['sides'][number]) => ({ ...side, jack: '' });
      expect(e!.sides.map(figures)).toEqual(d!.sides.map(figures).reverse());
      const told = (r: typeof plain) =>
        r!.findings.map((f) => `${f.severity} ${f.rule} ${f.what}`).sort();
      expect(told(mirrored)).toEqual(told(plain).map(turned).sort());
    }),
    { numRuns: cases(12, 25) },
  );
});
