import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { EXAMPLE_SHEETS } from '../src/core/demo';
import { kindOfSheet, type Rig, type Sheet } from '../src/core/rig';
import { chainOf, device, lead, rigOf } from '../src/core/testing/rigs';
import { forEachFile, type Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

const devicesOf = async (id: string) =>
  (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig.devices;

/** Chooses what takes the place of something, in the dialog that is open. */
async function takes(name: string): Promise<void> {
  await tech.click('[role="dialog"] input');
  await tech.page.keyboard.type(name);
  await tech.pick(name);
}

test('another sheet takes the place of one in every rig that uses it: tried in each, then a revision of each', async () => {
  const [one, other] = EXAMPLE_SHEETS.slice(0, 2).map((sheet, n) => ({
    ...sheet,
    id: `swap-${n}-${Date.now()}`,
    // Others start rigs meanwhile, and find what the locker holds by such words.
    name: `Swap ${n} of ${Date.now()}`,
  }));
  for (const sheet of [one!, other!]) {
    const put = await tech.api('/api/sheets', 'PUT', { sheet, base: null });
    expect(put.status).toBe(200);
  }
  const using = (name: string) =>
    stored(tech, {
      ...rigOf(
        [device('g', 'guitar-humbucker', 'Guitar'), device('box', kindOfSheet(one!).id, 'Box')],
        [lead('l', 'g.out', 'box.in', 3)],
      ),
      name,
      sheets: [one!],
    });
  const ids = [await using(`First ${one!.id}`), await using(`Second ${one!.id}`)];
  await tech.open('/gear');
  await tech.click(`[aria-label="Exchange ${one!.name} in every rig"]`);
  await tech.click('[role="dialog"] input');
  await tech.pick(other!.name);
  for (const id of ids)
    await tech.page.waitForFunction(
      (s) => (document.querySelector(s)?.querySelectorAll('li').length ?? 0) > 0,
      {},
      `[data-exchange="${id}"]`,
    );
  // One of the two is left as it is.
  await tech.page.locator(`[data-exchange="${ids[1]}"] input`).click();
  await tech.button('Exchange it in 1 rig');
  await tech.reads(
    '[role="alert"]',
    `${other!.name} stands in the place of ${one!.name} in 1 of 1`,
  );
  const kinds = async (id: string) =>
    (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig.devices.map((d) => [d.name, d.kind]);
  expect(await kinds(ids[0]!)).toContainEqual(['Box', kindOfSheet(other!).id]);
  expect(await kinds(ids[1]!)).toContainEqual(['Box', kindOfSheet(one!).id]);
});

test('simple sheets come from a table into the locker; a table that is wrong is refused whole, with its row', async () => {
  const name = `Skerry box ${Date.now()}`;
  const folder = mkdtempSync(join(tmpdir(), 'yantrel-sheets-'));
  const put = async (file: string, text: string) => {
    writeFileSync(join(folder, file), text);
    const field = await tech.page.waitForSelector('[aria-label="Sheets"] [data-read]');
    await (field as ElementHandle<HTMLInputElement>).uploadFile(join(folder, file));
  };
  await tech.open('/gear');
  await put('wrong.csv', `sheet,kind,mA\n${name},delay,many\n`);
  await tech.reads('[role="dialog"]', 'row 2: "many" in the column mA is no number');
  await tech.press('Escape');
  await tech.gone('[role="dialog"]');
  await put('right.csv', `sheet,kind,V,mA\n${name},Delay,9,120\n`);
  await tech.reads('[role="alert"]', '1 of 1 sheets came from right.csv.');
  await tech.reads('[data-table="sheets"]', name);
  const { body } = await tech.api<{ sheets: { sheet: Sheet }[] }>('/api/sheets');
  expect(body.sheets.find((s) => s.sheet.name === name)!.sheet).toMatchObject({
    base: 'delay',
    power: { volts: 9, milliamps: 120 },
  });
});

test('a unit knows its sheet and has photographs; another unit takes its place, with what that loses and gains', async () => {
  const mark = Date.now();
  const sheet = { ...EXAMPLE_SHEETS[0]!, id: `pair-${mark}`, name: `Pair of drives ${mark}` };
  const [first, second] = [`FIRST-${mark}`, `SECOND-${mark}`];
  expect((await tech.api('/api/sheets', 'PUT', { sheet, base: null })).status).toBe(200);
  const rig = chainOf(['guitar-humbucker', 'boost', 'recorder']);
  const id = await stored(tech, {
    ...rig,
    name: `With ${first}`,
    devices: rig.devices.map((d, n) => (n === 1 ? { ...d, gear: { serial: first } } : d)),
  });
  await tech.api('/api/gear', 'PUT', { serial: second, name: 'The other one', grams: 400 });
  await tech.open('/gear');
  const row = (serial: string) => `[data-unit="${serial}"]`;
  await tech.click(`${row(second)} [aria-label="Sheet of ${second}"]`);
  await tech.page.keyboard.type(sheet.name);
  await tech.pick(sheet.name);
  await tech.reads('[data-table="sheets"]', second);

  // A photograph comes small, is shown large, and goes again.
  const folder = mkdtempSync(join(tmpdir(), 'yantrel-photograph-'));
  const upload = async (file: string, body: Buffer) => {
    writeFileSync(join(folder, file), body);
    const field = await tech.page.waitForSelector(`${row(second)} [data-read]`);
    await (field as ElementHandle<HTMLInputElement>).uploadFile(join(folder, file));
  };
  await upload('torn.png', Buffer.from('no picture at all'));
  await tech.reads('[role="alert"]', 'torn.png is no picture that this browser can read');
  await upload('stage.png', await tech.page.screenshot().then((b) => Buffer.from(b)));
  const small = `${row(second)} [aria-label^="Photograph 1 of"]`;
  await tech.click(small);
  await tech.page.waitForFunction(
    () =>
      (document.querySelector<HTMLImageElement>('.photograph-large')?.naturalWidth ?? 0) === 1280,
  );
  await tech.button('Remove this photograph');
  await tech.gone(small);
  // What it was shown in has faded away, and lies over nothing any more.
  await tech.gone('[role="dialog"]');

  await tech.click(`[aria-label="Exchange … ${first}"]`);
  await takes(`The other one, ${second}`);
  await tech.reads(`[data-exchange="${id}"]`, 'lost: ');
  await tech.reads(`[data-exchange="${id}"]`, /gained: Device 1: the controls? /);
  await tech.reads(`[data-exchange="${id}"]`, `unit ${first} is used in it no longer`);
  await tech.button('Exchange it in 1 rig');
  await tech.reads('[role="alert"]', `The other one, ${second} stands in the place of`);
  expect((await devicesOf(id))[1]).toMatchObject({
    name: 'Device 1',
    kind: kindOfSheet(sheet).id,
    gear: { serial: second, grams: 400 },
  });
  await tech.reads(row(second), `With ${first}`);
  await tech.reads(row(first), 'in the locker');

  // And a kind as it ships takes the sheet's place: the serial number goes with the box.
  await tech.click(`[aria-label="Exchange ${sheet.name} in every rig"]`);
  await takes('Boost');
  await tech.reads(`[data-exchange="${id}"]`, `unit ${second} is used in it no longer`);
  await tech.button('Exchange it in 1 rig');
  await tech.reads('[role="alert"]', 'Boost stands in the place of');
  expect((await devicesOf(id))[1]).toMatchObject({ kind: 'boost', gear: {} });

  // From any rig the palette finds it again.
  await tech.open(`/rigs/${id}/signal`);
  await tech.control('k');
  await tech.see('[aria-label="Find and do anything"]:focus');
  await tech.page.keyboard.type(second);
  await tech.reads('.mantine-Spotlight-actionsList', `Show ${second}, The other one`);
  await tech.press('Enter');
  await tech.see(row(second));
  expect(await tech.texts('[data-unit] .display')).toEqual([second]);
});

test('a rig that is put away stands behind those in use, and is told when asked for', async () => {
  const serial = `PUT-AWAY-${Date.now()}`;
  const rig = chainOf(['guitar-humbucker', 'boost', 'recorder']);
  const using = (name: string) =>
    stored(tech, {
      ...rig,
      name,
      devices: rig.devices.map((d, n) => (n === 1 ? { ...d, gear: { serial } } : d)),
    });
  const [kept, away] = [`Kept ${serial}`, `Away ${serial}`];
  await using(kept);
  const id = await using(away);
  await tech.api(`/api/rigs/${id}`, 'PATCH', { archived: true });
  await tech.open('/gear');
  const row = `[data-unit="${serial}"]`;
  await tech.reads(row, `${kept}: Device 1 in 1 archived rig`);
  expect(await tech.text(row)).not.toContain(away);
  await tech.click(`${row} summary`);
  await tech.reads(row, `${away}: Device 1`);
});

test('who comes back by the browser sees the locker and the list of rigs as they are now', async () => {
  const rig = chainOf(['guitar-humbucker', 'boost', 'recorder']);
  const using = (serial: string) =>
    stored(tech, {
      ...rig,
      name: `Rig of ${serial}`,
      devices: rig.devices.map((d, n) => (n === 1 ? { ...d, gear: { serial } } : d)),
    });
  const [before, since] = ['BEFORE', 'SINCE'].map((w) => `${w}-${Date.now()}`);
  const id = await using(before!);
  await tech.open('/');
  await tech.open('/gear');
  await tech.see(`[data-unit="${before}"]`);
  await tech.open(`/rigs/${id}/signal`);
  const other = await using(since!);
  await tech.page.goBack();
  await tech.see(`[data-unit="${since}"]`);
  await tech.page.goBack();
  await tech.see(`[data-rig="${other}"]`);
});
