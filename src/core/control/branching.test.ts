import { controlRemarks } from '../report/checks';
import { applyEdits, type Rig } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';

const toldBy = (rig: Rig, rule: string) =>
  controlRemarks(rig)
    .map((r) => r.remark)
    .filter((r) => r.rule === rule);

test('one pot on a branching lead serves nobody; one switch for two of a kind joins their grounds', () => {
  const branching = (kind: string, to: string) =>
    rigOf(
      [device('p', kind, 'Treadle'), device('a', 'delay', 'A'), device('b', 'delay', 'B')],
      ['a', 'b'].map((d) => lead(`l${d}`, 'p.out', `${d}.${to}`, 1, 'control')),
      [sound('s', 'S', [])],
    );
  const [pot] = toldBy(branching('expression-pedal', 'exp'), 'control-branch');
  expect(pot).toMatchObject({
    severity: 'fault',
    what: 'One pot in Treadle cannot serve A and B.',
    subjects: ['p', 'a', 'b'],
  });
  expect(toldBy(branching('foot-switch', 'tap'), 'control-branch')).toEqual([]);
  expect(toldBy(branching('foot-switch', 'tap'), 'control-branch-ground')).toMatchObject([
    { severity: 'advice', subjects: ['p', 'a', 'b'] },
  ]);
});

test('one switch cannot serve what expects it open and what expects it closed: each is named with what it wants', () => {
  const rig = rigOf(
    [device('p', 'foot-switch', 'Tap'), device('a', 'delay', 'A'), device('b', 'tremolo', 'B')],
    ['a', 'b'].map((d) => lead(`l${d}`, 'p.out', `${d}.tap`, 1, 'control')),
    [sound('s', 'S', [])],
  );
  const done = applyEdits(rig, [
    { edit: 'setExpects', device: 'a', jack: 'tap', expects: { contact: 'open' } },
    { edit: 'setExpects', device: 'b', jack: 'tap', expects: { contact: 'closed' } },
  ]);
  const [told] = done.ok ? toldBy(done.value.rig, 'control-branch') : [];
  expect(told).toMatchObject({
    severity: 'fault',
    what: 'One lead from Tap cannot serve A and B.',
    subjects: ['p', 'a', 'b'],
  });
  expect(told!.why).toContain('A open, B closed');
});
