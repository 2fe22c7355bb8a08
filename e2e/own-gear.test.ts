import { kindOf } from '../src/core/kinds';
import { EXAMPLE_SHEETS } from '../src/core/demo';
import { chainOf, device, lead, rigOf } from '../src/core/testing/rigs';
import { kindOfSheet, type Rig, type Sheet } from '../src/core/rig';
import { trySheet } from '../src/core/report';
import { fixed } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

const start = (): Rig => ({
  ...chainOf(['guitar-humbucker', 'boost', 'recorder']),
  name: 'Boxes of our own',
});

/** Chooses a kind in the dialog that is open. */
async function choose(person: Person, kind: string): Promise<void> {
  await person.see('[aria-label="Find a kind"]:focus');
  await person.page.keyboard.type(kindOf(kind).name);
  await person.click(`[data-kind="${kind}"]`);
  await person.gone('.mantine-Modal-overlay');
}

/** A box of several kinds: the first, and what comes behind or beside it. */
async function box(person: Person, name: string, first: string, ...more: [string, string][]) {
  await person.button('Several in one box …');
  await choose(person, first);
  await person.see('[data-sheet-editor]');
  for (const [where, kind] of more) {
    await person.button(`Add ${where} …`);
    await choose(person, kind);
  }
  await person.typeOver('.own-gear-words input', name);
}

const ownSwitch = (person: Person, part: string) =>
  person.click(`[aria-label="A switch of its own for ${part}"]`);

async function select(person: Person, label: string, line: string): Promise<void> {
  await person.click(`[aria-label="${label}"]`);
  await person.pick(line);
}

/** The last sheet that the rig holds, once it is saved; what its bench reads on the page. */
async function made(person: Person, id: string, name: string): Promise<Sheet> {
  const rig = await person.savedRig(id);
  const sheet = rig.sheets?.find((s) => s.name === name);
  if (!sheet) throw new Error(`no sheet is called ${name}`);
  const [out] = trySheet(sheet, -18);
  if (out?.levelDbu !== null && out)
    await person.reads(`[data-bench-jack="${out.jack}"]`, `${fixed(out.levelDbu)} dBu out`);
  return sheet;
}
const labels = (sheet: Sheet) => kindOfSheet(sheet).parameters.map((p) => p.label);
const sounding = (sheet: Sheet, direction: 'in' | 'out') =>
  kindOfSheet(sheet)
    .jacks.filter((j) => j.direction === direction && j.signal === 'audio')
    .map((j) => j.label);

test('boxes that no kind describes are made by choosing what is in them, and read on the bench', async () => {
  const id = await stored(tech, start());
  await tech.open(`/rigs/${id}/build?part=own`);

  await box(tech, 'Two drives', 'drive-low', ['behind', 'insert-point'], ['behind', 'drive-mid']);
  await ownSwitch(tech, 'Drive, low gain');
  await ownSwitch(tech, 'Drive, mid gain');
  const drives = await made(tech, id, 'Two drives');
  expect(kindOfSheet(drives).loops).toHaveLength(1);
  expect(labels(drives).slice(0, 2)).toEqual(['Drive, mid gain on', 'Drive, low gain on']);

  await box(tech, 'Two times', 'delay', ['beside', 'delay']);
  await tech.click('[aria-label="Take the jack out right off the box"]');
  await tech.click('[data-box-jack="outR-2"] [aria-label^="Take the jack"]');
  await tech.click('[data-box-jack="out-2"] [aria-label^="The jack that"]');
  await tech.pick('out');
  const times = await made(tech, id, 'Two times');
  expect([kindOfSheet(times).tempo, ...kindOfSheet(times).moreTempos!]).toHaveLength(2);
  expect(kindOfSheet(times).jacks.find((j) => j.id === 'out-2')!.pair).toMatchObject({
    side: 'right',
  });

  await box(tech, 'Two engines', 'reverb', ['behind', 'reverb']);
  await ownSwitch(tech, 'Reverb 2');
  await select(tech, 'What else Reverb 2 on moves', 'Reverb: engaged');
  await select(tech, 'What Reverb: engaged by Reverb 2 on does when on', 'off with the switch');
  const engines = await made(tech, id, 'Two engines');
  expect(engines.is === 'parts' && engines.controls[0]!.moves).toEqual([
    expect.objectContaining({ part: 'part-2', on: true }),
    expect.objectContaining({ part: 'part-1', on: false, off: true }),
  ]);

  await box(tech, 'Boost behind its buffer', 'buffer', ['behind', 'boost']);
  const boost = await made(tech, id, 'Boost behind its buffer');
  expect(labels(boost)).toEqual(['Boost: Boost']);

  await box(
    tech,
    'Floor row',
    'compressor',
    ...(['drive-low', 'insert-point', 'chorus', 'delay'] as const).map((kind): [string, string] => [
      'behind',
      kind,
    ]),
  );
  const floor = await made(tech, id, 'Floor row');
  expect(sounding(floor, 'out')).toEqual(expect.arrayContaining(['insert send']));
  expect(floor.is === 'parts' && floor.links).toHaveLength(5);

  await box(tech, 'Dry and wet', 'splitter-buffered', ['behind', 'modulation-digital']);
  expect(sounding(await made(tech, id, 'Dry and wet'), 'out')).toHaveLength(3);
});

test('a head of two channels, and a rack unit with two power inlets', async () => {
  const id = await stored(tech, start());
  await tech.open(`/rigs/${id}/build?part=own`);
  await box(
    tech,
    'Two channels',
    'amp-block',
    ['beside', 'amp-block'],
    ['behind', 'input-selector'],
    ['behind', 'power-amp'],
  );
  await select(tech, 'Link from', 'Amp block: out left');
  await select(tech, 'Link to', 'Input selector: in B');
  const head = await made(tech, id, 'Two channels');
  expect(labels(head).filter((l) => l.endsWith('Master'))).toHaveLength(2);

  await tech.button('A kind with changes …');
  await choose(tech, 'reverb');
  await tech.typeOver('.own-gear-words input', 'Rack hall');
  const field = (label: string) => `::-p-aria([name="${label}"])`;
  await tech.typeOver(field('Mains, W'), '30');
  await tech.typeOver(field('Mains inlets'), '2');
  await tech.typeOver(field('Rack units'), '1');
  await tech.click('[aria-label="It has no Tails ring on when bypassed"]');
  const rack = await made(tech, id, 'Rack hall');
  expect(kindOfSheet(rack)).toMatchObject({ mains: { watts: 30, inlets: 2 }, rackUnits: 1 });
  expect(labels(rack)).not.toContain('Tails ring on when bypassed');
});

test('what cannot stand is told and kept until it is mended', async () => {
  const id = await stored(tech, start());
  await tech.open(`/rigs/${id}/build?part=own`);
  await box(tech, 'Torn', 'drive-low', ['behind', 'boost']);
  await tech.click('[data-box-jack="in"] input[aria-label^="What"]');
  await tech.press('Backspace', 'Escape');
  await tech.reads('[data-sheet-problems]', 'tie the jack to something inside');
  await tech.button('Back to what is in the rig');
  await tech.gone('[data-sheet-problems]');
});

test('a sheet is used like any kind, goes to the locker, and another rig takes it and its changes', async () => {
  const id = await stored(tech, start());
  await tech.open(`/rigs/${id}/build?part=own`);
  const name = `Pier ${id.slice(-9)}`;
  await box(tech, name, 'drive-low', ['behind', 'boost']);
  await tech.saved();
  await tech.button('Put it into the locker');
  await tech.reads('[data-locker-bar]', 'As in the locker, version 1');
  // In the walk, by the same list as every kind, at its top.
  await tech.open(`/rigs/${id}/signal`);
  await tech.click('[data-device="d1"]');
  await tech.button('Replace (R)');
  await tech.see('[aria-label="Find a kind"]:focus');
  await tech.page.keyboard.type(name);
  await tech.press('Enter');
  await tech.gone('.mantine-Modal-overlay');
  const rig = await tech.savedRig(id);
  expect(rig.devices[1]!.kind).toMatch(/^own\.sheet-/);
  await tech.see('[data-station="d1"]');

  const other = await stored(tech, { ...start(), name: 'The other' });
  await tech.open(`/rigs/${other}/build?part=own`);
  await tech.button('From the locker …');
  await tech.see('[aria-label="Find a sheet"]:focus');
  await tech.page.keyboard.type(name);
  await tech.press('Enter');
  await tech.reads('[data-locker-bar]', 'As in the locker, version 1');
  // A list that closes gives the focus back to what opened it.
  await tech.gone('.mantine-Modal-overlay');
  await tech.typeOver('::-p-aria([name="mA"])', '77');
  await tech.reads('[data-locker-bar]', 'differs');
  await tech.button('Put ours into the locker');
  await tech.reads('[data-locker-bar]', 'As in the locker, version 2');
  // The first rig is told, and takes it.
  await tech.open(`/rigs/${id}/build?part=own`);
  await tech.reads('[data-locker-bar]', '77 mA');
  await tech.button('Take the locker’s');
  await tech.reads('[data-locker-bar]', 'As in the locker, version 2');
  expect((await tech.savedRig(id)).sheets![0]!.power).toMatchObject({ milliamps: 77 });
});

test('a chain is typed: what is not understood is marked and mended with a press, and the rig is made', async () => {
  await tech.open('/rigs/new');
  await tech.typeOver('::-p-aria([name="What is it called?"])', 'Typed on the train');
  await tech.typeOver(
    '::-p-aria([name="Type a chain"])',
    'guitar > tuner > compresor > low drive "Kiln" > amp',
  );
  await tech.reads('[data-chain-line]', '“compresor” is no kind that is known');
  await tech.button('Make this rig');
  await tech.reads('main', 'Still needed: what “compresor” is.');
  await tech.click('[data-lost="compresor"] button');
  await tech.gone('[data-lost]');
  await tech.reads('[data-list="proposal"]', 'Compressor Kiln Tube combo');
  await tech.button('Make this rig');
  await tech.see('[data-station="kiln"]');
  expect(await tech.order()).toEqual([
    ...['guitar-humbuckers', 'tuner-true-bypass', 'compressor', 'kiln', 'tube-combo'],
  ]);
});

test('several things go into a lead by typing them, and devices of another rig come over with their sheets', async () => {
  const [sheet] = EXAMPLE_SHEETS;
  const lender = {
    ...rigOf(
      [device('twin', kindOfSheet(sheet!).id, 'Tandem'), device('echo', 'delay', 'Brine Echo')],
      [lead('l', 'twin.out', 'echo.in', 0.5)],
    ),
    name: `Lender ${Date.now()}`,
    sheets: [sheet!],
    sounds: [{ id: 'still', name: 'Harbour stillness', states: { echo: { engaged: true } } }],
    songs: [
      {
        id: 'waltz',
        title: 'Lantern waltz',
        bpm: 96,
        sections: [{ id: 'verse', name: 'Verse', bars: 16, sound: 'still' }],
      },
    ],
  };
  await stored(tech, lender);
  const id = await stored(tech, start());
  await tech.open(`/rigs/${id}/signal`);
  await tech.click('[data-take-from] summary');
  await select(tech, 'Rig to take from', lender.name);
  await tech.click('[aria-label^="Parts of Lender"]');
  await tech.pick('Tandem');
  await tech.pick('Brine Echo');
  await tech.pick('Harbour stillness');
  await tech.pick('Lantern waltz');
  await tech.press('Escape');
  await tech.button('Take them');
  await tech.reads('body', 'Harbour stillness; Lantern waltz came from Lender');
  const rig = await tech.savedRig(id);
  expect(rig.devices.slice(3).map((d) => d.name)).toEqual(['Tandem', 'Brine Echo']);
  expect(rig.sheets!.map((s) => s.id)).toEqual([sheet!.id]);
  expect(rig.leads).toHaveLength(3);
  const still = rig.sounds.find((s) => s.name === 'Harbour stillness')!;
  // It came with its echo, and holds for that.
  expect(still.states[rig.devices.find((d) => d.name === 'Brine Echo')!.id]).toEqual({
    engaged: true,
  });
  expect(rig.songs!.map((s) => [s.title, s.sections[0]!.sound])).toEqual([
    ['Lantern waltz', still.id],
  ]);

  await tech.loads(`/rigs/${id}/signal?lead=l0`);
  await tech.typeOver('::-p-aria([name="Put in by typing"])', 'low drive "Kiln" > wah');
  await tech.see('[data-station="kiln"]');
  await tech.see('[data-station="wah"]');
  expect((await tech.savedRig(id)).devices.at(-2)).toMatchObject({ name: 'Kiln' });

  // The palette takes a line, too, behind the device that is chosen.
  await tech.click('[data-station="kiln"]');
  await tech.control('k');
  await tech.see('[aria-label="Find and do anything"]:focus');
  await tech.page.keyboard.type('boost "Flare" > eq');
  await tech.reads('.mantine-Spotlight-actionsList', 'Put in: boost "Flare" > eq');
  await tech.press('Enter');
  await tech.see('[data-station="flare"]');
  const line = await tech.order();
  expect(line.slice(line.indexOf('kiln'))).toEqual(
    expect.arrayContaining(['flare', 'equaliser', 'wah']),
  );
  expect(line.indexOf('flare')).toBe(line.indexOf('kiln') + 1);
});

test('two people on one sheet: both changes stand; what another put into the locker is told before it is put over', async () => {
  const name = `Skerry lift ${Date.now()}`;
  const sheet: Sheet = { is: 'changes', id: `lift-${Date.now()}`, name, base: 'boost' };
  const id = await stored(tech, { ...start(), sheets: [sheet] });
  const other = await Person.arrives();
  await tech.open(`/rigs/${id}/build?part=own`);
  await other.open(`/rigs/${id}/build?part=own`);
  const field = (label: string) => `::-p-aria([name="${label}"])`;
  await tech.typeOver(field('Power, V'), '9');
  await tech.typeOver(field('mA'), '12');
  await other.typeOver(field('Weight, g'), '310');
  await other.typeOver(field('Model'), 'of the second year');
  // Each sees what the other wrote.
  for (const [person, label, text] of [
    [tech, 'Model', 'of the second year'],
    [other, 'mA', '12'],
  ] as const)
    await person.page
      .waitForFunction(
        (wanted) => [...document.querySelectorAll('input')].some((i) => i.value === wanted),
        {},
        text,
      )
      .catch(() => {
        throw new Error(`${label} of the other never came`);
      });
  const held = (await tech.savedRig(id)).sheets!.find((s) => s.id === sheet.id)!;
  expect(held).toMatchObject({
    name,
    power: { volts: 9, milliamps: 12 },
    model: 'of the second year',
  });

  // Into the locker: the second, who had not seen the first one's, is told what theirs says.
  await tech.reads('[data-locker-bar]', 'Not in the locker');
  await other.reads('[data-locker-bar]', 'Not in the locker');
  await tech.button('Put it into the locker');
  await tech.reads('[data-locker-bar]', 'As in the locker, version 1');
  await other.typeOver(field('Maker'), 'Harbour Row');
  await other.button('Put it into the locker');
  await other.reads('[data-locker-bar] [role="alert"]', 'Somebody else has changed this sheet');
  await other.reads('[data-locker-bar]', 'version 1) differs: the maker');
  await other.button('Put ours into the locker');
  await other.reads('[data-locker-bar]', 'As in the locker, version 2');
});

test('the box is drawn from the sides of its jacks, and a jack is put elsewhere on it', async () => {
  const sheet: Sheet = {
    is: 'changes',
    id: 'lift',
    name: 'Skerry lift',
    base: 'boost',
    size: { width: 70, depth: 120, height: 50, grams: 300 },
  };
  const id = await stored(tech, { ...start(), sheets: [sheet] });
  await tech.open(`/rigs/${id}/build?part=own`);
  await tech.see('[data-face="right"] [data-face-jack="in"]');
  await tech.page.$eval('.own-gear-faces + details', (e) => e.setAttribute('open', ''));
  await select(tech, 'Edge of in', 'rear');
  await tech.typeOver('::-p-aria([name="Place of in, mm"])', '20');
  await tech.see('[data-face="rear"] [data-face-jack="in"]');
  // From behind, what is 20 mm from the left is 50 mm from the left of what one sees: twice that in pixels.
  const seen = () => tech.page.$eval('[data-face="rear"] circle', (e) => e.getAttribute('cx'));
  await tech.page.waitForFunction(
    () => document.querySelector('[data-face="rear"] circle')?.getAttribute('cx') === '100',
  );
  expect(await seen()).toBe('100');
  // The other half of what it takes is as of what is inside, until it is said.
  const field = (label: string) => `::-p-aria([name="${label}"])`;
  await tech.typeOver(field('Power, V'), '18');
  await tech.typeOver(field('mA'), '40');
  await tech.press('Tab');
  await tech.click(field('Centre'));
  await tech.pick('positive');
  await tech.typeOver(field('Display, lines'), '2');
  const held = (await tech.savedRig(id)).sheets![0]!;
  expect(held).toMatchObject({
    jackSpots: { in: { edge: 'rear', mm: 20 } },
    power: { volts: 18, milliamps: 40, centre: 'positive' },
    display: { lines: 2, width: 16 },
  });
});
