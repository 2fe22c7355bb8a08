import { sql } from 'kysely';
import { touringRig } from '../src/core/demo';
import { analyse } from '../src/core/report';
import type { Rig } from '../src/core/rig';
import { openDatabase } from '../src/server/database';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

test('a rig with a kind that nobody knows says so, gives its file, and goes back one revision', async () => {
  const id = await stored(tech, touringRig);
  const url = new URL(process.env.YANTREL_ADMIN_URL ?? '');
  url.pathname = `/${process.env.YANTREL_DATABASE}`;
  const db = openDatabase(url.href);
  const strange = {
    ...touringRig,
    id,
    devices: touringRig.devices.map((d) => (d.id === 'kiln' ? { ...d, kind: 'whistle' } : d)),
  };
  await sql`insert into revision (rig_id, number, based_on, words, document)
    values (${id}, 2, 1, 'left by another program', ${JSON.stringify(strange)}::jsonb)`.execute(db);
  await sql`update rig set head = 2 where id = ${id}`.execute(db);
  await db.destroy();
  await tech.page.goto(`${tech.base}/rigs/${id}/signal`);
  await tech.reads('[data-trouble]', 'Revision 2 of this rig cannot be read');
  await tech.reads('[data-trouble]', 'whistle');
  const file = await tech.api<Rig>(`/api/rigs/${id}/file`);
  expect(file.body.devices.find((d) => d.id === 'kiln')?.kind).toBe('whistle');
  await tech.button('Go back one revision');
  await tech.reads('[data-station="kiln"]', 'Kiln');
  expect((await tech.savedRig(id)).devices).toEqual(touringRig.devices);
});

test('an analysis that dies is told and started again; figures follow the next change', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.saved();
  await tech.sound('4');
  const workers = () => tech.page.workers().filter((w) => w.url().length > 0);
  expect(workers().length).toBeGreaterThan(0);
  await tech.page.waitForFunction(async () => {
    // The worker holds its lock, and the page waits for it: only then its death is noticed.
    const { held, pending } = await navigator.locks.query();
    const mine = held?.filter((l) => l.name?.startsWith('yantrel worker')) ?? [];
    return mine.some((l) => pending?.some((p) => p.name === l.name));
  });
  for (const worker of workers()) await worker.evaluate(() => self.close()).catch(() => undefined);
  await tech.reads('[role="alert"]', 'The analysis was started again');
  await tech.click('[data-station="brine"]');
  await tech.press('b');
  const rig = await tech.savedRig(id);
  const sound = rig.sounds[3]?.id;
  const wanted = analyse(rig)
    .sounds.find((s) => s.sound === sound)
    ?.stations.find((s) => s.device === 'kiln')?.output.levelDbu?.normal;
  await tech.reads(
    '[data-figures="kiln"] [data-row="level"]',
    (wanted ?? 0).toFixed(1).replace('-', '−'),
  );
});
