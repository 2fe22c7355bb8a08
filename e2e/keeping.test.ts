import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'kysely';
import { touringRig } from '../src/core/demo';
import { type Rig, writeRig } from '../src/core/rig';
import { openDatabase } from '../src/server/database';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

const rename = async (who: Person, station: string, name: string) => {
  await who.click(`[data-station="${station}"]`);
  const field = await who.see('[aria-label="Name of the device"]');
  await field!.click({ count: 3 });
  await who.page.keyboard.type(name);
  await who.press('Enter');
  await who.reads(`[data-station="${station}"]`, name);
};
const nameIn = async (id: string, device: string) =>
  (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig.devices.find((d) => d.id === device)!
    .name;

test('with the database away, work goes on, outlives a reload, and is saved when it returns', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.saved();
  const admin = openDatabase(process.env.YANTREL_ADMIN_URL!);
  const name = process.env.YANTREL_DATABASE!;
  await sql`alter database ${sql.id(name)} with allow_connections false`.execute(admin);
  await sql`select pg_terminate_backend(pid) from pg_stat_activity where datname = ${name}`.execute(
    admin,
  );
  try {
    await rename(tech, 'kiln', 'Kept while away');
    await tech.reads('[role="status"]', 'not saved: The database is away.');
    await tech.press('Escape', '4');
    await tech.reload();
    await tech.reads('[data-station="kiln"]', 'Kept while away');
    await tech.reads('[role="status"]', 'not saved');
  } finally {
    await sql`alter database ${sql.id(name)} with allow_connections true`.execute(admin);
    await admin.destroy();
  }
  await tech.saved();
  expect(await nameIn(id, 'kiln')).toBe('Kept while away');
});

test('with the server away, work goes on and is saved when it returns', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.saved();
  await tech.page.setOfflineMode(true);
  await rename(tech, 'comp', 'Offline comp');
  await tech.reads('[role="status"]', 'not saved: The server cannot be reached.');
  await tech.page.setOfflineMode(false);
  await tech.saved();
  expect(await nameIn(id, 'comp')).toBe('Offline comp');
});

test('two people at once: different things are merged, the same thing is shown side by side', async () => {
  const other = await Person.arrives();
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await other.open(`/rigs/${id}/signal`);
  await rename(tech, 'comp', 'Mine');
  await tech.saved();
  await rename(other, 'sub', 'Theirs');
  await other.saved();
  await other.reads('[data-station="comp"]', 'Mine');
  expect([await nameIn(id, 'comp'), await nameIn(id, 'sub')]).toEqual(['Mine', 'Theirs']);

  await rename(tech, 'kiln', 'From one');
  await tech.saved();
  await rename(other, 'kiln', 'From two');
  await other.reads('[data-table="clash"]', 'From two From one');
  await other.button('Save mine on top of theirs');
  await other.saved();
  expect(await nameIn(id, 'kiln')).toBe('From two');
});

test('history tells each change in words, compares, and goes back', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await rename(tech, 'kiln', 'Kiln Two');
  await tech.saved();
  await tech.page.locator('nav ::-p-text(History)').click();
  await tech.reads('[data-table="revisions"]', 'renamed Kiln Drive to Kiln Two');
  await (await tech.page.$$('[data-table="revisions"] tbody tr')).at(-1)!.click();
  await tech.reads('[data-list="changes"]', 'renamed Kiln Drive to Kiln Two');
  await tech.button('Go back to revision 1');
  await tech.saved();
  await tech.reads('[data-table="revisions"]', 'went back to revision 1');
  expect(await nameIn(id, 'kiln')).toBe('Kiln Drive');
});

test('a torn, a foreign and a hostile file are refused by row and field; a good one opens', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'yantrel-e2e-'));
  const file = (name: string, text: string) => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  };
  const count = async () => (await tech.api<unknown[]>('/api/rigs')).body.length;
  await tech.open('/');
  const before = await count();
  const give = async (path: string) => (await tech.page.$('input[type="file"]'))!.uploadFile(path);
  await give(file('torn.json', writeRig(touringRig).slice(0, 700)));
  await tech.reads(
    '[data-import-problems]',
    /not whole JSON: it breaks off or goes wrong at line \d+/,
  );
  await give(file('foreign.json', '{"session":{"tracks":[]}}'));
  await tech.reads('[data-import-problems]', 'not a rig file');
  await give(
    file(
      'hostile.json',
      writeRig({
        ...touringRig,
        leads: [
          {
            ...touringRig.leads[0]!,
            from: { device: 'bari', jack: '<img src=x onerror=alert(1)>' },
          },
        ],
      }),
    ),
  );
  await tech.reads(
    '[data-import-problems]',
    'leads[0].from.jack: Baritone (Baritone guitar) has no jack "<img',
  );
  expect(await count()).toBe(before);
  await give(file('good.json', writeRig({ ...touringRig, id: 'imported-rig', name: 'Imported' })));
  await tech.see('[data-station="kiln"]');
  expect(await count()).toBe(before + 1);
  const exported = await fetch(`${process.env.YANTREL_URL}/api/rigs/imported-rig/file`).then((r) =>
    r.json(),
  );
  expect(exported).toEqual({ ...touringRig, id: 'imported-rig', name: 'Imported' });
});

test('copy, rename, archive and bring back in the list', async () => {
  const id = await stored(tech, { ...touringRig, name: 'List me' });
  await tech.open('/');
  const row = `[data-rig="${id}"]`;
  await tech.page.locator(`${row} ::-p-text(Rename)`).click();
  const field = await tech.see(`${row} input`);
  await field!.click({ count: 3 });
  await tech.page.keyboard.type('Listed anew');
  await tech.press('Enter');
  await tech.reads(row, 'Listed anew');
  await tech.page.locator(`${row} ::-p-text(Copy)`).click();
  await tech.see('[data-rig="listed-anew-copy"]');
  await tech.page.locator(`${row} ::-p-text(Archive)`).click();
  await tech.gone(row);
  await tech.page.locator('label ::-p-text(Show archived)').click();
  await tech.page.locator(`${row} ::-p-text(Bring back)`).click();
  await tech.gone(row);
});

test('the server refuses bad requests in words, and a stale save with both sides', async () => {
  const id = await stored(tech, touringRig);
  expect(
    (await tech.api<{ title: string }>(`/api/rigs/${id}/revisions`, 'POST', { base: 'x' })).status,
  ).toBe(422);
  expect((await tech.api<{ title: string }>('/api/rigs/nobody')).status).toBe(404);
  const { body: now } = await tech.api<{ rig: Rig }>(`/api/rigs/${id}`);
  await tech.api(`/api/rigs/${id}/revisions`, 'POST', {
    base: 1,
    rig: { ...now.rig, name: 'A' },
    words: 'a',
  });
  const stale = await tech.api<{ conflicts: unknown[]; theirs: { revision: number } }>(
    `/api/rigs/${id}/revisions`,
    'POST',
    { base: 1, rig: { ...now.rig, name: 'B' }, words: 'b' },
  );
  expect([stale.status, stale.body.conflicts.length, stale.body.theirs.revision]).toEqual([
    409, 1, 2,
  ]);
});
