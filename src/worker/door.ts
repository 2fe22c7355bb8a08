import type { Answered, Question, Questions } from './messages';

/** The one way to the worker: ask by name, get a promise of the answer. */
export interface Door {
  ask: <Q extends Question>(
    question: Q,
    ask: Questions[Q]['ask'],
  ) => Promise<Questions[Q]['answer']>;
  close: () => void;
}

/** Starts a worker and gives its door. */
export function openDoor(): Door {
  const worker = new Worker(new URL('./analysis.worker.ts', import.meta.url), { type: 'module' });
  const waiting = new Map<
    number,
    { resolve: (answer: never) => void; reject: (e: Error) => void }
  >();
  let next = 0;
  worker.onmessage = ({ data }: MessageEvent<Answered>) => {
    const asker = waiting.get(data.id);
    waiting.delete(data.id);
    if ('error' in data) asker?.reject(new Error(data.error));
    else asker?.resolve(data.answer as never);
  };
  return {
    ask: (question, ask) =>
      new Promise((resolve, reject) => {
        const id = next++;
        waiting.set(id, { resolve: resolve as (answer: never) => void, reject });
        worker.postMessage({ id, question, ask });
      }),
    close: () => worker.terminate(),
  };
}
