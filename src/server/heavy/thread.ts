import { TASKS, type TaskName } from './tasks';

/** A thread of the pool: does what it is asked by name. Compiled on its own by `scripts/compile-cli.mjs`. */
export default ({ name, ask }: { name: TaskName; ask: never }): Promise<unknown> =>
  (TASKS[name] as (ask: never) => Promise<unknown>)(ask);
