import { useCallback, useEffect, useState } from 'react';
import { askServer, problemText } from '../keep/ask-server';
import { useDocument, useRig } from '../store/use-rig';

/** A revision in the list. */
export interface Revision {
  number: number;
  words: string;
  savedAt: string;
  by: string | null;
  name: string | null;
}

/** What revisions are searched for. */
export interface Search {
  words: string;
  /** Days such as 2026-11-26; empty where any will do. */
  from: string;
  until: string;
}

/** As many as the server gives at once. */
const PAGE = 200;

/** The revisions that are searched for, page by page, newest first; kept up as the rig is saved. */
export function useRevisions({ words, from, until }: Search) {
  const id = useDocument().id;
  const revision = useRig((s) => s.revision);
  const [rows, setRows] = useState<Revision[] | null>(null);
  const [more, setMore] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const ask = useCallback(
    async (before?: number) => {
      const query = new URLSearchParams({ words, from, until, before: String(before ?? '') });
      const reply = await askServer<Revision[]>(`/api/rigs/${id}/revisions?${query}`);
      setProblem(reply.ok ? null : problemText(reply.problem));
      if (reply.ok) setMore(reply.value.length === PAGE);
      return reply.ok ? reply.value : undefined;
    },
    [id, words, from, until],
  );
  const load = useCallback(async () => {
    const found = await ask();
    if (found) setRows(found);
  }, [ask]);
  useEffect(() => {
    void load();
  }, [load, revision]);
  const loadMore = async () => {
    const last = rows?.at(-1);
    const found = last && (await ask(last.number));
    if (found) setRows([...(rows ?? []), ...found]);
  };
  const rename = async (number: number, name: string | null) => {
    const reply = await askServer(`/api/rigs/${id}/revisions/${number}`, 'PATCH', { name });
    if (!reply.ok) return setProblem(problemText(reply.problem));
    setRows((list) => list?.map((r) => (r.number === number ? { ...r, name } : r)) ?? null);
  };
  return { rows, more, problem, load, loadMore, rename };
}
