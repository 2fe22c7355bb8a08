import fc from 'fast-check';
import { addHiss, type Hiss, noisiestOf, scaleHiss, SILENT, Strains } from './hiss';

const powers = fc.array(fc.double({ min: 1e-16, max: 1e-6, noNaN: true }), {
  minLength: 1,
  maxLength: 250,
});
/** Noises of as many devices, each of its own. */
const each = (list: readonly number[]): Hiss[] => {
  const strains = new Strains();
  return list.map((power, i) => strains.own(`d${i}`, `d${i}`, power));
};
/** One after the other joins what came before, as along a chain. */
const chained = (list: readonly Hiss[]): Hiss => list.reduce((sum, h) => addHiss([sum, h]), SILENT);
const total = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);

test('noises of different devices add as powers, however many, in whatever order they come', () => {
  fc.assert(
    fc.property(powers, (list) => {
      const all = each(list);
      for (const sum of [addHiss(all), chained(all), chained(all.toReversed())])
        expect(sum.power / total(list)).toBeCloseTo(1, 6);
    }),
  );
});

test('what is followed stays few, and the loudest device is still known by name', () => {
  fc.assert(
    fc.property(powers, (list) => {
      const sum = chained(each([...list, 1e-5]));
      expect(sum.strains.length).toBeLessThanOrEqual(50);
      expect(noisiestOf(sum)).toBe(`d${list.length}`);
    }),
  );
});

test('copies of one noise add as waves: doubled 6 dB, turned over nothing, late or widened as powers', () => {
  const strains = new Strains();
  const one = strains.own('a', 'a', 1e-8);
  expect(addHiss([one, one]).power).toBeCloseTo(4e-8, 14);
  expect(addHiss([one, scaleHiss(one, -1)]).power).toBe(0);
  expect(addHiss([one, scaleHiss(one, 1, 3)]).power).toBeCloseTo(2e-8, 14);
  const apart = scaleHiss(one, 1, 0, 'chorus');
  expect(addHiss([one, apart]).power).toBeCloseTo(2e-8, 14);
  expect(addHiss([apart, apart]).power).toBeCloseTo(2e-8, 14);
});

test('times add up on the way: late by one and two is late by three', () => {
  const one = new Strains().own('a', 'a', 1e-8);
  const both = addHiss([scaleHiss(scaleHiss(one, 1, 1), 1, 2), scaleHiss(one, -1, 3)]);
  expect(both.power).toBe(0);
  expect(scaleHiss(one, 2).power).toBeCloseTo(4e-8, 14);
  expect(scaleHiss(one, 0)).toBe(SILENT);
});
