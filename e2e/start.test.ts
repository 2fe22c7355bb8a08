import { EXAMPLE_SHEETS } from '../src/core/demo';
import { kindOf } from '../src/core/kinds';
import { analyse } from '../src/core/report';
import { kindOfSheet, type Rig } from '../src/core/rig';
import { forEachFile, type Person } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

/** A person at the page of a new rig, whose hand is counted: presses, and words that are typed. */
class Starting {
  actions = 0;

  static async of(name: string): Promise<Starting> {
    await tech.open('/rigs/new');
    const starting = new Starting();
    await starting.type('What is it called?', name);
    return starting;
  }

  async type(label: string, words: string): Promise<void> {
    await tech.typeOver(`::-p-aria([name="${label}"])`, words);
    this.actions += 2;
  }
  /** Picks kinds in a list by typing their beginnings. */
  async kinds(label: string, ...words: string[]): Promise<void> {
    await (await tech.page.locator(`::-p-aria([name="${label}"])`).waitHandle()).click();
    this.actions += 1 + 2 * words.length;
    for (const word of words) {
      await tech.page.keyboard.type(word);
      await tech.pickBeginning(word);
    }
    await tech.press('Escape');
  }
  async tick(label: string): Promise<void> {
    await tech.page.locator(`label::-p-text(${label})`).click();
    this.actions += 1;
  }
  async answer(label: string, words: string): Promise<void> {
    await (await tech.page.locator(`::-p-aria([name="${label}"])`).waitHandle()).click();
    await tech.pick(words);
    this.actions += 2;
  }
  /** Changes what was decided. */
  async change(choice: string, words: string): Promise<void> {
    await tech.click(`[data-choice="${choice}"] input`);
    await tech.pick(words);
    this.actions += 2;
  }
  /** Makes the rig, and gives it as the server has it. */
  async make(): Promise<Rig> {
    await tech.button('Make this rig');
    this.actions += 1;
    await tech.see('[data-station]');
    return tech.savedRig(/rigs\/([^/]+)\//.exec(tech.page.url())![1]!);
  }
}

const whole = () => tech.see('[data-whole="true"]');
/** What of a rig is worse than advice, but for the hiss of its gear. */
const bad = (rig: Rig) =>
  analyse(rig)
    .findings.filter((f) => f.severity !== 'advice' && f.rule !== 'noise')
    .map((f) => f.what);
const kept = (rig: Rig) => analyse(rig).promises.every((p) => p.kept);

test('six pedals and a loop switcher, called by a foot controller, with power and a board: each decision has its reason', async () => {
  const start = await Starting.of('Ferry switcher board');
  await start.kinds('What comes in?', 'Baritone guitar');
  await start.tick('Tube combo on stage');
  await start.kinds(
    'Which pedals are on hand?',
    ...['Tuner, true', 'Compressor', 'Octave', 'Drive, low', 'Drive, mid', 'Delay'],
  );
  await start.answer('What switches the pedals?', 'fixed order');
  await start.answer('What calls sounds by MIDI?', 'a foot controller');
  await start.tick('Choose power and a board, too');
  await whole();
  await tech.reads(
    '[data-choice="calls"]',
    'It reaches Delay and Loop switcher, each on a channel',
  );
  await tech.reads('[data-choice="before-loops"]', 'Tuner, true bypass');
  await tech.reads('[data-choice="board"]', 'The smallest of the common sizes');
  await tech.reads('[role="status"]', /\d+ devices, \d+ leads; all \d+ promises are kept\./);
  const rig = await start.make();
  expect(start.actions).toBeLessThanOrEqual(60);
  expect(bad(rig)).toEqual([]);
  expect(kept(rig)).toBe(true);
  const switcher = rig.devices.find((d) => d.kind === 'loop-switcher-fixed')!;
  expect(
    rig.leads.filter((l) => l.from.device === switcher.id && l.from.jack.startsWith('send')),
  ).toHaveLength(4);
  expect(rig.devices.filter((d) => kindOf(d.kind).power && !d.supply)).toEqual([]);
  expect(rig.boards).toHaveLength(1);
});

test('three heads with three cabinets, one in each sound: a decision is changed, and the proposal follows', async () => {
  const start = await Starting.of('Salt warehouse three heads');
  await start.kinds('What comes in?', 'Guitar, humbuckers');
  await start.tick('Tube head and cabinet on stage');
  await start.tick('Front of house');
  await start.type('How many heads?', '3');
  await start.kinds('Which pedals are on hand?', 'Drive, low', 'Reverb');
  await start.answer('The amplifiers sound', 'one in each sound');
  await tech.reads('[data-choice="turns"]', 'Each way has a transformer');
  await tech.reads('[data-list="proposal"]', 'Cabinet, Head 3');
  // The page comes to rest: what is cured may move what stands below it.
  await whole();
  await tech.reads('[data-choice="turns"] [data-other="switcher"]', 'hum loop');
  await start.change('turns', 'an amp switcher');
  await tech.reads('[data-choice="turns"]', 'lets heads share a cabinet');
  expect(await tech.text('[data-list="proposal"]')).not.toContain('Cabinet, Head 3');
  await whole();
  await start.change('turns', 'a splitter with transformers');
  await tech.reads('[data-list="proposal"]', 'Cabinet, Head 3');
  await whole();
  const rig = await start.make();
  expect(start.actions).toBeLessThanOrEqual(70);
  expect(bad(rig)).toEqual([]);
  const { sounds } = analyse(rig);
  const cabinets = rig.devices.filter((d) => d.kind === 'cabinet').map((d) => d.id);
  expect(cabinets).toHaveLength(3);
  for (const [n, s] of sounds.entries())
    expect(
      cabinets.map((c) => s.destinations.find((d) => d.device === c)!.sources.length > 0),
    ).toEqual([0, 1, 2].map((i) => i === n));
});

test('real pedals around a modeler, and a small board: fewer presses than on paper', async () => {
  const start = await Starting.of('Observatory modeler');
  await start.kinds('What comes in?', 'Baritone guitar');
  await start.tick('Front of house');
  await start.kinds('Which pedals are on hand?', 'Drive, mid', 'Delay', 'Reverb');
  await start.answer('What makes the sound of an amplifier?', 'a modeler');
  await tech.reads('[data-choice="wet"]', 'both sides back on 1 and 2');
  await whole();
  const rig = await start.make();
  expect(start.actions).toBeLessThanOrEqual(50);
  expect(bad(rig)).toEqual([]);
  expect(analyse(rig).sounds[0]!.destinations[0]).toMatchObject({ channels: 'stereo' });

  const small = await Starting.of('Ferry small board');
  await small.type(
    'Type a chain',
    'baritone > tuner > comp > low drive > mid drive > delay > reverb > amp',
  );
  const made = await small.make();
  expect(small.actions).toBeLessThanOrEqual(20);
  expect(made.devices).toHaveLength(8);
});

test('who must not hear is barred, two of a kind are two, and a line goes on from the answers', async () => {
  const start = await Starting.of('Ferry tracks');
  await start.kinds('What comes in?', 'Lap steel', 'Playback');
  await start.tick('Front of house');
  await start.tick('The player’s in-ears');
  await (
    await tech.page
      .locator('::-p-aria([name="Who must not hear Playback, tracks and click"])')
      .waitHandle()
  ).click();
  await tech.pick('not House');
  await tech.press('Escape');
  await start.kinds('Which pedals are on hand?', 'Drive, low');
  await start.answer('Another pedal of a kind', 'Drive, low gain');
  await tech.reads('[data-list="proposal"]', 'Drive, low gain 2');
  await tech.reads('[data-choice^="straight-"]', 'no pedal and no amplifier is for them');
  await whole();
  const rig = await start.make();
  const house = rig.devices.find((d) => d.name === 'House')!.id;
  for (const s of analyse(rig).sounds)
    expect(s.destinations.find((d) => d.device === house)!.sources).toEqual(['lap-steel']);
  expect(rig.promises!.map((p) => p.type)).toContain('never-hears');

  const again = await Starting.of('Ferry line');
  await again.kinds('What comes in?', 'Lap steel');
  await again.tick('Tube combo on stage');
  await whole();
  await tech.button('Go on with this line');
  await tech.page.waitForFunction(() =>
    (document.querySelector('[data-chain-line] input') as HTMLInputElement).value.startsWith(
      'Lap steel',
    ),
  );
  expect((await again.make()).devices.map((d) => d.kind)).toEqual(['lap-steel', 'combo-tube-loop']);
});

test('a rig that is tagged as a template is started from, without the serial numbers of its units', async () => {
  const name = `Lighthouse template ${Date.now()}`;
  const { body } = await tech.api<{ id: string }>('/api/rigs', 'POST', {
    rig: {
      format: 'yantrel-rig',
      version: 1,
      id: `template-${Date.now()}`,
      name,
      devices: [
        { id: 'steel', kind: 'lap-steel', name: 'Steel', gear: { serial: `S${name}` } },
        { id: 'echo', kind: 'delay', name: 'Brine Echo' },
      ],
      leads: [
        {
          id: 'l',
          type: 'instrument',
          metres: 3,
          from: { device: 'steel', jack: 'out' },
          to: { device: 'echo', jack: 'in' },
        },
      ],
      sounds: [{ id: 'n', name: 'Clean', states: {} }],
    },
  });
  await tech.open('/');
  await tech.page.locator(`[data-rig="${body.id}"] ::-p-text(Tags)`).click();
  await tech.page.keyboard.type('template');
  await tech.press('Enter');
  await tech.page.locator('h1').click();
  await tech.reads(`[data-rig="${body.id}"] .rig-tag`, 'template');
  const start = await Starting.of('Autumn of the template');
  await start.answer('Or start from a rig of yours', name);
  await tech.reads('[data-list="proposal"]', 'Brine Echo');
  const rig = await start.make();
  expect(rig.name).toBe('Autumn of the template');
  expect(rig.devices.map((d) => d.name)).toEqual(['Steel', 'Brine Echo']);
  expect(rig.devices[0]).not.toHaveProperty('gear');
});

test('a brief that is there is started again with other means, and undo takes it back', async () => {
  const { body } = await tech.api<{ id: string }>('/api/rigs', 'POST', {
    rig: {
      format: 'yantrel-rig',
      version: 1,
      id: `again-${Date.now()}`,
      name: 'Again',
      devices: [],
      leads: [],
      sounds: [],
      brief: {
        sources: [{ id: 's', kind: 'lap-steel', name: 'Steel' }],
        destinations: [{ id: 'd', way: 'house', name: 'House' }],
        sounds: [{ id: 'n', name: 'Clean' }],
        gear: [{ id: 'g', kind: 'delay', name: 'Brine Echo' }],
      },
    },
  });
  await tech.open(`/rigs/${body.id}/brief`);
  await tech.button('Propose a rig from this brief …');
  await tech.reads('[role="dialog"] [data-list="proposal"]', 'Amp and cab simulator');
  await (
    await tech.page
      .locator('::-p-aria([name="What makes the sound of an amplifier?"])')
      .waitHandle()
  ).click();
  await tech.pick('a modeler');
  await tech.reads('[role="dialog"] [data-list="proposal"]', 'Modeler');
  await tech.see('[role="dialog"] [data-whole="true"]');
  await tech.button('Take this rig');
  await tech.gone('[role="dialog"]');
  const rig = await tech.savedRig(body.id);
  expect(rig.brief!.means).toMatchObject({ voice: 'modeler' });
  expect(rig.devices.some((d) => kindOf(d.kind).hosts)).toBe(true);
  await tech.control('z');
  expect((await tech.savedRig(body.id)).devices).toEqual([]);
});

test('a sheet of the locker is a pedal of the start; a boost goes where the sound wants it; two supplies of one kind', async () => {
  const [example] = EXAMPLE_SHEETS;
  const sheet = { ...example!, id: `start-${Date.now()}`, name: `Kelp pair ${Date.now()}` };
  expect((await tech.api('/api/sheets', 'PUT', { sheet, base: null })).status).toBe(200);
  const start = await Starting.of('Ferry free board');
  await start.kinds('What comes in?', 'Baritone guitar');
  await start.tick('Tube combo on stage');
  await start.kinds('Which pedals are on hand?', 'Kelp pair', 'Boost', 'Drive, low');
  await start.answer('What switches the pedals?', 'free order');
  await tech.reads('[data-list="proposal"]', sheet.name);
  await tech.reads('[data-choice^="boost-"]', 'a boost lifts the sound over the band');
  await start.change('boost-lead', 'in front of it');
  await start.tick('Choose power and a board, too');
  await start.answer('Supplies on hand', 'isolated');
  await tech.press('Escape');
  await start.answer('Supplies on hand', 'number 2');
  await tech.press('Escape');
  await whole();
  const rig = await start.make();
  expect(rig.sheets!.map((s) => s.name)).toEqual([sheet.name]);
  expect(rig.devices.some((d) => d.kind === kindOfSheet(sheet).id)).toBe(true);
  expect(rig.devices.filter((d) => d.kind.startsWith('supply'))).toHaveLength(2);
  const switcher = rig.devices.find((d) => d.kind === 'loop-switcher')!;
  const loop = (kind: string) =>
    rig.leads
      .find(
        (l) =>
          l.from.device === switcher.id &&
          rig.devices.find((d) => d.id === l.to.device)!.kind === kind,
      )!
      .from.jack.replace('send', '');
  const order = String(rig.sounds.at(-1)!.states[switcher.id]!.settings!.order).split(' ');
  expect(order.indexOf(loop('boost'))).toBeLessThan(order.indexOf(loop('drive-low')));
  expect(kept(rig)).toBe(true);
});

test('a guitar, a band and a voice: an ear each, and a spare receiver, by two changed decisions', async () => {
  const start = await Starting.of('Weir session rig');
  await start.kinds('What comes in?', 'Guitar, humbuckers', 'Mix from', 'Handheld');
  await start.tick('comes by wireless');
  await start.tick('Front of house');
  await start.tick('The player’s in-ears');
  await start.answer('What makes the sound of an amplifier?', 'a modeler');
  await whole();
  await tech.reads('[data-choice="straight-mix-feed"]', 'it goes back to no desk');
  await start.change('other-ear', 'on the right ear');
  await tech.reads('[data-choice="other-ear"]', 'neither can cover the other');
  await start.change('spare-guitar-humbucker', 'a second receiver');
  await tech.reads('[data-list="proposal"]', 'Receiver selector');
  await start.change('outputs', 'the right one the ears');
  await start.change('ears-pedal', 'a pedal of the player');
  await tech.reads('[data-choice="ears-pedal"]', 'never the house');
  await whole();
  const rig = await start.make();
  expect([bad(rig), kept(rig)]).toEqual([[], true]);
  const ears = rig.devices.find((d) => d.kind === 'in-ear-mix')!;
  const { sources } = analyse(rig).sounds[0]!.destinations.find((d) => d.device === ears.id)!;
  expect([...sources].sort()).toEqual(['guitar-humbuckers', 'mix-from-the-console']);
  const moves = rig.promises!.find((p) => p.type === 'control-moves-only');
  expect(moves).toMatchObject({ destinations: [ears.id] });
});
