import { Command as Program } from 'commander';
import { problemLines } from '../core/outcome';
import { type Answer, type Command, EXIT, Refusal } from './command';
import { build } from './commands/build';
import { check } from './commands/check';
import { exportAs } from './commands/export';
import { layout } from './commands/layout';
import { controller } from './commands/controller';
import { ladder } from './commands/ladder';
import { line } from './commands/line';
import { midi } from './commands/midi';
import { fromLine } from './commands/new';
import { note } from './commands/note';
import { power } from './commands/power';
import { drill } from './commands/drill';
import { faults } from './commands/faults';
import { linecheck } from './commands/linecheck';
import { measure } from './commands/measure';
import { propose } from './commands/propose';
import { report } from './commands/report';
import { songs } from './commands/songs';
import { walk } from './commands/walk';
import { endOf } from './end';
import { filesIn, load, save } from './files';

/** Every command. One more is its file and its line here. */
export const COMMANDS: readonly Command[] = [
  check,
  walk,
  report,
  note,
  controller,
  ladder,
  propose,
  measure,
  faults,
  drill,
  linecheck,
  midi,
  songs,
  power,
  build,
  layout,
  exportAs,
  line,
];

interface Common {
  json?: boolean;
  debug?: boolean;
  out?: string;
}

const say = (text: string): void => void process.stdout.write(`${text}\n`);

/** Prints what a command found: one file as it is, of several each with its name. */
function print(file: string, answer: Answer, options: Common, isOneOfMany: boolean): void {
  if (answer.content !== undefined && options.out !== undefined) save(options.out, answer.content);
  else if (answer.content !== undefined) process.stdout.write(answer.content);
  if (answer.content !== undefined && answer.json === null) return;
  if (options.json)
    say(
      isOneOfMany
        ? JSON.stringify({ file, result: answer.json })
        : JSON.stringify(answer.json, null, 2),
    );
  else for (const line of isOneOfMany ? [`== ${file}`, ...answer.lines] : answer.lines) say(line);
}

/** Of several files, says of one why it has no answer. */
function sayNone(file: string, lines: readonly string[], options: Common): void {
  if (options.json) say(JSON.stringify({ file, problems: lines }));
  else process.stderr.write(`== ${file}\n${lines.join('\n')}\n`);
}

/**
 * Runs a command on every file; one that cannot be read, or of which the command has no answer, does
 * not keep the others back.
 */
async function runOn(command: Command, paths: readonly string[], options: Common) {
  const files = filesIn(paths);
  if (files.length > 1 && options.out !== undefined)
    throw new Refusal('--out names one file; give one rig with it.');
  let worst: number = EXIT.fine;
  const isOneOfMany = files.length > 1;
  for (const file of files) {
    // Nobody reads on.
    if (process.stdout.errored) break;
    const rig = load(file);
    if (!rig.ok) {
      worst = Math.max(worst, EXIT.unreadable);
      const lines = problemLines(rig.problems);
      if (isOneOfMany) sayNone(file, lines, options);
      else process.stderr.write(`${lines.join('\n')}\n`);
      continue;
    }
    try {
      const answer = await command.run(rig.value, options);
      print(file, answer, options, isOneOfMany);
      worst = Math.max(worst, answer.exit ?? EXIT.fine);
    } catch (error) {
      if (!isOneOfMany) throw error;
      const { exit, words = '' } = endOf(error, options.debug === true);
      worst = Math.max(worst, exit);
      sayNone(file, words.split('\n'), options);
    }
  }
  process.exitCode = worst;
}

/** The command line, put together from the commands. */
export function programOf(commands: readonly Command[] = COMMANDS): Program {
  const program = new Program('yantrel')
    .description(
      'Reads rig files: what the signal passes through, how loud, how clean, how late, and what ' +
        'is wrong. Each command takes files and folders.',
    )
    .exitOverride();
  for (const command of commands) {
    const one = program
      .command(command.name)
      .description(command.about)
      .argument('<files...>', 'rig files, or folders of them')
      .option('--json', 'as JSON; of several files, one object a line')
      .option('--debug', 'where Yantrel itself fails, say where');
    for (const { flags, about, initial, required } of command.options)
      if (required) one.requiredOption(flags, about);
      else one.option(flags, about, initial);
    one.action((files: string[], options: Common) => runOn(command, files, options));
  }
  const maker = program
    .command(fromLine.name)
    .description(fromLine.about)
    .argument(fromLine.argument.name, fromLine.argument.about)
    .option('--json', 'as JSON, with what was put in that nobody wrote')
    .option('--debug', 'where Yantrel itself fails, say where');
  for (const { flags, about } of fromLine.options) maker.option(flags, about);
  maker.action((text: string, options: Common) => make(text, options));
  return program;
}

/** Makes a rig of a line: to a file or to the output; what was put in beside it is said aside. */
function make(text: string, options: Common): void {
  const answer = fromLine.run(text, options);
  for (const note of answer.lines) process.stderr.write(`${note}\n`);
  if (options.json) say(JSON.stringify(answer.json, null, 2));
  else if (options.out !== undefined) save(options.out, answer.content ?? '');
  else process.stdout.write(String(answer.content));
}
