import { setPriority } from 'node:os';
import type { MessagePort } from 'node:worker_threads';
import { learnSheets, type Rig } from '../../core/rig';
import { TASKS, type TaskName } from './tasks';

/** How far heavy work stands back where answers want the same core, as Unix counts it. */
const NICE = 15;
// On Linux this is the priority of the thread that asks, not of the whole server.
if (process.platform === 'linux') setPriority(0, NICE);

interface Order {
  name: TaskName;
  ask: { rig: Rig };
  /** Is told when the work begins: it may have waited long for its turn. */
  begun: MessagePort;
}

/** A thread of the pool: does what it is asked by name. Compiled on its own by `scripts/compile-cli.mjs`. */
export default ({ name, ask, begun }: Order): Promise<unknown> => {
  begun.postMessage(name);
  begun.close();
  // A thread begins without the gear of one's own that the rig is made of.
  learnSheets(ask.rig.sheets);
  return (TASKS[name] as (ask: { rig: Rig }) => Promise<unknown>)(ask);
};
