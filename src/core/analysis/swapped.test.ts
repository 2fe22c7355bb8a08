import { brokenRig, DEMO_RIGS } from '../demo';
import { kindOf } from '../kinds';
import { applyEdits } from '../rig';
import { analyse } from '../report';
import { HAND_WIRED } from '../testing/hand-wired';
import { device as d, lead as l, rigOf, sound as s } from '../testing/rigs';

/** A switcher with three boxes in its loops; the plugs that end at it are in `jacks`. */
const switcher = (jacks: readonly string[]) => {
  const boxes = ['b1', 'b2', 'b3'];
  return rigOf(
    [
      d('g', 'guitar-humbucker', 'Guitar'),
      d('sw', 'loop-switcher', 'Switcher'),
      d('b1', 'drive-low', 'Box one'),
      d('b2', 'chorus', 'Box two'),
      d('b3', 'delay', 'Box three'),
      d('amp', 'combo-tube', 'Combo'),
    ],
    [
      l('from-g', 'g.out', `sw.${jacks[0]}`, 6),
      ...boxes.map((b, i) => l(`to-${b}`, `sw.send${i + 1}`, `${b}.in`, 0.5)),
      ...boxes.map((b, i) => l(`from-${b}`, `${b}.out`, `sw.${jacks[i + 1]}`, 0.5)),
      l('to-amp', 'sw.out', 'amp.in', 3),
    ],
    [s('a', 'A', boxes, { sw: { settings: { order: '1 2 3' } } })],
  );
};

const RIGHT = ['in', 'return1', 'return2', 'return3'];
const permutations = <T>(list: readonly T[]): T[][] =>
  list.length < 2
    ? [[...list]]
    : list.flatMap((one, i) =>
        permutations(list.filter((_, k) => k !== i)).map((rest) => [one, ...rest]),
      );
const passes = (rig: ReturnType<typeof switcher>) => {
  const [sound] = analyse(rig).sounds;
  return {
    circles: sound?.cycles.length,
    heard: sound?.destinations.map((x) => x.levelDbu !== null),
    met: sound?.destinations.flatMap((x) => x.route).length,
  };
};

test('however the plugs at a switcher were mixed up, a circle is told with the exchange that makes it right', () => {
  const right = passes(switcher(RIGHT));
  expect(right.circles).toBe(0);
  let told = 0;
  let ofThree = 0;
  let ofFour = 0;
  for (const jacks of permutations(RIGHT)) {
    const rig = switcher(jacks);
    const report = analyse(rig);
    if (!report.sounds[0]?.cycles.length) continue;
    const found = report.findings.find((f) => f.rule === 'swapped');
    expect([jacks, found?.what]).toEqual([
      jacks,
      expect.stringMatching(/plugs look swapped at Switcher/),
    ]);
    told++;
    if (found?.what.startsWith('Three')) ofThree++;
    if (jacks.every((j, i) => j !== RIGHT[i])) ofFour++;
    expect(found?.why).toBe(
      'As they are, signal runs in a circle; exchanged, none is left, and signal reaches 1 destination.',
    );
    const cured = applyEdits(rig, found?.fix?.edits ?? []);
    if (!cured.ok) throw new Error('the exchange cannot be made');
    expect([jacks, passes(cured.value.rig)]).toEqual([jacks, right]);
  }
  expect(told).toBeGreaterThan(10);
  expect(ofThree).toBeGreaterThan(0);
  // Four plugs round, and two pairs exchanged.
  expect(ofFour).toBeGreaterThan(3);
});

test('plugs as they belong draw nothing', () => {
  expect(analyse(switcher(RIGHT)).findings.map((f) => f.rule)).not.toContain('swapped');
});

test('where an exchange cures one circle of two, what is left is said', () => {
  // Two switchers in a row, each with the plugs of its input and its first return exchanged.
  const one = switcher(['return1', 'in', 'return2', 'return3']);
  const boxes = ['c1', 'c2'];
  const rig = {
    ...one,
    devices: [
      ...one.devices,
      d('sx', 'loop-switcher', 'Second switcher'),
      d('c1', 'drive-low', 'Box four', { engaged: true }),
      d('c2', 'chorus', 'Box five', { engaged: true }),
    ],
    leads: [
      ...one.leads.filter((x) => x.id !== 'to-amp'),
      l('between', 'sw.out', 'sx.return1', 0.5),
      ...boxes.map((b, i) => l(`to-${b}`, `sx.send${i + 1}`, `${b}.in`, 0.5)),
      l('from-c1', 'c1.out', 'sx.in', 0.5),
      l('from-c2', 'c2.out', 'sx.return2', 0.5),
      l('to-amp', 'sx.out', 'amp.in', 3),
    ],
    sounds: [
      s('a', 'A', ['b1', 'b2', 'b3', ...boxes], {
        sw: { settings: { order: '1 2 3' } },
        sx: { settings: { order: '1 2' } },
      }),
    ],
  };
  const before = analyse(rig).sounds[0]!.cycles.length;
  expect(before).toBe(2);
  const told = analyse(rig).findings.find((f) => f.rule === 'swapped')!;
  const cured = applyEdits(rig, told.fix!.edits);
  if (!cured.ok) throw new Error('the exchange cannot be made');
  const [after] = analyse(cured.value.rig).sounds;
  const left = after!.cycles.length;
  const reached = after!.destinations.filter((x) => x.levelDbu !== null).length;
  expect(told.why).toContain(left ? 'one circle is left' : 'none is left');
  expect(left).toBe(1);
  expect(told.why).toContain(`signal reaches ${reached} `);
});

test('where no sound uses the loops, plugs in each other’s jack are told all the same', () => {
  const mixed = (jacks: readonly string[]) => {
    const rig = switcher(jacks);
    return { ...rig, sounds: [s('a', 'A', [], { sw: { settings: { order: '' } } })] };
  };
  const told = (jacks: readonly string[]) =>
    analyse(mixed(jacks)).findings.filter((f) => f.rule === 'swapped');
  expect(told(RIGHT)).toEqual([]);
  const [finding, ...more] = told(['in', 'return2', 'return1', 'return3']);
  expect([finding!.what, more]).toEqual([
    'Two plugs look swapped at Switcher: Switcher, return 2 and Switcher, return 1.',
    [],
  ]);
  const cured = applyEdits(mixed(['in', 'return2', 'return1', 'return3']), finding!.fix!.edits);
  expect(cured.ok && analyse(cured.value.rig).findings.map((f) => f.rule)).not.toContain('swapped');
});

test('a lead that is pulled out of a correct rig is never told as plugs in each other’s jack', () => {
  const rigs = [...DEMO_RIGS.filter((r) => r !== brokenRig), ...Object.values(HAND_WIRED)];
  let pulled = 0;
  for (const whole of rigs) {
    const rig = { ...whole, sounds: whole.sounds.slice(0, 1) };
    // Where a modeler's loops cross as they come, each lead; elsewhere every third.
    const each = rig.devices.some((d) => kindOf(d.kind).hosts) ? 1 : 3;
    for (const lead of rig.leads.filter((_, i) => i % each === 0)) {
      pulled++;
      const { findings } = analyse({ ...rig, leads: rig.leads.filter((l) => l !== lead) });
      const swapped = findings.find((f) => f.rule === 'swapped');
      expect([rig.id, lead.id, swapped?.what]).toEqual([rig.id, lead.id, undefined]);
    }
  }
  expect(pulled).toBeGreaterThan(100);
}, 120_000);
