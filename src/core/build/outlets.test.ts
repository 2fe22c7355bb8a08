import type { Outlet, PowerNeed } from '../kinds';
import { analyse } from '../report';
import type { Device, Rig } from '../rig';
import { device, rigOf } from '../testing/rigs';
import { loadsOf, misfit, needOf, quarrel, unfed, voltagesOf } from '.';

const need = (rest: Partial<PowerNeed> = {}): PowerNeed => ({ volts: 9, milliamps: 50, ...rest });
const outlet = (rest: Partial<Outlet> = {}): Outlet => ({
  id: '1',
  label: 'outlet 1',
  volts: 9,
  milliamps: 100,
  isolated: true,
  ...rest,
});

describe('what an outlet at a voltage may feed', () => {
  test.each<[Partial<PowerNeed>, Partial<Outlet>, number, ReturnType<typeof misfit>]>([
    [{}, {}, 9, undefined],
    [{}, {}, 12, 'over-voltage'],
    [{}, {}, 9.5, 'over-voltage'],
    [{ volts: 12 }, {}, 9, 'under-voltage'],
    [{ volts: 12 }, {}, 12, undefined],
    [{ volts: 18 }, {}, 12, 'under-voltage'],
    [{ maxVolts: 18 }, {}, 9, undefined],
    [{ maxVolts: 18 }, {}, 12, undefined],
    [{ maxVolts: 18 }, {}, 18, undefined],
    [{ maxVolts: 18 }, {}, 24, 'over-voltage'],
    [{ maxVolts: 12 }, {}, 18, 'over-voltage'],
    [{ ac: true }, {}, 9, 'ac'],
    [{}, { ac: true }, 9, 'ac'],
    [{ ac: true }, { ac: true }, 9, undefined],
    [{ ac: true, volts: 12 }, { ac: true }, 9, 'under-voltage'],
    [{ ac: true, centre: 'positive' }, { ac: true, centre: 'negative' }, 9, undefined],
    [{ centre: 'positive' }, {}, 9, 'polarity'],
    [{ centre: 'negative' }, {}, 9, undefined],
    [{}, { centre: 'positive' }, 9, 'polarity'],
    [{ centre: 'positive' }, { centre: 'positive' }, 9, undefined],
    [{ centre: 'positive' }, {}, 12, 'polarity'],
    [{ ac: true }, {}, 12, 'ac'],
  ])('%j on %j at %d V: %s', (n, o, volts, wrong) =>
    expect(misfit(need(n), outlet(o), volts)).toBe(wrong),
  );
  test.each<[Partial<Outlet>, number[]]>([
    [{}, [9]],
    [{ also: [12, 18] }, [9, 12, 18]],
    [{ volts: 12, also: [] }, [12]],
  ])('%j can be set to %j', (o, volts) => expect(voltagesOf(outlet(o))).toEqual(volts));
});

describe('what must not share a return', () => {
  test.each<[Partial<PowerNeed>, Partial<PowerNeed>, boolean]>([
    [{}, {}, false],
    [{ noisy: true }, {}, false],
    [{ sensitive: true }, {}, false],
    [{ noisy: true }, { sensitive: true }, true],
    [{ sensitive: true }, { noisy: true }, true],
    [{ noisy: true }, { noisy: true }, false],
    [{ sensitive: true }, { sensitive: true }, false],
    [{ positiveGround: true }, {}, true],
    [{ positiveGround: true }, { positiveGround: true }, false],
    [{ positiveGround: true, noisy: true }, { positiveGround: true, sensitive: true }, true],
  ])('%j and %j: %s', (a, b, apart) => {
    expect(quarrel(need(a), need(b))).toBe(apart);
    expect(quarrel(need(b), need(a))).toBe(apart);
  });
});

describe('dangers first: what is told of a plug', () => {
  const told = (power: Device['power'], volts?: number) => {
    const rig: Rig = rigOf(
      [
        device('s', 'supply-isolated', 'Supply'),
        device('d', 'phaser', 'Phaser', {
          power,
          supply: { device: 's', outlet: '7', ...(volts !== undefined && { volts }) },
        }),
      ],
      [],
    );
    return analyse(rig)
      .findings.filter((f) => f.rule.startsWith('power-'))
      .map((f) => [f.severity, f.rule, f.fix?.edits[0]?.edit]);
  };
  test.each<[string, Device['power'], number | undefined, unknown[]]>([
    ['as it should be', {}, undefined, []],
    ['too much voltage', {}, 18, [['danger', 'power-voltage', 'setDevice']]],
    ['AC wanted', { ac: true }, undefined, [['danger', 'power-ac', 'unplugPower']]],
    [
      'the wrong way round',
      { centre: 'positive' },
      undefined,
      [['danger', 'power-polarity', 'unplugPower']],
    ],
    ['too little voltage', { volts: 18 }, 12, [['fault', 'power-low', 'setDevice']]],
    ['too much current', { milliamps: 501 }, undefined, [['fault', 'power-current', undefined]]],
    [
      'current without headroom',
      { milliamps: 450 },
      undefined,
      [['caution', 'power-current', undefined]],
    ],
    ['current just with headroom', { milliamps: 416 }, undefined, []],
    ['a range that takes 18 V', { maxVolts: 18 }, 18, []],
  ])('%s', (_, power, volts, wanted) => expect(told(power, volts)).toEqual(wanted));
  test('a supply that is asked for more than it gives in all sags', () => {
    const hungry = Array.from({ length: 8 }, (_, i) =>
      device(`d${i}`, 'phaser', `D${i}`, {
        power: { milliamps: i < 6 ? 80 : 400 },
        supply: { device: 's', outlet: String(i + 1) },
      }),
    );
    const more = analyse(
      rigOf(
        [
          device('s', 'supply-isolated', 'Supply'),
          ...hungry,
          device('x', 'phaser', 'X', {
            power: { milliamps: 150 },
            supply: { device: 's', outlet: '8' },
          }),
        ],
        [],
      ),
    ).findings;
    expect(more.find((f) => f.rule === 'power-total')).toMatchObject({
      severity: 'fault',
      why:
        'Its outlets feed 1430 mA; all together it gives 1400 mA, and beyond that the ' +
        'voltage sags on all of them.',
    });
  });
});

describe('sums of what is plugged', () => {
  const rig: Rig = rigOf(
    [
      device('s', 'supply-isolated', 'Supply'),
      device('a', 'phaser', 'A', { supply: { device: 's', outlet: '1' } }),
      device('b', 'phaser', 'B', { supply: { device: 's', outlet: '1' } }),
      device('c', 'phaser', 'C', { supply: { device: 's' } }),
      device('d', 'phaser', 'D'),
      device('m', 'modeler-floor', 'M', { supply: { device: 's', outlet: '8', volts: 12 } }),
      device('e', 'delay', 'Block', { host: 'm' }),
    ],
    [],
  );
  test('an outlet that is not named is the first', () => {
    const first = loadsOf(rig).find((l) => l.place.outlet.id === '1')!;
    expect(first.takers.map((t) => t.device.id)).toEqual(['a', 'b', 'c']);
    expect(first.milliamps).toBe(120);
    // 100 mA less 120 mA with a fifth of it kept free.
    expect(first.room).toBeCloseTo(100 - 144, 9);
  });
  test('an outlet is at the voltage that it was set to', () =>
    expect(loadsOf(rig).find((l) => l.place.outlet.id === '8')!.volts).toBe(12));
  test('what has no outlet is told; a block needs none', () =>
    expect(unfed(rig).map((t) => t.device.id)).toEqual(['d']));
  test('headroom is as it is asked for', () =>
    expect(loadsOf(rig, 1).find((l) => l.place.outlet.id === '1')!.room).toBeCloseTo(100 - 240, 9));
  test('what a device takes is what was said of it, else what its kind does', () => {
    expect(needOf(rig.devices[1]!)).toEqual({ volts: 9, milliamps: 40 });
    expect(needOf({ ...rig.devices[1]!, power: { milliamps: 7, noisy: true } })).toEqual({
      volts: 9,
      milliamps: 7,
      noisy: true,
    });
    expect(needOf(rig.devices[6]!)).toBeUndefined();
    expect(needOf(rig.devices[0]!)).toBeUndefined();
  });
});
