import { device } from '../testing/rigs';
import type { PowerNeed } from '../kinds';
import { Alike } from './alike';
import type { Taker } from './power';

const takes = (id: string, need: Partial<PowerNeed> = {}, pinned = false): Taker => ({
  device: device(id, 'phaser', id, {
    ...(pinned && { supply: { device: 's', outlet: 'o', pinned } }),
  }),
  need: { volts: 9, milliamps: 20, ...need },
});

test('devices that take the same are one sort, wherever they are plugged; what is left out is as usual', () => {
  const list = [takes('a'), takes('b'), takes('c', { maxVolts: 9, centre: 'negative', ac: false })];
  const alike = new Alike(list, () => false);
  expect(alike.sizes).toEqual([3]);
  expect([alike.are(0, 1), alike.are(1, 2)]).toEqual([true, true]);
});

test.each<[string, Partial<PowerNeed>]>([
  ['voltage', { volts: 12 }],
  ['the voltage that it bears', { maxVolts: 18 }],
  ['current', { milliamps: 21 }],
  ['alternating current', { ac: true }],
  ['polarity', { centre: 'positive' }],
  ['noise', { noisy: true }],
  ['gain', { sensitive: true }],
  ['ground', { positiveGround: true }],
])('another %s is another sort', (_, need) => {
  expect(new Alike([takes('a'), takes('b', need)], () => false).sizes).toEqual([1, 1]);
});

test('what is pinned, and what hands power on, is like nothing else', () => {
  const list = [takes('a'), takes('b', {}, true), takes('c'), takes('d')];
  const alike = new Alike(list, (t) => t.device.id === 'd');
  expect(alike.sizes).toEqual([2, 1, 1]);
  expect([alike.are(0, 2), alike.are(0, 1), alike.are(2, 3)]).toEqual([true, false, false]);
});
