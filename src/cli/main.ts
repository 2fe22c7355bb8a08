import * as z from 'zod';
import { EXIT } from './command';
import { endOf } from './end';
import { programOf } from './program';

// A file is read once: compiling its schema would take longer than reading it.
z.config({ jitless: true });

let unwritten: string | undefined;
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  // Who reads only the first lines, as `head` does, has had enough: that is no mistake.
  if (error.code !== 'EPIPE') unwritten ??= error.message;
});
// An answer may fail to be written after the command is over.
process.once('exit', () => {
  if (unwritten === undefined) return;
  process.stderr.write(
    `The answer could not be written: ${unwritten}. Make room, or write it elsewhere.\n`,
  );
  process.exitCode = EXIT.unreadable;
});

programOf()
  .parseAsync()
  .catch((error: unknown) => {
    const { exit, words } = endOf(error, process.argv.includes('--debug'));
    if (words !== undefined) process.stderr.write(`${words}\n`);
    process.exitCode = exit;
  });
