import { freshId, writeRig } from '../../core/rig';
import { rigOfChain } from '../../core/start';
import { kindOf } from '../../core/kinds';
import { EXIT, type Maker, refuse } from '../command';

interface Options {
  name?: string;
  out?: string;
}

/** Shows where in a line something stands. */
const under = (line: string, from: number, to: number): string =>
  `${line}\n${' '.repeat(from)}${'~'.repeat(Math.max(1, to - from))}`;

export const fromLine: Maker<Options> = {
  name: 'new',
  about:
    'a rig of a line such as "guitar > tuner > drive [delay] > amp"; its grammar is in docs/chain.md',
  argument: { name: '<line>', about: 'what stands behind what, in quotes' },
  options: [
    { flags: '--name <name>', about: 'what the rig is called' },
    { flags: '--out <file>', about: 'where the rig file goes; else it is printed' },
  ],
  run: (line, { name = 'New rig' }) => {
    const read = rigOfChain(line, { id: freshId(name, []), name });
    if (read.broken) refuse(under(line, read.broken.at, read.broken.at), `${read.broken.what}.`);
    const lost = read.items.filter((i) => i.kind === undefined);
    if (lost.length)
      refuse(
        ...lost.map(
          (i) =>
            `${under(line, i.from, i.to)}\n"${i.words}" is no kind that is known` +
            (i.guesses.length ? `; near: ${i.guesses.map((g) => g.name).join(', ')}.` : '.'),
        ),
      );
    if (!read.rig) refuse('The line says nothing.');
    return {
      json: {
        rig: read.rig,
        notes: read.notes,
        items: read.items.map((i) => ({ words: i.words, kind: i.kind && kindOf(i.kind).name })),
      },
      lines: [...read.notes],
      content: writeRig(read.rig),
      exit: EXIT.fine,
    };
  },
};
