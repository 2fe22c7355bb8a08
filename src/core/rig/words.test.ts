import { KINDS } from '../kinds';
import { chainOf, device, lead, sound } from '../testing/rigs';
import { compareSounds } from '../changes';
import {
  type Edit,
  EDITS,
  editSchema,
  editWords,
  endWords,
  leadFrom,
  leadInto,
  partnerEnd,
  partnerLead,
  settingWords,
} from '.';
import { EXAMPLE_SHEETS, touringRig } from '../demo';

const rig = chainOf(['guitar-single-coil', 'drive-low', 'delay', 'console-input'], 0.5, [
  sound('s1', 'One', []),
  sound('s2', 'Two', ['d1']),
]);
const x = device('x', 'boost', 'Flare');

/** Every edit there is, and what is said of it. */
const TOLD: [Edit, string][] = [
  [{ edit: 'renameRig', name: 'New' }, 'renamed the rig to New'],
  [{ edit: 'setRigNotes', notes: 'n' }, 'changed the notes of the rig'],
  [{ edit: 'addDevice', device: x }, 'added Flare'],
  [
    { edit: 'insertInLead', lead: 'l1', device: x, newLeads: ['a', 'b'] },
    'put Flare between Device 1 and Device 2',
  ],
  [
    { edit: 'append', after: { device: 'd2', jack: 'outR' }, device: x, newLead: 'a' },
    'put Flare after Device 2, out right',
  ],
  [{ edit: 'removeDevice', device: 'd1' }, 'removed Device 1'],
  [
    { edit: 'moveDevice', device: 'd2', lead: 'l0', newLeads: ['a', 'b'] },
    'moved Device 2 between Device 0 and Device 1',
  ],
  [
    { edit: 'replaceDevice', device: 'd1', kind: 'drive-high' },
    'replaced Device 1 by Drive, high gain',
  ],
  [
    { edit: 'connect', lead: lead('n', 'd2.outR', 'd3.in', 1) },
    'connected Device 2, out right to Device 3, in',
  ],
  [{ edit: 'disconnect', lead: 'l0' }, 'disconnected Device 0, out from Device 1, in'],
  [
    { edit: 'swapEnds', leads: ['l0', 'l1'] },
    'exchanged where the leads from Device 0, out and Device 1, out go',
  ],
  [{ edit: 'setLead', lead: 'l0', metres: 3 }, 'changed the lead between Device 0 and Device 1'],
  [{ edit: 'setDevice', device: 'd1', name: 'Brine' }, 'renamed Device 1 to Brine'],
  [{ edit: 'setDevice', device: 'd1', notes: 'n' }, 'changed the record of Device 1'],
  [{ edit: 'setDevice', device: 'd1', supply: { device: 'd2' } }, 'plugged Device 1 into Device 2'],
  [
    { edit: 'setDevice', device: 'd1', power: { milliamps: 30 } },
    'changed what Device 1 takes of power',
  ],
  [
    { edit: 'setDevice', device: 'd1', jackSpots: { in: { edge: 'rear', mm: 20 } } },
    'changed the measures of Device 1',
  ],
  [
    { edit: 'asUsual', device: 'd1', what: ['power', 'jackSpots'] },
    'gave Device 1 what is usual for its kind (power, jacks)',
  ],
  [{ edit: 'setEngaged', device: 'd1', sound: 's1', engaged: true }, 'engaged Device 1 in One'],
  [
    { edit: 'setSetting', device: 'd1', setting: 'tone', value: 0 },
    "set Device 1, Tone at 7 o'clock, in every sound",
  ],
  [{ edit: 'clearState', device: 'd1', sound: 's2' }, 'Device 1 follows its own setting in Two'],
  [
    {
      edit: 'overrideFigure',
      device: 'd1',
      figure: 'noiseDbu',
      override: { value: -99, from: 'measured' },
    },
    'gave Device 1 a measured figure',
  ],
  [
    { edit: 'clearFigure', device: 'd1', figure: 'noiseDbu' },
    'Device 1 goes back to a typical figure',
  ],
  [{ edit: 'addSound', sound: sound('s3', 'Three', []) }, 'added the sound Three'],
  [{ edit: 'copySound', sound: 's1', id: 's3', name: 'Three' }, 'copied the sound One to Three'],
  [{ edit: 'renameSound', sound: 's1', name: 'Uno' }, 'renamed the sound One to Uno'],
  [{ edit: 'setSoundNotes', sound: 's1', notes: 'n' }, 'changed the notes of One'],
  [{ edit: 'moveSound', sound: 's2', to: 0 }, 'moved the sound Two to place 1'],
  [{ edit: 'removeSound', sound: 's2' }, 'removed the sound Two'],
  [
    { edit: 'setStance', rule: 'pitch-early', stance: { stance: 'other' } },
    'chose "other" for an order rule',
  ],
  [{ edit: 'acceptFinding', finding: 'f', reason: 'r' }, 'accepted a finding'],
  [{ edit: 'reopenFinding', finding: 'f' }, 'took a finding up again'],
  [
    { edit: 'setReference', reference: { metres: 3, pfPerMetre: 100, ohms: 1e6 } },
    'changed the reference lead',
  ],
  [
    { edit: 'tick', step: 'x', by: 'OF', at: '2026-11-25T10:00:00Z' },
    'ticked a step of the checklist, OF',
  ],
  [{ edit: 'untick', step: 'x' }, 'took a tick back'],
  [{ edit: 'setCure', from: '2026-11-25T10:00:00Z', hours: 12 }, 'adhesive sets for 12 h'],
  [
    { edit: 'setMaking', making: { slack: 0.1, step: 0.05, perJoint: 4, perLead: 6 } },
    'changed how leads are made',
  ],
  [
    { edit: 'setBrief', brief: { sources: [], destinations: [], sounds: [], gear: [] } },
    'changed the brief',
  ],
  [
    { edit: 'addPromise', promise: { id: 'p', type: 'hears', destination: 'd3', source: 'd0' } },
    'promised: Device 3 always hears Device 0, in every sound',
  ],
  [
    { edit: 'setPromise', promise: { id: 'p', type: 'one-press', from: 's1', to: 's2' } },
    'changed a promise to: one press from One to Two',
  ],
  [{ edit: 'removePromise', promise: 'p' }, 'took back a promise'],
  [
    { edit: 'moveToLoop', device: 'd2', loops: ['loop1'], newLeads: ['a', 'b'] },
    'moved Device 2 out, onto loop1',
  ],
  [
    {
      edit: 'putInLoop',
      device: { id: 'd2', kind: 'boost', name: 'Device 2' },
      host: 'd1',
      loop: 'insert',
    },
    'put Device 2 into insert of Device 1',
  ],
  [{ edit: 'holdEverywhere', device: 'd1', value: true }, 'engaged Device 1 in every sound'],
  [
    {
      edit: 'paste',
      from: 'Fly board',
      devices: [{ id: 'z', kind: 'boost', name: 'Spare' }],
      leads: [],
      states: {},
    },
    'put in Spare, from Fly board',
  ],
  [{ edit: 'exchange', device: 'd1', with: 'd2' }, 'exchanged Device 1 and Device 2'],
  [{ edit: 'moveFromLoop', device: 'd2' }, 'moved Device 2 in, where its loop stood'],
  [
    { edit: 'setMidi', device: 'd2', midi: { channel: 3 } },
    'changed how Device 2 is set up for MIDI',
  ],
  [
    { edit: 'setTempo', device: 'd2', tempo: { way: 'tap', division: 'dotted eighth' } },
    'Device 2 takes its time by tap, dotted eighth',
  ],
  [{ edit: 'unplugPower', device: 'd1' }, 'took Device 1 off its supply'],
  [
    { edit: 'setExpects', device: 'd2', jack: 'tap', expects: { contact: 'closed' } },
    'changed what Device 2, tap in expects',
  ],
  [
    { edit: 'setProgram', device: 'd2', sound: 's1', program: { bank: 2, number: 5 } },
    'Device 2 keeps One at wire bank 2 program 5',
  ],
  [
    { edit: 'setProgram', device: 'd2', sound: 's1', program: null },
    'took One off the programs of Device 2',
  ],
  [
    {
      edit: 'setSends',
      sound: 's1',
      from: 'd2',
      sends: [{ from: 'd2', message: { type: 'program', channel: 1, number: 0 } }],
    },
    'wrote out what Device 2 sends in One',
  ],
  [
    { edit: 'setSends', sound: 's1', from: 'd2', sends: null },
    'Device 2 sends what follows from the programs in One',
  ],
  [
    { edit: 'addControl', control: { id: 'c', name: 'Swap', type: 'switch', assigns: [] } },
    'added the control Swap',
  ],
  [
    { edit: 'setControl', control: { id: 'c', name: 'Swap', type: 'switch', assigns: [] } },
    'changed the control Swap',
  ],
  [{ edit: 'removeControl', control: 'c' }, 'removed the control c'],
  [{ edit: 'setPosition', sound: 's1', control: 'c', at: 40 }, 'c at 40 % in One'],
  [
    { edit: 'addSong', song: { id: 'x', title: 'Brine', bpm: 96, sections: [] } },
    'added the song Brine',
  ],
  [
    { edit: 'setSong', song: { id: 'x', title: 'Brine', bpm: 97, sections: [] } },
    'changed the song Brine',
  ],
  [{ edit: 'removeSong', song: 'x' }, 'removed the song x'],
  [{ edit: 'addSet', set: { id: 'x', name: 'Ferry', entries: [] } }, 'added the set Ferry'],
  [{ edit: 'setSet', set: { id: 'x', name: 'Ferry', entries: [] } }, 'changed the set Ferry'],
  [{ edit: 'removeSet', set: 'x' }, 'removed the set x'],
  [{ edit: 'setCandidates', candidates: [] }, 'changed which controllers are compared'],
  [{ edit: 'setControllerWants', wants: { quiet: true } }, 'changed what a controller must have'],
  [{ edit: 'placeOnBoard', device: 'd1', at: { board: 'b', x: 1, y: 2 } }, 'placed Device 1 on b'],
  [{ edit: 'placeOnBoard', device: 'd1', at: null }, 'took Device 1 off its board'],
  [
    { edit: 'placeInRack', device: 'd1', rack: { rack: 'r', unit: 4 } },
    'mounted Device 1 in r, unit 4',
  ],
  [{ edit: 'placeInRack', device: 'd1', rack: null }, 'took Device 1 out of its rack'],
  [
    { edit: 'addBoard', board: { id: 'b', name: 'Deck', width: 600, depth: 300, rails: [] } },
    'added the board Deck',
  ],
  [
    { edit: 'setBoard', board: { id: 'b', name: 'Deck', width: 600, depth: 300, rails: [] } },
    'changed the board Deck',
  ],
  [{ edit: 'removeBoard', board: 'b' }, 'removed the board b'],
  [
    { edit: 'addRack', rack: { id: 'r', name: 'Tide', units: 8, depth: 400 } },
    'added the rack Tide',
  ],
  [
    { edit: 'setRack', rack: { id: 'r', name: 'Tide', units: 8, depth: 400 } },
    'changed the rack Tide',
  ],
  [{ edit: 'removeRack', rack: 'r' }, 'removed the rack r'],
  [{ edit: 'setCases', cases: [] }, 'changed the cases'],
  [{ edit: 'addLoom', loom: { id: 'l', name: 'Long', leads: [] } }, 'added the loom Long'],
  [{ edit: 'setLoom', loom: { id: 'l', name: 'Long', leads: [] } }, 'changed the loom Long'],
  [{ edit: 'removeLoom', loom: 'l' }, 'removed the loom l'],
  [
    { edit: 'setStage', stage: { width: 8, depth: 6, spots: [], marks: [] } },
    'changed the stage plot',
  ],
  [{ edit: 'setTour', tour: { countries: ['NO'] } }, 'changed where the rig plays'],
  [{ edit: 'setLimits', limits: { grams: 9000 } }, 'changed the limits'],
  [{ edit: 'replaceRig', rig }, 'went back to another revision'],
  [{ edit: 'putSheet', sheet: EXAMPLE_SHEETS[0]! }, 'wrote a sheet of Tandem Drive'],
  [{ edit: 'removeSheet', sheet: 'old' }, 'removed the sheet of old'],
];

test.each(TOLD)('%j', (edit, words) => expect(editWords(rig, edit)).toBe(words));

test('that is every edit, and each is a value that its schema takes', () => {
  const names = Object.keys(EDITS);
  expect([...new Set(TOLD.map(([e]) => e.edit))].sort()).toEqual([...names].sort());
  for (const [edit] of TOLD) expect(editSchema.safeParse(edit).success).toBe(true);
});

test('settings in words', () => {
  expect(settingWords('gate', 'threshold', -58)).toBe('Threshold −58 dBu');
  expect(settingWords('splitter-passive', 'select', 'both')).toBe('Selects: A and B');
  expect(settingWords('splitter-buffered', 'invertB', true)).toBe('Turn polarity of B: on');
  expect(settingWords(undefined, 'later', 4)).toBe('later 4');
  for (const k of KINDS)
    for (const p of k.parameters) expect(settingWords(k.id, p.id, p.initial)).toContain(p.label);
});

test('two sounds compared: only what differs, by what holds in each', () => {
  expect(compareSounds(rig, 's1', 's2')).toEqual(['Device 1 engaged in Two']);
  expect(compareSounds(rig, 's2', 's1')).toEqual(['Device 1 bypassed in One']);
  expect(compareSounds(rig, 's1', 's1')).toEqual([]);
  expect(compareSounds(rig, 's1', 'gone')).toEqual([]);
});

test('leads and ends are found by what they join', () => {
  expect(leadFrom(rig, 'd0', 'out')!.id).toBe('l0');
  expect(leadInto(rig, 'd3', 'in')!.id).toBe('l2');
  expect(leadInto(rig, 'd2', 'inR')).toBeUndefined();
  expect(partnerEnd(rig, { device: 'd2', jack: 'out' })).toEqual({ device: 'd2', jack: 'outR' });
  expect(partnerEnd(rig, { device: 'd1', jack: 'out' })).toBeUndefined();
  expect(
    partnerLead(
      touringRig,
      touringRig.leads.find((l) => l.id === 'l23')!,
    )!.id,
  ).toBe('l24');
  expect(endWords(rig, { device: 'gone', jack: 'out' })).toBe('gone, out');
});
