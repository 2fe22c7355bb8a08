import { ALONE, type Share } from '../core/report/share';
import { LIMIT_S } from './door';
import type {
  ProposalAnswered,
  ProposalAsked,
  ProposalName,
  Proposals,
  SoFar,
  Wake,
} from './messages';

/** A proposal being worked out: its answer, and a way to stop it at once. */
export interface Working<T> {
  answer: Promise<T>;
  cancel: () => void;
}

/** Said of a proposal that was stopped. */
export const CANCELLED = 'cancelled';

/** How work is shared: into how many pieces it falls, and how several answers become one. */
export interface Sharing<T> {
  pieces: number;
  join: (answers: readonly [T, ...T[]]) => T;
}

/** No more workers than help, one where little is said of the machine, and to each enough to do. */
const MOST_WORKERS = 4;
const PIECES_A_WORKER = 8;
const workersFor = (pieces: number): number =>
  Math.max(
    1,
    Math.min(
      MOST_WORKERS,
      navigator.hardwareConcurrency || 1,
      Math.floor(pieces / PIECES_A_WORKER),
    ),
  );

/**
 * A worker that has done its work waits this long for more, in ms: its scripts are there, and what
 * they do often is compiled. Then its memory is worth more.
 */
export const IDLE_MS = 20_000;
const idle = new Map<Worker, ReturnType<typeof setTimeout>>();

function keep(worker: Worker): void {
  const end = () => {
    idle.delete(worker);
    worker.terminate();
  };
  if (idle.size >= MOST_WORKERS) return end();
  worker.onmessage = null;
  worker.onerror = end;
  worker.onmessageerror = end;
  idle.set(worker, setTimeout(end, IDLE_MS));
}

function takeIdle(): Worker | undefined {
  const [worker] = idle.keys();
  if (!worker) return undefined;
  clearTimeout(idle.get(worker));
  idle.delete(worker);
  return worker;
}

type Tell = (share: number, words: string, soFar?: SoFar) => void;

/**
 * Works a proposal out in a worker of its own: stopping is stopping the worker, whatever it is
 * doing. One that came to its end waits a while for other work. Work that can be shared is done by
 * several, each a share of it.
 */
export function propose<N extends ProposalName>(
  name: N,
  ask: Proposals[N]['ask'],
  onProgress: Tell,
  sharing?: Sharing<Proposals[N]['answer']>,
): Working<Proposals[N]['answer']> {
  const of = sharing ? workersFor(sharing.pieces) : 1;
  if (!sharing || of === 1) return inWorker(name, ask, ALONE, onProgress);
  const done = Array.from({ length: of }, () => 0);
  const all = done.map((_, part) =>
    inWorker(name, ask, { part, of }, (share, words, soFar) => {
      done[part] = share;
      onProgress(done.reduce((a, b) => a + b, 0) / of, words, soFar);
    }),
  );
  const cancel = () => all.forEach((w) => w.cancel());
  const answer = Promise.all(all.map((w) => w.answer)).then(
    ([first, ...others]) => sharing.join([first as Proposals[N]['answer'], ...others]),
    (why: unknown) => {
      cancel();
      throw why;
    },
  );
  return { answer, cancel };
}

function inWorker<N extends ProposalName>(
  name: N,
  ask: Proposals[N]['ask'],
  share: Share,
  onProgress: Tell,
): Working<Proposals[N]['answer']> {
  let stop: (why: string) => void = () => undefined;
  const answer = new Promise<Proposals[N]['answer']>((resolve, reject) => {
    /** Takes a worker; one that does not come up, on a machine that is busy, is tried once more. */
    const start = (isLast: boolean) => {
      const kept = takeIdle();
      const worker =
        kept ?? new Worker(new URL('./solve.worker.ts', import.meta.url), { type: 'module' });
      const late = setTimeout(() => {
        if (isLast) return stop(`the worker did not start within ${2 * LIMIT_S} seconds`);
        worker.terminate();
        start(true);
      }, LIMIT_S * 1000);
      stop = (why) => {
        clearTimeout(late);
        worker.terminate();
        reject(new Error(why));
      };
      worker.onmessage = ({ data }: MessageEvent<ProposalAnswered>) => {
        if ('listens' in data) {
          // What is asked before a worker listens may be lost: it says when it does.
          clearTimeout(late);
          worker.postMessage({ id: 0, proposal: name, ask, share } satisfies ProposalAsked<N>);
        } else if ('share' in data) onProgress(data.share, data.words, data.soFar);
        else if ('error' in data) stop(data.error);
        else {
          stop = () => undefined;
          keep(worker);
          resolve(data.answer as Proposals[N]['answer']);
        }
      };
      worker.onerror = (e) => stop(e.message || 'the worker stopped');
      worker.onmessageerror = () => stop('the answer of the worker could not be read');
      kept?.postMessage({ wakes: true } satisfies Wake);
    };
    start(false);
  });
  return { answer, cancel: () => stop(CANCELLED) };
}
