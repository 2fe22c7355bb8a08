import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { Busy } from './busy';
import { type Ask, type Done, type TaskName, TASKS } from './tasks';
import { isTooLong } from './too-long';

/** More work than any rig takes, from when a thread began it; what takes more is stopped. */
const LIMIT_MS = 60_000;
/** How often it is looked how long work has taken, in ms. */
const LOOK_MS = 500;
/** As many may wait; more are told to come again. */
const QUEUE = 24;
const MEGABYTES = 1500;

const shared = globalThis as { yantrelPool?: Piscina };

function pool(filename: string): Piscina {
  return (shared.yantrelPool ??= new Piscina({
    filename,
    minThreads: 1,
    // One core is left for answers.
    maxThreads: Math.max(1, availableParallelism() - 1),
    maxQueue: QUEUE,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: MEGABYTES },
  }));
}

/**
 * Does heavy work in a thread, one after the other, so that nobody else waits for it. Where no
 * thread was compiled (in tests, in development) it is done here.
 */
export async function heavy<N extends TaskName>(
  name: N,
  ask: Ask<N>,
  limitMs = LIMIT_MS,
): Promise<Done<N>> {
  const file = process.env.YANTREL_HEAVY;
  if (!file) return (TASKS[name] as (ask: Ask<N>) => Promise<Done<N>>)(ask);
  const limit = new AbortController();
  const { port1: line, port2: begun } = new MessageChannel();
  let patience: ReturnType<typeof setInterval> | undefined;
  line.once('message', () => {
    const [since, before] = [performance.now(), process.cpuUsage()];
    const look = () => {
      const { user, system } = process.cpuUsage(before);
      if (isTooLong(limitMs, performance.now() - since, (user + system) / 1000)) limit.abort();
    };
    patience = setInterval(look, Math.min(limitMs, LOOK_MS));
  });
  try {
    const how = { signal: limit.signal, transferList: [begun] };
    return (await pool(file).run({ name, ask, begun }, how)) as Done<N>;
  } catch (error) {
    if (limit.signal.aborted)
      throw new Busy(`It took longer than ${Math.ceil(limitMs / 1000)} s and was stopped.`);
    if (error instanceof Error && /queue/i.test(error.message))
      throw new Busy('Too much is asked for at once.');
    throw error;
  } finally {
    clearInterval(patience);
    line.close();
  }
}
