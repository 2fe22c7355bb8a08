import { LIMIT_S } from './door';
import type { ProposalAnswered, ProposalName, Proposals, SoFar } from './messages';

/** A proposal being worked out: its answer, and a way to stop it at once. */
export interface Working<T> {
  answer: Promise<T>;
  cancel: () => void;
}

/** Said of a proposal that was stopped. */
export const CANCELLED = 'cancelled';

/**
 * Works a proposal out in a worker of its own, which ends with it: stopping is stopping the worker,
 * whatever it is doing.
 */
export function propose<N extends ProposalName>(
  name: N,
  ask: Proposals[N]['ask'],
  onProgress: (share: number, words: string, soFar?: SoFar) => void,
): Working<Proposals[N]['answer']> {
  let stop: (why: string) => void = () => undefined;
  const answer = new Promise<Proposals[N]['answer']>((resolve, reject) => {
    /** Starts a worker; one that does not come up, on a machine that is busy, is tried once more. */
    const start = (isLast: boolean) => {
      const worker = new Worker(new URL('./solve.worker.ts', import.meta.url), { type: 'module' });
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
          worker.postMessage({ id: 0, proposal: name, ask });
        } else if ('share' in data) onProgress(data.share, data.words, data.soFar);
        else if ('error' in data) stop(data.error);
        else {
          worker.terminate();
          resolve(data.answer as Proposals[N]['answer']);
        }
      };
      worker.onerror = (e) => stop(e.message || 'the worker stopped');
      worker.onmessageerror = () => stop('the answer of the worker could not be read');
    };
    start(false);
  });
  return { answer, cancel: () => stop(CANCELLED) };
}
