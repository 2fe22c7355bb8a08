import { device, lead, rigOf, sound } from '../testing/rigs';
import { playNote } from '../note';
import { analyse } from '../report';
import { referenceNote } from './pickup-tone';

/**
 * Instrument, volume and tone (0 to 10), metres of lead with 100 pF a metre, input in ohms; level
 * at 1 kHz and at 5 kHz against the unloaded source in dB, and the peak in Hz. Worked out apart
 * from the program, with complex numbers: a coil of R and L, its winding capacitance, the tone pot
 * behind its capacitor, the volume pot as two resistors, then lead and input.
 */
const TONES: [
  kind: string,
  volume: number,
  tone: number,
  metres: number,
  ohms: number,
  at1kHz: number,
  at5kHz: number,
  peakHz: number | null,
][] = [
  ['guitar-single-coil', 10, 10, 0.5, 1000000, -0.406, 0.102, 4808],
  ['guitar-single-coil', 10, 10, 0.5, 150000, -0.806, -2.734, null],
  ['guitar-single-coil', 10, 10, 3, 1000000, -0.213, 2.099, 4302],
  ['guitar-single-coil', 10, 10, 3, 150000, -0.63, -1.809, 2902],
  ['guitar-single-coil', 10, 10, 6, 1000000, 0.023, -0.774, 3483],
  ['guitar-single-coil', 10, 10, 6, 150000, -0.417, -3.212, 2965],
  ['guitar-single-coil', 10, 10, 9, 1000000, 0.262, -4.587, 2991],
  ['guitar-single-coil', 10, 10, 9, 150000, -0.201, -5.77, 2699],
  ['guitar-single-coil', 7, 10, 3, 1000000, -7.122, -7.841, null],
  ['guitar-single-coil', 5, 10, 3, 1000000, -12.839, -13.154, null],
  ['guitar-single-coil', 10, 5, 3, 1000000, -1.041, -4.763, null],
  ['guitar-single-coil', 10, 0, 3, 1000000, -12.253, -41.313, 375],
  ['guitar-single-coil', 6, 6, 3, 1000000, -10.225, -13.683, null],
  ['guitar-humbucker', 10, 10, 0.5, 1000000, -0.158, 2.054, 4626],
  ['guitar-humbucker', 10, 10, 0.5, 150000, -0.808, -3.969, null],
  ['guitar-humbucker', 10, 10, 3, 1000000, 0.206, -1.529, 3366],
  ['guitar-humbucker', 10, 10, 3, 150000, -0.496, -5.176, 2291],
  ['guitar-humbucker', 10, 10, 6, 1000000, 0.66, -7.517, 2661],
  ['guitar-humbucker', 10, 10, 6, 150000, -0.113, -8.76, 2226],
  ['guitar-humbucker', 10, 10, 9, 1000000, 1.132, -11.281, 2265],
  ['guitar-humbucker', 10, 10, 9, 150000, 0.279, -11.848, 2015],
  ['guitar-humbucker', 7, 10, 3, 1000000, -7.484, -8.864, null],
  ['guitar-humbucker', 5, 10, 3, 1000000, -13.047, -12.669, 4247],
  ['guitar-humbucker', 10, 5, 3, 1000000, -0.451, -5.397, 2142],
  ['guitar-humbucker', 10, 0, 3, 1000000, -10.101, -39.893, 459],
  ['guitar-humbucker', 6, 6, 3, 1000000, -10.421, -14.722, null],
  ['guitar-baritone', 10, 10, 0.5, 1000000, -0.161, 1.474, 4163],
  ['guitar-baritone', 10, 10, 0.5, 150000, -0.915, -4.788, null],
  ['guitar-baritone', 10, 10, 3, 1000000, 0.241, -3.458, 3103],
  ['guitar-baritone', 10, 10, 3, 150000, -0.579, -6.548, 2023],
  ['guitar-baritone', 10, 10, 6, 1000000, 0.743, -9.061, 2477],
  ['guitar-baritone', 10, 10, 6, 150000, -0.169, -10.151, 2035],
  ['guitar-baritone', 10, 10, 9, 1000000, 1.265, -12.622, 2121],
  ['guitar-baritone', 10, 10, 9, 150000, 0.25, -13.136, 1863],
  ['guitar-baritone', 7, 10, 3, 1000000, -7.474, -9.215, 2861],
  ['guitar-baritone', 5, 10, 3, 1000000, -13.039, -12.648, 4035],
  ['guitar-baritone', 10, 5, 3, 1000000, -0.535, -6.753, 1865],
  ['guitar-baritone', 10, 0, 3, 1000000, -11.287, -40.826, 429],
  ['guitar-baritone', 6, 6, 3, 1000000, -10.47, -15.338, null],
  ['lap-steel', 10, 10, 0.5, 1000000, -0.534, -1.249, 2404],
  ['lap-steel', 10, 10, 0.5, 150000, -1.113, -4.971, null],
  ['lap-steel', 10, 10, 3, 1000000, -0.266, -1.55, 3295],
  ['lap-steel', 10, 10, 3, 150000, -0.879, -5.101, null],
  ['lap-steel', 10, 10, 6, 1000000, 0.062, -5.607, 2781],
  ['lap-steel', 10, 10, 6, 150000, -0.595, -7.359, 2109],
  ['lap-steel', 10, 10, 9, 1000000, 0.399, -9.099, 2418],
  ['lap-steel', 10, 10, 9, 150000, -0.308, -9.971, 2052],
  ['lap-steel', 7, 10, 3, 1000000, -7.226, -9.205, null],
  ['lap-steel', 5, 10, 3, 1000000, -12.951, -14.192, null],
  ['lap-steel', 10, 5, 3, 1000000, -1.499, -7.96, null],
  ['lap-steel', 10, 0, 3, 1000000, -15.801, -44.499, 305],
  ['lap-steel', 6, 6, 3, 1000000, -10.541, -15.953, null],
  ['electric-mandolin', 10, 10, 0.5, 1000000, -0.349, 0.406, 6224],
  ['electric-mandolin', 10, 10, 0.5, 150000, -0.672, -1.769, null],
  ['electric-mandolin', 10, 10, 3, 1000000, -0.192, 3.336, 5011],
  ['electric-mandolin', 10, 10, 3, 150000, -0.527, -0.236, 3811],
  ['electric-mandolin', 10, 10, 6, 1000000, -0.001, 2.404, 3989],
  ['electric-mandolin', 10, 10, 6, 150000, -0.351, -0.67, 3528],
  ['electric-mandolin', 10, 10, 9, 1000000, 0.192, -1.437, 3400],
  ['electric-mandolin', 10, 10, 9, 150000, -0.172, -2.976, 3139],
  ['electric-mandolin', 7, 10, 3, 1000000, -7.076, -7.525, null],
  ['electric-mandolin', 5, 10, 3, 1000000, -12.789, -12.95, null],
  ['electric-mandolin', 10, 5, 3, 1000000, -0.851, -3.043, null],
  ['electric-mandolin', 10, 0, 3, 1000000, -9.99, -39.359, 426],
  ['electric-mandolin', 6, 6, 3, 1000000, -10.088, -12.661, null],
];

test.each(TONES)(
  '%s, volume %d, tone %d, %d m into %d Ω: %d dB at 1 kHz, %d dB at 5 kHz, peak at %s Hz',
  (kind, volume, tone, metres, ohms, at1kHz, at5kHz, peakHz) => {
    const rig = rigOf(
      [
        device('g', kind, 'G', { settings: { volume, tone } }),
        device('b', 'buffer', 'B', {
          engaged: true,
          figures: { inputOhms: { value: ohms, from: 'sheet' } },
        }),
      ],
      [lead('1', 'g.out', 'b.in', metres, 'instrument', 100)],
      [sound('s', 'S', ['b'])],
    );
    const found = analyse(rig).sounds[0]!.tones.find((t) => t.driver === 'g')!;
    expect(found.at1kHzDb).toBeCloseTo(at1kHz, 2);
    expect(found.at5kHzDb).toBeCloseTo(at5kHz, 2);
    if (peakHz === null) expect(found.peakDb === null || found.peakDb < 0.5).toBe(true);
    else expect(Math.abs(found.peakHz! / peakHz - 1)).toBeLessThan(0.01);
  },
);

/**
 * A single coil played while others hang beside it at rest, each on 3 m of 100 pF a metre, into 1 MΩ:
 * level at 1 and 5 kHz against the unloaded source. Worked out apart, as above, with the coils at
 * rest as R and L to ground.
 */
test.each([
  [0, -0.213, 2.099],
  [1, -6.198, -3.475],
  [2, -9.708, -6.842],
])('with %d at rest beside it: %d dB at 1 kHz, %d dB at 5 kHz', (count, at1kHz, at5kHz) => {
  const rests = Array.from({ length: count }, (_, i) => `r${i}`);
  const box = (i: number) => `x${i}`;
  const rig = rigOf(
    [
      device('g', 'guitar-single-coil', 'Played'),
      ...rests.map((id) => device(id, 'guitar-single-coil', id)),
      ...rests.map((_, i) =>
        device(box(i), 'combiner-passive', box(i), { settings: { select: 'both' } }),
      ),
      device('b', 'buffer', 'B', {
        engaged: true,
        figures: { inputOhms: { value: 1e6, from: 'sheet' } },
      }),
    ],
    [
      lead('g', 'g.out', count ? 'x0.a' : 'b.in', 3, 'instrument', 100),
      ...rests.map((id, i) => lead(id, `${id}.out`, `${box(i)}.b`, 3, 'instrument', 100)),
      ...rests.map((_, i) =>
        lead(
          box(i),
          `${box(i)}.out`,
          i + 1 < count ? `${box(i + 1)}.a` : 'b.in',
          0,
          'instrument',
          0,
        ),
      ),
    ],
    [
      {
        ...sound('s', 'S', ['b', 'g']),
        states: {
          b: { engaged: true },
          ...Object.fromEntries(rests.map((id) => [id, { engaged: false }])),
        },
      },
    ],
  );
  const found = analyse(rig).sounds[0]!.tones.find((t) => t.driver === 'g')!;
  expect(found.at1kHzDb).toBeCloseTo(at1kHz, 2);
  expect(found.at5kHzDb).toBeCloseTo(at5kHz, 2);
});

describe('the note through the reference lead', () => {
  const into = (instrument: string, metres: number) => {
    const rig = rigOf(
      [device('g', instrument, 'Guitar'), device('b', 'buffer', 'Buffer')],
      [lead('1', 'g.out', 'b.in', metres, 'instrument', 100)],
      [sound('x', 'X', ['g'])],
    );
    const buffer = {
      ...rig.devices[1]!,
      figures: { inOhms: { value: 1e6, from: 'sheet' as const } },
    };
    return { ...rig, devices: [rig.devices[0]!, buffer] };
  };
  const notesOf = (rig: ReturnType<typeof into>) => [
    playNote(rig, rig.sounds[0]!).at('b', 'in')?.touches[1],
    referenceNote(rig, rig.sounds[0]!, 'b', 'in')?.touches[1],
  ];
  test('a rig that is the reference sounds as it does', () => {
    const [here, reference] = notesOf(into('guitar-humbucker', 3));
    expect(here!.levelDbu).toBeCloseTo(reference!.levelDbu, 1);
    here!.bandsDbu.forEach((b, i) => {
      if (b !== null) expect(Math.abs(b - reference!.bandsDbu[i]!)).toBeLessThan(0.3);
    });
  });
  test('a long lead is duller than it, and an instrument with electronics has none', () => {
    const [here, reference] = notesOf(into('guitar-humbucker', 12));
    expect(here!.bandsDbu[20]!).toBeLessThan(reference!.bandsDbu[20]! - 3);
    expect(notesOf(into('guitar-active', 3))[1]).toBeUndefined();
  });
});
