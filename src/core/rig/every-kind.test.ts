import { analyse, analyseSound } from '../report';
import { walkOrder } from '../walk';
import { hybridRig } from '../demo';
import { KINDS, kindOf } from '../kinds';
import { chainOf, device, rigOf, sound } from '../testing/rigs';
import {
  applyEdit,
  applyEdits,
  type Edit,
  freshId,
  integrityProblems,
  problemLines,
  readRig,
  record,
  type Rig,
  startHistory,
  undo,
  writeRig,
} from '.';

const base = chainOf(['guitar-active', 'buffer', 'console-input'], 1, [
  sound('a', 'A', ['d1']),
  sound('b', 'B', []),
]);
const standing = KINDS.filter((k) => !k.jacks.every((j) => j.connector === 'inside'));
const blocks = KINDS.filter((k) => k.block && k.through);

function sane(rig: Rig): void {
  expect(integrityProblems(rig)).toEqual([]);
  const again = readRig(writeRig(rig));
  expect(again.ok ? again.value : problemLines(again.problems)).toEqual(rig);
  for (const s of analyse(rig).sounds)
    for (const d of s.destinations)
      if (d.levelDbu) expect(Number.isFinite(d.levelDbu.normal)).toBe(true);
}
function undone(rig: Rig, edits: Edit[]): Rig {
  const done = applyEdits(rig, edits);
  if (!done.ok) throw new Error(done.problems[0]!.what);
  expect(undo(record(startHistory(rig), done.value, 'one step'))?.history.rig).toEqual(rig);
  return done.value.rig;
}

describe.each(standing.map((k) => [k.id, k] as const))('%s', (id, kind) => {
  const fresh = device('x', id, 'X');
  test('put into a lead and taken out again, the route is what it was; or it is refused with what to do', () => {
    const done = applyEdit(base, {
      edit: 'insertInLead',
      lead: 'l1',
      device: fresh,
      newLeads: ['n1', 'n2'],
    });
    if (!done.ok)
      return expect(done.problems[0]!.what).toMatch(/no way through|cannot|takes|lead|jack/);
    sane(done.value.rig);
    expect(walkOrder(done.value.rig)).toContain('x');
    const healed = undone(done.value.rig, [{ edit: 'removeDevice', device: 'x' }]);
    expect(walkOrder(healed)).toEqual(walkOrder(base));
    expect(healed.leads).toHaveLength(base.leads.length);
  });
  test('on its own, in each state of each of its settings, it can be read, written and analysed', () => {
    for (const p of kind.parameters) {
      const values =
        p.type === 'knob'
          ? [p.min, p.max]
          : p.type === 'switch'
            ? [true, false]
            : p.type === 'choice'
              ? p.options.map((o) => o.value)
              : [p.initial];
      for (const value of values)
        sane(
          undone(rigOf([fresh], []), [
            { edit: 'setSetting', device: 'x', sound: 's1', setting: p.id, value },
          ]),
        );
    }
  });
  test('every figure can be measured at the ends of its range, and no further', () => {
    for (const f of kind.figures) {
      const [low, high] = [f.min, f.max];
      for (const value of [low, high])
        sane(
          undone(rigOf([fresh], []), [
            {
              edit: 'overrideFigure',
              device: 'x',
              figure: f.id,
              override: { value, from: 'measured', on: '2026-02-03' },
            },
          ]),
        );
      const beyond = applyEdit(rigOf([fresh], []), {
        edit: 'overrideFigure',
        device: 'x',
        figure: f.id,
        override: { value: high + Math.abs(high) + 1, from: 'sheet' },
      });
      expect(beyond.ok ? 'taken' : beyond.problems[0]!.what).toContain('is not believable');
    }
  });
});

/** Slots in use of the hybrid rig's modeler, in its first sound. */
function slotsUsed(rig: Rig): number {
  const [first] = rig.sounds;
  return analyseSound(rig, first!).figures.hosts.find((h) => h.host === 'lode')!.used.slots;
}
const slotsBefore = slotsUsed(hybridRig);

test.each(blocks.map((k) => [k.id] as const))(
  '%s goes into a link inside a modeler with one edit, and out again',
  (id) => {
    const link = hybridRig.leads.find((l) => l.id === 'i02')!;
    const ids = [
      freshId(
        'n',
        hybridRig.leads.map((l) => l.id),
      ),
      freshId(
        'm',
        hybridRig.leads.map((l) => l.id),
      ),
    ];
    const rig = undone(hybridRig, [
      { edit: 'insertInLead', lead: link.id, device: device('x', id, 'X'), newLeads: ids },
    ]);
    expect(rig.devices.find((d) => d.id === 'x')!.host).toBe('lode');
    expect(
      rig.leads
        .filter((l) => l.from.device === 'x' || l.to.device === 'x')
        .every((l) => l.type === 'inside' && l.metres === 0),
    ).toBe(true);
    expect(integrityProblems(rig)).toEqual([]);
    expect(slotsUsed(rig) - slotsBefore).toBe(kindOf(id).block!.slots);
    const healed = undone(rig, [{ edit: 'removeDevice', device: 'x' }]);
    expect(
      healed.leads.some(
        (l) =>
          l.from.device === link.from.device &&
          l.from.jack === link.from.jack &&
          l.to.device === link.to.device &&
          l.to.jack === link.to.jack,
      ),
    ).toBe(true);
  },
);

test.each(
  KINDS.filter((k) => !k.block && !k.hosts && k.through && !k.jacks.some((j) => j.inside)).map(
    (k) => [k.id] as const,
  ),
)('%s, which has no block form, is refused inside a modeler', (id) => {
  const done = applyEdit(hybridRig, {
    edit: 'insertInLead',
    lead: 'i02',
    device: device('x', id, 'X'),
    newLeads: ['n1', 'n2'],
  });
  expect(done.ok ? 'taken' : done.problems[0]!.what).toMatch(/no block form|cannot live inside/);
});

test.each(KINDS.filter((k) => k.through && k.block).map((k) => [k.id] as const))(
  'a drive replaced by %s keeps its place and both its leads',
  (id) => {
    const rig = chainOf(['guitar-active', 'drive-low', 'console-input'], 1);
    const done = applyEdit(rig, { edit: 'replaceDevice', device: 'd1', kind: id });
    if (!done.ok) return expect(done.problems[0]!.what.length).toBeGreaterThan(15);
    expect(walkOrder(done.value.rig)).toEqual(['d0', 'd1', 'd2']);
    sane(done.value.rig);
  },
);

test('an edit whose values are frozen does what it does, inside a modeler too, and leaves them alone', () => {
  const frozen = Object.freeze(device('x', 'boost', 'X', { supply: { device: 'psu' } }));
  const done = applyEdit(hybridRig, {
    edit: 'insertInLead',
    lead: 'i02',
    device: frozen,
    newLeads: ['n1', 'n2'],
  });
  expect(done.ok && done.value.rig.devices.find((d) => d.id === 'x')?.host).toBe('lode');
  expect(frozen).toMatchObject({ supply: { device: 'psu' } });
  expect(frozen.host).toBeUndefined();
});
