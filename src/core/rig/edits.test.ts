import fc from 'fast-check';
import { KINDS, kindOf } from '../kinds';
import { DEMO_RIGS, hybridRig, touringRig } from '../demo';
import { chainOf, device, lead, rigOf, sound } from '../testing/rigs';
import { compareRigs } from '../changes';
import { walkOrder } from '../walk';
import {
  applyEdit,
  applyEdits,
  deviceOf,
  type Edit,
  editWords,
  freshId,
  hostLoopOf,
  integrityProblems,
  isEngaged,
  record,
  redo,
  type Rig,
  sameJson,
  settingOf,
  startHistory,
  stateIn,
  undo,
} from '.';
import { cases } from '../testing/cases';

const apply = (rig: Rig, ...edits: Edit[]): Rig => {
  const r = applyEdits(rig, edits);
  if (!r.ok) throw new Error(r.problems[0]!.what);
  return r.value.rig;
};
const refusal = (rig: Rig, edit: Edit): string => {
  const r = applyEdit(rig, edit);
  return r.ok ? 'done' : r.problems[0]!.what;
};
const chain = () =>
  chainOf(['guitar-single-coil', 'compressor', 'drive-low', 'delay', 'console-input'], 0.5, [
    sound('s1', 'One', ['d1']),
    sound('s2', 'Two', ['d2']),
  ]);

describe('the route', () => {
  test('insert cuts a lead in two, remove heals it', () => {
    const inserted = apply(chain(), {
      edit: 'insertInLead',
      lead: 'l1',
      device: device('x', 'boost', 'X'),
      newLeads: ['n1', 'n2'],
    });
    expect(walkOrder(inserted)).toEqual(['d0', 'd1', 'x', 'd2', 'd3', 'd4']);
    const healed = apply(inserted, { edit: 'removeDevice', device: 'x' });
    expect(walkOrder(healed)).toEqual(walkOrder(chain()));
    expect(healed.leads).toHaveLength(4);
  });
  test('move heals the old place and cuts the new one', () => {
    const moved = apply(chain(), {
      edit: 'moveDevice',
      device: 'd3',
      lead: 'l1',
      newLeads: ['n1', 'n2'],
    });
    expect(walkOrder(moved)).toEqual(['d0', 'd1', 'd3', 'd2', 'd4']);
    expect(compareRigs(chain(), moved)).toEqual(['moved Device 3 before Device 2']);
    expect(integrityProblems(moved)).toEqual([]);
  });
  test('wherever a device is moved, its messages, controls and outputs to elsewhere stay plugged', () => {
    let looked = 0;
    for (const rig of DEMO_RIGS)
      for (const device of rig.devices) {
        const { through, jacks } = kindOf(device.kind);
        const way = through && [through.in, through.out];
        const pairs = jacks.filter((j) => j.pair && way?.includes(j.pair.with)).map((j) => j.id);
        const others = rig.leads.filter((l) =>
          [l.from, l.to].some(
            (e) => e.device === device.id && !way?.includes(e.jack) && !pairs.includes(e.jack),
          ),
        );
        const target = rig.leads.find(
          (l) =>
            l.type === 'instrument' && l.from.device !== device.id && l.to.device !== device.id,
        );
        if (!way || !others.length || !target || device.host !== undefined) continue;
        const moved = applyEdit(rig, {
          edit: 'moveDevice',
          device: device.id,
          lead: target.id,
          newLeads: ['moved-1', 'moved-2'],
        } as const);
        if (!moved.ok) continue;
        looked++;
        for (const l of others) expect(moved.value.rig.leads).toContainEqual(l);
      }
    expect(looked).toBeGreaterThan(10);
  });
  test('a stereo device goes into both leads of a pair, and comes out of both', () => {
    const pair = rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('c', 'chorus', 'C'),
        device('r', 'reverb', 'R'),
        device('e', 'recorder', 'E'),
      ],
      [
        lead('1', 'g.out', 'c.in', 1),
        lead('2', 'c.out', 'r.in', 1),
        lead('2r', 'c.outR', 'r.inR', 1),
        lead('3', 'r.out', 'e.in', 1),
        lead('3r', 'r.outR', 'e.inR', 1),
      ],
    );
    const wide = apply(pair, {
      edit: 'insertInLead',
      lead: '2',
      device: device('d', 'delay', 'D'),
      newLeads: ['n1', 'n2'],
    });
    expect(
      wide.leads
        .filter((l) => l.to.device === 'd')
        .map((l) => l.to.jack)
        .sort(),
    ).toEqual(['in', 'inR']);
    const back = apply(wide, { edit: 'removeDevice', device: 'd' });
    expect(
      back.leads
        .filter((l) => l.from.device === 'c')
        .map((l) => [l.from.jack, l.to.jack])
        .sort(),
    ).toEqual([
      ['out', 'in'],
      ['outR', 'inR'],
    ]);
  });
  test('replace keeps leads, name, matching knobs and figures', () => {
    const rig = chainOf(
      [
        'guitar-single-coil',
        [
          'drive-low',
          {
            name: 'Mine',
            settings: { drive: 7, level: 3 },
            figures: { noiseDbu: { value: -99, from: 'measured' } },
          },
        ],
        'console-input',
      ],
      1,
      [sound('s1', 'One', ['d1'], { d1: { engaged: true, settings: { drive: 8 } } })],
    );
    const d = apply(rig, { edit: 'replaceDevice', device: 'd1', kind: 'drive-high' });
    expect(d.devices[1]).toMatchObject({
      kind: 'drive-high',
      name: 'Mine',
      settings: { drive: 7, level: 3 },
      figures: { noiseDbu: { value: -99 } },
    });
    expect(d.sounds[0]!.states.d1).toEqual({ engaged: true, settings: { drive: 8 } });
    expect(d.leads).toEqual(rig.leads);
    const b = apply(rig, { edit: 'replaceDevice', device: 'd1', kind: 'boost' });
    expect(b.devices[1]!.settings).toEqual({});
  });
  test('append, connect and disconnect', () => {
    const rig = rigOf([device('g', 'guitar-active', 'G')], []);
    const one = apply(rig, {
      edit: 'append',
      after: { device: 'g', jack: 'out' },
      device: device('t', 'tuner-buffered', 'T'),
      newLead: 'n',
    });
    expect(one.leads[0]).toMatchObject({
      from: { device: 'g', jack: 'out' },
      to: { device: 't', jack: 'in' },
    });
    expect(apply(one, { edit: 'disconnect', lead: 'n' }).leads).toEqual([]);
  });
});

describe('refusals say why, and change nothing', () => {
  test.each<[string, Edit]>([
    ['There is no device "gone" any more.', { edit: 'removeDevice', device: 'gone' }],
    [
      'Guitar, single coils has no way through, so it cannot stand in a lead. Add it and connect its jacks.',
      {
        edit: 'insertInLead',
        lead: 'l1',
        device: device('x', 'guitar-single-coil', 'X'),
        newLeads: ['n1', 'n2'],
      },
    ],
    [
      'Device 3 is already there.',
      { edit: 'moveDevice', device: 'd3', lead: 'l3', newLeads: ['n1', 'n2'] },
    ],
    [
      'Drive takes a number from 0 to 10, not 11',
      { edit: 'setSetting', device: 'd2', setting: 'drive', value: 11 },
    ],
    [
      'jack "in" of Device 2 already holds leads[1]; a jack takes one lead',
      { edit: 'connect', lead: lead('n', 'd3.outR', 'd2.in', 1) },
    ],
    [
      'it runs from the input "inR" to the output "outR"; write it the other way round',
      { edit: 'connect', lead: lead('n', 'd3.inR', 'd3.outR', 1) },
    ],
    [
      'Say why this finding is accepted; the reason is kept and printed.',
      { edit: 'acceptFinding', finding: 'x', reason: '  ' },
    ],
    [
      'the id "d1" is used twice; give one of the two another',
      { edit: 'addDevice', device: device('d1', 'boost', 'Again') },
    ],
    ['give it a name', { edit: 'renameSound', sound: 's1', name: '   ' }],
    ['There is no lead "gone" any more.', { edit: 'disconnect', lead: 'gone' }],
    ['There is no lead "gone" any more.', { edit: 'setLead', lead: 'gone', metres: 1 }],
    ['There is no sound "gone" any more.', { edit: 'renameSound', sound: 'gone', name: 'X' }],
    [
      'There is no sound "gone" any more.',
      { edit: 'setEngaged', device: 'd1', sound: 'gone', engaged: true },
    ],
    ['One of the two leads is not there any more.', { edit: 'swapEnds', leads: ['l1', 'gone'] }],
    [
      'There is no kind "nothing".',
      {
        edit: 'append',
        after: { device: 'd3', jack: 'outR' },
        device: { id: 'x', kind: 'nothing', name: 'X' },
        newLead: 'n',
      },
    ],
    [
      'Guitar, single coils has no input to connect.',
      {
        edit: 'append',
        after: { device: 'd3', jack: 'outR' },
        device: device('x', 'guitar-single-coil', 'X'),
        newLead: 'n',
      },
    ],
    ['That promise is not there any more.', { edit: 'removePromise', promise: 'gone' }],
    [
      'That promise is not there any more.',
      { edit: 'setPromise', promise: { id: 'gone', type: 'no-tube-unloaded' } },
    ],
    [
      'Device 1 does not hang on the sends and returns of a host.',
      { edit: 'moveFromLoop', device: 'd1' },
    ],
    [
      '-999 dBu is not believable for "Equivalent input noise"; give -140 to -40 dBu',
      {
        edit: 'overrideFigure',
        device: 'd2',
        figure: 'noiseDbu',
        override: { value: -999, from: 'sheet' },
      },
    ],
  ])('%s', (why, edit) => expect(refusal(chain(), edit)).toBe(why));
  test('the last sound stays', () =>
    expect(
      refusal(chainOf(['guitar-active', 'buffer']), { edit: 'removeSound', sound: 's1' }),
    ).toContain('at least one sound'));
  test('of several edits all are done or none', () => {
    const rig = chain();
    expect(
      applyEdits(rig, [
        { edit: 'renameRig', name: 'Changed' },
        { edit: 'removeDevice', device: 'gone' },
      ]).ok,
    ).toBe(false);
    expect(rig.name).toBe('Test rig');
  });
});

/** An arbitrary edit that fits the rig at hand more often than not. */
const anyEdit = (rig: Rig, n: number): Edit => {
  const pick = <T>(list: readonly T[], k: number): T => list[k % list.length]!;
  const d = pick(rig.devices, n >> 3).id;
  const l = rig.leads.length ? pick(rig.leads, n >> 5).id : 'none';
  const s = pick(rig.sounds, n >> 7).id;
  const kind = pick(KINDS, n >> 4).id;
  const [a, b] = [
    freshId(
      'n',
      rig.leads.map((x) => x.id),
    ),
    freshId(
      'm',
      rig.leads.map((x) => x.id),
    ),
  ];
  const fresh = {
    id: freshId(
      'x',
      rig.devices.map((x) => x.id),
    ),
    kind,
    name: `X ${n}`,
  };
  const edits: Edit[] = [
    { edit: 'insertInLead', lead: l, device: fresh, newLeads: [a, b] },
    { edit: 'moveDevice', device: d, lead: l, newLeads: [a, b] },
    { edit: 'removeDevice', device: d },
    { edit: 'replaceDevice', device: d, kind },
    { edit: 'addDevice', device: fresh },
    { edit: 'disconnect', lead: l },
    { edit: 'setLead', lead: l, metres: n % 40, label: `L${n}` },
    { edit: 'setEngaged', device: d, sound: n % 2 ? s : undefined, engaged: n % 3 === 0 },
    { edit: 'setSetting', device: d, sound: s, setting: 'drive', value: n % 11 },
    { edit: 'clearState', device: d, sound: s },
    {
      edit: 'copySound',
      sound: s,
      id: freshId(
        s,
        rig.sounds.map((x) => x.id),
      ),
      name: `C${n}`,
    },
    { edit: 'moveSound', sound: s, to: n % 3 },
    { edit: 'removeSound', sound: s },
    { edit: 'renameSound', sound: s, name: `N${n}` },
    {
      edit: 'overrideFigure',
      device: d,
      figure: 'noiseDbu',
      override: { value: -60 - (n % 60), from: 'measured', on: '2026-01-02' },
    },
    { edit: 'clearFigure', device: d, figure: 'noiseDbu' },
    { edit: 'setStance', rule: 'pitch-early', stance: { stance: 'ignore', because: `r${n}` } },
    { edit: 'acceptFinding', finding: `f${n % 4}`, reason: 'fine' },
    { edit: 'reopenFinding', finding: `f${n % 4}` },
    {
      edit: 'addPromise',
      promise: {
        id: freshId(
          'p',
          (rig.promises ?? []).map((p) => p.id),
        ),
        type: 'latency-under',
        destination: d,
        ms: 1 + (n % 20),
      },
    },
    {
      edit: 'removePromise',
      promise: rig.promises?.[n % (rig.promises.length || 1)]?.id ?? 'none',
    },
    {
      edit: 'setPromise',
      promise: { id: rig.promises?.[0]?.id ?? 'none', type: 'no-tube-unloaded' },
    },
    {
      edit: 'setBrief',
      brief: {
        ...(rig.brief ?? { sources: [], destinations: [], sounds: [], gear: [] }),
        never: [{ id: 'n', words: `n${n % 5}` }],
      },
    },
    { edit: 'setDevice', device: d, pinned: true },
    {
      edit: 'setDevice',
      device: d,
      supply: { device: rig.devices.find((x) => kindOf(x.kind).outlets)?.id ?? d },
    },
    {
      edit: 'setDevice',
      device: rig.devices.find((x) => kindOf(x.kind).outlets)?.id ?? d,
      gives: {
        outlets: [
          {
            id: String(n % 3),
            volts: 9,
            also: n % 2 ? [12] : [],
            milliamps: 100 + (n % 400),
            isolated: n % 5 > 0,
          },
        ],
      },
    },
    { edit: 'asUsual', device: d, what: n % 2 ? ['power', 'gives'] : ['size', 'jackSpots'] },
    { edit: 'setLead', lead: l, squareMm: 1 + (n % 4) },
    { edit: 'setLead', lead: l, shieldLifted: n % 2 === 0, pfPerMetre: 60 + (n % 90) },
    { edit: 'swapEnds', leads: [l, pick(rig.leads, n >> 2)?.id ?? 'none'] },
    {
      edit: 'append',
      after: { device: d, jack: kindOf(pick(rig.devices, n >> 3).kind).through?.out ?? 'out' },
      device: fresh,
      newLead: a,
    },
    { edit: 'moveFromLoop', device: d },
    { edit: 'setMidi', device: d, midi: { channel: 1 + (n % 16) } },
    { edit: 'setTempo', device: d, tempo: { way: 'tap', division: n % 2 ? 'quarter' : 'eighth' } },
    { edit: 'setProgram', device: d, sound: s, program: n % 5 ? { number: n % 128 } : null },
    {
      edit: 'setSends',
      sound: s,
      from: d,
      sends:
        n % 4 ? [{ from: d, message: { type: 'program', channel: 1, number: n % 128 } }] : null,
    },
    {
      edit: 'addControl',
      control: {
        id: freshId(
          'c',
          (rig.controls ?? []).map((c) => c.id),
        ),
        name: `C${n}`,
        type: 'switch',
        assigns: [{ id: 'a', device: d, setting: 'engaged' }],
      },
    },
    {
      edit: 'setControl',
      control: { id: rig.controls?.[0]?.id ?? 'none', name: `C${n}`, type: 'pedal', assigns: [] },
    },
    { edit: 'removeControl', control: rig.controls?.[0]?.id ?? 'none' },
    {
      edit: 'setPosition',
      sound: s,
      control: rig.controls?.[0]?.id ?? 'none',
      at: n % 3 ? n % 101 : null,
    },
    {
      edit: 'addSong',
      song: {
        id: freshId(
          'song',
          (rig.songs ?? []).map((x) => x.id),
        ),
        title: `S${n}`,
        bpm: 60 + (n % 100),
        sections: [{ id: 'a', name: 'A', bars: 1 + (n % 9), sound: s }],
      },
    },
    {
      edit: 'setSong',
      song: { ...(rig.songs?.[0] ?? { id: 'none', title: 'x', sections: [] }), bpm: 50 + (n % 99) },
    },
    { edit: 'removeSong', song: rig.songs?.[n % (rig.songs.length || 1)]?.id ?? 'none' },
    {
      edit: 'addSet',
      set: {
        id: freshId(
          'set',
          (rig.sets ?? []).map((x) => x.id),
        ),
        name: `Set ${n}`,
        entries: [],
      },
    },
    { edit: 'setSet', set: { ...(rig.sets?.[0] ?? { id: 'none', entries: [] }), name: `N${n}` } },
    { edit: 'removeSet', set: rig.sets?.[0]?.id ?? 'none' },
    {
      edit: 'setCandidates',
      candidates: [
        { id: 'a', name: `K${n}`, switches: n % 9, pedals: 0, pedalJacks: 0, sends: [] },
      ],
    },
    { edit: 'tick', step: `s${n % 4}`, by: 'OF', at: '2026-11-25T10:00:00Z' },
    { edit: 'untick', step: `s${n % 4}` },
    { edit: 'setCure', from: n % 2 ? '2026-11-25T10:00:00Z' : null, hours: n % 30 },
    { edit: 'unplugPower', device: d },
    { edit: 'setMaking', making: { slack: 0.1, step: 0.05, perJoint: n % 9, perLead: 6 } },
    { edit: 'setDevice', device: d, gear: { serial: `N${n}` } },
    { edit: 'setDevice', device: d, power: { milliamps: 10 + (n % 90) } },
    {
      edit: 'placeOnBoard',
      device: d,
      at:
        n % 5
          ? {
              board: rig.boards?.[0]?.id ?? 'none',
              x: n % 700,
              y: n % 300,
              ...(n % 2 && { turn: 90 as const }),
            }
          : null,
    },
    {
      edit: 'placeInRack',
      device: d,
      rack: n % 5 ? { rack: rig.racks?.[0]?.id ?? 'none', unit: 1 + (n % 12) } : null,
    },
    {
      edit: 'addBoard',
      board: {
        id: freshId('b', [...(rig.boards ?? []).map((x) => x.id), ...rig.devices.map((x) => x.id)]),
        name: `B${n}`,
        width: 400 + (n % 300),
        depth: 300,
        rails: [],
      },
    },
    {
      edit: 'setBoard',
      board: {
        ...(rig.boards?.[0] ?? { id: 'none', name: 'x', depth: 300, rails: [] }),
        width: 500 + (n % 90),
      },
    },
    { edit: 'removeBoard', board: rig.boards?.[0]?.id ?? 'none' },
    {
      edit: 'addRack',
      rack: {
        id: freshId('r', [...(rig.racks ?? []).map((x) => x.id), ...rig.devices.map((x) => x.id)]),
        name: `R${n}`,
        units: 4 + (n % 9),
        depth: 400,
      },
    },
    {
      edit: 'setRack',
      rack: { ...(rig.racks?.[0] ?? { id: 'none', name: 'x', depth: 400 }), units: 3 + (n % 20) },
    },
    { edit: 'removeRack', rack: rig.racks?.[0]?.id ?? 'none' },
    { edit: 'setCases', cases: [{ id: 'c', name: `C${n}`, holds: [d] }] },
    {
      edit: 'addLoom',
      loom: {
        id: freshId(
          'l',
          (rig.looms ?? []).map((x) => x.id),
        ),
        name: `L${n}`,
        leads: [l],
      },
    },
    { edit: 'setLoom', loom: { ...(rig.looms?.[0] ?? { id: 'none', leads: [] }), name: `N${n}` } },
    { edit: 'removeLoom', loom: rig.looms?.[0]?.id ?? 'none' },
    {
      edit: 'setStage',
      stage: { width: 5 + (n % 9), depth: 4, spots: [{ id: d, x: 1, y: n % 4 }], marks: [] },
    },
    { edit: 'setTour', tour: { countries: n % 2 ? ['NO'] : ['US', 'JP'] } },
    { edit: 'setLimits', limits: { grams: 1000 + n } },
    { edit: 'setLead', lead: l, pF: n % 3 ? 100 + (n % 900) : null },
    { edit: 'setLead', lead: l, plugs: { from: n % 2 ? 'flat' : 'straight' } },
    { edit: 'setDevice', device: d, size: { width: 50 + (n % 99), depth: 100, height: 50 } },
    { edit: 'setDevice', device: d, mains: { watts: n % 400 } },
    { edit: 'setDevice', device: d, units: 1 + (n % 4) },
    { edit: 'setExpects', device: d, jack: 'tap', expects: { contact: n % 2 ? 'closed' : 'open' } },
    { edit: 'setLead', lead: l, crossed: true },
    { edit: 'setReference', reference: { metres: n % 9, pfPerMetre: 100, ohms: 1e6 } },
    { edit: 'setDevice', device: d, name: `D${n}`, notes: 'n' },
    { edit: 'replaceRig', rig: { ...rig, notes: `back ${n}` } },
  ];
  return pick(edits, n);
};

test(
  'any sequence of edits, undone, gives the identical document, and redone, the same ' +
    'again; it is always a sound document',
  () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat({ max: 100_000 }), { minLength: 1, maxLength: 30 }),
        (numbers) => {
          const start = structuredClone<Rig>(touringRig);
          const frozen = JSON.stringify(start);
          let h = startHistory(start);
          for (const n of numbers) {
            const edit = anyEdit(h.rig, n);
            const r = applyEdit(h.rig, edit);
            if (r.ok) h = record(h, r.value, editWords(h.rig, edit));
          }
          const end = h.rig;
          if (integrityProblems(end).length) return false;
          for (let g = undo(h); g; g = undo(h)) h = g.history;
          if (JSON.stringify(start) !== frozen || !sameJson(h.rig, start)) return false;
          for (let g = redo(h); g; g = redo(h)) h = g.history;
          return sameJson(h.rig, end);
        },
      ),
      { numRuns: cases(25, 60) },
    );
  },
);

test('no edit goes by unsaid: it has its words, and the comparison of before and after tells something', () => {
  const unsaid = new Set<string>();
  fc.assert(
    fc.property(fc.nat({ max: 100_000 }), fc.constantFrom(touringRig, hybridRig), (n, rig) => {
      const edit = anyEdit(rig, n);
      const r = applyEdit(rig, edit);
      if (!r.ok) return r.problems.every((p) => p.what.length > 10);
      if (sameJson(r.value.rig, rig)) return true;
      if (compareRigs(rig, r.value.rig).length === 0) unsaid.add(JSON.stringify(edit));
      return editWords(rig, edit).length > 4;
    }),
    { numRuns: cases(250, 600) },
  );
  expect([...unsaid]).toEqual([]);
});

test('a comparison tells what changed about a lead, a supply, a pin and a host', () => {
  const lead1 = apply(chain(), {
    edit: 'setLead',
    lead: 'l1',
    metres: 4,
    pfPerMetre: 80,
    shieldLifted: true,
    label: 'long',
  });
  expect(compareRigs(chain(), lead1)).toEqual([
    'lead from Device 1, out to Device 2, in: 4 m (was 0.5 m), 80 pF/m (was typical ' +
      'capacitance), shield open at one end (was shield whole), label long (was no label)',
  ]);
  expect(compareRigs(lead1, chain())[0]).toContain('0.5 m (was 4 m)');
  const out = hybridRig.devices.find((d) => hostLoopOf(hybridRig, d.id))!;
  const inside = apply(hybridRig, { edit: 'moveFromLoop', device: out.id });
  expect(compareRigs(hybridRig, inside)).toContain(`moved ${out.name} into Lode modeler`);
  expect(compareRigs(inside, hybridRig)).toContain(`moved ${out.name} out of Lode modeler`);
  expect(
    compareRigs(chain(), apply(chain(), { edit: 'setDevice', device: 'd2', pinned: true })),
  ).toEqual(['pinned Device 2 to its place']);
});

test('edits are told in words', () => {
  const rig = chain();
  expect(
    editWords(rig, { edit: 'moveDevice', device: 'd3', lead: 'l1', newLeads: ['a', 'b'] }),
  ).toBe('moved Device 3 between Device 1 and Device 2');
  expect(
    editWords(rig, { edit: 'setSetting', device: 'd2', sound: 's1', setting: 'drive', value: 5 }),
  ).toBe("set Device 2, Drive at 12 o'clock, in One");
  expect(editWords(rig, { edit: 'setEngaged', device: 'd2', engaged: false })).toBe(
    'bypassed Device 2 in every sound',
  );
});

test('a comparison tells additions, removals, knobs and sounds', () => {
  const after = apply(
    chain(),
    { edit: 'removeDevice', device: 'd1' },
    { edit: 'setSetting', device: 'd2', sound: 's2', setting: 'drive', value: 7.5 },
    { edit: 'copySound', sound: 's2', id: 's3', name: 'Three' },
  );
  expect(compareRigs(chain(), after)).toEqual([
    'removed Device 1',
    'Device 2, Drive at half past 2 in Two',
    'added the sound Three',
  ]);
  expect(compareRigs(chain(), chain())).toEqual([]);
});

test('a delay fed mono and back in stereo goes into the modeler so, and comes out so', () => {
  const { send, back } = { send: 'send2', back: ['return3', 'return4'] };
  expect(hostLoopOf(hybridRig, 'comet')).toEqual({
    host: 'lode',
    ways: [
      { send, back: back[0], into: 'in', outOf: 'out' },
      { send: undefined, back: back[1], into: 'inR', outOf: 'outR' },
    ],
  });
  const inside = apply(hybridRig, { edit: 'moveFromLoop', device: 'comet' });
  const links = inside.leads.filter((l) => l.from.device === 'comet' || l.to.device === 'comet');
  expect(links.map((l) => l.type)).toEqual(['inside', 'inside', 'inside']);
  expect(
    links.map((l) => (l.to.device === 'comet' ? `>${l.to.jack}` : `${l.from.jack}>`)).sort(),
  ).toEqual(['>in', 'out>', 'outR>']);
  const outside = apply(inside, {
    edit: 'moveToLoop',
    device: 'comet',
    loops: ['loop3', 'loop4'],
    newLeads: ['n1', 'n2', 'n3', 'n4'],
  });
  const leads = outside.leads.filter((l) => l.from.device === 'comet' || l.to.device === 'comet');
  expect(leads.map((l) => `${l.from.jack} ${l.to.jack}`).sort()).toEqual([
    'out return3',
    'outR return4',
    'send3 in',
  ]);
});

test('what is held everywhere stands in every sound, and in none on its own', () => {
  const knob = { device: 'kiln', setting: 'drive' };
  for (const edit of [
    { edit: 'holdEverywhere', ...knob, value: 7 },
    { edit: 'holdEverywhere', device: 'kiln', value: false },
  ] as Edit[]) {
    const made = applyEdits(touringRig, [
      { edit: 'setSetting', ...knob, sound: 'lead', value: 2 },
      edit,
    ]);
    if (!made.ok) throw new Error(made.problems[0]!.what);
    const { rig } = made.value;
    const kiln = deviceOf(rig, 'kiln')!;
    for (const sound of rig.sounds) {
      const state = stateIn(sound, 'kiln');
      if ('setting' in edit) expect(settingOf(kindOf(kiln.kind), kiln, state, 'drive')).toBe(7);
      else expect(isEngaged(kindOf(kiln.kind), kiln, state)).toBe(false);
    }
    expect(rig.sounds.every((s) => !('setting' in edit && s.states.kiln?.settings?.drive))).toBe(
      true,
    );
  }
});

test('a knob that is being turned is one step, and what comes between ends it', () => {
  let h = startHistory(touringRig);
  const turn = (value: number, going?: string) => {
    const made = applyEdits(h.rig, [
      { edit: 'setSetting', device: 'kiln', sound: 'lead', setting: 'drive', value },
    ]);
    if (!made.ok) throw new Error(made.problems[0]!.what);
    h = record(h, made.value, `drive ${value}`, going);
  };
  for (const value of [1, 2, 3]) turn(value, 'a');
  expect(h.past.map((s) => s.words)).toEqual(['drive 3']);
  turn(4);
  turn(5, 'a');
  turn(6, 'b');
  expect(h.past.map((s) => s.words)).toEqual(['drive 3', 'drive 4', 'drive 5', 'drive 6']);
  for (let n = 0; n < 4; n++) h = undo(h)!.history;
  expect(h.rig).toEqual(touringRig);
  expect(redo(h)!.history.rig.sounds.find((s) => s.id === 'lead')!.states.kiln!.settings).toEqual(
    expect.objectContaining({ drive: 3 }),
  );
});
