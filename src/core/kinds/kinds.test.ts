import type { Device } from '../rig';
import { device } from '../testing/rigs';
import { isEngaged, resolveState, settingOf } from '../rig/device-state';
import { findKind, kindOf, KINDS, type Pass, type Stage } from '.';
import { taperedShare } from './parts';

/** A kind's passes with some settings, figures and plugs. */
const passes = (
  kind: string,
  rest: Partial<Device> = {},
  plugged: string[] = ['in', 'out'],
): Pass[] =>
  kindOf(kind).passes(
    resolveState(kindOf(kind), device('x', kind, 'X', { engaged: true, ...rest })),
    (jack) => plugged.includes(jack),
  );
const stages = (kind: string, rest?: Partial<Device>, plugged?: string[]): Stage[] =>
  passes(kind, rest, plugged).filter((p) => p.is === 'stage');
const only = (kind: string, settings: Record<string, number | string | boolean> = {}): Stage =>
  stages(kind, { settings })[0]!;

describe('knobs to figures', () => {
  test.each([
    ['drive-low', 0, 6],
    ['drive-low', 5, 18],
    ['drive-low', 10, 30],
    ['drive-mid', 10, 42],
    ['drive-high', 0, 26],
  ])('%s with drive at %d has %d dB of gain', (kind, drive, db) =>
    expect(only(kind, { drive }).gainDb).toBeCloseTo(db, 9),
  );
  test('the level knob sits behind the clipping', () => {
    expect(only('drive-low', { level: 0 }).outputDb).toBe(-30);
    expect(only('drive-low', { level: 10 }).outputDb).toBe(12);
    expect(only('drive-low', { level: 10 }).ceiling).toEqual({
      dbu: -4,
      shape: 'soft',
      meant: true,
    });
  });
  test('a boost runs from unity to 20 dB and is not meant to clip', () => {
    expect([0, 5, 10].map((gain) => only('boost', { gain }).gainDb)).toEqual([0, 10, 20]);
    expect(only('boost').ceiling.meant).toBe(false);
  });
  test('an equaliser: level and mid move 1 kHz, high against mid tilts', () => {
    const s = only('eq', { mid: -3, high: 4, level: 5 });
    expect([s.gainDb, s.tiltDb]).toEqual([2, 7]);
  });
  test('a compressor’s threshold falls with sustain', () => {
    expect(only('compressor', { sustain: 0 }).compress!.thresholdDbu).toBe(-10);
    expect(only('compressor', { sustain: 10 }).compress!.thresholdDbu).toBe(-50);
  });
  test.each([
    [0, 0, -Infinity],
    [2.5, 0, -6.02],
    [5, 0, 0],
    [7.5, -6.02, 0],
  ])('mix at %d: dry %d dB, wet %d dB', (mix, dry, wet) => {
    const w = only('delay', { mix }).wet!;
    expect(w.dryDb).toBeCloseTo(dry, 2);
    if (wet === -Infinity) expect(w.wetDb).toBe(-Infinity);
    else expect(w.wetDb).toBeCloseTo(wet, 2);
  });
  test('mix full up is wet only, more than 200 dB of dry gone', () =>
    expect(only('reverb', { mix: 10 }).wet!.dryDb).toBeLessThan(-200));
  test('an active volume pedal heel down is silent, toe down unity', () => {
    expect(only('volume-active', { pedal: 0 }).outputDb).toBe(-Infinity);
    expect(only('volume-active', { pedal: 10 }).outputDb).toBeCloseTo(0, 9);
    expect(only('volume-active', { pedal: 5 }).outputDb).toBeCloseTo(-6.02, 2);
    // An audio taper of a quarter at half travel: a sixteenth at a quarter of it.
    expect([10, 5, 2.5, 0].map((travel) => taperedShare(travel, 0.25))).toEqual([
      1, 0.25, 0.0625, 0,
    ]);
  });
  test('a passive one half way splits its track', () => {
    expect(
      passes('volume-passive', { settings: { pedal: 5 } }).find((p) => p.is === 'resistor'),
    ).toMatchObject({ ohms: 125_000 });
    expect(
      passes('volume-passive', { settings: { pedal: 10 } }).some((p) => p.is === 'resistor'),
    ).toBe(false);
  });
  test('a guitar’s volume is an audio track: half way is a quarter', () => {
    expect(
      passes('guitar-single-coil', { settings: { volume: 5 } }).find((p) => p.is === 'resistor'),
    ).toMatchObject({ ohms: 250_000 * 0.75 });
  });
});

describe('states', () => {
  test.each(
    KINDS.filter(
      (k) =>
        !k.alwaysOn &&
        k.through &&
        !k.hosts &&
        !k.earth &&
        ![
          'tuner-buffered',
          'looper',
          'delay',
          'delay-dual',
          'reverb',
          'modulation-digital',
          'rotary',
          'amp-cab-simulator',
          'amp-cab-simulator-trs',
          'amp-block',
          'cab-block',
          'gate-loop',
          'synth-pedal',
          'splitter-tuner',
        ].includes(k.id),
    ).map((k) => [k.id]),
  )('%s is a wire when bypassed', (id) => {
    expect(stages(id, { engaged: false })).toEqual([]);
    expect(passes(id, { engaged: false })).toContainEqual({ is: 'wire', a: 'in', b: 'out' });
  });
  test.each([
    'tuner-buffered',
    'delay',
    'delay-dual',
    'reverb',
    'modulation-digital',
    'looper',
    'rotary',
    'amp-cab-simulator',
  ])('%s stays a buffer when bypassed', (id) => {
    const off = stages(id, { engaged: false })[0]!;
    expect([off.gainDb, off.wet, off.latencyMs, off.ceiling.meant]).toEqual([
      0,
      undefined,
      0,
      false,
    ]);
  });
  test.each(['tuner-buffered', 'tuner-true-bypass'])('%s engaged lets nothing through', (id) =>
    expect(stages(id)[0]!.muted).toBe(true),
  );
  test('an amplifier in standby, too', () =>
    expect(
      stages('combo-tube', { engaged: false })
        .filter((s) => s.id !== 'air')
        .every((s) => s.muted),
    ).toBe(true));
  test('an instrument that is not in use plays nothing and loads with its coil, as its knobs stand', () => {
    const rests = passes('lap-steel', { engaged: false });
    const plays = passes('lap-steel', { engaged: true });
    expect(rests.some((p) => p.is === 'source')).toBe(false);
    const source = plays.find((p) => p.is === 'source')!;
    expect(rests[0]).toEqual({
      is: 'shunt',
      at: source.at,
      ohms: source.ohms,
      henries: source.henries,
    });
    expect(rests.slice(1)).toEqual(plays.slice(1));
  });
  test('what a sound says goes before what the device says, and that before the kind', () => {
    const kind = kindOf('drive-low');
    const d = device('x', 'drive-low', 'X', { engaged: true, settings: { drive: 2 } });
    expect(settingOf(kind, d, { settings: { drive: 9 } }, 'drive')).toBe(9);
    expect(settingOf(kind, d, undefined, 'drive')).toBe(2);
    expect(settingOf(kind, d, undefined, 'tone')).toBe(5);
    expect([
      isEngaged(kind, d, { engaged: false }),
      isEngaged(kind, d),
      isEngaged(kind, device('y', 'drive-low', 'Y')),
      isEngaged(kindOf('guitar-active'), device('g', 'guitar-active', 'G')),
      isEngaged(kindOf('buffer'), device('b', 'buffer', 'B', { engaged: false })),
    ]).toEqual([false, true, false, true, true]);
  });
});

describe('stereo and routing', () => {
  const ways = (plugged: string[]) =>
    stages('delay', {}, plugged).map((s) => [s.from, s.to, s.side ?? 'both']);
  test('which sides a stereo pedal uses depends on what is plugged', () => {
    expect(ways(['in', 'out'])).toEqual([['in', 'out', 'both']]);
    expect(ways(['in', 'out', 'outR'])).toEqual([
      ['in', 'out', 'left'],
      ['in', 'outR', 'right'],
    ]);
    expect(ways(['in', 'inR', 'out', 'outR'])).toEqual([
      ['in', 'out', 'left'],
      ['inR', 'outR', 'right'],
    ]);
    expect(ways(['in', 'inR', 'out'])).toEqual([
      ['in', 'out', 'both'],
      ['inR', 'out', 'both'],
    ]);
  });
  test('a bypassed chorus is wires on both sides', () => {
    expect(passes('chorus', { engaged: false }, ['in', 'inR', 'out', 'outR'])).toEqual([
      { is: 'wire', a: 'in', b: 'out' },
      { is: 'wire', a: 'inR', b: 'outR' },
    ]);
  });
  test('a splitter’s unselected side is open, or muted behind its buffer', () => {
    expect(passes('splitter-passive', { settings: { select: 'b' } })).toEqual([
      { is: 'open', a: 'in', b: 'a' },
      { is: 'wire', a: 'in', b: 'b' },
    ]);
    expect(
      stages('splitter-buffered', { settings: { select: 'a', invertB: true } }).map((s) => [
        s.to,
        s.muted,
        s.inverts,
      ]),
    ).toEqual([
      ['a', false, false],
      ['b', true, true],
    ]);
  });
  test('a loop is closed inside until its return is plugged', () => {
    const closed = (plugged: string[]) =>
      passes('head-tube', {}, plugged).some(
        (p) => p.is === 'wire' && p.a === 'send' && p.b === 'return',
      );
    expect([closed(['in']), closed(['in', 'send']), closed(['in', 'return'])]).toEqual([
      true,
      true,
      false,
    ]);
  });
  test('a gate listens at its key when a lead is in it', () => {
    expect(stages('gate')[0]!.gate!.key).toBe('in');
    expect(stages('gate', {}, ['in', 'out', 'key'])[0]!.gate!.key).toBe('key');
  });
});

test('kinds that do not exist are not found, and asking for one is a bug', () => {
  expect(findKind('nothing')).toBeUndefined();
  expect(() => kindOf('nothing')).toThrow('No device kind');
  expect(new Set(KINDS.map((k) => k.id)).size).toBe(KINDS.length);
  expect(new Set(KINDS.map((k) => k.name)).size).toBe(KINDS.length);
});
