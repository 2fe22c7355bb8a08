import * as z from 'zod';
import { issueWords, type Problem, textProblems } from '../core/rig';
import { Busy } from './heavy/busy';
import { UnreadableRevision } from './stored';

/** An error a person can act on, as `application/problem+json`. */
export const problem = (
  status: number,
  title: string,
  extra: { detail?: string; problems?: Problem[]; [key: string]: unknown } = {},
): Response =>
  Response.json(
    { type: 'about:blank', status, title, ...extra },
    { status, headers: { 'content-type': 'application/problem+json' } },
  );

/** The largest body of a route that takes a whole rig, in bytes. */
export const RIG_BYTES = 9_000_000;
/** The largest of any other: names, numbers, units. */
const USUAL_BYTES = 64_000;

/**
 * Runs a route: reads and checks the body, and answers what goes wrong in words. A database that is
 * away is a 503, so that the browser keeps the work and tries again.
 */
export async function answer<T>(
  request: Request,
  schema: z.ZodType<T> | null,
  work: (body: T) => Promise<Response>,
  most = USUAL_BYTES,
): Promise<Response> {
  try {
    if (isForeign(request))
      return problem(403, 'Another site may not change rigs.', {
        detail: 'Open Yantrel at its own address.',
      });
    if (!schema) return await work(undefined as T);
    const text = await bodyOf(request, most);
    if (text === undefined)
      return problem(413, 'That is too large to store.', {
        detail: 'Split the rig into smaller ones.',
      });
    let raw: unknown;
    try {
      raw = JSON.parse(text);
    } catch {
      return problem(400, 'The request is not whole JSON.');
    }
    const unstorable = textProblems(raw);
    if (unstorable.length)
      return problem(422, 'That cannot be stored.', { problems: unstorable.slice(0, 20) });
    const parsed = schema.safeParse(raw);
    if (!parsed.success)
      return problem(422, 'That cannot be stored.', {
        problems: parsed.error.issues
          .slice(0, 20)
          .map((i) => ({ where: i.path.join('.'), what: issueWords(i) })),
      });
    return await work(parsed.data);
  } catch (error) {
    if (isAway(error))
      return problem(503, 'The database is away.', {
        detail: 'Your work is kept in this browser and is saved when the database is back.',
      });
    if (isFull(error))
      return problem(507, 'The disk of the database is full.', {
        detail: 'Your work is kept in this browser. Make room on the disk; it is saved then.',
      });
    if (error instanceof Busy)
      return problem(503, 'The server is busy.', {
        detail: `${error.message} Try again in a moment.`,
      });
    if (error instanceof UnreadableRevision)
      return problem(422, error.message, {
        detail: 'Take the file, or go back one revision. Nothing is lost.',
        problems: error.problems,
      });
    process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`);
    return problem(500, 'Something went wrong on the server.', {
      detail: 'Your work is kept in this browser. Try again; if it goes on, restart Yantrel.',
    });
  }
}

/** The text of a body; nothing where it is too large, which is noticed while it is read. */
async function bodyOf(request: Request, most: number): Promise<string | undefined> {
  const bytes = await bytesOf(request, most);
  return bytes && new TextDecoder().decode(bytes);
}

/** A body as it came; nothing where it is too large, which is noticed while it is read. */
export async function bytesOf(request: Request, most: number): Promise<Uint8Array | undefined> {
  const reader = request.body?.getReader();
  const parts: Uint8Array[] = [];
  let bytes = 0;
  for (;;) {
    const { done, value } = (await reader?.read()) ?? { done: true };
    if (done || !value) return Buffer.concat(parts);
    bytes += value.byteLength;
    // The rest is not kept: it runs off while the answer says why.
    if (bytes > most) return undefined;
    parts.push(value);
  }
}

/** Whether a page of another site sends the request: browsers say where a request comes from. */
function isForeign(request: Request): boolean {
  const origin = request.headers.get('origin');
  if (!origin || request.method === 'GET') return false;
  return (
    !URL.canParse(origin) ||
    new URL(origin).host !== (request.headers.get('host') ?? new URL(request.url).host)
  );
}

/** Whether the database has no room left to write to. */
const isFull = (error: unknown): boolean =>
  (error as { code?: unknown } | null)?.code === '53100' ||
  (error instanceof Error && /no space left on device/i.test(error.message));

/** Whether an error means that the database cannot be reached just now. */
export function isAway(error: unknown): boolean {
  const code = (error as { code?: unknown } | null)?.code;
  const message = error instanceof Error ? error.message : '';
  return (
    (typeof code === 'string' &&
      (/^(ECONN|EPIPE|ENOTFOUND|ETIMEDOUT)/.test(code) || /^(57P0|08|55000|3D000)/.test(code))) ||
    /connection terminated|timeout exceeded when trying to connect|DATABASE_URL/i.test(message)
  );
}
