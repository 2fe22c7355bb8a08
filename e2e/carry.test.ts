import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  boardModel,
  budgetOf,
  cutList,
  judge,
  mainsSums,
  placesNow,
  pressedDevices,
  rackSums,
  spotsOf,
} from '../src/core/build';
import { brokenRig, flyRig, touringRig } from '../src/core/demo';
import { changeTo } from '../src/core/show/book';
import { applyEdits, type Rig } from '../src/core/rig';
import { fixed } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

const judged = (rig: Rig) => {
  const m = boardModel(rig, rig.boards![0]!, pressedDevices(rig));
  return judge(m, placesNow(m));
};
const at = (rig: Rig, id: string) => rig.devices.find((d) => d.id === id)!.at!;

test(
  'the board: what hits is told, a pedal is picked, nudged, turned and pinned by ' +
    'keys, dragged by hand, and all of it undone',
  async () => {
    const id = await stored(tech, brokenRig);
    await tech.open(`/rigs/${id}/build?part=board`);
    await tech.reads(
      '[data-list="clashes"]',
      'Ember Drive and Moth Fuzz stand on the same place. They overlap by 30 mm.',
    );
    await tech.reads('[data-board-sum]', `${judged(brokenRig).clashes.length} to put right`);
    await tech.click('.plan [data-item="ember"]');
    await tech.reads('[data-item-panel="ember"]', '20 mm from the left, 150 mm from the rear edge');
    await tech.press('ArrowRight', 'ArrowDown');
    await tech.reads('[data-item-panel="ember"]', '25 mm from the left, 155 mm from the rear edge');
    await tech.press('r');
    await tech.reads('[data-item-panel="ember"]', 'turned 90°');
    await tech.press('p');
    expect(at(await tech.savedRig(id), 'ember')).toEqual({
      board: 'van-board',
      x: 25,
      y: 155,
      turn: 90,
      pinned: true,
    });
    // Dragged well clear of the others it hits nothing any more; while it is held the figures are
    // those of where it is.
    const box = (await (await tech.see(
      '.plan [data-item="lift"] rect:last-of-type',
    ))!.boundingBox())!;
    const scale = await tech.page.$eval('.plan svg', (e) => e.getScreenCTM()!.a);
    await tech.page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await tech.page.mouse.down();
    await tech.page.mouse.move(
      box.x + box.width / 2 + 415 * scale,
      box.y + box.height / 2 + 8 * scale,
      { steps: 6 },
    );
    await tech.reads('[data-board-sum]', 'before:');
    await tech.page.mouse.up();
    const moved = at(await tech.savedRig(id), 'lift');
    expect(moved.x).toBeGreaterThan(380);
    for (let i = 0; i < 5; i++) await tech.control('z');
    expect((await tech.savedRig(id)).devices.map((d) => d.at)).toEqual(
      JSON.parse(JSON.stringify(brokenRig.devices.map((d) => d.at ?? null))).map(
        (a: unknown) => a ?? undefined,
      ),
    );
  },
);

test(
  'an empty board: everything is placed, then arranged in a worker with its best so ' +
    'far; the layout is taken as one step',
  async () => {
    const bare: Rig = {
      ...flyRig,
      boards: undefined,
      cases: undefined,
      devices: flyRig.devices.map((d) => ({ ...d, at: undefined })),
    };
    const id = await stored(tech, JSON.parse(JSON.stringify(bare)) as Rig);
    await tech.open(`/rigs/${id}/build?part=board`);
    await tech.button('Add a board');
    await tech.page.locator('[role="menuitem"] ::-p-text(Wide, 1000)').click();
    await tech.reads('[data-tray]', 'Keel Octave');
    await tech.page.locator('button ::-p-text(Place all)').click();
    await tech.gone('[data-tray]');
    const before = judged(await tech.savedRig(id));
    await tech.button('Look for a better layout');
    await tech.see('[data-layout]');
    await tech.reads('[data-layout]', /Found: [\d.]+ c?m, .*Yours: /);
    await tech.button('Stand it so');
    await tech.gone('[data-layout]');
    const after = judged(await tech.savedRig(id));
    expect(after.cost).toBeLessThan(before.cost);
    await tech.reads(
      '[data-board-sum]',
      `${after.crossings} ${after.crossings === 1 ? 'crossing' : 'crossings'}`,
    );
    await tech.control('z');
    expect(judged(await tech.savedRig(id)).cost).toBeCloseTo(before.cost, 3);
  },
);

test('a long search is stopped, and the page answers meanwhile', async () => {
  const many = Array.from({ length: 58 }, (_, i) => ({
    id: `p${i}`,
    kind: ['drive-low', 'boost', 'delay', 'chorus'][i % 4]!,
    name: `Pedal ${i}`,
    place: 'floor' as const,
    at: { board: 'b', x: (i % 20) * 130, y: Math.floor(i / 20) * 200 },
  }));
  const leads = many.slice(1).map((d, i) => ({
    id: `w${i}`,
    from: { device: `p${i}`, jack: 'out' },
    to: { device: d.id, jack: 'in' },
    type: 'instrument' as const,
    metres: 0.5,
  }));
  const rig: Rig = {
    format: 'yantrel-rig',
    version: 1,
    id: 'sixty',
    name: 'Sixty',
    devices: many,
    leads,
    sounds: [{ id: 's', name: 'S', states: {} }],
    boards: [
      { id: 'b', name: 'Long board', width: 2700, depth: 700, rails: [{ y: 150, depth: 40 }] },
    ],
  };
  const id = await stored(tech, rig);
  await tech.open(`/rigs/${id}/build?part=board`);
  await tech.button('Look for a better layout');
  await tech.reads('[data-arrange] [role="status"]', 'best so far');
  await tech.click('.plan [data-item="p3"]');
  await tech.reads('[data-item-panel="p3"]', 'Pedal 3');
  await tech.button('Cancel');
  await tech.gone('[data-arrange] [role="status"]');
  expect((await tech.savedRig(id)).devices[3]!.at).toEqual(many[3]!.at);
});

test('the rack: figures, a device moved by a unit, another mounted; what cannot be is told', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/build?part=rack`);
  const sums = rackSums(touringRig, touringRig.racks![0]!);
  await tech.reads(
    '[data-rack-sum]',
    `${fixed(sums.grams / 1000)} kg, two persons lift; ${sums.used} of 12 U; centre of ` +
      `gravity ${Math.round(sums.centreMm!)} mm up of 533; ${sums.watts} W`,
  );
  await tech.reads('[data-table="panels"]', 'Hatch panel, line 1 Heads fork, out A Stage head, in');
  await tech.click('.plan [data-item="mast"]');
  await tech.press('ArrowUp', 'ArrowUp');
  await tech.reads('[data-list="clashes"]', 'Mast conditioner');
  expect((await tech.savedRig(id)).devices.find((d) => d.id === 'mast')!.rack).toEqual({
    rack: 'tide-rack',
    unit: 4,
  });
  await tech.press('ArrowDown', 'ArrowDown', 'Delete');
  await tech.reads('[data-tray]', 'Mast conditioner');
  await tech.page.locator('[aria-label="Mount Mast conditioner"]').click();
  await tech.gone('[data-tray]');
  expect((await tech.savedRig(id)).devices.find((d) => d.id === 'mast')!.rack!.rack).toBe(
    'tide-rack',
  );
});

test(
  'the stage gives leads their lengths; what becomes too short is a finding, and the ' +
    'cut lengths are taken',
  async () => {
    const id = await stored(tech, touringRig);
    await tech.open(`/rigs/${id}/build?part=stage`);
    await tech.click('.plan [data-item="tide-rack"]');
    await tech.press(...Array.from({ length: 20 }, () => 'ArrowUp' as const));
    const rig = await tech.savedRig(id);
    expect(rig.stage!.spots.find((s) => s.id === 'tide-rack')!.y).toBeCloseTo(0.2, 6);
    await tech.open(`/rigs/${id}/build?part=leads`);
    const short = cutList(rig).cuts.filter((c) => c.short > 0.001);
    expect(short.length).toBeGreaterThan(0);
    await tech.reads(
      '[data-cut-sum]',
      `Too short: ${short[0]!.code} by ${Math.ceil(short[0]!.short * 100)} cm`,
    );
    await tech.page.locator('button ::-p-text(Take the cut lengths)').click();
    await tech.page.waitForFunction(
      () =>
        !(document.querySelector('[data-cut-sum]') as HTMLElement).innerText.includes('Too short'),
    );
    expect(cutList(await tech.savedRig(id)).cuts.every((c) => c.short === 0)).toBe(true);
    // A lead on the meter: what it measures is what the tone is worked out with.
    await tech.typeOver('[aria-label="Measured capacitance of W04"]', '777');
    await tech.reads('[data-cut="l04"]', '777 pF');
    expect((await tech.savedRig(id)).leads.find((l) => l.id === 'l04')!.pF).toBe(777);
  },
);

test('jacks where they are on this very box: all at the rear, then as usual again', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/build?part=board`);
  await tech.click('.plan [data-item="kiln"]');
  await tech.reads('[data-item-panel="kiln"]', 'Kiln');
  await tech.button('Jacks …');
  const edge = (jack: string) =>
    tech.page.$eval(`[data-jack-spots="kiln"] [data-spot="${jack}"] input`, (e) => e.value);
  await tech.see('[data-jack-spots="kiln"] [data-spot="in"]');
  expect([await edge('in'), await edge('out')]).toEqual(['right', 'left']);
  await tech.button('All at the rear');
  await tech.page.waitForFunction(
    () =>
      (
        document.querySelector(
          '[data-jack-spots="kiln"] [data-spot="in"] input',
        ) as HTMLInputElement
      ).value === 'rear',
  );
  const kept = (await tech.savedRig(id)).devices.find((d) => d.id === 'kiln')!;
  expect(spotsOf(kept).filter((s) => s.edge !== 'rear')).toEqual([]);
  await tech.button('As usual for its kind');
  await tech.page.waitForFunction(
    () =>
      (
        document.querySelector(
          '[data-jack-spots="kiln"] [data-spot="in"] input',
        ) as HTMLInputElement
      ).value === 'right',
  );
  expect((await tech.savedRig(id)).devices.find((d) => d.id === 'kiln')!.jackSpots).toBeUndefined();
});

test('mains: watts at the venue, and what does not bear a country', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/build?part=power`);
  const watts = Math.round(mainsSums(touringRig, 230).watts);
  await tech.reads('[data-mains-sum]', `${watts} W, ${fixed(watts / 230)} A at`);
  await tech.reads('[data-strip-load="mast"]', 'Mast conditioner: 5 of 8 sockets');
  await tech.reads('[data-country="NO"]', 'Norway 230 V, 50 Hz C, F');
  await tech.page.locator('::-p-aria([name="Where it plays"])').click();
  await tech.page.keyboard.type('United Sta');
  await tech.pick('United States');
  await tech.reads('[data-country="US"]', 'Stage head (too little), Deck head (too little)');
});

test('limits in the brief: over says by how much', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/brief`);
  const grams = budgetOf(touringRig).find((b) => b.id === 'grams')!.value;
  await tech.reads('[data-limit="grams"]', `${fixed(grams / 1000)} kg`);
  await tech.typeOver('[aria-label="At most, Weight"]', '100');
  await tech.reads('[data-limit="grams"]', `over by ${fixed((grams - 100_000) / 1000)} kg`);
  expect((await tech.savedRig(id)).limits!.grams).toBe(100_000);
});

test('labels and the book as PDF in one press, at true size on the paper that was chosen', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'yantrel-pdf-'));
  const client = await tech.page.createCDPSession();
  await client.send('Page.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
  await tech.open('/rigs/salt-and-ferry/build?part=labels');
  await tech.reads('[data-label-sum]', `${2 * cutList(touringRig).cuts.length} labels on 2 sheets`);
  const mm = await tech.page.$eval('.label-sheet [data-label]', (e) => {
    const r = e.querySelector('rect')!.getBoundingClientRect();
    return [r.width, r.height].map((v) => (v * 25.4) / 96);
  });
  expect(mm[0]).toBeCloseTo(80, 0);
  expect(mm[1]).toBeCloseTo(10, 0);
  await tech.button('Keep as PDF');
  const arrived = async (name: string): Promise<Buffer> => {
    for (let i = 0; i < 400; i++) {
      if (readdirSync(folder).includes(name)) return readFileSync(join(folder, name));
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error(`no ${name} came: ${readdirSync(folder).join(', ')}`);
  };
  const labels = (await arrived('salt-and-ferry-labels.pdf')).toString('latin1');
  expect(labels.startsWith('%PDF-')).toBe(true);
  expect(
    [...labels.matchAll(/\/MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/g)].map((m) => [
      Math.round(Number(m[1])),
      Math.round(Number(m[2])),
    ]),
  ).toEqual([
    [595, 842],
    [595, 842],
  ]);
  await tech.open('/rigs/salt-and-ferry/build?part=book');
  await tech.button('Keep as PDF');
  const book = (await arrived('salt-and-ferry-book.pdf')).toString('latin1');
  const pages = [...book.matchAll(/\/MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/g)].map((m) =>
    [Math.round(Number(m[1])), Math.round(Number(m[2]))].join('x'),
  );
  expect(pages.length).toBeGreaterThan(20);
  expect(new Set(pages)).toEqual(new Set(['595x842', '842x595']));
});

test(
  'the gear locker: a unit is double-booked on the dates on which two rigs play with it; what ' +
    'is used cannot be taken out',
  async () => {
    const twin = (n: number): Rig => ({
      format: 'yantrel-rig',
      version: 1,
      id: `twin-${n}`,
      name: `Twin ${n}`,
      devices: [
        { id: 'a', kind: 'boost', name: `Boost ${n}`, gear: { serial: 'ZZ-1', value: 90 } },
      ],
      leads: [],
      sounds: [{ id: 's', name: 'S', states: {} }],
    });
    const first = await stored(tech, twin(1));
    const second = await stored(tech, twin(2));
    // On different dates they share it; on one date they cannot.
    const plays = (rig: string, date: string) =>
      tech.api(`/api/rigs/${rig}/log`, 'POST', {
        changes: [changeTo<'show'>('show', randomUUID(), undefined, { date, venue: 'Silo' })],
      });
    await plays(first, '2999-05-01');
    await plays(second, '2999-05-02');
    await tech.open('/gear?find=ZZ-1');
    await tech.reads('[data-unit="ZZ-1"]', 'Twin 2');
    expect(await tech.text('[data-unit="ZZ-1"]')).not.toContain('double-booked');
    await plays(second, '2999-05-01');
    await tech.open('/gear?find=ZZ-1');
    await tech.reads('[data-unit="ZZ-1"]', 'double-booked on 2999-05-01');
    await tech.open(`/rigs/${first}/show?part=calendar`);
    await tech.reads('[data-double]', '2999-05-01: Boost 1 (ZZ-1) is in Twin 2 too, at Silo.');
    await tech.open('/gear');
    await tech.page.locator('[aria-label="Find"]').fill('ZZ-1');
    await tech.reads('[data-unit="ZZ-1"]', 'Twin 1');
    const { body: kept } = await tech.api<{ rig: Rig; identity: string }>(`/api/rigs/${first}`);
    const applied = applyEdits(kept.rig, [
      { edit: 'setDevice', device: 'a', gear: { serial: 'ZZ-2' } },
    ]);
    expect(applied.ok).toBe(true);
    if (applied.ok)
      expect(
        (
          await tech.api(`/api/rigs/${first}/revisions`, 'POST', {
            base: kept.identity,
            identity: randomUUID(),
            by: null,
            rig: applied.value.rig,
            words: 'another unit',
          })
        ).status,
      ).toBe(201);
    await tech.open('/gear');
    await tech.page.locator('[aria-label="Find"]').fill('ZZ-');
    await tech.reads('[data-unit="ZZ-2"]', 'Twin 1');
    expect(await tech.text('[data-unit="ZZ-1"]')).not.toContain('double-booked');
    await tech.page.locator('::-p-aria([name="Serial number"][role="textbox"])').fill('ZZ-3');
    await tech.page.locator('::-p-aria([name="What it is"])').fill('Spare boost');
    await tech.button('Add a unit');
    await tech.reads('[data-unit="ZZ-3"]', 'in the locker');
    await tech.page.locator('[aria-label="Take ZZ-3 out of the locker"]').click();
    await tech.gone('[data-unit="ZZ-3"]');
  },
);

test('the address on a case label opens the rig', async () => {
  await tech.loads('/rigs/salt-and-ferry');
  expect(new URL(tech.page.url()).pathname).toBe('/rigs/salt-and-ferry/signal');
});
