/**
 * What a line of a chain says. Names are as typed; places are in letters from the beginning of the
 * line, so that what is not understood can be marked there.
 */
export type ChainPart = ChainItem | ChainFork;

export interface ChainItem {
  is: 'item';
  /** The words for what it is. */
  words: string;
  /** What it is called, where that was written in quotes. */
  name?: string;
  /** How many of it stand side by side. */
  count: number;
  /** Both sides go on from it. */
  stereo: boolean;
  /** What stands in its loops, one list a loop. */
  loops: ChainPart[][];
  from: number;
  to: number;
}

/** Ways that run side by side. */
export interface ChainFork {
  is: 'fork';
  ways: ChainPart[][];
  from: number;
  to: number;
}

/** A line that breaks a rule of the grammar: where, and what was expected. */
export class ChainError extends Error {
  constructor(
    readonly at: number,
    what: string,
  ) {
    super(what);
  }
}

/** How deep loops and forks may lie in one another. */
const DEEPEST = 12;

/**
 * Reads a line: things in a row with `>` between them, `( … | … )` for ways side by side, `[ … ]`
 * behind a thing for what stands in its loop, `2 x` in front for two side by side, `stereo` behind
 * for both sides, and a name in quotes.
 *
 *     parseChain('baritone > comp > delay stereo > 2 x direct box > house')
 */
export function parseChain(line: string): ChainPart[] {
  let at = 0;
  let depth = 0;
  const skip = () => {
    while (/\s/.test(line[at] ?? '')) at++;
  };
  const takes = (letter: string): boolean => {
    skip();
    if (line[at] !== letter) return false;
    at++;
    return true;
  };
  const expects = (letter: string, why: string) => {
    if (!takes(letter)) throw new ChainError(at, why);
  };

  const row = (): ChainPart[] => {
    if (++depth > DEEPEST) throw new ChainError(at, 'loops lie too deep in one another');
    const parts = [part()];
    while (takes('>')) parts.push(part());
    depth--;
    return parts;
  };
  const part = (): ChainPart => {
    skip();
    const from = at;
    if (!takes('(')) return item();
    const ways = [row()];
    while (takes('|')) ways.push(row());
    expects(')', 'the ways side by side end with ")"');
    return { is: 'fork', ways, from, to: at };
  };
  const item = (): ChainItem => {
    skip();
    const begin = at;
    while (at < line.length && !'>()[]|"'.includes(line[at] ?? '')) at++;
    const raw = line.slice(begin, at);
    const to = begin + raw.trimEnd().length;
    const { words, count, stereo } = itemWords(raw);
    if (!words)
      throw new ChainError(begin, 'something should stand here: an instrument, a pedal, an input');
    const name = quoted();
    // What was written behind the name belongs to it too: drive low "Kiln" stereo.
    const more = line.slice(at).match(/^\s*stereo\b/i);
    if (more) at += more[0].length;
    const loops: ChainPart[][] = [];
    while (takes('[')) {
      loops.push(row());
      expects(']', 'what stands in a loop ends with "]"');
    }
    return {
      is: 'item',
      words,
      count,
      stereo: stereo || Boolean(more),
      loops,
      from: begin,
      to,
      ...(name !== undefined && { name }),
    };
  };
  const quoted = (): string | undefined => {
    if (!takes('"')) return undefined;
    const end = line.indexOf('"', at);
    if (end < 0) throw new ChainError(at - 1, 'the name in quotes has no end');
    const name = line.slice(at, end).trim();
    at = end + 1;
    return name || undefined;
  };

  const parts = row();
  skip();
  if (at < line.length)
    throw new ChainError(at, `"${line[at] ?? ''}" closes nothing that was opened`);
  return parts;
}

/** "2 x direct box stereo" as its words, how many, and whether both sides go on. */
function itemWords(raw: string): Pick<ChainItem, 'words' | 'count' | 'stereo'> {
  const counted = /^\s*([1-8])\s*[x×]\s+/i.exec(raw);
  const rest = raw.slice(counted?.[0].length ?? 0).trim();
  const stereo = /\s+stereo$/i.test(rest);
  return {
    words: stereo ? rest.replace(/\s+stereo$/i, '').trim() : rest,
    count: counted ? Number(counted[1]) : 1,
    stereo,
  };
}
