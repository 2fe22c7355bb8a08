import { spawnSync } from 'node:child_process';
import { request as ask } from 'node:http';
import { connect } from 'node:net';
import { touringRig } from '../src/core/demo';
import { forEachFile, type Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

interface Reply {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  body: string;
}

/** A request just as it is written, whatever a browser would make of it. */
const send = (
  path: string,
  method = 'GET',
  headers: Record<string, string> = {},
  body?: string,
): Promise<Reply> =>
  new Promise((done, failed) => {
    const { hostname, port } = new URL(tech.base);
    const out = ask({ hostname, port, path, method, headers }, (reply) => {
      let text = '';
      reply.on('data', (part) => (text += String(part)));
      reply.on('end', () =>
        done({ status: reply.statusCode ?? 0, headers: reply.headers, body: text }),
      );
    });
    out.on('error', failed);
    out.end(body);
  });

test('requests under another name, from another site, or with an odd method are not answered', async () => {
  expect((await send('/', 'GET', { host: 'evil.example' })).status).toBe(421);
  expect((await send('/api/rigs', 'GET', { host: 'evil.example:3200' })).status).toBe(421);
  const evil = { origin: 'http://evil.example', 'content-type': 'text/plain' };
  expect((await send('/api/rigs', 'POST', evil, '{}')).status).toBe(403);
  expect((await send('/api/rigs', 'GET', { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  expect((await send('/', 'TRACE')).status).toBe(405);
  expect((await send('/')).status).toBe(200);
  expect((await send('/api/rigs', 'GET', { origin: tech.base })).status).toBe(200);
});

test('addresses that are none, numbers past their range and lines that are no HTTP are refused, never a fault', async () => {
  const id = await stored(tech, touringRig);
  for (const path of [
    '/%',
    '/%E0%A4%A',
    '/rigs/%00/signal',
    `/api/rigs/${id}/revisions/99999999999999999999`,
    `/api/rigs/${id}/revisions/-1`,
    `/api/rigs/${id}/revisions?before=99999999999`,
    `/api/rigs/${id}/revisions?from=never`,
    '/api/rigs/..%2f..%2fetc',
    `/api/rigs/${'x'.repeat(3000)}`,
    '/api/nothing',
  ]) {
    const { status } = await send(path);
    expect([path.slice(0, 60), status >= 400 && status < 500]).toEqual([path.slice(0, 60), true]);
  }
  const { hostname, port } = new URL(tech.base);
  const said = await new Promise<string>((done) => {
    const socket = connect(Number(port), hostname, () => socket.end('NOT HTTP AT ALL\r\n\r\n'));
    socket.on('data', (text) => done(String(text)));
    socket.on('error', () => done(''));
  });
  expect(said).toMatch(/^HTTP\/1.1 400/);
});

test('a body that is too large is cut off; a text that cannot be stored names its field', async () => {
  const json = { 'content-type': 'application/json' };
  const huge = `{"text":"${'x'.repeat(9_500_000)}"}`;
  expect((await send('/api/rigs', 'POST', json, huge)).status).toBe(413);
  const bad = JSON.stringify({ rig: { ...touringRig, name: 'a\0b' } });
  const refused = await send('/api/rigs', 'POST', json, bad);
  expect([refused.status, refused.body]).toEqual([422, expect.stringContaining('rig.name')]);
  expect((await send('/api/rigs', 'POST', json, '{"text":')).status).toBe(400);
});

test('every answer says what a page may do, and no script runs without the answer’s nonce', async () => {
  const page = await send('/');
  const csp = String(page.headers['content-security-policy']);
  const nonce = /'nonce-([^']+)'/.exec(csp)?.[1];
  expect(csp).toContain("default-src 'self'");
  expect(csp).not.toMatch(/script-src[^;]*'unsafe-(inline|eval)'/);
  expect(page.headers['x-content-type-options']).toBe('nosniff');
  expect(page.headers['referrer-policy']).toBe('no-referrer');
  const inline = [...page.body.matchAll(/<script(?![^>]*\bsrc=)([^>]*)>/g)].map((m) => m[1]);
  expect(inline.length).toBeGreaterThan(0);
  for (const attributes of inline) expect(attributes).toContain(`nonce="${nonce}"`);
  expect((await send('/')).headers['content-security-policy']).not.toBe(csp);
  expect(page.headers['set-cookie']).toBeUndefined();
});

test('the web server has nobody’s rights, also where root started it', () => {
  const port = new URL(tech.base).port;
  const { stdout } = spawnSync('ps', ['-eo', 'uid=,args='], { encoding: 'utf8' });
  const servers = stdout
    .split('\n')
    .map((line) => line.trim().split(/\s+/))
    .filter(
      (words) => words.some((w) => w.endsWith('scripts/server.mjs')) && words.at(-1) === port,
    );
  expect(servers).toHaveLength(1);
  expect(servers[0]![0]).not.toBe('0');
});
