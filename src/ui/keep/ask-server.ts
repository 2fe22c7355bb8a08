/** An answer of the server that says what went wrong, as `application/problem+json`. */
export interface ServerProblem {
  title: string;
  detail?: string;
  problems?: { where: string; what: string }[];
  [extra: string]: unknown;
}

export type Reply<T> =
  { ok: true; value: T } | { ok: false; status: number; problem: ServerProblem };

/** Asks the server; a server that cannot be reached is an answer with status 0. */
export async function askServer<T>(
  path: string,
  method: 'GET' | 'POST' | 'PATCH' | 'PUT' | 'DELETE' = 'GET',
  body?: unknown,
): Promise<Reply<T>> {
  try {
    const response = await fetch(path, {
      method,
      ...(body !== undefined && {
        body: JSON.stringify(body),
        headers: { 'content-type': 'application/json' },
      }),
      signal: AbortSignal.timeout(20_000),
    });
    const value: unknown = await response.json();
    return response.ok
      ? { ok: true, value: value as T }
      : { ok: false, status: response.status, problem: value as ServerProblem };
  } catch {
    return {
      ok: false,
      status: 0,
      problem: {
        title: 'The server cannot be reached.',
        detail: 'Your work is kept in this browser and is saved when the server is back.',
      },
    };
  }
}

/** What went wrong as one text. */
export const problemText = (p: ServerProblem): string =>
  [
    p.title,
    p.detail,
    ...(p.problems ?? []).map((x) => (x.where ? `${x.where}: ${x.what}` : x.what)),
  ]
    .filter(Boolean)
    .join(' ');
