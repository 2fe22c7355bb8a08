import { analyse, FixTrial } from '../report';
import { applyEdits, type Device, type Rig, type Stance } from '../rig';
import { allOn, chainOf, device, lead, sound } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { ORDER_RULES } from './rules';

const END: [string, Partial<Device>] = ['console-input', { settings: { input: 'line' } }];
/** A chain in which every pedal is engaged. */
const engaged = (...kinds: string[]): Rig =>
  chainOf([
    'guitar-single-coil',
    ...kinds.map((k): [string, Partial<Device>] => [k, { engaged: true }]),
    END,
  ]);
const taking = (rig: Rig, rule: string, stance: Stance): Rig => ({
  ...rig,
  order: { stances: { [rule]: stance } },
});
const found = (rig: Rig, rule: string) => analyse(rig).findings.filter((f) => f.rule === rule);

describe('each rule, both schools', () => {
  test.each([
    ['bare-pickup', ['buffer', 'fuzz-low-impedance'], ['fuzz-low-impedance', 'buffer']],
    ['pitch-early', ['drive-low', 'octave'], ['octave', 'drive-low']],
    ['filter-before-dirt', ['drive-low', 'wah'], ['wah', 'drive-low']],
    ['compressor-early', ['drive-low', 'compressor'], ['compressor', 'drive-low']],
    ['gain-low-to-high', ['drive-high', 'drive-low'], ['drive-low', 'drive-high']],
    ['gate-place', ['gate', 'drive-low'], ['drive-low', 'gate']],
    ['volume-place', ['volume-active', 'drive-low'], ['drive-low', 'volume-active']],
    ['modulation-after-dirt', ['chorus', 'drive-low'], ['drive-low', 'chorus']],
    ['time-after-dirt', ['delay', 'drive-low'], ['drive-low', 'delay']],
    ['time-after-dirt', ['reverb', 'delay'], ['delay', 'reverb']],
    ['looper-last', ['looper', 'delay'], ['delay', 'looper']],
  ])('%s: said for %j, not for %j', (rule, wrong, right) => {
    expect(found(engaged(...wrong), rule).length).toBeGreaterThan(0);
    expect(found(engaged(...right), rule)).toEqual([]);
    expect(
      found(
        taking(engaged(...wrong), rule, { stance: 'ignore', because: 'the player likes it' }),
        rule,
      ),
    ).toEqual([]);
  });

  test.each([
    ['filter-before-dirt', ['drive-low', 'wah'], ['wah', 'drive-low']],
    ['compressor-early', ['drive-low', 'compressor'], ['compressor', 'drive-low']],
    ['gain-low-to-high', ['drive-high', 'drive-low'], ['drive-low', 'drive-high']],
  ])('%s: the other school turns it round', (rule, kept, broken) => {
    expect(found(taking(engaged(...kept), rule, { stance: 'other' }), rule)).toEqual([]);
    expect(found(taking(engaged(...broken), rule, { stance: 'other' }), rule)).toHaveLength(1);
  });

  test('a tuner first or late, by school', () => {
    const chain = engaged('drive-low', 'tuner-true-bypass');
    expect(found(chain, 'tuner-place')).toHaveLength(1);
    expect(found(taking(chain, 'tuner-place', { stance: 'other' }), 'tuner-place')).toEqual([]);
  });

  test('of three drives each pair counts, not the first and the last alone', () => {
    const chain = engaged('drive-low', 'drive-high', 'drive-mid');
    const [f] = found(chain, 'gain-low-to-high');
    expect(f!.subjects).toEqual(['d3', 'd2']);
    const cured = valueOf(applyEdits(chain, f!.fix!.edits)).rig;
    expect(found(cured, 'gain-low-to-high')).toEqual([]);
  });

  test('one boost for saturation and one for level: each by a school of its own', () => {
    const chain = engaged('drive-low', 'boost', 'boost');
    const stance = { stance: 'follow' as const, devices: { d3: 'other' as const } };
    expect(found(taking(chain, 'boost-place', stance), 'boost-place')).toMatchObject([
      { subjects: ['d2', 'd1'] },
    ]);
    const none = { stance: 'ignore' as const, devices: { d2: 'follow' as const } };
    expect(found(taking(chain, 'boost-place', none), 'boost-place')).toHaveLength(1);
  });

  test('a boost is only checked once somebody has chosen what it is for', () => {
    const chain = engaged('drive-low', 'boost');
    expect(found(chain, 'boost-place')).toEqual([]);
    expect(found(taking(chain, 'boost-place', { stance: 'follow' }), 'boost-place')).toHaveLength(
      1,
    );
    expect(found(taking(chain, 'boost-place', { stance: 'other' }), 'boost-place')).toEqual([]);
  });
});

test('what is bypassed in a sound does not count there, and the sounds are named', () => {
  const rig = chainOf(['guitar-single-coil', 'delay', 'drive-low', END], 0.3, [
    sound('a', 'A', ['d1']),
    sound('b', 'B', ['d1', 'd2']),
  ]);
  expect(found(rig, 'time-after-dirt')[0]!.sounds).toEqual(['b']);
});

test('echoes that an amplifier distorts are one matter; its loop cures it for all of them', () => {
  const driven = { settings: { gain: 9 } };
  const rig = allOn(
    [
      device('g', 'guitar-humbucker', 'Guitar'),
      device('b', 'buffer', 'Buffer'),
      device('e', 'delay', 'Echo'),
      device('r', 'reverb', 'Hall'),
      device('a', 'combo-tube-loop', 'Combo', driven),
    ],
    [
      lead('1', 'g.out', 'b.in', 3),
      lead('2', 'b.out', 'e.in', 0.3),
      lead('3', 'e.out', 'r.in', 0.3),
      lead('4', 'r.out', 'a.in', 5),
    ],
  );
  const trial = new FixTrial(rig);
  const told = trial.report.findings.filter((f) => f.rule === 'time-after-dirt');
  expect(told.map((f) => f.what)).toEqual(['Echo and Hall feed Combo, which distorts.']);
  const [best] = trial.waysOut(told[0]!);
  expect(best!.fix.words).toBe('Put Echo and Hall into the effects loop of Combo');
  expect(best!.tried).toMatchObject({ cures: true, breaks: [] });
  // Without a loop there is nothing to put them into.
  const bare = {
    ...rig,
    devices: rig.devices.map((d) => (d.id === 'a' ? { ...d, kind: 'combo-tube' } : d)),
  };
  const [left] = analyse(bare).findings.filter((f) => f.rule === 'time-after-dirt');
  expect([left!.what, left!.fix]).toEqual(['Echo and Hall feed Combo, which distorts.', undefined]);
});

test('a wireless ahead of a fuzz: both cannot be had, and the ways out are said', () => {
  const f = found(engaged('wireless', 'fuzz-low-impedance'), 'bare-pickup')[0]!;
  expect(f.why).toContain('both cannot be had');
  expect(f.fix?.words).toContain('pickup simulator');
  // The way that asks for no lead was made on a copy: it sees a coil then, which is advice and no caution.
  const rig = engaged('wireless', 'fuzz-low-impedance');
  const cured = valueOf(applyEdits(rig, f.fix!.edits)).rig;
  const [after] = analyse(cured).findings.filter((x) => x.rule === 'bare-pickup');
  expect([f.severity, after!.severity]).toEqual(['caution', 'advice']);
  expect(after!.what).toContain('sees the coil of Pickup simulator');
});

test.each([
  ['pitch-early', ['drive-low', 'octave']],
  ['bare-pickup', ['buffer', 'fuzz-low-impedance']],
  ['time-after-dirt', ['delay', 'drive-low']],
  ['gain-low-to-high', ['drive-high', 'drive-low']],
])('the fix of %s cures it', (rule, kinds) => {
  const rig = engaged(...kinds);
  const fixed = applyEdits(rig, found(rig, rule)[0]!.fix!.edits);
  expect(fixed.ok && found(fixed.value.rig, rule)).toEqual([]);
});

test('every rule says its place, the other school and why', () => {
  for (const r of ORDER_RULES)
    expect([r.thing, r.main, r.other, r.why].every((t) => t.length > 3)).toBe(true);
  expect(new Set(ORDER_RULES.map((r) => r.id)).size).toBe(ORDER_RULES.length);
});
