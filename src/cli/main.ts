import * as z from 'zod';
import { EXIT } from './command';
import { endOf } from './end';
import { programOf } from './program';

// A file is read once: compiling its schema would take longer than reading it.
z.config({ jitless: true });

// Who reads only the first lines, as `head` does, has had enough: that is no mistake.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit();
  process.stderr.write(`The answer could not be written: ${error.message}.\n`);
  process.exit(EXIT.unreadable);
});

programOf()
  .parseAsync()
  .catch((error: unknown) => {
    const { exit, words } = endOf(error, process.argv.includes('--debug'));
    if (words !== undefined) process.stderr.write(`${words}\n`);
    process.exitCode = exit;
  });
