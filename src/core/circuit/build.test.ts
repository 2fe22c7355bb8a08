import { device, lead, rigOf, chainOf } from '../testing/rigs';
import { buildCircuit } from './build';
import { passesOf, pluggedJacks } from './plugged';
import { runSignal } from '../signal/flow';

test('wires and leads make one net of everything up to the first active input', () => {
  const rig = chainOf(
    ['guitar-single-coil', 'drive-low', 'fuzz-low-impedance', 'wah', 'buffer'],
    2,
    undefined,
    120,
  );
  const circuit = buildCircuit(rig, rig.sounds[0]);
  const net = circuit.netAt('d0', 'out')!;
  expect(net).toBe(circuit.netAt('d4', 'in'));
  expect(net.leads).toHaveLength(4);
  expect(net.leadFarads * 1e12).toBeCloseTo(4 * 2 * 120, 6);
});

test('an engaged pedal cuts the net in two', () => {
  const rig = chainOf(['guitar-single-coil', ['drive-low', { engaged: true }], 'buffer'], 1);
  const circuit = buildCircuit(rig, rig.sounds[0]);
  expect(circuit.netAt('d0', 'out')).not.toBe(circuit.netAt('d2', 'in'));
  expect(circuit.stages.map((s) => s.device)).toEqual(['d1', 'd2']);
});

test('an input that several stages read loads its source once', () => {
  const rig = rigOf(
    [device('g', 'guitar-active', 'G'), device('s', 'splitter-buffered', 'S')],
    [lead('1', 'g.out', 's.in', 0)],
  );
  const net = buildCircuit(rig, rig.sounds[0]).netAt('s', 'in')!;
  expect(net.shunts.filter((s) => s.ohms === 1e6)).toHaveLength(1);
});

test('air is a hop that takes time and joins no grounds; MIDI leads carry nothing here', () => {
  const rig = rigOf(
    [device('c', 'cabinet', 'C'), device('m', 'microphone', 'M')],
    [lead('1', 'c.air', 'm.air', 2, 'air')],
  );
  const hop = buildCircuit(rig, rig.sounds[0]).stages.find((s) => s.lead === '1')!;
  expect([hop.stage.latencyMs, hop.stage.groundThrough]).toEqual([5.8, false]);
  const digital = rigOf(
    [device('g', 'guitar-active', 'G'), device('b', 'buffer', 'B')],
    [lead('1', 'g.out', 'b.in', 2, 'midi')],
  );
  expect(
    runSignal(buildCircuit(digital, digital.sounds[0])).present(
      buildCircuit(digital, digital.sounds[0]).netAt('b', 'in')!.index,
    ).flows,
  ).toEqual([]);
});

test('passes are remembered while device, state and plugs stay the same, and only then', () => {
  const rig = chainOf(['guitar-active', 'chorus', 'buffer']);
  const plugged = pluggedJacks(rig);
  const first = passesOf(rig.devices[1]!, rig.sounds[0], plugged);
  expect(passesOf(rig.devices[1]!, rig.sounds[0], plugged)).toBe(first);
  expect(
    passesOf(rig.devices[1]!, { ...rig.sounds[0]!, states: { d1: { engaged: true } } }, plugged),
  ).not.toBe(first);
  expect(
    passesOf(rig.devices[1]!, rig.sounds[0], new Map([['d1', new Set(['in', 'out', 'outR'])]])),
  ).not.toBe(first);
  expect(passesOf({ ...rig.devices[1]! }, rig.sounds[0], plugged)).not.toBe(first);
});

/** A head on a box whose legs are cabinets, or boxes again: what its line sees, and each leg's share. */
test.each([
  ['two in series', ['a8', 'b8'], 16],
  ['one leg open: no load at all', ['a8'], undefined],
  ['a box on the leg of a box, whichever is written first', ['a8', 'b.8', 'b.4'], 20],
])('speaker boxes: %s', (_, loads, sum) => {
  const nested = loads.some((l) => l.includes('.'));
  const devices = [
    device('h', 'head-tube', 'H'),
    ...(nested ? [device('y', 'speaker-series', 'Y')] : []),
    device('x', 'speaker-series', 'X'),
    ...loads.map((l, i) =>
      device(`c${i}`, 'cabinet', `C${i}`, {
        figures: { ohms: { value: Number(l.replace(/\D/g, '')), from: 'sheet' } },
      }),
    ),
  ];
  const legs = { a: 'x.a', b: 'x.b' };
  const leads = [
    lead('h', 'h.speaker', 'x.in', 1, 'speaker'),
    ...(nested ? [lead('y', 'x.b', 'y.in', 1, 'speaker')] : []),
    ...loads.map((l, i) => {
      const from = l.includes('.') ? `y.${'ab'[i - 1]!}` : legs[l[0] as 'a' | 'b'];
      return lead(`l${i}`, from, `c${i}.in`, 1, 'speaker');
    }),
  ];
  for (const order of [devices, devices.toReversed()]) {
    const rig = rigOf(order, leads);
    const circuit = buildCircuit(rig, rig.sounds[0]);
    const line = circuit.netAt('x', 'in')!;
    expect(line.shunts.find((s) => s.ohms === sum)?.ohms).toBe(sum);
    // Each load takes its share of the power: all of them together are the line's.
    const seen = line.coils.reduce((s, c) => s + 1 / c.ohms, 0);
    if (sum === undefined) expect(line.coils).toEqual([]);
    else expect(1 / seen).toBeCloseTo(sum, 6);
  }
});
