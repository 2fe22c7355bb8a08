import { randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'kysely';
import { touringRig } from '../src/core/demo';
import { type Rig, writeRig } from '../src/core/rig';
import { openDatabase } from '../src/server/database';
import { forEachFile, Person, stored, whereTheDatabaseMayGo } from './person';

const DATABASE = whereTheDatabaseMayGo();
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
  await sql`alter database ${sql.id(DATABASE)} with allow_connections false`.execute(admin);
  await sql`select pg_terminate_backend(pid) from pg_stat_activity where datname = ${DATABASE}`.execute(
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
    await sql`alter database ${sql.id(DATABASE)} with allow_connections true`.execute(admin);
    await admin.destroy();
  }
  await tech.saved();
  expect(await nameIn(id, 'kiln')).toBe('Kept while away');
});

test('with the server away, work goes on and is saved when it returns', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.saved();
  await tech.offline();
  await rename(tech, 'comp', 'Offline comp');
  await tech.reads('[role="status"]', 'not saved: The server cannot be reached.');
  await tech.page.setOfflineMode(false);
  await tech.saved();
  expect(await nameIn(id, 'comp')).toBe('Offline comp');
});

test('two people at once: what one saves is on the other’s screen within a moment, with who is there', async () => {
  const other = await Person.arrives();
  const id = await stored(tech, touringRig);
  await other.open('/');
  await other.page.evaluate(() => localStorage.setItem('yantrel name', 'Ada'));
  await tech.open(`/rigs/${id}/signal`);
  await other.open(`/rigs/${id}/signal`);
  await other.click('[data-station="kiln"]');
  await tech.reads('[data-others]', 'Ada: Kiln Drive');
  await rename(other, 'comp', 'Theirs');
  await tech.reads('[data-station="comp"]', 'Theirs');
  await tech.reads('[role="alert"]', 'Ada changed this rig too: renamed');
  await rename(tech, 'sub', 'Mine');
  await other.reads('[data-station="sub"]', 'Mine');
  // Undo takes back my own step, not the one that came last.
  await rename(other, 'echo', 'Later');
  await tech.reads('[data-station="echo"]', 'Later');
  await tech.press('Escape');
  await tech.page.click('[aria-label="Undo"]');
  await tech.saved();
  await other.reads('[data-station="sub"]', 'Ballast Octave');
  expect([await nameIn(id, 'comp'), await nameIn(id, 'echo')]).toEqual(['Theirs', 'Later']);
  await other.page.close();
});

test('a rig that is put away or brought back tells the pages that have it open', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.saved();
  await tech.api(`/api/rigs/${id}`, 'PATCH', { archived: true });
  await tech.reads('[role="alert"]', 'This rig was put away.');
  await rename(tech, 'comp', 'Changed all the same');
  await tech.saved();
  await tech.api(`/api/rigs/${id}`, 'PATCH', { archived: false });
  await tech.reads('[role="alert"]', 'This rig was brought back');
});

test('two people change the same while one is offline: asked thing by thing, and all else of both stays', async () => {
  const other = await Person.arrives();
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await other.open(`/rigs/${id}/signal`);
  await other.offline();
  await rename(other, 'kiln', 'Kiln of two');
  await rename(other, 'sub', 'Sub of two');
  await rename(other, 'comp', 'Comp of two');
  await rename(tech, 'kiln', 'Kiln of one');
  await rename(tech, 'sub', 'Sub of one');
  await rename(tech, 'echo', 'Echo of one');
  await tech.saved();
  await other.page.setOfflineMode(false);
  await other.reads('[data-clash="devices[kiln].name"]', /name Kiln of two Kiln of one/);
  await other.page.locator('[data-clash="devices[kiln].name"] label ::-p-text(yours)').click();
  await other.button('Go on with these');
  await other.saved();
  const names = ['kiln', 'sub', 'comp', 'echo'];
  expect(await Promise.all(names.map((d) => nameIn(id, d)))).toEqual([
    'Kiln of two',
    'Sub of one',
    'Comp of two',
    'Echo of one',
  ]);
  await tech.reads('[data-station="kiln"]', 'Kiln of two');
});

test('a change made while a slow save runs never goes over what somebody saved meanwhile', async () => {
  const [slow, other] = [await Person.arrives(), await Person.arrives()];
  const id = await stored(tech, touringRig);
  // A way there that takes as long as the typing does, and no live line: so it was before anything could be told.
  let allTyped = () => {};
  const typed = new Promise<void>((done) => (allTyped = done));
  await slow.page.setRequestInterception(true);
  slow.page.on('request', (request) => {
    if (request.url().endsWith('/live')) void request.abort();
    else if (request.method() === 'POST' && request.url().endsWith('/revisions'))
      void typed.then(() => request.continue());
    else void request.continue();
  });
  await slow.open(`/rigs/${id}/signal`);
  await other.open(`/rigs/${id}/signal`);
  await rename(other, 'comp', 'Theirs one');
  await rename(other, 'sub', 'Theirs two');
  await other.saved();
  await rename(slow, 'echo', 'Mine');
  await rename(slow, 'sub', 'Mine too');
  allTyped();
  await slow.reads('[data-clash="devices[sub].name"]', 'Mine too Theirs two');
  await slow.button('Go on with these');
  await slow.saved();
  const names = ['comp', 'sub', 'echo'];
  expect(await Promise.all(names.map((d) => nameIn(id, d)))).toEqual([
    'Theirs one',
    'Theirs two',
    'Mine',
  ]);
  await slow.page.close();
  await other.page.close();
});

test('two tabs of one browser: each keeps its own; what a closed one left is taken up, an open one’s is not', async () => {
  const id = await stored(tech, touringRig);
  const first = await Person.arrives();
  await first.open(`/rigs/${id}/signal`);
  await first.offline();
  await rename(first, 'comp', 'Kept by one');
  const second = await first.anotherTab();
  await second.open(`/rigs/${id}/signal`);
  await second.offline();
  await rename(second, 'sub', 'Left by two');
  await second.reads('[role="status"]', 'not saved');
  await second.page.close();
  const third = await first.anotherTab();
  await third.open(`/rigs/${id}/signal`);
  await third.reads('[data-station="sub"]', 'Left by two');
  await third.saved();
  expect([await nameIn(id, 'sub'), await nameIn(id, 'comp')]).toEqual([
    'Left by two',
    touringRig.devices.find((d) => d.id === 'comp')!.name,
  ]);
  await first.page.bringToFront();
  await first.page.setOfflineMode(false);
  await first.saved();
  await first.reads('[data-station="sub"]', 'Left by two');
  expect([await nameIn(id, 'sub'), await nameIn(id, 'comp')]).toEqual([
    'Left by two',
    'Kept by one',
  ]);
  await first.page.close();
});

test('what is half typed stays when another changes the same, and is told; what is not typed shows theirs', async () => {
  const id = await stored(tech, touringRig);
  const [ada, bea] = [await Person.arrives(), await Person.arrives()];
  for (const who of [ada, bea]) await who.open(`/rigs/${id}/signal`);
  const field = '[data-inspector="comp"] [aria-label="Name of the device"]';
  await ada.click('[data-station="comp"]');
  await ada.click(field);
  await ada.control('a');
  await ada.page.keyboard.type('Half ty');
  await rename(bea, 'comp', 'By Bea');
  await ada.reads('[data-inspector="comp"]', 'Set to “By Bea” meanwhile');
  expect(await ada.page.$eval(field, (e) => (e as HTMLInputElement).value)).toBe('Half ty');
  await ada.page.keyboard.type('ped');
  await ada.press('Enter');
  await ada.saved();
  expect(await nameIn(id, 'comp')).toBe('Half typed');
  // Bea has the device in hand and types nothing: her field shows what holds, and leaving it writes nothing.
  await bea.reads('[data-station="comp"]', 'Half typed');
  await bea.click(field);
  expect(await bea.page.$eval(field, (e) => (e as HTMLInputElement).value)).toBe('Half typed');
  await rename(ada, 'comp', 'By Ada');
  await bea.reads('[data-station="comp"]', 'By Ada');
  await bea.press('Tab');
  await bea.saved();
  expect(await nameIn(id, 'comp')).toBe('By Ada');
  for (const who of [ada, bea]) await who.page.close();
});

test('a browser that keeps nothing says so while it is open, and hands the work over as a file', async () => {
  const who = await Person.arrives();
  const id = await stored(tech, touringRig);
  await who.page.evaluateOnNewDocument(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
    };
    // What a page hands over as a file, to be read here.
    const make = URL.createObjectURL.bind(URL);
    URL.createObjectURL = (file: Blob) => {
      void file.text().then((text) => Object.assign(window, { handedOver: text }));
      return make(file);
    };
  });
  await who.open(`/rigs/${id}/signal`);
  await who.offline();
  await rename(who, 'comp', 'Only here');
  await who.reads('[data-keeps-nothing]', 'a reload loses what you did');
  await who.button('Keep it as a file');
  const text = await who.page.waitForFunction(
    () => (window as unknown as { handedOver?: string }).handedOver,
  );
  const kept = JSON.parse((await text.jsonValue())!) as Rig;
  expect(kept.devices.find((d) => d.id === 'comp')?.name).toBe('Only here');
  // Once it can be saved, it is.
  await who.page.setOfflineMode(false);
  await who.saved();
  expect(await nameIn(id, 'comp')).toBe('Only here');
  await who.page.close();
});

test('a database that was set back is told, and nothing is written before it is said what holds', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await rename(tech, 'kiln', 'Before');
  await tech.saved();
  const admin = process.env.YANTREL_ADMIN_URL!;
  const db = openDatabase(admin.replace(/\/[^/]*$/, `/${DATABASE}`));
  await sql`alter table revision disable trigger revision_kept`.execute(db);
  await sql`delete from revision where rig_id = ${id} and number > 1`.execute(db);
  await sql`update rig set head = 1 where id = ${id}`.execute(db);
  await sql`alter table revision enable trigger revision_kept`.execute(db);
  await db.destroy();
  await rename(tech, 'sub', 'After');
  await tech.reads('[role="dialog"]', /The database was set back.*based on revision 2/);
  expect(await nameIn(id, 'kiln')).toBe('Kiln Drive');
  await tech.button('Save this page as the next revision');
  await tech.saved();
  expect([await nameIn(id, 'kiln'), await nameIn(id, 'sub')]).toEqual(['Before', 'After']);
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
  // A revision can be named, found by its name, and compared with another.
  await tech.click('[data-revision="2"]');
  await tech.typeOver('::-p-aria([name="Name of this revision"])', 'as played in the harbour');
  await tech.reads('[data-revision="2"]', 'as played in the harbour');
  await tech.typeOver('::-p-aria([name="Words, a name or a person"])', 'harbour');
  await tech.gone('[data-revision="1"]');
  expect(await tech.texts('[data-table="revisions"] tbody tr')).toHaveLength(1);
});

test('a torn, a foreign and a hostile file are refused by row and field; a good one opens', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'yantrel-e2e-'));
  const file = (name: string, text: string) => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  };
  // Others store rigs meanwhile: what is counted are those of a name of its own.
  const name = `Imported ${Date.now()}`;
  const count = async () =>
    (await tech.api<{ name: string }[]>('/api/rigs')).body.filter((r) => r.name === name).length;
  await tech.open('/');
  const give = async (path: string) => (await tech.page.$('input[type="file"]'))!.uploadFile(path);
  await give(file('torn.json', writeRig({ ...touringRig, name }).slice(0, 700)));
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
        name,
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
  expect(await count()).toBe(0);
  const id = `imported-${Date.now()}`;
  await give(file('good.json', writeRig({ ...touringRig, id, name })));
  await tech.see('[data-station="kiln"]');
  expect(await count()).toBe(1);
  const exported = await fetch(`${tech.base}/api/rigs/${id}/file`).then((r) => r.json());
  expect(exported).toEqual({ ...touringRig, id, name });
  // A second time it is asked; nothing is made unasked.
  await tech.open('/');
  await give(join(folder, 'good.json'));
  await tech.reads('[role="dialog"]', `${name} is in the list, changed`);
  expect(await count()).toBe(1);
  await tech.button('Import it beside');
  await tech.see('[data-station="kiln"]');
  expect(await count()).toBe(2);
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

test('the server refuses bad requests in words, and a stale save with what is saved', async () => {
  const id = await stored(tech, touringRig);
  expect(
    (await tech.api<{ title: string }>(`/api/rigs/${id}/revisions`, 'POST', { base: 'x' })).status,
  ).toBe(422);
  expect((await tech.api<{ title: string }>('/api/rigs/nobody')).status).toBe(404);
  const { body: now } = await tech.api<{ rig: Rig; identity: string }>(`/api/rigs/${id}`);
  const save = (name: string) =>
    tech.api<{ outcome: string; head: { revision: number; rig: Rig } }>(
      `/api/rigs/${id}/revisions`,
      'POST',
      {
        base: now.identity,
        identity: randomUUID(),
        by: null,
        words: name,
        rig: { ...now.rig, name },
      },
    );
  expect((await save('A')).status).toBe(201);
  const stale = await save('B');
  expect([stale.status, stale.body.outcome, stale.body.head.revision]).toEqual([409, 'behind', 2]);
  expect(stale.body.head.rig.name).toBe('A');
});
