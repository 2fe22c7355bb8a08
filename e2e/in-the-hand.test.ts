import { chainOf, device, rigOf } from '../src/core/testing/rigs';
import { kindOf } from '../src/core/kinds';
import { brokenRig, touringRig } from '../src/core/demo';
import { analyse } from '../src/core/report';
import { fixed } from '../src/core/units';
import { loopState, settingOf, stateIn, type Rig } from '../src/core/rig';
import { forEachFile, type Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

/** Does one thing with the hand and counts it: a press, a key, or a word that is typed. */
const counted = () => {
  let count = 0;
  const act = async (one: Promise<unknown>) => {
    count++;
    await one;
  };
  return { act, total: () => count };
};

const start = (): Rig => ({
  ...chainOf(['guitar-humbucker', 'loop-switcher', 'combo-tube']),
  name: 'Six in loops',
});

test('six pedals into the loops of a switcher: added, plugged both ways and heard, in under 30 actions', async () => {
  const id = await stored(tech, start());
  await tech.open(`/rigs/${id}/signal`);
  const { act, total } = counted();
  const pedals = ['compressor', 'drive, low', 'drive, mid', 'phaser', 'delay', 'reverb'];
  for (const [n, word] of pedals.entries()) {
    await act(tech.click('[data-device="d1"]'));
    await act(tech.click(`[data-loop-of="loop${n + 1}"] button`));
    await tech.see('[aria-label="Find a kind"]:focus');
    await act(tech.page.keyboard.type(word));
    await act(tech.press('Enter'));
    await tech.gone('.mantine-Modal-overlay');
  }
  expect(total()).toBeLessThan(30);
  const rig = await tech.savedRig(id);
  const { loops } = kindOf('loop-switcher');
  for (const loop of loops!.slice(0, 6))
    expect(loopState(rig, 'd1', loop)).toMatchObject({
      is: 'closed',
      devices: [expect.any(String)],
    });
  // Each is in and engaged in the sound that is heard.
  const switcher = rig.devices.find((d) => d.id === 'd1')!;
  const order = settingOf(kindOf(switcher.kind), switcher, stateIn(rig.sounds[0], 'd1'), 'order');
  expect(order).toBe('1 2 3 4 5 6');
  for (const d of rig.devices.slice(3))
    await tech.see(`[data-station="${d.id}"][data-state="engaged"]`);
});

test('out of a loop, around two, exchanged: one step each, and each is one step back', async () => {
  const rig = chainOf([
    'guitar-humbucker',
    'compressor',
    'drive-mid',
    'loop-switcher',
    'combo-tube',
  ]);
  const id = await stored(tech, rig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.click('[data-device="d3"]');
  await tech.button('Put a loop around what stands in front …');
  await tech.page.locator('::-p-text(loop 2: Device 1, Device 2)').click();
  await tech.reads('[data-loop-of="loop2"]', 'Device 1, Device 2');
  await tech.click('[data-device="d1"]');
  await tech.click('[aria-label="Exchange with"]');
  await tech.pick('Device 2');
  await tech.click('[data-device="d3"]');
  await tech.reads('[data-loop-of="loop2"]', 'Device 2, Device 1');
  await tech.click('[data-device="d1"]');
  await tech.button('Out of the loop, in front of Device 3');
  await tech.click('[data-device="d3"]');
  await tech.reads('[data-loop-of="loop2"]', /loop 2 Device 2 Add/);
  for (let n = 0; n < 3; n++) await tech.control('z');
  await tech.saved();
  expect((await tech.savedRig(id)).leads).toEqual(rig.leads);
});

test('a connection is a key, some letters of the other end, and Enter; both sides at once', async () => {
  const rig = rigOf(
    [
      device('r', 'reverb', 'Hollow'),
      device('m', 'console-input-stereo', 'House'),
      device('g', 'guitar-active', 'Guitar'),
    ],
    [],
  );
  const id = await stored(tech, rig);
  await tech.open(`/rigs/${id}/signal?device=r`);
  await tech.reads('[data-inspector]', 'Reverb');
  await tech.press('c');
  await tech.see('[aria-label="Find the other end"]:focus');
  await tech.page.keyboard.type('house');
  await tech.press('Enter');
  await tech.gone('.mantine-Modal-overlay');
  const made = await tech.savedRig(id);
  expect(made.leads).toHaveLength(2);
  // From the floor to the stage box, not half a metre.
  expect(made.leads.map((l) => [l.to.device, l.metres])).toEqual([
    ['m', 10],
    ['m', 10],
  ]);
});

test('a digit on a knob is typed into it and never chooses a sound; the clock is understood', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal?sound=crunch&device=kiln`);
  const knob = await tech.see('[role="slider"][aria-label="Drive"]');
  await knob!.focus();
  await tech.page.keyboard.type('2:30');
  await tech.press('Enter');
  await tech.page.waitForFunction(() =>
    document
      .querySelector('[role="slider"][aria-label="Drive"]')
      ?.getAttribute('aria-valuetext')
      ?.startsWith('half past 2 7.5'),
  );
  expect(await tech.text('.sound[aria-pressed="true"]')).toContain('Crunch');
  // Who types a name and Enter is led there, however fast; nothing is turned by it.
  await tech.gone('.mantine-Spotlight-content');
  await tech.control('k');
  await tech.page.keyboard.type('Brine');
  await tech.press('Enter');
  await tech.see('[data-inspector="brine"]');
  // What takes something away is the last that is offered.
  await tech.gone('.mantine-Spotlight-content');
  await tech.control('k');
  await tech.page.keyboard.type('Brine');
  await tech.reads('.mantine-Spotlight-action[data-selected]', 'Go to Brine Drive');
  const offered = await tech.texts('.mantine-Spotlight-action');
  const at = (words: string) => offered.findIndex((o) => o.startsWith(words));
  expect(at('Bypass Brine Drive')).toBeGreaterThan(0);
  expect(at('Remove Brine Drive')).toBeGreaterThan(at('Kiln Drive, in'));
  await tech.press('Escape');
  expect((await tech.savedRig(id)).sounds).toEqual(touringRig.sounds);
  // A real pedal has one knob: what is turned holds in every sound.
  const rig = await tech.savedRig(id);
  const kiln = rig.devices.find((d) => d.id === 'kiln')!;
  for (const s of rig.sounds)
    expect(settingOf(kindOf(kiln.kind), kiln, stateIn(s, 'kiln'), 'drive')).toBe(7.5);
});

test('what differs between sounds is told and made the same everywhere with one press', async () => {
  const rig: Rig = {
    ...touringRig,
    sounds: touringRig.sounds.map((s) =>
      s.id === 'lead'
        ? { ...s, states: { ...s.states, kiln: { ...s.states.kiln, settings: { drive: 9 } } } }
        : s,
    ),
  };
  const id = await stored(tech, rig);
  await tech.open(`/rigs/${id}/signal?sound=lead&device=kiln`);
  await tech.reads('[data-setting-differs="drive"]', /Drive stands otherwise in Tide flat .* more/);
  await tech.click('[aria-label="Drive the same everywhere"]');
  await tech.gone('[data-setting-differs="drive"]');
  const made = await tech.savedRig(id);
  expect(made.devices.find((d) => d.id === 'kiln')!.settings).toMatchObject({ drive: 9 });
});

test('the palette opens from inside a field, takes what is typed, and finds by meaning', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal?sound=crunch&device=kiln`);
  await tech.click('[aria-label="Name of the device"]');
  await tech.control('k');
  await tech.see('[aria-label="Find and do anything"]:focus');
  await tech.page.keyboard.type('b1 isolated');
  for (let n = 0; n < 'b1 '.length; n++) await tech.press('Home', 'Delete');
  await tech.reads('.mantine-Spotlight-actionsList', 'transformer');
  await tech.press('Escape');
  const rig = await tech.savedRig(id);
  expect(rig.sounds).toEqual(touringRig.sounds);
  expect(rig.devices).toEqual(touringRig.devices);
  expect(await tech.text('.sound[aria-pressed="true"]')).toContain('Crunch');
});

test('a link lands where it was copied: sound, device, findings and their filter; reload too', async () => {
  const id = await stored(tech, brokenRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.sound('3');
  await tech.click('[data-device="ember"]');
  await tech.page.locator('.walk-tools ::-p-text(Table)').click();
  await tech.see('.walk-table');
  await tech.press('f');
  await tech.click('[aria-label="Severity"]');
  await tech.pick('danger');
  await tech.page.waitForFunction(() =>
    ['severity=danger', 'pane=table'].every((x) => window.location.search.includes(x)),
  );
  const { href } = new URL(tech.page.url());
  expect(href).toContain('sound=storm');
  const colleague = await tech.anotherTab();
  await colleague.page.goto(href);
  await colleague.see('[data-finding]');
  expect(await colleague.text('.sound[aria-pressed="true"]')).toContain('Storm');
  await colleague.see('[data-inspector="ember"]');
  const marks = await colleague.texts('[data-finding] > .sev');
  expect(new Set(marks)).toEqual(new Set(['danger']));
  await colleague.see('.walk-table');
  await colleague.reload();
  await colleague.see('[data-inspector="ember"]');
  await colleague.see('.walk-table');
  await colleague.page.close();
});

test('what is pressed as soon as a page answers is not taken back by its address', async () => {
  const id = await stored(tech, touringRig);
  const quick = await tech.anotherTab();
  await quick.page.evaluateOnNewDocument(() => {
    const look = setInterval(() => {
      const strip = document.querySelector<HTMLElement>('[data-station="kiln"]');
      const digit = document.querySelector<HTMLElement>('.sounds-bar [data-digit="5"]');
      const answers = (e: HTMLElement | null): e is HTMLElement =>
        e !== null && Object.keys(e).some((k) => k.startsWith('__reactProps'));
      if (!answers(strip) || !answers(digit)) return;
      clearInterval(look);
      strip.click();
      digit.click();
    }, 1);
  });
  await quick.open(`/rigs/${id}/signal?device=head&sound=edge`);
  await quick.see('[data-inspector="kiln"]');
  await quick.page.waitForFunction(() => window.location.search.includes('device=kiln'));
  await quick.see('.sounds-bar [data-digit="5"][aria-pressed="true"]');
  await quick.see('[data-inspector="kiln"]');
  await quick.page.close();
});

test('the last edit says what it did to the findings', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal?sound=lead`);
  await tech.see('[data-station="kiln"]');
  await tech.page.waitForFunction(() => !document.querySelector('.since-edit'));
  await tech.click('[data-device="head"]');
  await tech.press('c', 'Escape');
  await tech.click('[data-device="kiln"]');
  await tech.press('Delete');
  await tech.reads('.findings-button-box', /\d+ (new|cured)/);
});

test('several are chosen, turned, named and copied into another rig, each with one step', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal?sound=lead`);
  await tech.see('[data-station]');
  await tech.click('[data-device="kiln"]');
  // By keys along the walk, one more and one fewer; then one further on by hand.
  await tech.page.keyboard.down('Shift');
  await tech.press('ArrowRight', 'ArrowRight');
  await tech.see('[data-many="3"]');
  await tech.press('ArrowLeft', 'ArrowLeft');
  await tech.see('[data-inspector="kiln"]');
  await tech.page.click('[data-device="flare"]');
  await tech.page.keyboard.up('Shift');
  await tech.reads('[data-many="2"]', 'Kiln Drive, Flare Boost');
  await tech.button('Bypass in Lead');
  await tech.see('[data-device="kiln"][data-state="through"]');
  await tech.see('[data-device="flare"][data-state="through"]');
  await tech.typeOver('[aria-label="Pattern of their names"]', 'Dirt #');
  await tech.button('Name');
  await tech.reads('[data-many="2"]', 'Dirt 1, Dirt 2');
  // What the clipboard carries is text, so that it goes into any page.
  const clip = await tech.page.evaluate(() => {
    const data = new DataTransfer();
    document.dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true }));
    return data.getData('text/plain');
  });
  const other = await stored(tech, start());
  await tech.open(`/rigs/${other}/signal`);
  await tech.see('[data-station="d1"]');
  await tech.page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData('text/plain', text);
    document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  }, clip);
  await tech.reads('[data-many="2"]', 'Dirt 1, Dirt 2');
  await tech.control('z');
  await tech.gone('[data-many="2"]');
});

test('several are chosen by a frame over the walk, and by what a finding is about', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal?sound=flat`);
  const at = async (station: string) =>
    (await (await tech.page.locator(`[data-station="${station}"]`).waitHandle()).boundingBox())!;
  const [from, to] = [await at('bari'), await at('join')];
  const { mouse } = tech.page;
  await mouse.move(from.x - 4, from.y - 4);
  await mouse.down();
  await mouse.move(to.x + 8, to.y + 12, { steps: 4 });
  await tech.see('.marquee');
  await mouse.up();
  await tech.gone('.marquee');
  await tech.reads('[data-many="3"]', 'Baritone, Radio pack, Instrument joiner');
  await tech.press('f');
  const loop = analyse(touringRig).findings.find((f) => f.rule === 'hum-loop')!;
  const devices = loop.subjects.filter((x) => touringRig.devices.some((d) => d.id === x));
  expect(devices.length).toBeGreaterThan(1);
  await tech.page
    .locator(`[data-finding="${loop.key}"] ::-p-text(Choose its ${devices.length} devices)`)
    .click();
  await tech.see(`[data-many="${devices.length}"]`);
});

test('nothing chosen: what the sound is about, and what to do next, which opens where it is', async () => {
  await tech.open('/rigs/observatory-practice/signal?sound=storm');
  await tech.reads('.guide-text', 'Storm');
  const { findings } = analyse(brokenRig);
  const here = findings.filter((f) => f.sounds.includes('storm'));
  await tech.reads('.guide-text', here[0]!.what);
  await tech.reads('.guide-text', `and ${here.length - 4} more in this sound`);
  await tech.page.locator(`::-p-text(and ${here.length - 4} more in this sound)`).click();
  await tech.see('[data-finding]');
  expect(await tech.page.$$('[data-finding]')).toHaveLength(here.length);
});

test('a song is drawn to scale, and made longer at the edge of a section', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/songs`);
  await tech.click('[data-song="unlit"]');
  const wide = async (part: string) =>
    (await (await tech.see(`[data-ribbon="${part}"]`))!.boundingBox())!.width;
  // Sixteen bars are twice as wide as eight, to a pixel or two of their edges.
  expect(Math.abs((await wide('s2')) / (await wide('s1')) - 2)).toBeLessThan(0.05);
  const edge = await tech.see('.ribbon-edge[aria-label="Bars of Dark"]');
  await edge!.focus();
  await tech.press('ArrowRight');
  await tech.see('.ribbon-edge[aria-label="Bars of Dark"][aria-valuenow="9"]');
  const box = (await edge!.boundingBox())!;
  await tech.page.mouse.move(box.x + box.width / 2, box.y + 10);
  await tech.page.mouse.down();
  await tech.page.mouse.move(box.x + 90, box.y + 10, { steps: 6 });
  await tech.page.mouse.up();
  const drawn = Number(
    await tech.page.$eval('.ribbon-edge[aria-label="Bars of Dark"]', (e) =>
      e.getAttribute('aria-valuenow'),
    ),
  );
  expect(drawn).toBeGreaterThan(9);
  // One step back for what was drawn, one for the key.
  await tech.control('z');
  await tech.see('.ribbon-edge[aria-label="Bars of Dark"][aria-valuenow="9"]');
});

test('the matrix is one stop of the Tab key, arrows go about in it, and a hand draws over several cells', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/sounds?part=matrix`);
  await tech.see('[data-cell="kiln flat"]');
  expect(
    await tech.page.$$eval(
      '.matrix td button',
      (all) => all.filter((b) => (b as HTMLElement).tabIndex === 0).length,
    ),
  ).toBeLessThanOrEqual(2);
  const cells = ['kiln flat', 'kiln edge', 'kiln crunch'];
  const at = async (cell: string) =>
    (await (await tech.see(`[data-cell="${cell}"] button`))!.boundingBox())!;
  const before = touringRig.sounds.map((s) => s.states.kiln?.engaged ?? false);
  const [first, , last] = [await at(cells[0]!), 0, await at(cells[2]!)];
  await tech.page.mouse.move(first.x + 5, first.y + 5);
  await tech.page.mouse.down();
  await tech.page.mouse.move(last.x + 5, last.y + 5, { steps: 12 });
  await tech.page.mouse.up();
  const words = before[0] ? 'off' : 'on';
  for (const cell of cells) await tech.reads(`[data-cell="${cell}"] button`, words);
  await tech.control('z');
  await tech.reads(`[data-cell="kiln flat"] button`, before[0] ? 'on' : 'off');
  await tech.page.focus('[data-cell="kiln flat"] button');
  await tech.press('ArrowRight', 'ArrowRight');
  expect(await tech.page.evaluate(() => document.activeElement?.closest('td')?.dataset.cell)).toBe(
    'kiln crunch',
  );
});

test('the walk as a table: from where to where, how it stands, and the figures', async () => {
  await tech.open('/rigs/salt-and-ferry/signal?sound=lead');
  await tech.see('[data-station="kiln"]');
  await tech.press('t');
  const report = analyse(touringRig).sounds.find((s) => s.sound === 'lead')!;
  const kiln = report.stations.find((s) => s.device === 'kiln')!;
  await tech.reads(
    '[data-table-station="kiln"]',
    `Brine Drive Flare Boost engaged ${fixed(kiln.output.levelDbu!.normal)}`,
  );
});
