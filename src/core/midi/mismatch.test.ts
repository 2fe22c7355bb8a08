import fc from 'fast-check';
import { kindOf } from '../kinds';
import { device, rigOf } from '../testing/rigs';
import { agree } from './mismatch';
import { between } from '../testing/between';

const rig = rigOf([device('echo', 'delay', 'Brine Echo')], []);
const [knob] = kindOf('delay').parameters.flatMap((p) => (p.type === 'knob' ? [p] : []));
const range = knob!.max - knob!.min;
const is = (a: Parameters<typeof agree>[2], b: Parameters<typeof agree>[3]) =>
  agree(rig, `echo ${knob!.id}`, a, b);

test('what one control change cannot tell apart is the same; what is more than a step of 127 is not', () => {
  fc.assert(
    fc.property(between(0, 0.5), fc.boolean(), (share, up) => {
      const middle = knob!.min + range / 2;
      const at = (steps: number) => middle + ((up ? 1 : -1) * steps * range) / 127;
      expect([is(middle, at(share)), is(at(share), middle)]).toEqual([true, true]);
      expect([is(middle, at(1 + share)), is(at(1 + share), middle)]).toEqual([false, false]);
    }),
  );
});

test('words, switches and what is not there agree only where they are equal', () => {
  expect([is('a', 'a'), is('a', 'b'), is(true, true), is(true, false)]).toEqual([
    ...[true, false, true, false],
  ]);
  expect([is(1, undefined), is('1', 1)]).toEqual([false, false]);
});

test('of a device or a knob that nobody knows only what is equal agrees', () => {
  for (const key of ['nobody rate', 'echo nothing', 'echo program'])
    expect([key, agree(rig, key, 5, 5), agree(rig, key, 5, 5.001)]).toEqual([key, true, false]);
});
