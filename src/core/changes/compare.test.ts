import { applyEdits, type Edit, type Rig, type Song } from '../rig';
import { chainOf, device, lead, rigOf } from '../testing/rigs';
import { compareRigs } from './';

const song = (id: string, title: string, rest: Partial<Song> = {}): Song => ({
  id,
  title,
  bpm: 96,
  sections: [{ id: 'a', name: 'A', bars: 8, sound: 's1' }],
  ...rest,
});
const after = (rig: Rig, ...edits: Edit[]): string[] => {
  const done = applyEdits(rig, edits);
  if (!done.ok) throw new Error(done.problems[0]?.what);
  return compareRigs(rig, done.value.rig);
};

test('two songs of one title are told apart by what they are, not by what is said of them', () => {
  const before = rigOf([], [], undefined, {
    songs: [song('x', 'Low water'), song('y', 'Low water', { bpm: 120 })],
  });
  const now = {
    ...before,
    songs: [song('x', 'Low water', { bpm: 100 }), song('y', 'Low water', { bpm: 140, key: 'E' })],
  };
  expect(compareRigs(before, now)).toEqual([
    'changed the song Low water: bpm 100 (was 96)',
    'changed the song Low water: bpm 140 (was 120), key E (was not said)',
  ]);
});

describe('leads, while devices come and go', () => {
  const rig = chainOf(['guitar-active', 'boost', 'buffer', 'console-input'], 0.5);
  const tail = { id: 'x', kind: 'delay', name: 'Echo' };

  test('a device put into a lead, taken out or moved is one thing that happened', () => {
    expect(
      after(rig, { edit: 'insertInLead', lead: 'l1', device: tail, newLeads: ['n1', 'n2'] }),
    ).toEqual(['added Echo (Delay)']);
    expect(after(rig, { edit: 'removeDevice', device: 'd1' })).toEqual(['removed Device 1']);
    expect(
      after(rig, { edit: 'moveDevice', device: 'd1', lead: 'l2', newLeads: ['n1', 'n2'] }),
    ).toEqual([expect.stringMatching(/^moved Device [12] /)]);
  });

  test('what was plugged and pulled elsewhere in the same step is told beside it', () => {
    const two = rigOf(
      [...rig.devices, device('g', 'guitar-active', 'Spare'), device('c', 'console-input', 'Desk')],
      [...rig.leads, lead('s1', 'g.out', 'c.in', 3)],
    );
    expect(
      after(two, { edit: 'removeDevice', device: 'd1' }, { edit: 'disconnect', lead: 's1' }),
    ).toEqual(['removed Device 1', 'disconnected Spare, out from Desk, in']);
    expect(
      after(
        two,
        { edit: 'disconnect', lead: 's1' },
        { edit: 'addDevice', device: { id: 'm', kind: 'boost', name: 'Lift' } },
        { edit: 'connect', lead: lead('k1', 'g.out', 'm.in', 1) },
      ),
    ).toEqual([
      'added Lift (Boost)',
      'connected Spare, out to Lift, in',
      'disconnected Spare, out from Desk, in',
    ]);
  });
});
