import fc from 'fast-check';
import { EXAMPLE_SHEETS } from '../demo';
import { analyse } from '../report';
import { anyRig } from '../testing/any-rig';
import { device, lead, rigOf } from '../testing/rigs';
import { applyEdits, integrityProblems } from '../rig';
import { walkOrder } from '../walk';
import { chainInto, joinsOf, lineOfRig, rigOfChain } from '.';
import { cases } from '../testing/cases';

const read = (line: string) => rigOfChain(line, { id: 'new', name: 'New' });
const ways = (line: string) =>
  read(line).rig!.leads.map((l) => `${l.from.device}.${l.from.jack} ${l.to.device}.${l.to.jack}`);
const kinds = (line: string) => read(line).rig!.devices.map((d) => d.kind);

test("a line makes a rig: kinds in a tech's own words, leads by where things stand", () => {
  const line =
    'baritone > wireless > tuner > comp > low drive > mid drive > volume > delay stereo > 2 x direct box > house';
  expect(kinds(line)).toEqual([
    ...['guitar-baritone', 'wireless', 'tuner-true-bypass', 'compressor', 'drive-low', 'drive-mid'],
    ...['volume-passive', 'delay', 'direct-box', 'direct-box', 'console-input-stereo'],
  ]);
  const { rig, notes } = read(line);
  expect(notes).toEqual([]);
  expect(integrityProblems(rig!)).toEqual([]);
  const [heard] = analyse(rig!).sounds;
  expect(heard!.destinations[0]).toMatchObject({ sources: ['baritone-guitar'], connected: true });
  expect(analyse(rig!).findings.filter((f) => f.severity !== 'advice')).toEqual([]);
});

test('what stands in loops stands there, in their order', () => {
  expect(ways('guitar > loop switcher [fuzz > wah] [drive] > amp')).toEqual(
    expect.arrayContaining([
      'loop-switcher-free-order.send1 fuzz.in',
      'fuzz.out wah.in',
      'wah.out loop-switcher-free-order.return1',
      'loop-switcher-free-order.send2 drive-low-gain.in',
    ]),
  );
});

test('ways side by side get what they need to part and to come together, and it is said', () => {
  const { rig, notes } = read('(guitar | baritone) > tuner > (head > cab | di) > house');
  expect(notes).toEqual([
    expect.stringContaining('Input selector'),
    'Splitter, buffered was put in: one output of Tuner, true bypass feeds several ways',
    'Microphone was put in, in front of Speaker cabinet',
  ]);
  expect(rig!.devices.map((d) => d.kind)).toContain('console-input-stereo');
});

test('loudspeakers side by side hang on one line, and microphones on one loudspeaker hear it all', () => {
  expect(ways('guitar > head > (cab | cab)')).toEqual(
    expect.arrayContaining([
      'tube-head.speaker speaker-cabinet.in',
      'speaker-cabinet.link speaker-cabinet-2.in',
    ]),
  );
  expect(ways('guitar > head > (cab > mic > house | cab)')).toContain(
    'speaker-cabinet.link speaker-cabinet-2.in',
  );
  for (const end of ['head > cab', 'combo with loop']) {
    const { rig, notes } = read(`guitar > ${end} > (mic | condenser microphone) > house`);
    expect(notes).toEqual([]);
    expect(analyse(rig!).findings.filter((f) => f.rule === 'no-route')).toEqual([]);
    expect(rig!.leads.filter((l) => l.type === 'air').map((l) => l.to.device)).toEqual([
      'microphone',
      'microphone-condenser',
    ]);
  }
});

test('a desk takes what a modeler or a simulator gives as a line, and a microphone as one', () => {
  const input = (line: string) => read(line).rig!.devices.at(-1)!.settings;
  for (const box of ['floor modeler', 'amp cab simulator', 'compact modeler stereo']) {
    expect(input(`guitar > ${box} > house`)).toEqual({ input: 'line' });
    const { findings } = analyse(read(`guitar > buffer > ${box} > house`).rig!);
    expect(findings.filter((f) => f.severity !== 'advice')).toEqual([]);
  }
  expect(input('guitar > head > cab > mic > house')).toBeUndefined();
});

test('a name in quotes is the name; two of one kind are told apart', () => {
  const names = (line: string) => read(line).rig!.devices.map((d) => d.name);
  expect(names('guitar "Elm" > boost "Flare" > boost > amp')).toEqual([
    ...['Elm', 'Flare', 'Boost', 'Tube combo'],
  ]);
  expect(names('guitar > boost > boost > amp')).toContain('Boost 2');
});

test('sheets are found by their names, before kinds', () => {
  const { rig } = rigOfChain('guitar > tandem drive > amp', {
    id: 'new',
    name: 'New',
    sheets: EXAMPLE_SHEETS,
  });
  expect(rig!.devices[1]!.name).toBe('Tandem Drive');
  expect(rig!.sheets!.map((s) => s.id)).toEqual(['tandem-drive']);
  expect(integrityProblems(rig!)).toEqual([]);
});

test('what is not understood is marked where it stands, with what is near, and the rest is made', () => {
  const line = 'guitar > compresor > amp';
  const { items, rig } = read(line);
  const lost = items.find((i) => !i.kind)!;
  expect(line.slice(lost.from, lost.to)).toBe('compresor');
  expect(lost.guesses[0]!.id).toBe('compressor');
  expect(rig!.devices).toHaveLength(2);
});

test.each([
  ['guitar > (amp', 13, '")"'],
  ['guitar > > amp', 9, 'something should stand here'],
  ['guitar > amp)', 12, 'closes nothing'],
  ['guitar "Elm > amp', 7, 'no end'],
  ['', 0, 'something should stand here'],
  ['a [b', 4, '"]"'],
])('%j breaks off, and where', (line, at, what) => {
  expect(read(line).broken).toEqual({ at, what: expect.stringContaining(what) });
});

/** Lines of any shape: rows, ways side by side, loops. */
const PEDALS = [
  'tuner',
  'comp',
  'fuzz',
  'low drive',
  'mid drive',
  'boost',
  'eq',
  'wah',
  'tremolo',
  'delay',
];
const pedal = fc.constantFrom(...PEDALS);
const row = fc.array(pedal, { minLength: 1, maxLength: 3 }).map((p) => p.join(' > '));
const loopRow = fc.array(row, { minLength: 1, maxLength: 3 });
const middle = fc.oneof(
  row,
  fc.tuple(row, row).map(([a, b]) => `splitter > (${a} | ${b}) > mixer`),
  loopRow.map((rows) => `loop switcher ${rows.map((r) => `[${r}]`).join(' ')}`),
  row.map((r) => `insert [${r}]`),
);
const line = fc
  .tuple(
    fc.constantFrom('guitar', 'baritone', 'single coil'),
    fc.array(middle, { minLength: 0, maxLength: 4 }),
    fc.constantFrom('amp', 'house', 'recorder', 'head > cab > mic > house', 'di > house'),
  )
  .map(([first, mid, last]) => [first, ...mid, last].join(' > '));

test('there and back: a rig that a line made is printed as a line that makes the same', () => {
  fc.assert(
    fc.property(line, (text) => {
      const { rig, items } = read(text);
      expect(items.every((i) => i.kind)).toBe(true);
      expect(integrityProblems(rig!)).toEqual([]);
      const printed = lineOfRig(rig!);
      if (!printed.ok) throw new Error(`${text}: ${printed.problems[0]!.what}`);
      expect(joinsOf(read(printed.value).rig!)).toEqual(joinsOf(rig!));
    }),
    { numRuns: cases(20, 60) },
  );
});

test('whatever is typed: no crash, and either a whole rig or what is wrong with the line', () => {
  const piece = fc.constantFrom(
    ...PEDALS,
    'guitar',
    'amp',
    'house',
    '>',
    '(',
    ')',
    '|',
    '[',
    ']',
    '2 x',
    'stereo',
    '"',
    'zzz',
    '> ',
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 18 }), (pieces) => {
      const { rig, broken, items } = read(pieces.join(' '));
      if (rig) expect(integrityProblems(rig)).toEqual([]);
      else expect(broken !== undefined || items.every((i) => !i.kind)).toBe(true);
    }),
    { numRuns: cases(60, 200) },
  );
});

test('a rig that no line can say is refused with what it cannot', () => {
  const { rig } = read('guitar > boost > amp');
  const odd = {
    ...rig!,
    leads: [
      ...rig!.leads,
      {
        ...rig!.leads[0]!,
        id: 'x',
        from: { device: 'tube-combo', jack: 'air' },
        to: { device: 'boost', jack: 'in' },
      },
    ],
  };
  expect(lineOfRig(odd)).toMatchObject({ ok: false });
});

test('a line goes into a lead, in one step, in its order', () => {
  const { rig } = read('guitar > boost > amp');
  const edits = chainInto(rig!, rig!.leads[1]!.id, 'low drive "Kiln" > delay > boost');
  if (!edits.ok) throw new Error('refused');
  const made = applyEdits(rig!, edits.value);
  expect(made.ok && walkOrder(made.value.rig)).toEqual([
    ...['guitar-humbuckers', 'boost', 'kiln', 'delay', 'boost-2', 'tube-combo'],
  ]);
  expect(made.ok && integrityProblems(made.value.rig)).toEqual([]);
});

test.each([
  ['compresor', 'near: Compressor'],
  ['(boost | eq)', 'no ways side by side'],
  ['boost >', 'something should stand here'],
  ['recorder', 'has no way through'],
])('%j does not go into a lead, and why', (text, why) => {
  const { rig } = read('guitar > amp');
  const edits = chainInto(rig!, rig!.leads[0]!.id, text);
  expect(edits).toMatchObject({ ok: false });
  expect(JSON.stringify(edits)).toContain(why);
});

test('any rig, with circles too, is a line that makes it again, or is refused with why', () => {
  fc.assert(
    fc.property(anyRig, (rig) => {
      const line = lineOfRig(rig);
      if (line.ok) expect(joinsOf(read(line.value).rig!)).toEqual(joinsOf(rig));
      else expect(line.problems[0]!.what.length).toBeGreaterThan(10);
    }),
    { numRuns: cases(50, 150) },
  );
});

test('two boxes in the loops of one another, and a way that goes round, are refused', () => {
  const loops = rigOf(
    [device('a', 'insert-point', 'A'), device('b', 'insert-point', 'B')],
    [
      lead('l1', 'a.send', 'b.in', 1),
      lead('l2', 'b.out', 'a.return', 1),
      lead('l3', 'b.send', 'a.in', 1),
      lead('l4', 'a.out', 'b.return', 1),
    ],
  );
  expect(lineOfRig(loops)).toMatchObject({ ok: false });
  const round = rigOf(
    [
      device('g', 'guitar-humbucker', 'G'),
      device('m', 'mixer-line', 'M'),
      device('s', 'splitter-buffered', 'S'),
    ],
    [lead('l1', 'g.out', 'm.a', 1), lead('l2', 'm.out', 's.in', 1), lead('l3', 's.a', 'm.b', 1)],
  );
  expect(lineOfRig(round)).toMatchObject({ ok: false });
});
