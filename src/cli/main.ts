import * as z from 'zod';
import { endOf } from './end';
import { programOf } from './program';

// A file is read once: compiling its schema would take longer than reading it.
z.config({ jitless: true });

programOf()
  .parseAsync()
  .catch((error: unknown) => {
    const { exit, words } = endOf(error, process.argv.includes('--debug'));
    if (words !== undefined) process.stderr.write(`${words}\n`);
    process.exitCode = exit;
  });
