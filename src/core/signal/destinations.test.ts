import fc from 'fast-check';
import { sure } from '../outcome';
import { analyse } from '../report';
import type { Lead, Rig } from '../rig';
import { allOn, chainOf, device, lead } from '../testing/rigs';
import { sumOfPowers, voltsOfDbu } from '../units';

const at = (rig: Rig, id: string) =>
  sure(analyse(rig).sounds[0]?.destinations.find((d) => d.device === id));

describe('one desk', () => {
  /** A guitar through an echo with so much of it, to a line input. */
  const echoed = (mix: number) =>
    allOn(
      [
        device('g', 'guitar-active', 'Guitar'),
        device('e', 'delay', 'Echo', { settings: { mix } }),
        device('c', 'console-input', 'House', { settings: { input: 'line' } }),
      ],
      [lead('1', 'g.out', 'e.in', 3), lead('2', 'e.out', 'c.in', 3)],
    );

  test('the share that is wet grows with the mix, from nothing to all of it', () => {
    const shares = [0, 2, 5, 8, 10].map((mix) => at(echoed(mix), 'c').wetPercent!);
    expect(shares[0]).toBe(0);
    expect(shares.at(-1)).toBe(100);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
  });

  test('the input adds its own noise as a power, and is named where most is its own', () => {
    const hiss = (noiseDbu: number) => {
      const rig = chainOf(['guitar-active', ['console-input', { settings: { input: 'line' } }]]);
      const own = { lineNoiseDbu: { value: noiseDbu, from: 'sheet' as const } };
      return at({ ...rig, devices: [rig.devices[0]!, { ...rig.devices[1]!, figures: own }] }, 'd1');
    };
    const quiet = hiss(-140);
    fc.assert(
      fc.property(fc.integer({ min: -120, max: -60 }), (own) => {
        const { noiseDbu, noisiest, signalToNoiseDb, levelDbu } = hiss(own);
        expect(noiseDbu).toBeCloseTo(sumOfPowers(quiet.noiseDbu!, own), 1);
        expect(signalToNoiseDb).toBeCloseTo(levelDbu!.normal - noiseDbu!, 9);
        if (own > quiet.noiseDbu! + 0.5) expect(noisiest).toBe('d1');
        if (own < quiet.noiseDbu! - 0.5) expect(noisiest).toBe('d0');
      }),
      { numRuns: 20 },
    );
  });

  test('nothing that leads there: not connected, silent, and no figure but its own noise', () => {
    const rig = echoed(5);
    const cut = { ...rig, leads: rig.leads.slice(0, 1) };
    expect(at(cut, 'c')).toMatchObject({
      connected: false,
      selected: false,
      levelDbu: null,
      peakDbu: null,
      thdPercent: null,
      channels: 'silent',
      wetPercent: null,
      latencyMs: null,
      polarity: null,
      sources: [],
      notchHz: null,
      route: [],
    });
  });

  test('a way that a switch does not make is connected and not selected', () => {
    const forked = (select: string) =>
      allOn(
        [
          device('g', 'guitar-active', 'Guitar'),
          device('s', 'splitter-buffered', 'Fork', { settings: { select } }),
          ...['c', 'd'].map((id) => device(id, 'console-input', id)),
        ],
        [lead('1', 'g.out', 's.in', 3), lead('2', 's.a', 'c.in', 3), lead('3', 's.b', 'd.in', 3)],
      );
    expect(at(forked('a'), 'd')).toMatchObject({ connected: true, levelDbu: null });
    expect(at(forked('both'), 'd')).toMatchObject({ connected: true, selected: true });
    expect(at(forked('b'), 'c').levelDbu).toBeNull();
  });
});

describe('two sides', () => {
  const wide = (leads: Lead[]): Rig =>
    allOn(
      [
        device('g', 'guitar-active', 'Guitar'),
        device('r', 'reverb', 'Hall', { settings: { mix: 5 } }),
        device('t', 'compressor', 'Squeeze'),
        device('c', 'console-input-stereo', 'House', { settings: { input: 'line' } }),
        ...['a', 'b'].map((id) => device(id, 'powered-speaker', id)),
      ],
      [lead('in', 'g.out', 'r.in', 3), ...leads],
    );
  const both = [lead('1', 'r.out', 'c.in', 3), lead('2', 'r.outR', 'c.inR', 3)];

  test('each jack has its own figures, and who made them differ is named', () => {
    const d = at(wide(both), 'c');
    expect(d).toMatchObject({ channels: 'stereo', widenedBy: 'r', collapsedAt: null, side: null });
    expect(d.sides.map((s) => [s.jack, s.sources])).toEqual([
      ['in', ['g']],
      ['inR', ['g']],
    ]);
    expect(d.each.map((x) => [x.jack, x.side, x.source])).toEqual([
      ['in', 'left', 'g'],
      ['inR', 'right', 'g'],
    ]);
    expect(d.wideners).toEqual([{ device: 'r', exchanged: false }]);
  });

  test('plugged into each other’s jack the sides are exchanged, and it is stereo still', () => {
    const crossed = [lead('1', 'r.out', 'c.inR', 3), lead('2', 'r.outR', 'c.in', 3)];
    expect(at(wide(crossed), 'c')).toMatchObject({
      channels: 'stereo',
      wideners: [{ device: 'r', exchanged: true }],
    });
  });

  test('the louder side gives the figures of the whole', () => {
    const d = at(wide(both), 'c');
    const levels = d.sides.map((s) => s.levelDbu!.normal);
    expect(d.levelDbu!.normal).toBeCloseTo(Math.max(...levels), 9);
  });

  test('two loudspeakers with a side each are one pair for the same ears', () => {
    const rig = wide([
      lead('1', 'r.out', 'a.in', 3, 'balanced'),
      lead('2', 'r.outR', 'b.in', 3, 'balanced'),
    ]);
    expect(at(rig, 'a')).toMatchObject({ side: 'left', pairedWith: 'b', channels: 'mono' });
    expect(at(rig, 'b')).toMatchObject({ side: 'right', pairedWith: 'a' });
    // One of them alone has nobody beside it.
    const alone = wide([lead('2', 'r.outR', 'b.in', 3, 'balanced')]);
    expect(at(alone, 'b').pairedWith).toBeNull();
  });

  test('the same signal on both jacks is mono, whatever it went through', () => {
    const mono = allOn(
      [
        device('g', 'guitar-active', 'Guitar'),
        device('s', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
        device('c', 'console-input-stereo', 'House', { settings: { input: 'line' } }),
      ],
      [lead('1', 'g.out', 's.in', 3), lead('2', 's.a', 'c.in', 3), lead('3', 's.b', 'c.inR', 3)],
    );
    const d = at(mono, 'c');
    expect(d).toMatchObject({ channels: 'mono', widenedBy: null, side: null, wetPercent: 0 });
    const [left, right] = d.sides.map((s) => voltsOfDbu(s.levelDbu!.normal));
    expect(left).toBeCloseTo(right!, 6);
  });
});
