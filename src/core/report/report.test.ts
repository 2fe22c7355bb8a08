import fc from 'fast-check';
import { boostWorths } from '../analysis/boost';
import { kindOf, KINDS } from '../kinds';
import { refused } from '../outcome';
import type { Device, Rig } from '../rig';
import { firstNotchHertz } from '../signal/combing';
import { chainOf, device, lead, rigOf, sound } from '../testing/rigs';
import { dbuOfVolts, sumOfPowers } from '../units';
import { gainLadder } from './ladder';
import { previewEdits } from './preview';
import { analyse, Analyser, analyseSound } from './report';

const own = (values: Record<string, number>): Partial<Device> => ({
  figures: Object.fromEntries(
    Object.entries(values).map(([id, value]) => [id, { value, from: 'sheet' as const }]),
  ),
});
const first = (rig: Rig) => analyse(rig).sounds[0]!;
const rules = (rig: Rig) => analyse(rig).findings.map((f) => f.rule);
const END: [string, Partial<Device>] = ['console-input', { settings: { input: 'line' } }];

describe('level', () => {
  test.each([
    ['guitar-single-coil', -24, -8],
    ['guitar-humbucker', -18, -2],
    ['guitar-active', -14, 2],
    ['instrument-piezo', -18, 0],
    ['line-instrument', -10, 6],
  ])('%s gives %d dBu, peaks %d, into 1 MΩ', (kind, nominal, peak) => {
    const { output } = first(chainOf([kind, ['buffer', own({ inputOhms: 1e6 })]], 0)).stations.find(
      (s) => s.device === 'd0',
    )!;
    expect(output.levelDbu!.normal).toBeCloseTo(nominal, 1);
    expect(output.peakDbu).toBeCloseTo(peak, 1);
  });
  test('soft picking is 12 dB under, hard 6 dB over', () => {
    const l = first(chainOf(['guitar-active', 'buffer', END])).destinations[0]!.levelDbu!;
    expect(l.normal - l.soft).toBeCloseTo(12, 6);
    expect(l.hard - l.normal).toBeCloseTo(6, 6);
  });
  test('a chain by hand: −14 dBu, boost +12.4 dB, 1 kΩ into 10 kΩ', () => {
    const rig = chainOf(
      [
        ['guitar-active', own({ outputOhms: 0 })],
        ['boost', { engaged: true, settings: { gain: 6.2 }, ...own({ outputOhms: 1000 }) }],
        END,
      ],
      0,
    );
    expect(first(rig).destinations[0]!.levelDbu!.normal).toBeCloseTo(-14 + 12.4 - 0.83, 2);
  });
  test('a passive split loads its source with both inputs', () => {
    const rig = rigOf(
      [
        device('g', 'guitar-active', 'G', own({ outputOhms: 10_000 })),
        device('s', 'splitter-passive', 'S'),
        device('a', 'buffer', 'A', own({ inputOhms: 20_000 })),
        device('b', 'buffer', 'B', own({ inputOhms: 20_000 })),
      ],
      [lead('1', 'g.out', 's.in', 0), lead('2', 's.a', 'a.in', 0), lead('3', 's.b', 'b.in', 0)],
    );
    expect(first(rig).stations.find((s) => s.device === 'a')!.input!.levelDbu!.normal).toBeCloseTo(
      -14 - 6.02,
      2,
    );
  });
  test('headroom: under 3 dB a caution, under 0 a fault, and none where clipping is meant', () => {
    const boosted = (gain: number) =>
      analyse(
        chainOf(['guitar-active', ['boost', { engaged: true, settings: { gain } }], END]),
      ).findings.find((f) => f.rule === 'headroom');
    expect(boosted(2)).toBeUndefined();
    expect(boosted(3)!.severity).toBe('caution');
    expect(boosted(6)!.severity).toBe('fault');
    expect(rules(chainOf(['guitar-active', ['drive-high', { engaged: true }], END]))).not.toContain(
      'headroom',
    );
  });
  test('nothing gets louder than its ceiling', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('boost', 'drive-low', 'drive-high', 'compressor'), {
          minLength: 1,
          maxLength: 6,
        }),
        (kinds) => {
          const rig = chainOf([
            'guitar-humbucker',
            ...kinds.map((k): [string, Partial<Device>] => [k, { engaged: true }]),
            'buffer',
            END,
          ]);
          return first(rig).stations.every(
            (s) => s.output.levelDbu === null || s.output.levelDbu.hard <= 10 + 12 + 3.1,
          );
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('saturation and touch', () => {
  const driven = (rest: Partial<Device>) =>
    first(
      chainOf(
        [['guitar-active', own({ outputOhms: 0 })], ['drive-low', { engaged: true, ...rest }], END],
        0,
      ),
    ).destinations[0]!;
  test('a drive with gain g under ceiling c does what the formula says', () => {
    // −14 dBu with 20 dB of gain under a ceiling of +6 dBu: g·x̂/c = 1.
    const d = driven({
      ...own({
        gainLowDb: 20,
        gainHighDb: 20,
        ceilingDbu: 6,
        levelLowDb: 0,
        levelHighDb: 0,
        outputOhms: 0,
      }),
    });
    expect(d.thdPercent!.normal).toBeCloseTo(6.71, 1);
    expect(d.thdPercent!.hard).toBeCloseTo(17.3, 0);
    expect(d.levelDbu!.normal).toBeCloseTo(6 + 20 * Math.log10(0.575 * Math.SQRT2), 1);
  });
  test('clean when picked softly, dirtier when dug in', () => {
    const t = driven({}).thdPercent!;
    expect(t.soft).toBeLessThan(t.normal);
    expect(t.normal).toBeLessThan(t.hard);
  });
  test('a boost before a saturated stage adds saturation and hardly any level; after it, level', () => {
    const chain = (kinds: string[]) =>
      chainOf([
        'guitar-active',
        ...kinds.map((k): [string, Partial<Device>] => [
          k,
          {
            engaged: true,
            ...(k === 'drive-high' ? { settings: { drive: 3 } } : { settings: { gain: 4 } }),
          },
        ]),
        'buffer',
        END,
      ]);
    const worth = (rig: Rig, id: string) =>
      boostWorths(rig, rig.sounds[0]!).find((w) => w.device === id)!;
    const before = worth(chain(['boost', 'drive-high']), 'd1');
    const after = worth(chain(['drive-high', 'boost']), 'd2');
    expect(before.levelDb).toBeLessThan(2);
    expect(before.saturationPercent).toBeGreaterThan(before.levelDb);
    expect(before.levelDb).toBeLessThan(after.levelDb - 6);
    expect(after.levelDb).toBeCloseTo(8, 1);
    expect(after.verdict).toBe('more level');
  });
  test('the gain ladder counts presses and tells each change', () => {
    const rig = chainOf(['guitar-single-coil', 'drive-low', 'drive-mid', END], 0.3, [
      sound('a', 'Clean', []),
      sound('b', 'Low', ['d1']),
      sound('c', 'Both', ['d1', 'd2']),
    ]);
    const rungs = gainLadder(rig, analyse(rig), ['a', 'b', 'c', 'gone'], 'd3');
    expect(rungs.map((r) => r.presses)).toEqual([0, 1, 1]);
    expect(rungs[2]!.pressed).toEqual(['d2']);
    expect(rungs[2]!.thdPercent!.normal).toBeGreaterThan(rungs[1]!.thdPercent!.normal);
    expect(rungs[1]!.change!.levelDb).toBeCloseTo(rungs[1]!.levelDbu! - rungs[0]!.levelDbu!, 9);
    expect(rungs[2]!.idleNoiseDbu!).toBeGreaterThan(rungs[0]!.idleNoiseDbu!);
  });
});

describe('noise', () => {
  test('stages add as powers, each through the gain behind it', () => {
    const rig = chainOf(
      [
        ['guitar-active', own({ outputOhms: 0, noiseDbu: -130 })],
        [
          'boost',
          { engaged: true, settings: { gain: 10 }, ...own({ noiseDbu: -100, outputOhms: 0 }) },
        ],
        ['buffer', own({ noiseDbu: -90, outputOhms: 0 })],
        ['powered-speaker', {}],
      ],
      0,
    );
    // −100 dBu through 20 dB, the buffer's −90, and the speaker's own −95.
    expect(first(rig).destinations[0]!.noiseDbu).toBeCloseTo(sumOfPowers(-80, -90, -95), 1);
    expect(first(rig).destinations[0]!.noisiest).toBe('d1');
  });
  test('a gate quietens what is ahead of it while nobody plays, and nothing behind', () => {
    const chain = (engaged: boolean, threshold: number) =>
      first(
        chainOf([
          'guitar-single-coil',
          ['drive-high', { engaged: true }],
          ['gate', { engaged, settings: { threshold } }],
          ['buffer', own({ noiseDbu: -90 })],
          END,
        ]),
      ).destinations[0]!;
    const [off, on, low] = [chain(false, -30), chain(true, -30), chain(true, -80)];
    expect(on.idleNoiseDbu!).toBeLessThan(off.idleNoiseDbu! - 15);
    expect(on.idleNoiseDbu!).toBeGreaterThan(-92);
    expect(on.noiseDbu!).toBeCloseTo(off.noiseDbu!, 0);
    expect(low.idleNoiseDbu!).toBeCloseTo(off.idleNoiseDbu!, 0);
  });
  test('stacked gain raises hiss far more than level', () => {
    const chain = (on: boolean) =>
      first(
        chainOf([
          'guitar-single-coil',
          ['drive-mid', { engaged: true }],
          ['drive-high', { engaged: on }],
          END,
        ]),
      ).destinations[0]!;
    expect(chain(true).noiseDbu! - chain(false).noiseDbu!).toBeGreaterThan(
      chain(true).levelDbu!.normal - chain(false).levelDbu!.normal + 10,
    );
  });
});

describe('stereo', () => {
  const pair = (middle: string, both: boolean) =>
    rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('c', 'chorus', 'C', { engaged: true }),
        device('m', middle, 'M', { engaged: true }),
        device('e', 'console-input-stereo', 'E', { settings: { input: 'line' } }),
      ],
      [
        lead('1', 'g.out', 'c.in', 1),
        lead('2', 'c.out', 'm.in', 1),
        ...(both ? [lead('2r', 'c.outR', 'm.inR', 1)] : []),
        lead('3', 'm.out', 'e.in', 1),
        ...(both ? [lead('3r', 'm.outR', 'e.inR', 1)] : []),
      ],
    );
  test('becomes wide at the chorus and stays so through a stereo delay', () => {
    const d = first(pair('delay', true)).destinations[0]!;
    expect(d.channels).toBe('stereo');
    expect(['c', 'm']).toContain(d.widenedBy);
  });
  test('one lead between two stereo devices is said, and the fix makes it stereo', () => {
    const rig = pair('delay', false);
    expect(first(rig).destinations[0]!.channels).toBe('mono');
    const half = analyse(rig).findings.find((f) => f.rule === 'half-pair')!;
    expect(half.fix!.edits[0]).toMatchObject({
      edit: 'connect',
      lead: { from: { device: 'c', jack: 'outR' }, to: { device: 'm', jack: 'inR' } },
    });
  });
  test('width is lost at a mono device, and it is named', () => {
    const rig = rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('c', 'chorus', 'C', { engaged: true }),
        device('m', 'mixer-line', 'M'),
        device('e', 'console-input', 'E', { settings: { input: 'line' } }),
      ],
      [
        lead('1', 'g.out', 'c.in', 1),
        lead('2', 'c.out', 'm.a', 1),
        lead('2r', 'c.outR', 'm.b', 1),
        lead('3', 'm.out', 'e.in', 1),
      ],
    );
    const d = first(rig).destinations[0]!;
    expect([d.channels, d.widenedBy, d.collapsedAt]).toEqual(['mono', 'c', 'm']);
    expect(rules(rig)).toContain('collapse');
  });
  test('two instruments on the two sides are dual mono', () => {
    const rig = rigOf(
      [
        device('a', 'guitar-active', 'A'),
        device('b', 'guitar-active', 'B'),
        device('e', 'recorder', 'E'),
      ],
      [lead('1', 'a.out', 'e.in', 1), lead('2', 'b.out', 'e.inR', 1)],
    );
    expect(first(rig).destinations[0]!.channels).toBe('dual mono');
  });
});

describe('latency and polarity', () => {
  const parallel = (one: [string, Partial<Device>], turn = false) =>
    rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('s', 'splitter-buffered', 'S', { settings: { invertB: turn } }),
        device('x', one[0], 'X', one[1]),
        device('m', 'mixer-line', 'M'),
        device('e', 'console-input', 'E', { settings: { input: 'line' } }),
      ],
      [
        lead('1', 'g.out', 's.in', 1),
        lead('2', 's.a', 'x.in', 1),
        lead('3', 'x.out', 'm.a', 1),
        lead('4', 's.b', 'm.b', 1),
        lead('5', 'm.out', 'e.in', 1),
      ],
    );
  test('2 ms apart puts the first notch at 250 Hz', () => expect(firstNotchHertz(2)).toBe(250));
  test('dry beside dry, later: a fault with its notch', () => {
    const comb = analyse(
      parallel(['looper', { engaged: true, ...own({ latencyMs: 2 }) }]),
    ).findings.find((f) => f.rule === 'comb')!;
    expect(comb.severity).toBe('fault');
    expect(comb.why).toContain('250 Hz');
  });
  test('dry beside a return that is all wet is fine', () => {
    expect(
      rules(
        parallel(['delay', { engaged: true, settings: { mix: 10 }, ...own({ latencyMs: 2 }) }]),
      ),
    ).not.toContain('comb');
  });
  test('two copies in phase add 6 dB; turned over they cancel, and the splitter’s switch cures it', () => {
    const straight = parallel(['drive-low', {}]);
    const alone = first({ ...straight, leads: straight.leads.filter((l) => l.id !== '4') })
      .destinations[0]!.levelDbu!.normal;
    expect(first(straight).destinations[0]!.levelDbu!.normal - alone).toBeCloseTo(6.02, 1);
    const turned = analyse(parallel(['drive-low', {}], true));
    expect(turned.sounds[0]!.destinations[0]!.levelDbu).toBeNull();
    const fault = turned.findings.find((f) => f.rule === 'polarity')!;
    expect(fault.fix!.edits).toEqual([
      { edit: 'setSetting', device: 's', setting: 'invertB', value: false },
    ]);
  });
  test('over 10 ms in all is a caution; air counts 2.9 ms a metre', () => {
    const rig = rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('a', 'combo-tube', 'A'),
        device('m', 'microphone', 'M'),
        device('e', 'console-input', 'E'),
      ],
      [
        lead('1', 'g.out', 'a.in', 3),
        lead('2', 'a.air', 'm.air', 4, 'air'),
        lead('3', 'm.out', 'e.in', 10, 'balanced'),
      ],
    );
    expect(first(rig).destinations.find((d) => d.device === 'e')!.latencyMs).toBeCloseTo(11.6, 6);
    expect(rules(rig)).toContain('latency');
  });
});

describe('loading, speakers and routes', () => {
  test('a tube head without a load is a danger in every sound', () => {
    const f = analyse(chainOf(['guitar-humbucker', 'head-tube'])).findings.find(
      (x) => x.rule === 'no-load',
    )!;
    expect(f.severity).toBe('danger');
    expect(f.sounds).toEqual(['s1']);
  });
  test('an instrument lead in a speaker line is a danger with its fix', () => {
    const rig = rigOf(
      [
        device('g', 'guitar-humbucker', 'G'),
        device('h', 'head-tube', 'H'),
        device('c', 'cabinet', 'C'),
      ],
      [lead('1', 'g.out', 'h.in', 3), lead('2', 'h.speaker', 'c.in', 1)],
    );
    const f = analyse(rig).findings.find((x) => x.rule === 'speaker-lead')!;
    expect(f.fix!.edits).toEqual([{ edit: 'setLead', lead: '2', type: 'speaker' }]);
  });
  test('50 W into 8 Ω is the ceiling of the head: 20 V, +28.2 dBu as a sine', () => {
    const rig = rigOf(
      [
        device('g', 'line-instrument', 'G'),
        device('h', 'head-tube', 'H', { settings: { gain: 10, master: 10 } }),
        device('c', 'cabinet', 'C'),
      ],
      [lead('1', 'g.out', 'h.in', 3), lead('2', 'h.speaker', 'c.in', 0, 'speaker')],
    );
    const peak = first(rig).destinations[0]!.peakDbu!;
    expect(peak).toBeCloseTo(dbuOfVolts(20) - 0.53, 1);
  });
  test('an effects loop is two passes; with nothing in the return it is closed inside', () => {
    const closed = rigOf(
      [device('g', 'guitar-active', 'G'), device('h', 'combo-tube-loop', 'H')],
      [lead('1', 'g.out', 'h.in', 3)],
    );
    const open = {
      ...closed,
      devices: [...closed.devices, device('x', 'buffer', 'X')],
      leads: [...closed.leads, lead('2', 'h.send', 'x.in', 1), lead('3', 'x.out', 'h.return', 1)],
    };
    expect(first(closed).stations.map((s) => s.id)).toEqual(['g', 'h']);
    expect(first(open).stations.map((s) => s.id)).toEqual(['g', 'h:in', 'x', 'h:return']);
    expect(first(open).destinations[0]!.levelDbu!.normal).toBeCloseTo(
      first(closed).destinations[0]!.levelDbu!.normal,
      0,
    );
  });
  test('a destination that nothing reaches is a fault; a muted one is not', () => {
    expect(
      rules(rigOf([device('g', 'guitar-active', 'G'), device('e', 'console-input', 'E')], [])),
    ).toEqual(['open-end']);
    expect(rules(rigOf([device('e', 'console-input', 'E')], []))).toEqual(['no-route']);
    expect(
      rules(chainOf(['guitar-active', ['tuner-buffered', { engaged: true }], END])),
    ).not.toContain('silent');
  });
  test('signal in a circle is named and hangs nothing', () => {
    const rig = rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('m', 'mixer-line', 'M'),
        device('b', 'boost', 'B', { engaged: true }),
        device('s', 'splitter-buffered', 'S'),
        device('e', 'console-input', 'E', { settings: { input: 'line' } }),
      ],
      [
        lead('1', 'g.out', 'm.a', 1),
        lead('2', 'm.out', 'b.in', 1),
        lead('3', 'b.out', 's.in', 1),
        lead('4', 's.a', 'e.in', 1),
        lead('5', 's.b', 'm.b', 1),
      ],
    );
    const howl = analyse(rig).findings.find((f) => f.rule === 'howl')!;
    expect(howl.severity).toBe('fault');
    expect([...howl.subjects].sort()).toEqual(['b', 'm', 's']);
  });
  test('a priority input takes over when something is plugged into it', () => {
    const base = [
      device('g', 'guitar-active', 'G'),
      device('w', 'wireless', 'W'),
      device('spare', 'guitar-active', 'Spare'),
      device('e', 'console-input', 'E', { settings: { input: 'line' } }),
    ];
    const leads = [lead('1', 'g.out', 'w.in', 1), lead('2', 'w.out', 'e.in', 1)];
    expect(first(rigOf(base, leads)).destinations[0]!.sources).toEqual(['g']);
    expect(first(rigOf(base, leads)).destinations[0]!.latencyMs).toBe(4);
    const spare = first(rigOf(base, [...leads, lead('3', 'spare.out', 'w.emergency', 3)]))
      .destinations[0]!;
    expect([spare.sources, spare.latencyMs]).toEqual([['spare'], 0]);
  });
});

describe('every kind', () => {
  test.each(KINDS.map((k) => [k.id]))(
    '%s: passes use its own points, figures are in range and have a reason',
    (id) => {
      const kind = kindOf(id);
      for (const f of kind.figures) {
        expect(f.typical).toBeGreaterThanOrEqual(f.min);
        expect(f.typical).toBeLessThanOrEqual(f.max);
        expect(f.reason.length).toBeGreaterThan(5);
      }
      expect(new Set(kind.figures.map((f) => f.id)).size).toBe(kind.figures.length);
      for (const engaged of [true, false]) {
        const rig = rigOf([device('x', id, 'X', { engaged })], []);
        expect(() => analyse(rig)).not.toThrow();
      }
      if (kind.through)
        expect(kind.jacks.map((j) => j.id)).toEqual(
          expect.arrayContaining([kind.through.in, kind.through.out]),
        );
    },
  );
  test('there are at least 30, and true-bypass drives are wires when bypassed', () => {
    expect(KINDS.length).toBeGreaterThanOrEqual(30);
    const off = first(
      chainOf(['guitar-active', 'drive-low', 'drive-high', 'buffer', END]),
    ).stations;
    expect(
      off
        .filter((s) => s.device === 'd1' || s.device === 'd2')
        .every((s) => s.state === 'through' && s.gainDb === null),
    ).toBe(true);
  });
});

describe('incremental', () => {
  test(
    'an edit of one sound leaves the other sounds’ reports the same objects, with the ' +
      'figures of a full run',
    () => {
      const rig = chainOf(['guitar-active', 'drive-low', END], 0.3, [
        sound('a', 'A', []),
        sound('b', 'B', []),
      ]);
      const analyser = new Analyser();
      const before = analyser.analyse(rig);
      const changed = {
        ...rig,
        sounds: [rig.sounds[0]!, { ...rig.sounds[1]!, states: { d1: { engaged: true } } }],
      };
      const after = analyser.analyse(changed);
      expect(after.sounds[0]).toBe(before.sounds[0]);
      expect(after.sounds[1]).not.toBe(before.sounds[1]);
      expect(after.sounds[1]).toEqual(analyseSound(changed, changed.sounds[1]!).figures);
    },
  );
  test('a preview tells what an edit would change, and a refusal in words', () => {
    const rig = chainOf(['guitar-active', ['boost', { engaged: true }], END]);
    const preview = previewEdits(rig, [{ edit: 'removeDevice', device: 'd1' }], 's1');
    expect(preview.ok && preview.value.rows[0]!.levelDb).toBeCloseTo(-10, 1);
    expect(previewEdits(rig, [{ edit: 'removeDevice', device: 'nobody' }], 's1')).toEqual(
      refused('There is no device "nobody" any more.'),
    );
  });
});
