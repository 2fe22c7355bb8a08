import type { Rig } from '../core/rig';
import type { Answered, Asked, FirstOf, Question, Questions } from './messages';

/** The one way to the worker: ask by name, get a promise of the answer. */
export interface Door {
  ask: <Q extends Question>(
    question: Q,
    ask: Questions[Q]['ask'],
    onFirst?: (first: FirstOf<Q>) => void,
  ) => Promise<Questions[Q]['answer']>;
  /**
   * Starts the worker with the document as it stands, where none runs yet. Any question does so too;
   * before an edit it must have been done, since a worker is told of an edit by what it changes.
   */
  wake: () => void;
  close: () => void;
}

/** A question that has no answer after this long ends the worker that holds it. */
export const LIMIT_S = 30;

interface Asker {
  resolve: (answer: never) => void;
  reject: (e: Error) => void;
  onFirst?: (first: never) => void;
  limit: ReturnType<typeof setTimeout>;
}

/** What a door needs of the page: how to start a worker, and what to do when one has died. */
export interface Page {
  start: () => Worker;
  /** Takes a worker that owes nobody an answer once its door is closed; where nobody does it is ended. */
  leave?: (worker: Worker) => void;
  /** Told when a worker dies after its door was closed. */
  lost?: (worker: Worker) => void;
  /** The document as it stands, for the worker that takes over. */
  document: () => Rig;
  /** Told when a worker died and another was started: why, and what it says of the document. */
  onRestart: (why: string, report: Promise<Questions['open']['answer']>) => void;
  /** Calls back when a worker that announced itself under a name is gone; not every browser can. */
  watch?: (name: string, onGone: () => void) => void;
}

/** How often it is looked whether a worker has taken its lock. */
const LOOK_MS = 250;

/** So many deaths without an answer between them, and the worker is left alone. */
const MOST_DEATHS = 3;

let workers = 0;

/**
 * Gives the door of a worker that starts when it is first asked: a rig whose figures are known is
 * only looked at until then. A worker that dies, or does not answer within the limit, is
 * ended and another is started with the document as it stands; whoever waited for it is told, so
 * that no question stays unanswered.
 */
export function openDoor(page: Page): Door {
  const waiting = new Map<number, Asker>();
  let next = 0;
  let worker: Worker | undefined;
  let isClosed = false;
  let deaths = 0;

  const dropAll = (why: string) => {
    for (const asker of waiting.values()) {
      clearTimeout(asker.limit);
      asker.reject(new Error(why));
    }
    waiting.clear();
  };
  const begin = () => {
    const own = page.start();
    worker = own;
    const died = (why: string) => {
      if (worker !== own) return;
      if (isClosed) return page.lost?.(own);
      own.terminate();
      dropAll(why);
      if (++deaths > MOST_DEATHS) {
        isClosed = true;
        page.onRestart(why, Promise.reject(new Error(why)));
        return;
      }
      begin();
      page.onRestart(why, ask('open', { rig: page.document() }));
    };
    own.onmessage = ({ data }: MessageEvent<Answered>) => {
      const asker = waiting.get(data.id);
      if (!asker) return;
      if ('first' in data) return asker.onFirst?.(data.first as never);
      deaths = 0;
      clearTimeout(asker.limit);
      waiting.delete(data.id);
      if ('error' in data) asker.reject(new Error(data.error));
      else asker.resolve(data.answer as never);
    };
    own.onerror = (e) => died(e.message || 'it stopped');
    own.onmessageerror = () => died('its answer could not be read');
    ended = died;
    const name = `yantrel worker ${Date.now()} ${workers++}`;
    own.postMessage({ announce: name });
    page.watch?.(name, () => died('it stopped'));
  };
  let ended: (why: string) => void = () => undefined;
  const wake = () => {
    if (worker || isClosed) return;
    begin();
    void ask('open', { rig: page.document() }).catch(() => undefined);
  };
  const ask: Door['ask'] = (question, content, onFirst) =>
    new Promise((resolve, reject) => {
      if (isClosed) return reject(new Error('the analysis has ended'));
      if (question !== 'open') wake();
      else if (!worker) begin();
      const id = next++;
      const limit = setTimeout(
        () => ended(`it did not answer within ${LIMIT_S} seconds`),
        LIMIT_S * 1000,
      );
      waiting.set(id, { resolve, reject, onFirst, limit });
      worker?.postMessage({ id, question, ask: content } satisfies Asked);
    });
  return {
    ask,
    wake,
    close: () => {
      const isIdle = waiting.size === 0 && !isClosed;
      isClosed = true;
      dropAll('the page was left');
      if (!worker) return;
      if (isIdle && page.leave) page.leave(worker);
      else worker.terminate();
    },
  };
}

/** The worker of the rig that was left last: the next rig need not wait for its scripts. */
let spare: Worker | undefined;

/** Keeps a worker that is idle for the rig that is opened next. */
export function keepAnalysis(worker: Worker): void {
  spare?.terminate();
  spare = worker;
}

/** Lets go of a worker that died while nobody had it. */
export function loseAnalysis(worker: Worker): void {
  worker.terminate();
  if (spare === worker) spare = undefined;
}

/** Takes the analysis worker that is idle, or starts one. */
export function startAnalysis(): Worker {
  const kept = spare;
  spare = undefined;
  return kept ?? new Worker(new URL('./analysis.worker.ts', import.meta.url), { type: 'module' });
}

/**
 * Watches a worker by a lock that it holds as long as it lives: the page gets the lock the moment
 * the worker is gone, whatever ended it.
 */
export function watchByLock(name: string, onGone: () => void): void {
  if (!('locks' in navigator)) return;
  // The worker asks for its lock first thing; one that has not within the limit never will.
  const wait = (left: number) =>
    navigator.locks.query().then((state) => {
      const isHeld = state.held?.some((l) => l.name === name);
      if (isHeld) void navigator.locks.request(name, () => onGone());
      else if (left <= 0) onGone();
      else setTimeout(() => void wait(left - LOOK_MS), LOOK_MS);
    });
  void wait(LIMIT_S * 1000);
}
