import { CommanderError } from 'commander';
import { EXIT, Refusal } from './command';

/**
 * How the command line ends when something was thrown: the exit code, and what is said. What
 * commander refused it has explained already, and help that was asked for is no failure. Anything
 * that is not a refusal is a mistake of Yantrel's own, and never a file that cannot be read.
 */
export function endOf(error: unknown, isDebug: boolean): { exit: number; words?: string } {
  if (error instanceof CommanderError)
    return { exit: error.exitCode === 0 ? EXIT.fine : EXIT.unreadable };
  const message = error instanceof Error ? error.message : String(error);
  if (error instanceof Refusal) return { exit: EXIT.unreadable, words: message };
  const stack = error instanceof Error ? error.stack : undefined;
  return {
    exit: EXIT.broken,
    words:
      isDebug && stack
        ? stack
        : `Yantrel made a mistake: ${message}. Run it again with --debug to see where.`,
  };
}
