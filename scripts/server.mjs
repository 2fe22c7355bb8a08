import { randomBytes } from 'node:crypto';
import { createServer } from 'node:http';
import { join } from 'node:path';
import next from 'next';
import sirv from 'sirv';
import { root } from './machine.mjs';

/** Serves the build on loopback, with a door before it that lets in only what a page of ours sends. */
const port = Number(process.argv[2]);
const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);
/** The names that this server is served by; YANTREL_HOSTS adds some, separated by commas. */
const HOSTS = new Set([
  '127.0.0.1',
  'localhost',
  '[::1]',
  ...(process.env.YANTREL_HOSTS ?? '').split(',').filter(Boolean),
]);

/** The largest body that is let in, in bytes; what comes without its length is measured as it is read. */
const MAX_BODY = 9_000_000;

/** Why a request is not let in: a status and words, or nothing. */
function refusal(request) {
  if (!METHODS.has(request.method ?? '')) return [405, 'That method is not answered here.'];
  const host = hostName(request.headers.host);
  if (!host || !HOSTS.has(host))
    return [421, 'This address is not served here. Open Yantrel at its own address.'];
  try {
    decodeURIComponent(new URL(request.url ?? '', 'http://here').pathname);
    if (/%00/.test(request.url ?? '')) throw new URIError('no text');
  } catch {
    return [400, 'That is no address.'];
  }
  if (Number(request.headers['content-length'] ?? 0) > MAX_BODY)
    return [413, 'That is too large to store. Split the rig into smaller ones.'];
  const { origin } = request.headers;
  const site = request.headers['sec-fetch-site'];
  const isPage = !request.url?.startsWith('/api/') && request.method === 'GET';
  if (isPage) return undefined;
  if (origin !== undefined && hostOf(origin) !== request.headers.host)
    return [403, 'Another site may not ask this.'];
  if (site !== undefined && site !== 'same-origin' && site !== 'none')
    return [403, 'Another site may not ask this.'];
  return undefined;
}

const hostOf = (origin) => (URL.canParse(origin) ? new URL(origin).host : '');
const hostName = (host = '') =>
  URL.canParse(`http://${host}`) ? new URL(`http://${host}`).hostname : '';

/** No inline script but those with the nonce of this answer; styles of the components are inline. */
const policy = (nonce) =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "worker-src 'self' blob:",
    "connect-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');

/** What every answer bears. */
const HEADERS = {
  'x-content-type-options': 'nosniff',
  'cross-origin-resource-policy': 'same-origin',
};
/** What a page bears besides: a script or a typeface neither stands in a frame nor opens anything. */
const PAGE_HEADERS = {
  'x-frame-options': 'DENY',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'permissions-policy': 'camera=(), microphone=(), geolocation=(), payment=(), usb=()',
};

/** What the build made for pages, packed once; its names change with what is in it. */
const STATIC = '/_next/static/';
const made = sirv(join(root, process.env.YANTREL_DIST ?? '.next', 'static'), {
  ...{ brotli: true, immutable: true, maxAge: 31_536_000 },
});

const app = next({ dev: false, dir: root, hostname: '127.0.0.1', port });
await app.prepare();
const handle = app.getRequestHandler();
const server = createServer((request, response) => {
  const isFile = request.url?.startsWith(STATIC);
  const headers = isFile ? HEADERS : { ...HEADERS, ...PAGE_HEADERS };
  for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
  const refused = refusal(request);
  if (refused) {
    const [status, title] = refused;
    response.writeHead(status, { 'content-type': 'application/problem+json' });
    response.end(JSON.stringify({ type: 'about:blank', status, title }));
    // What is still on its way is not kept.
    request.resume();
    return;
  }
  if (isFile) {
    const { url } = request;
    request.url = url.slice(STATIC.length - 1);
    made(request, response, () => {
      request.url = url;
      void handle(request, response);
    });
    return;
  }
  const nonce = randomBytes(16).toString('base64');
  const csp = policy(nonce);
  // The renderer puts the nonce on its scripts; nobody outside may choose it.
  request.headers['content-security-policy'] = csp;
  request.headers['x-nonce'] = nonce;
  response.setHeader('content-security-policy', csp);
  handle(request, response).catch((error) => {
    process.stderr.write(`${error?.stack ?? error}\n`);
    if (!response.headersSent) response.writeHead(500);
    response.end();
  });
});
// A request that is not even HTTP is answered, and its connection closed.
server.on('clientError', (_, socket) => {
  if (socket.writable) socket.end('HTTP/1.1 400 Bad Request\r\nconnection: close\r\n\r\n');
});
server.on('upgrade', (_, socket) => socket.destroy());
server.listen(port, '127.0.0.1');

const stop = () => {
  server.close(() => process.exit(0));
  // Live lines stay open until they are closed.
  server.closeAllConnections();
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
