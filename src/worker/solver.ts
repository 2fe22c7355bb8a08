import type { BestSoFar, ProposalAnswered, ProposalName, Proposals } from './messages';

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
  onProgress: (share: number, words: string, best?: BestSoFar) => void,
): Working<Proposals[N]['answer']> {
  const worker = new Worker(new URL('./solve.worker.ts', import.meta.url), { type: 'module' });
  let stop: (e: Error) => void = () => undefined;
  const answer = new Promise<Proposals[N]['answer']>((resolve, reject) => {
    stop = reject;
    worker.onmessage = ({ data }: MessageEvent<ProposalAnswered>) => {
      if ('share' in data) return onProgress(data.share, data.words, data.best);
      worker.terminate();
      if ('error' in data) reject(new Error(data.error));
      else resolve(data.answer as Proposals[N]['answer']);
    };
    worker.onerror = (e) => {
      worker.terminate();
      reject(new Error(e.message || 'the worker stopped'));
    };
    worker.onmessageerror = () => {
      worker.terminate();
      reject(new Error('the answer of the worker could not be read'));
    };
  });
  worker.postMessage({ id: 0, proposal: name, ask });
  return {
    answer,
    cancel: () => {
      worker.terminate();
      stop(new Error(CANCELLED));
    },
  };
}
