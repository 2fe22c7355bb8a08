import { applyEdits } from '../rig';
import { chainOf, device, lead, rigOf } from '../testing/rigs';
import { kindOf } from '../kinds';
import { valueOf } from '../testing/value-of';
import { coilFix, insertFix, insertWideFix, moveFix } from './insert-fix';

test('a new device goes between, with ids that nothing else has', () => {
  const rig = chainOf(['guitar-active', 'buffer', 'console-input']);
  const taken = {
    ...rig,
    devices: [...rig.devices, device('buffer', 'buffer', 'Buffer')],
    leads: rig.leads.map((l, i) => ({ ...l, id: ['buffer-2-lead', 'buffer-2-lead-2'][i] ?? l.id })),
  };
  const fix = insertFix(taken, 'buffer', 'Buffer', 'buffer-2-lead', 'Put one in');
  expect(fix).toEqual({
    words: 'Put one in',
    edits: [
      {
        edit: 'insertInLead',
        lead: 'buffer-2-lead',
        device: { id: 'buffer-2', kind: 'buffer', name: 'Buffer' },
        newLeads: ['buffer-2-lead-3', 'buffer-2-lead-2-2'],
      },
    ],
  });
  expect(applyEdits(taken, fix.edits).ok).toBe(true);
});

test('the ids of the two leads are never one, whatever is taken', () => {
  const rig = rigOf(
    [
      device('a', 'guitar-active', 'A'),
      device('b', 'console-input', 'B'),
      device('c', 'boost', 'C'),
    ],
    [lead('x', 'a.out', 'b.in', 1)],
  );
  const fix = moveFix(rig, 'c', 'x', 'Move it');
  expect(fix.edits).toEqual([
    { edit: 'moveDevice', device: 'c', lead: 'x', newLeads: ['c-lead', 'c-lead-2'] },
  ]);
});

test('a box with two sides goes into two leads, the left into the first; each side keeps its lead and its ends', () => {
  const devices = [
    device('a', 'reverb', 'A'),
    device('b', 'console-input', 'B', {}),
    device('c', 'console-input', 'C'),
  ];
  const sides = [
    lead('l', 'a.out', 'b.in', 2, 'instrument'),
    lead('r', 'a.outR', 'c.in', 5, 'balanced'),
  ] as const;
  const rig = rigOf(devices, [...sides]);
  const fix = insertWideFix(rig, 'delay', 'Echo', sides, 'Put one in')!;
  const made = valueOf(applyEdits(rig, fix.edits)).rig;
  const ends = made.leads.map(
    (x) => `${x.from.device}.${x.from.jack} > ${x.to.device}.${x.to.jack} ${x.type} ${x.metres}`,
  );
  const { through, jacks } = kindOf('delay');
  const [into, out] = [through!.in, through!.out];
  const [intoRight, outRight] = [into, out].map((j) => jacks.find((x) => x.id === j)!.pair!.with);
  expect(ends.sort()).toEqual(
    [
      `a.out > echo.${into} instrument 2`,
      `echo.${out} > b.in instrument 2`,
      `a.outR > echo.${intoRight} balanced 5`,
      `echo.${outRight} > c.in balanced 5`,
    ].sort(),
  );
  expect(made.devices.find((d) => d.id === 'echo')).toMatchObject({ kind: 'delay', engaged: true });
  expect(new Set(made.leads.map((l) => l.id)).size).toBe(4);
  // What has one side only cannot take two.
  expect(insertWideFix(rig, 'compressor', 'Squash', sides, 'Put one in')).toBeUndefined();
});

test('what a fix puts in is switched on, unless its kind is on always or from the start', () => {
  const rig = chainOf(['guitar-active', 'console-input']);
  const engaged = (kind: string) => {
    const [edit] = insertFix(rig, kind, 'New', 'l0', 'Put one in', { level: 4 }).edits;
    return edit?.edit === 'insertInLead' ? [edit.device.engaged, edit.device.settings] : [];
  };
  expect(engaged('compressor')).toEqual([true, { level: 4 }]);
  expect(engaged('buffer')).toEqual([undefined, { level: 4 }]);
});

test('a coil goes into the lead in front of what wants a pickup; without a lead there is no such fix', () => {
  const rig = chainOf(['guitar-active', 'console-input']);
  expect(coilFix(rig, undefined, 'Fuzz')).toBeUndefined();
  const fix = coilFix(rig, rig.leads[0], 'Fuzz')!;
  expect(fix.words).toBe('Put a pickup simulator in front of Fuzz');
  const made = valueOf(applyEdits(rig, fix.edits)).rig;
  expect(made.leads.map((l) => `${l.from.device} > ${l.to.device}`)).toEqual([
    'd0 > pickup-simulator',
    'pickup-simulator > d1',
  ]);
});
