import { analyse } from '../src/core/report';
import type { KeyInput } from 'puppeteer-core';
import { brokenRig, touringRig } from '../src/core/demo';
import { chainOf } from '../src/core/testing/rigs';
import { smallWalk } from '../src/core/draw/small-walk';
import { effectiveRig } from '../src/core/control';
import { noiseIn, playNote } from '../src/core/note';
import { kindOf } from '../src/core/kinds';
import { applyEdits, isEngaged, nameOf, type Rig, stateIn } from '../src/core/rig';
import { fixed } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

const at = (rig: Rig, sound: string) => analyse(rig).sounds.find((s) => s.sound === sound)!;
const level = (rig: Rig, sound: string, station: string) =>
  fixed(at(rig, sound).stations.find((s) => s.id === station)!.output.levelDbu!.normal);

test('from the list into the demo rig: the walk of each sound with its figures, by number keys', async () => {
  await tech.open('/');
  // Other tests leave rigs of that name in the list.
  await tech.page.locator('[data-rig="salt-and-ferry"] a').click();
  await tech.see('[data-station="kiln"]');
  expect((await tech.order()).slice(0, 4)).toEqual(['bari', 'radio', 'join', 'tuner']);
  for (const [key, sound] of [
    ['2', 'edge'],
    ['5', 'lead'],
  ] as const) {
    await tech.press(key);
    await tech.reads(
      '[data-figures="brine"] [data-row="level"]',
      level(touringRig, sound, 'brine'),
    );
    const house = at(touringRig, sound).destinations.find((d) => d.device === 'wide')!;
    await tech.reads('[data-destination="wide"]', `${fixed(house.levelDbu!.normal)} dBu`);
    expect(await tech.text('[data-destination="wide"]')).toContain('stereo');
  }
  await tech.sound('8');
  await tech.reads('[data-destination="house"]', 'silent');
  expect(await tech.page.$eval('[data-station="tuner"]', (e) => e.getAttribute('data-state'))).toBe(
    'muted',
  );
});

test('a strip that only passes on is chosen wherever it is pressed: nothing lies over it', async () => {
  await tech.open('/rigs/salt-and-ferry/signal?sound=flat');
  // A link within the page is followed as one from elsewhere is.
  await tech.reads('.sounds-bar [aria-pressed="true"]', 'Tide flat');
  const strip = await tech.see('[data-station="kiln"].narrow');
  const { x, y, width, height } = (await strip!.boundingBox())!;
  await tech.page.mouse.click(x + width / 2, y + height - 6);
  await tech.see('[data-inspector="kiln"]');
});

test('a long walk draws what is in sight; whatever is chosen from afar is brought there', async () => {
  const rig = chainOf(['guitar-humbucker', ...Array<string>(60).fill('buffer'), 'console-input']);
  const id = await stored(tech, rig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.see('[data-station="d0"]');
  const strips = () => tech.page.$$eval('[data-station]', (all) => all.length);
  expect(await strips()).toBeLessThan(30);
  expect(await tech.page.$('[data-station="d61"]')).toBeNull();
  await tech.control('k');
  await tech.page.keyboard.type('Device 55');
  await tech.see('::-p-text(Device 55)');
  await tech.press('Enter');
  await tech.see('[data-inspector="d55"]');
  const isInSight = (station: string) =>
    tech.page.waitForFunction(
      (s) => {
        const strip = document.querySelector(`[data-station="${s}"]`)?.getBoundingClientRect();
        const pane = document.querySelector('#place .scroll')!.getBoundingClientRect();
        return strip && strip.left >= pane.left && strip.right <= pane.right + 1;
      },
      { polling: 50 },
      station,
    );
  await isInSight('d55');
  await tech.reads('[data-figures="d55"] [data-row="level"]', level(rig, 's1', 'd55'));
  // Onwards by keys, past what was drawn: the next ones come.
  await tech.gone('.mantine-Spotlight-content');
  await tech.press(...Array<KeyInput>(6).fill('ArrowRight'));
  await isInSight('d61');
  await tech.reads('[data-figures="d61"] [data-row="level"]', level(rig, 's1', 'd61'));
  expect(await tech.page.$('[data-station="d0"]')).toBeNull();
  expect(await strips()).toBeLessThan(30);
  // Three keys before the page has drawn anything are three steps.
  await tech.page.evaluate(() => {
    for (let n = 0; n < 3; n++)
      document.body.dispatchEvent(
        new KeyboardEvent('keydown', { key: 'ArrowLeft', bubbles: true }),
      );
  });
  await tech.see('[data-inspector="d58"]');
});

test('the figures are there before any script runs', async () => {
  const reader = await Person.arrives();
  await reader.page.setJavaScriptEnabled(false);
  await reader.page.goto(`${process.env.YANTREL_URL}/rigs/salt-and-ferry/signal`);
  expect(await reader.text('[data-figures="comp"] [data-row="level"]')).toBe(
    level(touringRig, 'flat', 'comp'),
  );
  // The list of rigs draws the walk of the first sound, small: as many strips as the walk has.
  await reader.page.goto(process.env.YANTREL_URL!);
  const small = '[data-rig="salt-and-ferry"] .small-walk';
  const { strips } = smallWalk(touringRig, at(touringRig, 'flat'))!;
  expect(await reader.page.$$(`${small} rect`)).toHaveLength(strips.length);
});

test('the list of rigs says what is wrong with one that has just come in, without a reload', async () => {
  const id = await stored(tech, brokenRig);
  await tech.open('/');
  await tech.see(`[data-rig="${id}"] .small-walk`);
  expect(await tech.texts(`[data-rig="${id}"] .open-findings .sev`)).not.toHaveLength(0);
});

test(
  'move by keyboard: the change in figures is shown before the drop, then the walk ' +
    'and the figures follow, and all is there after a reload',
  async () => {
    const id = await stored(tech, touringRig);
    await tech.open(`/rigs/${id}/signal`);
    await tech.sound('4');
    await tech.click('[data-station="kiln"]');
    await tech.press('m');
    await tech.reads('.preview', 'arrow keys choose the place');
    await tech.press('ArrowRight', 'ArrowRight', 'ArrowRight', 'ArrowRight');
    await tech.reads('.preview table', /dB/);
    const said = await tech.text('.preview');
    expect(said).toContain('Kiln Drive between');
    expect((await tech.order()).indexOf('kiln')).toBeGreaterThan(
      (await tech.order()).indexOf('brine'),
    );
    await tech.press('Escape');

    await tech.click('[data-station="flare"]');
    await tech.press('5', 'm');
    for (
      let i = 0;
      i < 30 &&
      !(await tech.text('.preview').catch(() => '')).includes(
        'between Ballast Octave and Brine Drive',
      );
      i++
    )
      await tech.press('ArrowRight');
    const moved = applyEdits(touringRig, [
      { edit: 'moveDevice', device: 'flare', lead: 'l07', newLeads: ['a', 'b'] },
    ]);
    if (!moved.ok) throw new Error('the move is possible');
    const change =
      at(moved.value.rig, 'lead').destinations.find((d) => d.device === 'cab')!.levelDbu!.normal -
      at(touringRig, 'lead').destinations.find((d) => d.device === 'cab')!.levelDbu!.normal;
    await tech.reads('.preview table', `${fixed(change)} dB`);
    await tech.press('Enter');
    await tech.reads(
      '[data-figures="flare"] [data-row="level"]',
      level(moved.value.rig, 'lead', 'flare'),
    );
    const order = await tech.order();
    expect(order.indexOf('flare')).toBe(order.indexOf('brine') - 1);
    await tech.saved();
    await tech.reload();
    await tech.see('[data-station="flare"]');
    await tech.sound('5');
    await tech.see('[data-station="deck"]');
    expect(await tech.order()).toEqual(order);
  },
);

test('drag to a gap: the preview shows while held, the order changes on release, undo brings it back', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.sound('4');
  const before = await tech.order();
  const from = (await (await tech.see('[data-station="brine"]'))!.boundingBox())!;
  const to = (await (await tech.see('[data-lead="l02"]'))!.boundingBox())!;
  await tech.page.mouse.move(from.x + 20, from.y + 20);
  await tech.page.mouse.down();
  await tech.page.mouse.move(from.x - 30, from.y + 25, { steps: 4 });
  await tech.page.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 12 });
  await tech.reads('.preview', 'Brine Drive between Radio pack and Instrument joiner');
  await tech.reads('.preview table', /dB/);
  await tech.page.mouse.up();
  await tech.page.waitForFunction(() => document.querySelector('.preview') === null);
  const at = async (device: string) => (await tech.order()).indexOf(device);
  for (let i = 0; i < 100 && (await at('brine')) > (await at('join')); i++)
    await new Promise((r) => setTimeout(r, 50));
  const after = await tech.order();
  expect(after.indexOf('brine')).toBe(after.indexOf('join') - 1);
  await tech.control('z');
  await tech.page.waitForFunction(
    (o) => [...document.querySelectorAll('.station')].length === o,
    {},
    before.length,
  );
  await tech.reads('[aria-label="Undo"]', '');
  expect(await tech.order()).toEqual(before);
});

test('one note at a probe: how loud, its bands and wave, beside another sound; and what arrives', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.sound('3');
  await tech.click('[data-lead="l08"]');
  const lead = touringRig.leads.find((l) => l.id === 'l08')!;
  const noteIn = (sound: string) => {
    const rig = effectiveRig(touringRig);
    const { at } = playNote(
      rig,
      rig.sounds.find((s) => s.id === sound)!,
    );
    return at(lead.to.device, lead.to.jack)!.touches;
  };
  const [soft, , hard] = noteIn('crunch');
  await tech.reads(
    '[data-note] [data-loudness]',
    `${fixed(soft.loudnessDbu)} / ${fixed(noteIn('crunch')[1].loudnessDbu)} / ${fixed(hard.loudnessDbu)} dBu`,
  );
  await tech.click('[data-note] input[placeholder]');
  await tech.pick('Tide flat');
  await tech.reads('[data-note] [data-louder]', /louder|softer|as loud/);
  await tech.click('[data-note] summary');
  expect(await tech.page.$$('[data-note] [data-band]')).toHaveLength(25);
  // What hisses there, and how far the note is over it.
  const rig = effectiveRig(touringRig);
  const crunch = rig.sounds.find((s) => s.id === 'crunch')!;
  const noise = noiseIn(rig, crunch)(lead.to.device, lead.to.jack).playing!;
  await tech.reads(
    '[data-noise] [data-over]',
    `${fixed(noteIn('crunch')[1].loudnessDbu - noise.weightedDbu)} dB`,
  );
  await tech.reads('[data-noise] [data-most]', nameOf(rig, noise.device));
  // As it was before the last edit: the same until something is turned.
  await tech.click('[data-note] input[placeholder]');
  await tech.pick('before the last edit');
  await tech.reads('[data-note]', 'Nothing to show for before the last edit');
  await tech.click('[data-station="comp"]');
  await tech.press('b');
  await tech.click('[data-lead="l08"]');
  await tech.click('[data-note] input[placeholder]');
  await tech.pick('before the last edit');
  await tech.reads('[data-note] [data-louder]', /louder|softer/);
  await tech.open(`/rigs/${id}/sounds?part=arrivals`);
  await tech.reads('[data-arrival="crunch"] [data-loudness]', /−?\d+\.\d dBu/);
  await tech.see('[data-notes-over] svg');
});

test('probe a lead, insert into it, replace, bypass, remove; every step can be undone', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.sound('3');
  await tech.click('[data-lead="l08"]');
  const input = at(touringRig, 'crunch').stations.find((s) => s.device === 'kiln')!.input!;
  await tech.reads('[data-probe="l08"]', `${fixed(input.levelDbu!.normal)} /`);
  expect(await tech.text('[data-probe="l08"]')).toContain('5 kΩ');
  await tech.press('i');
  await tech.see('[aria-label="Find a kind"]:focus');
  await tech.page.keyboard.type('boost');
  await tech.reads('.preview table', /\+\d/);
  await tech.press('ArrowUp', 'Enter');
  await tech.see('[data-inspector="boost"], [data-inspector="treble-booster"]');
  const fresh = (await tech.page.$eval('[data-inspector]', (e) =>
    e.getAttribute('data-inspector'),
  ))!;
  await tech.see(`[data-station="${fresh}"][data-state="engaged"]`);
  await tech.press('b');
  await tech.page.waitForFunction(
    (d) =>
      document.querySelector(`[data-station="${d}"]`)?.getAttribute('data-state') === 'through',
    {},
    fresh,
  );
  await tech.press('r');
  await tech.see('[aria-label="Find a kind"]:focus');
  await tech.page.keyboard.type('phaser');
  await tech.press('Enter');
  await tech.reads('[data-inspector]', 'Phaser');
  await tech.press('Delete');
  await tech.gone(`[data-station="${fresh}"]`);
  for (let i = 0; i < 4; i++) await tech.control('z');
  await tech.gone(`[data-device="${fresh}"]`);
  await tech.saved();
  const { body } = await tech.api<{ rig: Rig }>(`/api/rigs/${id}`);
  expect(body.rig.leads).toEqual(touringRig.leads);
});

test('a device is added behind a free output', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.click('[data-station="mic2"]');
  await tech.press('a');
  expect(await tech.page.$('[aria-label="Find a kind"]')).toBeNull();
  await tech.click('[data-station="sim"]');
  await tech.press('a');
  await tech.see('[aria-label="Find a kind"]:focus');
  await tech.page.keyboard.type('recorder');
  await tech.reads('[aria-label="Kinds"]', 'Recorder input');
  await tech.press('Enter');
  await tech.see('[data-station="recorder-input"]');
  await tech.reads('[data-destination="recorder-input"]', /Recorder input −\d/);
  await tech.saved();
  expect((await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig.leads.at(-1)).toMatchObject({
    from: { device: 'sim', jack: 'outR' },
    to: { device: 'recorder-input', jack: 'in' },
  });
});

test('a key that comes before the figures of the last one works on what stands now', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal?device=brine&sound=crunch`);
  await tech.see('[data-inspector="brine"]');
  await tech.see('[data-station="brine"]');
  const isOn = (rig: Rig) => {
    const device = rig.devices.find((d) => d.id === 'brine')!;
    const sound = rig.sounds.find((s) => s.id === 'crunch');
    return isEngaged(kindOf(device.kind), device, stateIn(sound, device.id));
  };
  const before = isOn(touringRig);
  await tech.press('b', 'b');
  expect(isOn(await tech.savedRig(id))).toBe(before);
  await tech.press('b', 'b', 'b');
  expect(isOn(await tech.savedRig(id))).toBe(!before);
});

test(
  'turn a knob by keys: clock hour, figure and level follow; a measured figure ' +
    'replaces the typical one',
  async () => {
    const id = await stored(tech, touringRig);
    await tech.open(`/rigs/${id}/signal`);
    await tech.sound('3');
    await tech.click('[data-station="brine"]');
    const knob = await tech.see('[role="slider"][aria-label="Drive"]');
    await knob!.focus();
    await tech.press('End');
    await tech.page.waitForFunction(() =>
      document
        .querySelector('[role="slider"][aria-label="Drive"]')
        ?.getAttribute('aria-valuetext')
        ?.startsWith("5 o'clock 10.0 · 30.0 dB"),
    );
    const turned = applyEdits(touringRig, [
      { edit: 'setSetting', device: 'brine', sound: 'crunch', setting: 'drive', value: 10 },
    ]);
    if (!turned.ok) throw new Error('the knob turns');
    await tech.reads(
      '[data-figures="brine"] [data-row="level"]',
      level(turned.value.rig, 'crunch', 'brine'),
    );
    await tech.click('[aria-label="Change Equivalent input noise"]');
    await tech.typeOver('[data-figure="noiseDbu"] input', '-80');
    await tech.page.locator('::-p-text(measured)').click();
    await tech.button('Use this figure');
    await tech.reads(
      '[data-figure="noiseDbu"]',
      /measured, \d{4}-\d{2}-\d{2}; typical is −100 dBu −80 dBu/,
    );
  },
);

test('tone response of a bare pickup against the reference lead', async () => {
  await tech.open('/rigs/observatory-practice/signal');
  await tech.sound('3');
  await tech.click('[data-station="mando"]');
  await tech.see('.recharts-line-curve');
  const tone = at(brokenRig, 'storm').tones.find((t) => t.bare)!;
  await tech.reads('[data-inspector="mando"]', `${fixed(tone.at5kHzDb, 2)} dB`);
});
