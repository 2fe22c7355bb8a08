import fc from 'fast-check';
import { sheetDifferences } from '../../changes';
import { EXAMPLE_SHEETS } from '../../demo';
import { kindOf } from '../../kinds';
import { analyse } from '../../report';
import { chainOf, device, lead, rigOf, sound } from '../../testing/rigs';
import { applyEdit, applyEdits, mergeRigs, readRig, type Rig, sheetIdOf, writeRig } from '..';
import {
  type Assembly,
  kindIdOf,
  kindOfSheet,
  learnSheets,
  type Sheet,
  sheetProblems,
  sheetSchema,
} from '.';

const sheetOf = (id: string): Sheet => EXAMPLE_SHEETS.find((s) => s.id === id)!;
const assemblies = EXAMPLE_SHEETS.filter((s): s is Assembly => s.is === 'parts');

/** A box between an instrument and a console. */
function rigWith(sheet: Sheet, settings: Record<string, number | string | boolean> = {}): Rig {
  const kind = kindOfSheet(sheet);
  const out = kind.through?.out ?? kind.jacks.find((j) => j.direction === 'out')!.id;
  return {
    ...rigOf(
      [
        device('g', 'guitar-humbucker', 'Guitar'),
        device('box', kind.id, sheet.name, { engaged: true, settings }),
        device('d', 'recorder', 'Recorder'),
      ],
      [lead('a', 'g.out', `box.in`, 3), lead('b', `box.${out}`, 'd.in', 3)],
    ),
    sheets: [sheet],
  };
}

const heardIn = (rig: Rig, at = 'd') =>
  analyse(rig).sounds[0]!.destinations.find((d) => d.device === at);

test.each(EXAMPLE_SHEETS.map((s) => [s.name, s] as const))(
  '%s: can be written, read and used',
  (_, sheet) => {
    expect(sheetSchema.safeParse(sheet).success).toBe(true);
    expect(sheetProblems(sheet)).toEqual([]);
    const rig = rigWith(sheet);
    if (sheet.id === 'gantry-head') return;
    const read = readRig(writeRig(rig));
    expect(read).toMatchObject({ ok: true });
    const heard = heardIn(rig)!;
    expect(heard.sources.length).toBeGreaterThan(0);
  },
);

/** The parts of a box as devices of a rig, with leads of no length for its links. */
function takenApart(sheet: Assembly, rig: Rig): Rig {
  const box = kindOfSheet(sheet);
  const parts = sheet.parts.map((p) => {
    const moved: Record<string, number | string | boolean> = { ...p.settings };
    let engaged = (p.engaged ?? 'box') !== 'never';
    for (const c of sheet.controls)
      for (const m of c.moves) {
        if (m.part !== p.id) continue;
        const own =
          rig.devices[1]!.settings?.[c.id] ?? box.parameters.find((x) => x.id === c.id)!.initial;
        if (c.type === 'knob') moved[m.setting] = own;
        else if (m.setting === 'engaged')
          engaged &&= own === true ? m.on !== false : m.off === true;
      }
    if (p.engaged === 'never') {
      const by = sheet.controls.find((c) =>
        c.moves.some((m) => m.part === p.id && m.setting === 'engaged'),
      );
      engaged = by ? (rig.devices[1]!.settings?.[by.id] ?? by.initial) === true : false;
    }
    return device(p.id, p.kind, p.name, { engaged, settings: moved });
  });
  const end = (id: string) => {
    const at = sheet.jacks.find((j) => j.id === id)!.at[0]!;
    return `${at.part}.${at.jack}`;
  };
  const [a, b] = rig.leads;
  return rigOf(
    [rig.devices[0]!, ...parts, rig.devices[2]!],
    [
      lead('a', 'g.out', end(a!.to.jack), 3),
      ...sheet.links.map((l, i) =>
        lead(`l${i}`, `${l.from.part}.${l.from.jack}`, `${l.to.part}.${l.to.jack}`, 0),
      ),
      lead('b', end(b!.from.jack), 'd.in', 3),
    ],
  );
}

const FIGURES = ['levelDbu', 'peakDbu', 'noiseDbu', 'thdPercent', 'latencyMs', 'channels'] as const;

test('a box sounds as its parts do one behind the other, whatever its controls', () => {
  const chains = assemblies.filter(
    (s) =>
      s.controls.every((c) =>
        c.moves.every((m) => (m.curve ?? 'linear') === 'linear' && m.to === undefined),
      ) &&
      s.jacks.every((j) => j.at.length === 1) &&
      !s.parts.some((p) => p.kind === 'splitter-buffered'),
  );
  expect(chains.length).toBeGreaterThanOrEqual(4);
  fc.assert(
    fc.property(
      fc.constantFrom(...chains),
      fc.array(fc.integer({ min: 0, max: 10 }), { minLength: 12, maxLength: 12 }),
      (sheet, turns) => {
        const settings = Object.fromEntries(
          sheet.controls.map((c, i) => [c.id, c.type === 'knob' ? turns[i]! : turns[i]! > 5]),
        );
        const rig = rigWith(sheet, settings);
        const [box, apart] = [heardIn(rig)!, heardIn(takenApart(sheet, rig))!];
        for (const figure of FIGURES)
          expect([figure, box[figure]]).toEqual([
            figure,
            typeof apart[figure] === 'number' ? expect.closeTo(apart[figure], 6) : apart[figure],
          ]);
      },
    ),
    { numRuns: 40 },
  );
});

test('a changed kind has its own words, ends and figures, and what is left out stands still', () => {
  const kind = kindOfSheet(sheetOf('lighthouse-echo'));
  expect(kind.parameters.map((p) => [p.id, p.label])).toContainEqual(['time', 'Reach']);
  expect(kind.parameters.find((p) => p.id === 'mix')).toMatchObject({ max: 5, initial: 2 });
  expect(kind.jacks.some((j) => j.id === 'exp')).toBe(false);
  expect(kind.figures.find((f) => f.id === 'timeHighMs')).toMatchObject({
    typical: 450,
    reason: 'from its sheet',
  });
  const tails = kindOfSheet(sheetOf('quay-station'));
  expect(tails.parameters.some((p) => p.id === 'tails')).toBe(false);
  expect(tails.mains).toMatchObject({ watts: 30, inlets: 2 });
  expect(tails.power).toBeUndefined();
});

test('a head of two channels has a master for each, and drives a cabinet at its tap', () => {
  const kind = kindOfSheet(sheetOf('gantry-head'));
  const levels = (settings: Record<string, number | string>) => {
    const rig: Rig = {
      ...rigOf(
        [
          device('g', 'guitar-humbucker', 'Guitar'),
          device('box', kind.id, 'Head', { settings }),
          device('c', 'cabinet', 'Cabinet'),
        ],
        [lead('a', 'g.out', 'box.in', 3), lead('b', 'box.speaker', 'c.in', 1, 'speaker')],
      ),
      sheets: [sheetOf('gantry-head')],
    };
    const [heard] = analyse(rig).sounds;
    expect(heard!.speakers).toHaveLength(1);
    return heard!.stations.find((s) => s.device === 'box')!.output.levelDbu!.soft;
  };
  const clean = { channel: 'clean', cleanGain: 1, cleanMaster: 2 };
  expect(levels({ ...clean, dirtyMaster: 10 })).toBeCloseTo(levels(clean), 6);
  expect(levels({ ...clean, cleanMaster: 4 })).toBeGreaterThan(levels(clean));
  expect(levels({ ...clean, channel: 'dirty' })).not.toBeCloseTo(levels(clean), 1);
});

test('two times of one box can each follow the tempo', () => {
  const kind = kindOfSheet(sheetOf('two-shores'));
  expect([kind.tempo, ...(kind.moreTempos ?? [])].map((t) => t?.setting)).toEqual([
    'time',
    'timeRight',
  ]);
  expect(kind.tempo).toMatchObject({ low: 'left-timeLowMs', repeats: 'repeats' });
});

test('a loop of a part is a loop of the box where its jacks are brought out', () => {
  expect(kindOfSheet(sheetOf('tandem-drive')).loops).toEqual([
    expect.objectContaining({ send: ['send'], return: ['return'], opensAt: 'send' }),
  ]);
  const closed = rigWith(sheetOf('tandem-drive'), { firstOn: true });
  const open: Rig = {
    ...closed,
    devices: [...closed.devices, device('w', 'wah', 'Wah')],
    leads: [...closed.leads, lead('s', 'box.send', 'w.in', 1)],
  };
  expect(heardIn(closed)!.sources).not.toEqual([]);
  expect(heardIn(open)!.sources).toEqual([]);
});

test('one knob moves several things inside, each along its curve', () => {
  const at = (push: number) => heardIn(rigWith(sheetOf('ferry-strip'), { push }))!.levelDbu!.normal;
  // A boost of 0 to 20 dB along an audio track: a quarter of the way at half.
  expect(at(5) - at(0)).toBeCloseTo(5, 0);
});

describe('in a rig', () => {
  const rig = rigWith(sheetOf('tandem-drive'), { firstOn: true, firstDrive: 7 });
  const changed = { ...sheetOf('tandem-drive'), name: 'Tandem Drive, modified' };

  test('a file that names the sheet alone is read, and one without the sheet is refused', () => {
    const bare = JSON.parse(writeRig(rig));
    bare.devices[1].kind = 'own.tandem-drive';
    const read = readRig(JSON.stringify(bare));
    expect(read.ok && read.value.devices[1]!.kind).toBe(kindIdOf(rig.sheets![0]!));
    delete bare.sheets;
    const refused = readRig(JSON.stringify(bare));
    expect(refused).toMatchObject({ ok: false });
    expect(JSON.stringify(refused)).toContain('devices[1].kind');
  });

  test('changing the sheet changes what uses it, and can be undone', () => {
    const r = applyEdit(rig, { edit: 'putSheet', sheet: changed });
    if (!r.ok) throw new Error('refused');
    expect(kindOf(r.value.rig.devices[1]!.kind).name).toBe('Tandem Drive, modified');
    expect(r.value.rig.devices[1]!.settings).toEqual({ firstOn: true, firstDrive: 7 });
    expect(r.value.rig.leads).toEqual(rig.leads);
  });

  test('a control and a jack that go take their settings and leads with them', () => {
    const base = sheetOf('tandem-drive') as Assembly;
    const less: Sheet = {
      ...base,
      controls: base.controls.filter((c) => c.id !== 'firstDrive'),
      jacks: base.jacks.map((j) => (j.id === 'out' ? { ...j, id: 'way-out' } : j)),
    };
    const r = applyEdit(rig, { edit: 'putSheet', sheet: less });
    if (!r.ok) throw new Error('refused');
    expect(r.value.rig.devices[1]!.settings).toEqual({ firstOn: true });
    expect(r.value.rig.leads.map((l) => l.id)).toEqual(['a']);
  });

  test('a sheet in use stays; one that nothing uses goes', () => {
    const refused = applyEdit(rig, { edit: 'removeSheet', sheet: 'tandem-drive' });
    expect(refused).toMatchObject({ ok: false });
    const gone = applyEdits(rig, [
      { edit: 'removeDevice', device: 'box' },
      { edit: 'removeSheet', sheet: 'tandem-drive' },
    ]);
    expect(gone.ok && gone.value.rig.sheets).toEqual([]);
  });

  test('two people who change one sheet both keep what they changed', () => {
    const base = sheetOf('tandem-drive') as Assembly;
    const put = (sheet: Sheet) => {
      const r = applyEdit(rig, { edit: 'putSheet', sheet });
      if (!r.ok) throw new Error('refused');
      return r.value.rig;
    };
    const mine = put({ ...base, name: 'Tandem, mine' });
    const theirs = put({ ...base, power: { volts: 9, milliamps: 44 } });
    const merged = mergeRigs(rig, mine, theirs);
    expect(merged.clashes).toEqual([]);
    expect(merged.rig.sheets![0]).toMatchObject({ name: 'Tandem, mine', power: { milliamps: 44 } });
    expect(kindOf(merged.rig.devices[1]!.kind)).toMatchObject({
      name: 'Tandem, mine',
      power: { milliamps: 44 },
    });
  });
});

describe('what cannot be is told where it is', () => {
  const base = sheetOf('tandem-drive') as Assembly;
  const [first] = base.parts;
  test.each([
    [
      'a kind that is gone',
      { ...base, parts: [{ ...first!, kind: 'drive-lost' }] },
      'parts[0].kind',
    ],
    [
      'a jack that is not there',
      {
        ...base,
        links: [{ from: { part: 'first', jack: 'aux' }, to: { part: 'between', jack: 'in' } }],
      },
      'links[0].from',
    ],
    [
      'a link the wrong way',
      {
        ...base,
        links: [{ from: { part: 'between', jack: 'in' }, to: { part: 'first', jack: 'out' } }],
      },
      'links[0].from',
    ],
    [
      'a control that moves nothing',
      { ...base, controls: [{ id: 'x', label: 'X', type: 'knob', moves: [] }] },
      'controls[0].moves',
    ],
    [
      'a knob past the end of what it moves',
      {
        ...base,
        controls: [
          {
            id: 'x',
            label: 'X',
            type: 'knob',
            max: 20,
            moves: [{ part: 'first', setting: 'drive' }],
          },
        ],
      },
      'controls[0].moves[0].setting',
    ],
    [
      'a jack tied to an input and an output',
      {
        ...base,
        jacks: [
          {
            id: 'in',
            label: 'in',
            at: [
              { part: 'first', jack: 'in' },
              { part: 'first', jack: 'out' },
            ],
          },
        ],
      },
      'jacks[0].at',
    ],
    [
      'a part that is a sheet',
      { ...base, parts: [{ ...first!, kind: kindIdOf(base) }] },
      'parts[0].kind',
    ],
    [
      'a figure nobody would believe',
      { ...base, figures: { 'first-inputOhms': { value: 1e15, from: 'sheet' } } },
      'figures.first-inputOhms',
    ],
  ] as [string, Sheet, string][])('%s', (_, sheet, where) => {
    const problems = sheetProblems(sheet);
    expect(problems.map((p) => p.where)).toContain(where);
    expect(learnSheets([sheet]).length).toBeGreaterThan(0);
  });
});

test('the id of a kind follows from all that its sheet says, and from nothing else', () => {
  const [a] = EXAMPLE_SHEETS;
  expect(kindIdOf(structuredClone(a!))).toBe(kindIdOf(a!));
  expect(kindIdOf({ ...a!, notes: 'other' })).not.toBe(kindIdOf(a!));
  expect(sheetIdOf(kindIdOf(a!))).toBe(a!.id);
  expect(chainOf(['buffer']).devices.every((d) => sheetIdOf(d.kind) === undefined)).toBe(true);
  expect(sound('a', 'A', [])).toBeDefined();
});

describe('what one version says that another does not', () => {
  const base = sheetOf('lantern-row') as Assembly;
  test('each thing is named as a person calls it', () => {
    const now: Sheet = {
      ...base,
      name: 'Lantern Row, late',
      parts: base.parts.map((p) => (p.id === 'chorus' ? { ...p, kind: 'phaser' } : p)),
      controls: base.controls.slice(1),
      figures: { 'drive-gainHighDb': { value: 33, from: 'measured', on: '2026-11-01' } },
      power: { volts: 12, milliamps: 500 },
    };
    expect(sheetDifferences(base, now)).toEqual([
      'it is called Lantern Row, late, was Lantern Row',
      'the part Chorus',
      'without the control Compressor on',
      'Drive: Gain with the drive knob full 33 dB, measured',
      '12 V, 500 mA',
    ]);
  });
  test('no change of a sheet goes unsaid, and none is told where there is none', () => {
    for (const sheet of EXAMPLE_SHEETS) {
      expect(sheetDifferences(sheet, structuredClone(sheet))).toEqual([]);
      for (const field of Object.keys(sheet).filter((f) => !['is', 'id', 'name'].includes(f))) {
        const { [field as 'about']: _gone, ...rest } = sheet;
        const value = (sheet as Record<string, unknown>)[field];
        const changed = Array.isArray(value) ? { [field]: value.slice(1) } : { base: 'chorus' };
        const now = field === 'base' || Array.isArray(value) ? { ...sheet, ...changed } : rest;
        if (Array.isArray(value) && !value.length) continue;
        expect([field, sheetDifferences(sheet, now as Sheet)]).not.toEqual([field, []]);
      }
    }
  });
});

test('a box is for what shapes the sound in it, not for the jacks between', () => {
  const jobs = Object.fromEntries(
    EXAMPLE_SHEETS.filter((x) => x.is === 'parts').map((x) => [x.id, kindOfSheet(x).job]),
  );
  expect(jobs).toMatchObject({ 'tandem-drive': 'drive', 'lantern-row': 'compressor' });
  const insert: Sheet = {
    is: 'parts',
    id: 'point',
    name: 'Point',
    links: [],
    controls: [],
    parts: [{ id: 'p', kind: 'insert-point', name: 'P' }],
    jacks: [{ id: 'in', label: 'in', at: [{ part: 'p', jack: 'in' }] }],
  };
  expect(kindOfSheet(insert).job).toBe(kindOf('insert-point').job);
});
