import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { analyse } from '../src/core/report';
import { cutList, inputList, loadsOf, makingOf, takersOf } from '../src/core/build';
import { brokenRig, touringRig } from '../src/core/demo';
import type { Rig } from '../src/core/rig';
import { fixed, showLength, showLevel } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

test(
  'power: outlets with their loads; a plan with the reason for what it cannot feed, ' +
    'taken as one step and undone',
  async () => {
    const id = await stored(tech, brokenRig);
    await tech.open(`/rigs/${id}/build?part=power`);
    await tech.reads(
      '[data-power-sum]',
      `${takersOf(brokenRig).reduce((s, t) => s + t.need.milliamps, 0)} mA ` +
        `for ${takersOf(brokenRig).length} devices`,
    );
    await tech.button('Plan the outlets');
    await tech.reads('[data-plan]', /17 of 23 devices can be fed/);
    await tech.reads('[data-plan]', 'Pocket modeler gets nothing: it needs 600 mA with headroom');
    await tech.button('Plug it so');
    await tech.reads('[data-outlet="chain chain"]', 'mA');
    const rig = await tech.savedRig(id);
    const [load] = loadsOf(rig);
    await tech.reads('[data-outlet="chain chain"]', `${load!.milliamps} mA`);
    expect(rig.devices.filter((d) => d.supply)).toHaveLength(17);
    await tech.control('z');
    await tech.reads('[data-power-sum]', '23 have no outlet');
    // What its label says, instead of what is typical: the plan follows.
    await tech.typeOver('[aria-label="Milliamps of Pocket modeler"]', '90');
    await tech.button('Plan the outlets');
    await tech.reads('[data-plan]', /\d+ of 23 devices can be fed/);
    expect(await tech.text('[data-plan]')).not.toContain('Pocket modeler gets nothing');
  },
);

test('where outlets hardly suffice the plan says what none can better; a better one is looked for beside it, and stopped', async () => {
  const outlets = Array.from({ length: 18 }, (_, i) => ({
    id: `o${i}`,
    volts: 9,
    milliamps: 500,
    isolated: true,
  }));
  const devices = Array.from({ length: 60 }, (_, i) => ({
    id: `d${i}`,
    kind: 'phaser',
    name: `Swirl ${i}`,
    power: { volts: 9, milliamps: 90 + ((i * 37) % 173) },
    ...(i % 2 && { supply: { device: 's', outlet: `o${(i * 7) % 18}` } }),
  }));
  const id = await stored(tech, {
    format: 'yantrel-rig',
    version: 1,
    id: 'x',
    name: 'Hungry',
    leads: [],
    devices: [...devices, { id: 's', kind: 'supply-isolated', name: 'Brick', gives: { outlets } }],
    sounds: [{ id: 'one', name: 'One', states: {} }],
  });
  await tech.open(`/rigs/${id}/build?part=power`);
  await tech.button('Plan the outlets');
  // How near it is told to be to what none can better hangs on how much the machine did in its time.
  await tech.reads('[data-plan]', /46 of 60 devices can be fed.*at most \d+ could be fed/);
  await tech.button('Look for up to a minute');
  await tech.reads('[data-plan]', 'Looking for a better one');
  expect(await tech.text('[data-plan]')).toContain('46 of 60 devices can be fed');
  await tech.button('Stop');
  await tech.button('Look for up to a minute');
  await tech.button('Plug it so');
  await tech.gone('[data-plan]');
  expect((await tech.savedRig(id)).devices.filter((d) => d.supply)).toHaveLength(46);
});

test('power as the labels say: outlets of its own, what a device takes, what goes back to usual', async () => {
  const board: Rig = {
    format: 'yantrel-rig',
    version: 1,
    id: 'x',
    name: 'Two and a brick',
    devices: [
      { id: 'a', kind: 'phaser', name: 'Groundswell' },
      { id: 'b', kind: 'delay', name: 'Gangway' },
      { id: 's', kind: 'supply-isolated', name: 'Brick' },
    ],
    leads: [],
    sounds: [{ id: 'one', name: 'One', states: {} }],
  };
  const id = await stored(tech, board);
  await tech.open(`/rigs/${id}/build?part=power`);
  await tech.button('What the label of Groundswell says');
  // Left empty it shows again what holds; out of range it is taken as the nearest end.
  const first = '[data-power-label="a"] input[inputmode="decimal"]';
  const shows = (value: string) =>
    tech.page.waitForFunction(
      (s, v) => document.querySelector<HTMLInputElement>(s)?.value === v,
      {},
      first,
      value,
    );
  await tech.typeOver(first, '');
  await shows('9');
  await tech.typeOver(first, '400');
  await shows('60');
  await tech.typeOver(first, '12');
  await tech.page.locator('::-p-aria([name="Current"])').click();
  await tech.pick('AC');
  await tech.done();
  await tech.reads('[data-taker="a"]', 'AC');
  await tech.button('Plan the outlets');
  await tech.reads('[data-plan]', 'Groundswell gets nothing: no outlet gives 12 V AC');
  await tech.button('Leave it');
  // The brick is not the usual one: its second outlet gives 9, 12 or 18 V, AC.
  await tech.button('Outlets of Brick …');
  await tech.typeOver('[aria-label="Voltages of outlet 2"]', '9 12 18');
  await tech.page.locator('[aria-label="Current of outlet 2"]').click();
  await tech.pick('AC');
  await tech.typeOver('[aria-label="Milliamps of outlet 2"]', '300');
  await tech.done();
  await tech.reads('[data-outlet="s 2"]', '9 V AC, 300 mA');
  await tech.button('Plan the outlets');
  await tech.reads('[data-plan]', '2 of 2 devices can be fed');
  await tech.button('Plug it so');
  await tech.reads('[data-outlet="s 2"]', '12 V AC, 300 mA Groundswell');
  await tech.reads('[data-power-leads]', '2 barrel 2.1 mm to barrel 2.1 mm');
  // A pedal with a power jack to hand on is a supply from then on.
  await tech.page.locator('input[aria-label="A device that hands power on"]').click();
  await tech.pick('Gangway');
  await tech.reads('[data-outlet="b 1"]', 'Gangway, handed on');
  await tech.reads('[data-outlet="b 1"]', '9 V, 100 mA');
  const { devices } = await tech.savedRig(id);
  expect(devices[0]!.supply).toMatchObject({ device: 's', outlet: '2', volts: 12 });
  expect(devices[2]!.gives!.outlets[1]).toMatchObject({
    volts: 9,
    also: [12, 18],
    milliamps: 300,
    ac: true,
  });
  // Back to its kind: the device on AC is then in danger, and it says so.
  await tech.button('Outlets of Brick …');
  await tech.button('As usual for its kind');
  await tech.done();
  await tech.press('f');
  await tech.page.locator('::-p-text(Groundswell takes AC and gets DC.)').wait();
});

test('leads to cut: every lead with its code and length; slack and steps change the lengths', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/build?part=leads`);
  const list = cutList(touringRig);
  await tech.reads(
    '[data-cut-sum]',
    `${list.cuts.length} leads, ${list.joints} joints, about ${fixed(list.hours)} h`,
  );
  await tech.reads(
    '[data-cut="l01"]',
    /W01 Baritone, out Radio pack, transmitter TS .*80 cm as entered 80 cm 80 pF .*4/,
  );
  const length = (metres: number) => showLength(metres, 'metric');
  // What the player holds stays as long as it is; what is laid gets more slack.
  const laid = (slack?: number) =>
    cutList({
      ...touringRig,
      making: { ...makingOf(touringRig), ...(slack !== undefined && { slack }) },
    }).cuts.find((c) => c.lead.id === 'l18')!;
  await tech.reads('[data-cut="l18"]', `${length(25)} as entered ${length(laid().cut)}`);
  await tech.typeOver('::-p-aria([name="Slack each end, m"])', '0.3');
  await tech.reads('[data-cut="l18"]', `${length(25)} as entered ${length(laid(0.3).cut)}`);
  await tech.reads('[data-cut="l01"]', /80 cm as entered 80 cm 80 pF/);
});

test('gear: weights add up, a list is read with row errors, then taken', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/build?part=gear`);
  await tech.reads('[data-gear-sum]', `${touringRig.devices.length} devices`);
  const give = async (name: string, text: string) => {
    const path = join(mkdtempSync(join(tmpdir(), 'yantrel-gear-')), name);
    writeFileSync(path, text);
    await (
      (await tech.page.waitForSelector('input[data-read]')) as ElementHandle<HTMLInputElement>
    ).uploadFile(path);
  };
  await give('bad.csv', 'name,kind\nKiln Drive,teapot\n');
  await tech.reads('[data-list="problems"]', 'row 2: there is no kind "teapot"');
  await tech.press('Escape');
  await give(
    'good.csv',
    'id,name,kind,serial,weight g,owned\nhead,Stage head,head-tube,OA-12,24500,yes\n',
  );
  await tech.reads('[data-gear-sum]', 'two persons lift: Stage head');
  expect((await tech.savedRig(id)).devices.find((d) => d.id === 'head')!.gear).toEqual({
    serial: 'OA-12',
    owner: 'Iseult Brannoch',
    value: 2100,
    grams: 24_500,
    owned: true,
  });
});

test(
  'the rig book: every part from the rig, an input list with levels, printed on the ' +
    'paper that was chosen',
  async () => {
    await tech.open('/rigs/salt-and-ferry/build?part=book');
    await tech.see('[data-part="cautions"]');
    expect(
      await tech.page.$$eval('[data-part]', (all) => all.map((e) => e.getAttribute('data-part'))),
    ).toEqual([
      'summary',
      'stage',
      'inputs',
      'walks',
      'settings',
      'wiring',
      'boards',
      'racks',
      'power',
      'midi',
      'sets',
      'cues',
      'cuts',
      'bill',
      'pack',
      'connect',
      'checklist',
      'cautions',
      'findings',
    ]);
    const rows = await tech.texts('[data-part="inputs"] tbody tr');
    const list = inputList(touringRig, analyse(touringRig).sounds);
    expect(rows).toHaveLength(list.length);
    list.forEach((l, i) => {
      expect(rows[i]).toContain(l.name);
      expect(rows[i]).toContain(
        l.quietDbu === null ? 'silent' : `${showLevel(l.quietDbu)} to ${showLevel(l.loudDbu)}`,
      );
    });
    // Each sound has its pages, the first one first.
    const routes = await tech.page.$$eval('[data-part="walks"] svg title', (all) =>
      all.map((t) => t.textContent ?? ''),
    );
    expect(routes.filter((t) => !/, \d+ of \d+$/.test(t) || t.includes(', 1 of '))).toEqual(
      touringRig.sounds.map((s) => expect.stringContaining(s.name) as string),
    );
    const boxes = async () =>
      [
        ...Buffer.from(await tech.page.pdf({ preferCSSPageSize: true }))
          .toString('latin1')
          .matchAll(/\/MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/g),
      ].map((m) => [Math.round(Number(m[1])), Math.round(Number(m[2]))].join('x'));
    const a4 = await boxes();
    expect(new Set(a4)).toEqual(new Set(['595x842', '842x595']));
    await tech.page.locator('label ::-p-text(Letter)').click();
    await tech.button('No part');
    await tech.gone('[data-part="walks"]');
    for (const part of ['Power plan', 'Cautions'])
      await tech.page.locator(`label ::-p-text(${part})`).click();
    await tech.see('[data-part="cautions"]');
    const letter = await boxes();
    expect(new Set(letter)).toEqual(new Set(['612x792']));
    expect(letter.length).toBeLessThan(a4.length);
  },
);

test('the checklist: initials first, ticks with person and time, power waits while adhesive sets', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/build?part=checklist`);
  await tech.reads('[data-checked]', /^0 of \d+ done/);
  await tech.page.locator('::-p-aria([name="Who ticks"])').fill('OF');
  await tech.click('input[data-step="lay tuner"]');
  await tech.reads('[data-list="check layout"]', /Tuner · OF, /);
  await tech.button('Fastened: start the timer');
  await tech.reads('[data-list="check power"]', 'Not yet: the adhesive has to set first.');
  expect(await tech.page.$eval('input[data-step="power tuner"]', (e) => e.disabled)).toBe(true);
  await tech.button('Stop the timer');
  await tech.click('input[data-step="power tuner"]');
  await tech.reads('[data-checked]', /^2 of/);
  expect((await tech.savedRig(id)).done!.ticks.map((t) => [t.id, t.by])).toEqual([
    ['lay tuner', 'OF'],
    ['power tuner', 'OF'],
  ]);
});
