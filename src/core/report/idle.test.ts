import { applyEdits, type Rig } from '../rig';
import { allOn, device, lead, wiringOf, withoutLeads } from '../testing/rigs';
import { analyse } from './report';
import { FixTrial } from './tried';
import { idleIn } from './idle';

/** A guitar through a compressor in a loop of a switcher, then forked to two desks through direct boxes. */
const rig: Rig = allOn(
  [
    device('g', 'guitar-active', 'Guitar'),
    device('s', 'loop-switcher', 'Switcher', { settings: { order: '1' } }),
    device('d', 'compressor', 'Squeeze'),
    device('f', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
    device('a', 'direct-box', 'Box for the house'),
    device('b', 'direct-box', 'Box for the ears'),
    device('house', 'console-input', 'House'),
    device('ears', 'console-input', 'Ears'),
  ],
  [
    lead('1', 'g.out', 's.in', 3),
    lead('send', 's.send1', 'd.in', 0.5),
    lead('return', 'd.out', 's.return1', 0.5),
    lead('2', 's.out', 'f.in', 1),
    lead('left', 'f.a', 'a.in', 1),
    lead('right', 'f.b', 'b.in', 1),
    lead('3', 'a.out', 'house.in', 9, 'balanced'),
    lead('4', 'b.out', 'ears.in', 9, 'balanced'),
  ],
);
const without = (...ids: string[]) => withoutLeads(rig, ...ids);
const idle = (r: Rig) => idleIn(r, analyse(r));

test('nothing is idle where all that is on is played through and forks feed two', () => {
  expect(idle(rig)).toBe(0);
});

test('a fork that feeds one and an effect that nothing goes through count', () => {
  expect(idle(without('right', '4'))).toBe(1);
  expect(idle(without('send', 'return'))).toBe(1);
  // And the box that the fork fed feeds the ears with nothing.
  expect(idle(without('send', 'return', 'right'))).toBe(3);
});

test('the right side of something wide that hangs alone counts, the left alone is mono', () => {
  const wide = (...out: ['out' | 'outR', 'in' | 'inR'][]): Rig =>
    allOn(
      [
        device('g', 'guitar-active', 'Guitar'),
        device('r', 'reverb', 'Hall'),
        device('desk', 'console-input-stereo', 'House'),
      ],
      [
        lead('1', 'g.out', 'r.in', 3),
        ...out.map(([from, to], i) => lead(`o${i}`, `r.${from}`, `desk.${to}`, 3, 'instrument')),
      ],
    );
  expect(idle(wide(['out', 'in'], ['outR', 'inR']))).toBe(0);
  // At both of its ends, twice at each.
  expect(idle(wide(['outR', 'inR']))).toBe(4);
  expect(idle(wide(['out', 'in']))).toBe(0);
});

test.each(['send', 'return', 'left', 'right'])(
  'of all leads that would do, the one that was pulled (%s) comes first',
  (id) => {
    const broken = without(id);
    const trial = new FixTrial(broken);
    const told = trial.report.findings.find((f) => f.severity !== 'advice')!;
    const [best] = trial.waysOut(told);
    const made = applyEdits(broken, best!.fix.edits);
    expect(made.ok && wiringOf(made.value.rig)).toEqual(wiringOf(rig));
  },
);
