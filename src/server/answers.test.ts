import * as z from 'zod';
import { answer, isAway, problem } from './answers';

const request = (body: string) => new Request('http://127.0.0.1/x', { method: 'POST', body });
const read = async (r: Response) => ({
  status: r.status,
  type: r.headers.get('content-type'),
  body: (await r.json()) as Record<string, unknown>,
});
const schema = z.object({ base: z.number() });

test('errors are problem+json with a title a person can act on', async () => {
  expect(await read(problem(404, 'There is no such rig.', { detail: 'Go back.' }))).toEqual({
    status: 404,
    type: 'application/problem+json',
    body: { type: 'about:blank', status: 404, title: 'There is no such rig.', detail: 'Go back.' },
  });
});

test('a body that is torn, too large or of the wrong shape does no work', async () => {
  const work = jest.fn();
  expect((await read(await answer(request('{"base":'), schema, work))).status).toBe(400);
  expect(
    (await read(await answer(request(`"${'x'.repeat(9_000_001)}"`), schema, work))).status,
  ).toBe(413);
  const wrong = await read(await answer(request('{"base":"three"}'), schema, work));
  expect([wrong.status, wrong.body.problems]).toEqual([
    422,
    [{ where: 'base', what: expect.stringContaining('number') as string }],
  ]);
  expect(work).not.toHaveBeenCalled();
});

test('a page of another site changes nothing; our own may', async () => {
  const from = (origin: string) =>
    answer(
      new Request('http://127.0.0.1:3200/x', {
        method: 'POST',
        body: '{"base":1}',
        headers: { origin, host: '127.0.0.1:3200' },
      }),
      schema,
      async () => Response.json({ done: true }),
    );
  expect((await from('https://elsewhere.example')).status).toBe(403);
  expect((await from('null')).status).toBe(403);
  expect((await from('http://127.0.0.1:3200')).status).toBe(200);
});

test.each([
  ['ECONNREFUSED', true],
  ['57P01', true],
  ['57P03', true],
  ['08006', true],
  ['55000', true],
  ['23505', false],
  ['42P01', false],
])('an error with code %s means away: %s', (code, away) => {
  expect(isAway(Object.assign(new Error('x'), { code }))).toBe(away);
});

test('a full disk is told as that, and the page keeps the work and tries again', async () => {
  const full = await read(
    await answer(request('{"base":1}'), schema, () =>
      Promise.reject(Object.assign(new Error('could not extend file'), { code: '53100' })),
    ),
  );
  expect(full.status).toBe(507);
  expect(full.body.title).toBe('The disk of the database is full.');
});

test('what is no rig has no business being large', async () => {
  const large = `{"base":1,"words":"${'x'.repeat(70_000)}"}`;
  const never = () => Promise.reject(new Error('was read'));
  expect((await answer(request(large), schema, never)).status).toBe(413);
  const taken = await answer(request(large), schema, () => Promise.resolve(new Response()), 1e6);
  expect(taken.status).toBe(200);
});

test('a database that is away is a 503; anything else a 500 that gives nothing of itself away', async () => {
  const failing = (error: Error) =>
    answer(request('{"base":1}'), schema, () => Promise.reject(error));
  expect(
    (await read(await failing(Object.assign(new Error('refused'), { code: 'ECONNREFUSED' })))).body
      .title,
  ).toBe('The database is away.');
  expect((await read(await failing(new Error('Connection terminated unexpectedly')))).status).toBe(
    503,
  );
  const noise = jest.spyOn(process.stderr, 'write').mockReturnValue(true);
  const bug = await read(await failing(new Error('secret table name')));
  expect(bug.status).toBe(500);
  expect(JSON.stringify(bug.body)).not.toContain('secret');
  expect(noise).toHaveBeenCalled();
  noise.mockRestore();
});
