import { setPriority } from 'node:os';
import type { MessagePort } from 'node:worker_threads';
import { TASKS, type TaskName } from './tasks';

/** How far heavy work stands back where answers want the same core, as Unix counts it. */
const NICE = 15;
// On Linux this is the priority of the thread that asks, not of the whole server.
if (process.platform === 'linux') setPriority(0, NICE);

interface Order {
  name: TaskName;
  ask: never;
  /** Is told when the work begins: it may have waited long for its turn. */
  begun: MessagePort;
}

/** A thread of the pool: does what it is asked by name. Compiled on its own by `scripts/compile-cli.mjs`. */
export default ({ name, ask, begun }: Order): Promise<unknown> => {
  begun.postMessage(name);
  begun.close();
  return (TASKS[name] as (ask: never) => Promise<unknown>)(ask);
};
