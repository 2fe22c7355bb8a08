import fc from 'fast-check';
import type { Assignment, Control } from '../rig';
import { CURVE_SHARE, type Curve } from '../units';
import { chainOf, device, rigOf, sound } from '../testing/rigs';
import {
  effectiveRig,
  effectiveSound,
  endsOfAssignment,
  holdsIn,
  travelled,
  valueAt,
  withControlAt,
} from './effective';
import { between } from '../testing/between';

const CURVES = Object.keys(CURVE_SHARE) as Curve[];
const rig = rigOf(
  [device('v', 'volume-active', 'V'), device('w', 'volume-active', 'W'), device('b', 'boost', 'B')],
  [],
);
const pedal = (assigns: Assignment[], rest: Partial<Control> = {}): Control => ({
  id: 'c',
  name: 'C',
  type: 'pedal',
  assigns,
  ...rest,
});
const to = (rest: Partial<Assignment> = {}): Assignment => ({
  id: 'a',
  device: 'v',
  setting: 'pedal',
  ...rest,
});
const share = between(0, 1);

describe('every curve', () => {
  test.each(CURVES)('%s runs from 0 to 1', (curve) => {
    expect(CURVE_SHARE[curve](0)).toBeCloseTo(0, 12);
    expect(CURVE_SHARE[curve](1)).toBeCloseTo(1, 12);
  });
  test.each(CURVES)('%s never falls', (curve) => {
    fc.assert(
      fc.property(
        share,
        share,
        (a, b) => CURVE_SHARE[curve](Math.min(a, b)) <= CURVE_SHARE[curve](Math.max(a, b)) + 1e-12,
      ),
    );
  });
  test.each(CURVES)('%s stays between its ends', (curve) => {
    fc.assert(
      fc.property(
        share,
        (x) => CURVE_SHARE[curve](x) >= -1e-12 && CURVE_SHARE[curve](x) <= 1 + 1e-12,
      ),
    );
  });
  test('two opposite equal-power ones keep the sum of their powers', () => {
    fc.assert(
      fc.property(
        share,
        (x) =>
          Math.abs(
            CURVE_SHARE['equal-power'](x) ** 2 + CURVE_SHARE['equal-power'](1 - x) ** 2 - 1,
          ) < 1e-12,
      ),
    );
  });
  test('audio and reverse audio mirror one another', () => {
    fc.assert(
      fc.property(
        share,
        (x) => Math.abs(CURVE_SHARE.audio(x) - (1 - CURVE_SHARE['reverse-audio'](1 - x))) < 1e-12,
      ),
    );
  });
  test.each([
    ['linear', 0.5, 0.5],
    ['linear', 0.25, 0.25],
    ['audio', 0.5, 0.25],
    ['audio', 0.1, 0.01],
    ['reverse-audio', 0.5, 0.75],
    ['reverse-audio', 0.9, 0.99],
    ['equal-power', 0.5, 0.70711],
    ['equal-power', 1 / 3, 0.5],
  ] as const)('%s at %d is %d', (curve, x, y) => expect(CURVE_SHARE[curve](x)).toBeCloseTo(y, 5));
});

describe('travel of a pedal', () => {
  test.each([
    [undefined, 0, 0],
    [undefined, 50, 0.5],
    [undefined, 100, 1],
    [{ from: 5, to: 95 }, 5, 0],
    [{ from: 5, to: 95 }, 50, 0.5],
    [{ from: 5, to: 95 }, 95, 1],
    [{ from: 5, to: 95 }, 0, 0],
    [{ from: 5, to: 95 }, 100, 1],
    [{ from: 20, to: 60 }, 30, 0.25],
    [{ from: 40, to: 40 }, 39, 0],
    [{ from: 40, to: 40 }, 40, 1],
  ])('over %j, at %d %% it has gone %d of the way', (travel, at, gone) =>
    expect(travelled(pedal([], travel ? { travel } : {}), at)).toBeCloseTo(gone, 12),
  );
});

describe('what an assignment sets', () => {
  test.each([
    [{}, 0, 0],
    [{}, 100, 10],
    [{ min: 2, max: 8 }, 0, 2],
    [{ min: 2, max: 8 }, 50, 5],
    [{ min: 2, max: 8 }, 100, 8],
    [{ min: 8, max: 2 }, 0, 8],
    [{ min: 8, max: 2 }, 50, 5],
    [{ min: 8, max: 2 }, 100, 2],
    [{ min: 0, max: 10, curve: 'audio' }, 50, 2.5],
    [{ min: 10, max: 0, curve: 'audio' }, 50, 2.5],
    [{ min: 0, max: 10, curve: 'reverse-audio' }, 50, 7.5],
    [{ min: 5, max: 5 }, 33, 5],
  ] as [Partial<Assignment>, number, number][])('%j at %d %% gives %d', (rest, at, value) =>
    expect(valueAt(rig, pedal([]), to(rest), at)).toBeCloseTo(value, 9),
  );
  test('the value never leaves the ends, whichever way they lie', () => {
    const anyEnds = fc.tuple(between(0, 10), between(0, 10));
    fc.assert(
      fc.property(anyEnds, between(0, 100), fc.constantFrom(...CURVES), ([min, max], at, curve) => {
        const value = Number(valueAt(rig, pedal([]), to({ min, max, curve }), at));
        return value >= Math.min(min, max) - 1e-9 && value <= Math.max(min, max) + 1e-9;
      }),
    );
  });
  test('opposite ranges mirror one another: what one gives at the heel the other gives at the toe', () => {
    fc.assert(
      fc.property(between(0, 100), fc.constantFrom(...CURVES), (at, curve) => {
        const up = Number(valueAt(rig, pedal([]), to({ min: 1, max: 9, curve }), at));
        const down = Number(valueAt(rig, pedal([]), to({ min: 9, max: 1, curve }), 100 - at));
        return Math.abs(up - down) < 1e-9;
      }),
    );
  });
  test.each([
    [true, undefined, undefined, true],
    [false, undefined, undefined, false],
    [true, 'both', 'a', 'both'],
    [false, 'both', 'a', 'a'],
    [49, undefined, undefined, false],
    [50, undefined, undefined, true],
  ] as const)('a switch at %s with on %s and off %s gives %s', (at, on, off, value) => {
    expect(
      valueAt(
        rig,
        pedal([]),
        { id: 'a', device: 'b', setting: 'engaged', ...(on && { on }), ...(off && { off }) },
        at,
      ),
    ).toBe(value);
  });
  test('ends come from the kind where nothing is said, and are 0 to 10 for what the kind does not have', () => {
    expect(endsOfAssignment(rig, to())).toEqual([0, 10]);
    expect(endsOfAssignment(rig, to({ setting: 'unheard-of' }))).toEqual([0, 10]);
    expect(
      endsOfAssignment(chainOf(['gate']), { id: 'a', device: 'd0', setting: 'threshold' })[0],
    ).toBeLessThan(0);
  });
});

describe('sounds as controls leave them', () => {
  const both = pedal([
    to({ id: 'a', device: 'v', min: 0, max: 10 }),
    to({ id: 'b', device: 'w', min: 10, max: 0 }),
  ]);
  const s = (at?: number) => ({
    ...sound('s', 'S', []),
    ...(at !== undefined && { controls: { c: at } }),
  });
  test('one control moves all that it is assigned to', () => {
    const moved = withControlAt(rig, s(), both, 30);
    expect([moved.states.v!.settings!.pedal, moved.states.w!.settings!.pedal]).toEqual([3, 7]);
  });
  test('only in the sounds in which the assignment holds', () => {
    expect(holdsIn(to({ sounds: ['x'] }), 's')).toBe(false);
    expect(holdsIn(to({ sounds: [] }), 's')).toBe(true);
    const here = withControlAt(rig, s(), pedal([to({ sounds: ['elsewhere'] })]), 30);
    expect(here.states.v).toBeUndefined();
  });
  test('a device that is gone is passed over', () => {
    expect(withControlAt(rig, s(), pedal([to({ device: 'gone' })]), 30).states).toEqual({});
  });
  test('a sound without placed controls is the same object; with them it is made once', () => {
    const placed = { ...rig, controls: [both], sounds: [s(), { ...s(40), id: 't' }] };
    const made = effectiveRig(placed);
    expect(made.sounds[0]).toBe(placed.sounds[0]);
    expect(made.sounds[1]!.states.v!.settings!.pedal).toBe(4);
    expect(effectiveSound(placed, placed.sounds[1]!)).toBe(made.sounds[1]);
    const none = { ...rig, controls: [both], sounds: [s()] };
    expect(effectiveRig(none)).toBe(none);
  });
  test('a setting of its own that no control moves stays', () => {
    const own = { ...s(100), states: { v: { engaged: true, settings: { other: 3, pedal: 1 } } } };
    const moved = withControlAt(rig, own, both, 100);
    expect(moved.states.v).toEqual({ engaged: true, settings: { other: 3, pedal: 10 } });
  });
});

describe('where a pedal or a switch puts what it moves', () => {
  const over = (a: Partial<Assignment>) =>
    [0, 25, 49, 50, 75, 100].map((at) => valueAt(rig, pedal([]), to(a), at));

  test('a knob goes along its range, or between the ends that are said, either way round', () => {
    expect(over({})).toEqual([0, 2.5, 4.9, 5, 7.5, 10]);
    expect(over({ min: 8, max: 4 })).toEqual([8, 7, 6.04, 6, 5, 4]);
  });
  test('what is switched by a pedal turns over at half its travel; on and off may be said', () => {
    const halves = (off: unknown, on: unknown) => [off, off, off, on, on, on];
    expect(over({ setting: 'engaged' })).toEqual(halves(false, true));
    expect(over({ on: 7 })).toEqual(halves(false, 7));
    expect(over({ off: 3 })).toEqual(halves(3, true));
    expect(over({ on: 'b', off: 'a' })).toEqual(halves('a', 'b'));
  });
  test('a switch gives on and off, whatever the setting', () => {
    const at = (a: Partial<Assignment>, is: boolean) => valueAt(rig, pedal([]), to(a), is);
    expect([at({}, true), at({}, false)]).toEqual([true, false]);
    expect([at({ on: 9, off: 2 }, true), at({ on: 9, off: 2 }, false)]).toEqual([9, 2]);
  });
  test('useful travel: nothing before it, all behind it; none at all is a step', () => {
    const shares = (from: number, end: number) =>
      [0, 20, 50, 80, 100].map((at) => travelled(pedal([], { travel: { from, to: end } }), at));
    expect(shares(20, 80)).toEqual([0, 0, 0.5, 1, 1]);
    expect(shares(50, 50)).toEqual([0, 0, 1, 1, 1]);
    expect([0, 30, 100].map((at) => travelled(pedal([]), at))).toEqual([0, 0.3, 1]);
  });
  test('an assignment holds in the sounds that it names, and in all where it names none', () => {
    const a = to();
    expect([holdsIn(a, 's'), holdsIn({ ...a, sounds: [] }, 's')]).toEqual([true, true]);
    expect(['s', 't'].map((s) => holdsIn({ ...a, sounds: ['s'] }, s))).toEqual([true, false]);
  });
});
