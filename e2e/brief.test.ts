import { touringRig } from '../src/core/demo';
import type { Rig } from '../src/core/rig';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

const bare: Rig = { ...touringRig, brief: undefined, promises: undefined };
const pick = async (label: string, words: string) => {
  await tech.page.locator(`.promise-form ::-p-aria([name="${label}"])`).click();
  await tech.pick(words);
};

test(
  'a promise is put together from a short list, checked at once, broken by an edit ' +
    'and told with its route',
  async () => {
    const id = await stored(tech, bare);
    await tech.open(`/rigs/${id}/brief`);
    await tech.button('Promise something …');
    await pick('What is promised', 'a destination never hears a source');
    await pick('Destination', 'House, tracks');
    await pick('Source', 'Tide tracks, click');
    await tech.reads(
      '[data-sentence]',
      'House, tracks never hears Tide tracks, click, in every sound.',
    );
    await tech.button('Promise this');
    await tech.reads('[data-promise="never-hears"]', 'kept');
    await tech.saved();

    // Somebody plugs the click into the house.
    await tech.page.locator('nav ::-p-text(Signal)').click();
    await tech.see('[data-station="kiln"]');
    await tech.press('w');
    await tech.click('[data-wire="l30"]');
    await tech.page.locator('label ::-p-text(Inspect)').click();
    await tech.button('Disconnect');
    await tech.press('w');
    await tech.click('[data-wire="l31"]');
    await tech.page.locator('label ::-p-text(Inspect)').click();
    await tech.button('Disconnect');
    await tech.press('w');
    const connect = async (label: string, words: string) => {
      await (await tech.page.locator(`::-p-aria([name="${label}"])`).waitHandle()).click();
      await tech.page.keyboard.type(words);
      await tech.pick(words);
    };
    await connect('From an output', 'Tide tracks, click out');
    await connect('To an input', 'Tracks direct box, in');
    await tech.button('Connect');
    await tech.page.locator('nav ::-p-text(Brief)').click();
    await tech.reads('[data-promise="never-hears"]', 'broken');
    const told = await tech.text('[data-promise="never-hears"]');
    expect(told).toContain(
      'Tide tracks, click reaches it by way of Tide tracks, Tracks direct box, House, tracks.',
    );
    await tech.press('f');
    await tech.reads(
      '.mantine-Drawer-body',
      'Broken promise: House, tracks never hears Tide tracks, click',
    );
  },
);

test('a promise about one ear: the side is asked for where there are two', async () => {
  const id = await stored(tech, bare);
  await tech.open(`/rigs/${id}/brief`);
  await tech.button('Promise something …');
  await pick('What is promised', 'latency stays under a figure');
  await pick('Destination', 'Stage cabinet');
  await tech.gone('.promise-form ::-p-aria([name="Side"])');
  await pick('Destination', 'Iseult’s in-ears');
  await pick('Side', 'left');
  await pick('Of this source alone', 'Baritone');
  await tech.reads(
    '[data-sentence]',
    'Latency of Baritone to the left side of Iseult’s in-ears is under 10 ms, in every sound.',
  );
  await tech.button('Promise this');
  await tech.reads('[data-promise="latency-under"]', 'kept');
});

test('a control that moves one thing only, and taking a promise back', async () => {
  const id = await stored(tech, bare);
  await tech.open(`/rigs/${id}/brief`);
  await tech.button('Promise something …');
  await pick('What is promised', 'a control moves some destinations and nothing else');
  await tech.page.locator('.promise-form ::-p-aria([name="Control"])').click();
  await tech.page.keyboard.type('Pedal, heel to toe of Swell');
  await tech.pick('Pedal, heel to toe of Swell pedal');
  await pick('moves only', 'Stage cabinet');
  await tech.press('Escape');
  await pick('In these sounds', 'Lead');
  await tech.press('Escape');
  await tech.button('Promise this');
  await tech.reads('[data-promise="moves-only"]', 'broken');
  expect(await tech.text('[data-promise="moves-only"]')).toContain(
    'It moves House, cabinet mic too',
  );
  await tech.button('Take it back');
  await tech.gone('[data-promise="moves-only"]');
  await tech.control('z');
  await tech.see('[data-promise="moves-only"]');
});

test('the brief is read from the rig, held against it, and drives a start that undo takes back', async () => {
  const id = await stored(tech, bare);
  await tech.open(`/rigs/${id}/brief`);
  await tech.button('Read it from the rig');
  await tech.page.waitForFunction(
    () => document.querySelectorAll('[data-line][data-answered="true"]').length > 10,
  );
  expect(await tech.page.$$('[data-line][data-answered="false"]')).toEqual([]);
  await tech.page.locator('::-p-aria([name="Add a sound"])').fill('Whisper');
  await tech.press('Enter');
  await tech.see('[data-line][data-answered="false"]');
  await tech.button('Make it');
  await tech.page.waitForFunction(
    () => document.querySelectorAll('[data-line][data-answered="false"]').length === 0,
  );
  expect(await tech.texts('.sounds-bar .sound')).toContain('9 Whisper');
  await tech.button('Propose a rig from this brief …');
  await tech.see('[data-list="proposal"]');
  await tech.button('Take this rig');
  await tech.page.waitForFunction(() => document.querySelectorAll('[data-promise]').length > 3);
  await tech.saved();
  const made = (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig;
  expect(made.devices.some((d) => d.id === 'kiln')).toBe(false);
  expect(made.brief!.sounds.map((s) => s.name)).toContain('Whisper');
  await tech.control('z');
  await tech.saved();
  expect(
    (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig.devices.some((d) => d.id === 'kiln'),
  ).toBe(true);
});
