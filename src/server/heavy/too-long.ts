/** So many times its limit is the longest that any work is waited for. */
const LONGEST = 10;

/**
 * Whether work takes too long: its limit has passed on the clock, and this process has had as much of
 * a processor since it began. Where other programs want the same cores, a minute of the clock may
 * hold ten seconds of work. What waits for ever uses no processor and is stopped at the latest.
 *
 * @param waitedMs since a thread began it, on the clock
 * @param workedMs what this process has had of processors since, all its threads together
 */
export const isTooLong = (limitMs: number, waitedMs: number, workedMs: number): boolean =>
  (waitedMs >= limitMs && workedMs >= limitMs) || waitedMs >= LONGEST * limitMs;
