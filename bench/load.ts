import { randomUUID } from 'node:crypto';
import { touringRig } from '../src/core/demo';
import { applyEdit, mergeRigs, type Rig } from '../src/core/rig';

/**
 * Two hundred editors on a hundred rigs, through two server processes on one database: run by hand,
 * `npm run bench:load -- [EDITORS] [SAVES] [PAUSE]`. Every save is a page's: on the newest revision or not at
 * all, joined and sent again where others were first. It says how long answers took and what failed,
 * and looks whether every edit is in its rig.
 */
const editors = Number(process.argv[2] ?? 200);
const saves = Number(process.argv[3] ?? 8);
/**
 * Between two edits of one editor, in ms, half as much or half as much again. All editors, both servers
 * and the database share the cores of one machine here: two cores are full at one edit every two seconds.
 */
const pauseMs = Number(process.argv[4] ?? 4000);
const RIGS = Math.ceil(editors / 2);

interface Started {
  url: string;
  stop: () => void;
}
interface Served {
  address: string;
  stop: () => Promise<void>;
}
interface Head {
  rig: Rig;
  identity: string;
}

async function load(): Promise<void> {
  const script = <T>(name: string): Promise<T> => import(`../scripts/${name}.mjs`) as Promise<T>;
  const { startPostgres } = await script<{
    startPostgres: (n: string, p: number) => Promise<Started>;
  }>('postgres');
  const { serve } = await script<{ serve: (o: object) => Promise<Served> }>('serve');
  const { build } = await script<{ build: (folder: string) => void }>('build');
  const { freePort } = await script<{ freePort: (from: number) => Promise<number> }>('machine');

  build('.next');
  const postgres = await startPostgres('load', 54_700);
  const servers: Served[] = [];
  for (let i = 0; i < 2; i++)
    servers.push(
      await serve({ folder: '.next', port: await freePort(3700), databaseUrl: postgres.url }),
    );

  const times: number[] = [];
  const statuses = new Map<number, number>();
  async function ask<T>(
    at: number,
    path: string,
    body?: unknown,
  ): Promise<{ status: number; value: T }> {
    const began = performance.now();
    const reply = await fetch(servers[at % 2]!.address + path, {
      method: body === undefined ? 'GET' : 'POST',
      ...(body !== undefined && {
        body: JSON.stringify(body),
        headers: { 'content-type': 'application/json' },
      }),
    });
    const value = (await reply.json()) as T;
    times.push(performance.now() - began);
    statuses.set(reply.status, (statuses.get(reply.status) ?? 0) + 1);
    return { status: reply.status, value };
  }

  const ids: string[] = [];
  for (let i = 0; i < RIGS; i++) {
    const rig = { ...touringRig, id: `load-${process.pid}-${i}`, name: `Load ${i}` };
    ids.push((await ask<{ id: string }>(i, '/api/rigs', { rig })).value.id);
  }

  /** One editor: notes a word on a device of its own, again and again, as a page would save it. */
  async function edits(n: number): Promise<{ id: string; device: string; notes: string }> {
    const id = ids[n % RIGS]!;
    const device = touringRig.devices[Math.floor(n / RIGS) * 3 + (n % 3)]!.id;
    // They do not all come in the same moment.
    await new Promise((r) => setTimeout(r, pauseMs * Math.random()));
    let head = (await ask<Head>(n, `/api/rigs/${id}`)).value;
    let notes = '';
    for (let k = 0; k < saves; k++) {
      notes = `editor ${n}, word ${k}`;
      const made = applyEdit(head.rig, { edit: 'setDevice', device, notes });
      if (!made.ok) throw new Error(made.problems[0]?.what);
      let { rig } = made.value;
      for (;;) {
        const identity = randomUUID();
        const save = { base: head.identity, identity, rig, words: notes, by: `Editor ${n}` };
        const { status, value } = await ask<{ head?: Head }>(n, `/api/rigs/${id}/revisions`, save);
        if (status === 201) {
          head = { rig, identity };
          break;
        }
        if (status !== 409 || !value.head) throw new Error(`a save was answered ${status}`);
        rig = mergeRigs(head.rig, rig, value.head.rig).rig;
        head = value.head;
      }
      await new Promise((r) => setTimeout(r, pauseMs * (0.5 + Math.random())));
    }
    return { id, device, notes };
  }

  /** Six books of the touring rig at once from one server, and how long its other answers take meanwhile. */
  async function besidesBooks(): Promise<number[]> {
    const choice = {
      paper: 'A4',
      labels: [],
      level: 'dBu',
      length: 'metric',
      revision: 'revision 1',
      date: '2026-01-01',
    };
    const book = async () => {
      const reply = await fetch(`${servers[0]!.address}/api/rigs/${ids[0]}/book`, {
        method: 'POST',
        body: JSON.stringify({ rig: touringRig, ...choice }),
        headers: { 'content-type': 'application/json' },
      });
      if (reply.status !== 200) throw new Error(`a book was answered ${reply.status}`);
      await reply.arrayBuffer();
    };
    let making = true;
    const books = Promise.all(Array.from({ length: 6 }, book)).finally(() => (making = false));
    const took: number[] = [];
    while (making) {
      const began = performance.now();
      await fetch(`${servers[0]!.address}/api/rigs/${ids[1]}`).then((r) => r.arrayBuffer());
      took.push(performance.now() - began);
      await new Promise((r) => setTimeout(r, 20));
    }
    await books;
    return took;
  }

  const all = await Promise.allSettled(Array.from({ length: editors }, (_, n) => edits(n)));
  let lost = 0;
  for (const one of all) {
    if (one.status === 'rejected') lost++;
    else {
      const { id, device, notes } = one.value;
      const { rig } = (await ask<Head>(0, `/api/rigs/${id}`)).value;
      if (rig.devices.find((d) => d.id === device)?.notes !== notes) lost++;
    }
  }
  const waits = await besidesBooks();
  times.sort((a, b) => a - b);
  const at = (share: number) => Math.round(times[Math.floor(times.length * share)] ?? 0);
  console.log(
    `${editors} editors on ${RIGS} rigs, ${times.length} answers: half within ${at(0.5)} ms, ` +
      `99 of 100 within ${at(0.99)} ms, all within ${at(0.9999)} ms; statuses ` +
      `${[...statuses].map(([s, n]) => `${n} times ${s}`).join(', ')}; ${lost} edits lost`,
  );
  console.log(
    `beside six books of the touring rig: ${waits.length} answers, the slowest ` +
      `${Math.round(Math.max(...waits))} ms`,
  );
  for (const server of servers) await server.stop();
  postgres.stop();
  process.exit(lost || statuses.has(503) || statuses.has(500) ? 1 : 0);
}

load().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
