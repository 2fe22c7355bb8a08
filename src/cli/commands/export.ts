import { boardSvg, rackSvg, stageSvg } from '../../core/formats';
import {
  billCsv,
  cutListCsv,
  gearToCsv,
  midiChartCsv,
  powerPlanCsv,
  programMapCsv,
  runningOrderToCsv,
  setsToCsv,
  setToSmf,
  songsToChordPro,
  songsToCsv,
  songToSmf,
  toDot,
  toGraphml,
  walkGraph,
  walkSvg,
  wiringGraph,
  wiringSvg,
  wiringToCsv,
} from '../../core/formats';
import type { Rig } from '../../core/rig';
import { command, named, refuse, SOUND } from '../command';
import { soundReport } from '../sound-report';

interface Asked {
  as: string;
  what?: string;
  sound?: string;
  song?: string;
  set?: string;
  lead?: string;
  leadMs?: string;
  paper?: string;
  part?: string[];
  link?: string;
}

const TABLES: Record<string, (rig: Rig, asked: Asked) => string> = {
  gear: gearToCsv,
  wiring: wiringToCsv,
  'cut-list': cutListCsv,
  bill: billCsv,
  power: powerPlanCsv,
  songs: songsToCsv,
  sets: setsToCsv,
  midi: midiChartCsv,
  programs: programMapCsv,
  'running-order': (rig, asked) =>
    runningOrderToCsv(
      rig,
      named(rig.sets, asked.set ?? rig.sets?.[0]?.id ?? '', (s) => s.name, 'set'),
    ),
};

function table(rig: Rig, asked: Asked): string {
  const what = asked.what ?? 'songs';
  const write = TABLES[what];
  return write
    ? write(rig, asked)
    : refuse(`"${what}" is no table; choose ${Object.keys(TABLES).join(', ')}.`);
}

/** A song or set of the rig as a Standard MIDI File. */
function smf(rig: Rig, asked: Asked): Uint8Array {
  const number = (text: string | undefined, what: string) => {
    const x = text === undefined ? undefined : Number(text);
    return x !== undefined && !(x >= 0) ? refuse(`"${text}" is no ${what}.`) : x;
  };
  const lead = {
    bars: number(asked.lead, 'number of bars'),
    ms: number(asked.leadMs, 'number of milliseconds'),
  };
  if (asked.song !== undefined)
    return songToSmf(
      rig,
      named(rig.songs, asked.song, (s) => s.title, 'song'),
      lead,
    );
  const set =
    asked.set === undefined ? undefined : named(rig.sets, asked.set, (s) => s.name, 'set');
  const [firstSet, firstSong] = [set ?? rig.sets?.[0], rig.songs?.[0]];
  if (firstSet) return setToSmf(rig, firstSet, lead);
  return firstSong ? songToSmf(rig, firstSong, lead) : refuse('This rig has no songs yet.');
}

/** Drawings of a board, a rack or the stage; `--part` names which one. */
function drawing(rig: Rig, what: string, asked: Asked): string | undefined {
  const which = asked.part?.[0];
  const one = <T extends { id: string; name: string }>(list: readonly T[] | undefined): T =>
    which === undefined
      ? (list?.[0] ?? refuse(`There is no ${what} in this rig.`))
      : named(list, which, (x) => x.name, what);
  if (what === 'board') return boardSvg(rig, one(rig.boards));
  if (what === 'rack') return rackSvg(rig, one(rig.racks));
  return what === 'stage' ? stageSvg(rig) : undefined;
}

/** The part that is asked for of wiring and walk, as a graph or as a drawing. */
function graph(rig: Rig, asked: Asked): string {
  const what = asked.what ?? 'wiring';
  const drawn = asked.as === 'svg' ? drawing(rig, what, asked) : undefined;
  if (drawn !== undefined) return drawn;
  if (what !== 'wiring' && what !== 'walk')
    return refuse(
      `"${what}" is not drawn; choose wiring or walk, and for svg also board, rack or stage.`,
    );
  const sound = what === 'walk' ? soundReport(rig, asked.sound) : undefined;
  if (asked.as === 'svg') return sound ? walkSvg(rig, sound) : wiringSvg(rig);
  const nodes = sound ? walkGraph(rig, sound) : wiringGraph(rig);
  return asked.as === 'graphml' ? toGraphml(nodes) : toDot(nodes);
}

type Writer = (rig: Rig, asked: Asked) => string | Uint8Array | Promise<Uint8Array>;
const WRITERS: Record<string, Writer> = {
  graphml: graph,
  dot: graph,
  svg: graph,
  csv: table,
  smf,
  chordpro: (rig) => songsToChordPro(rig.songs ?? []),
  // The printer is large and is loaded only for this.
  pdf: async (rig, asked) => (await import('../rig-book')).rigBook(rig, asked),
};

export const exportAs = command<Asked>({
  name: 'export',
  about:
    'the rig book as PDF, the routing graph as GraphML or DOT, drawings as SVG, songs and charts ' +
    'as CSV, songs and sets as Standard MIDI Files or ChordPro headers',
  options: [
    { flags: '--as <format>', about: Object.keys(WRITERS).join(', '), required: true },
    {
      flags: '--what <part>',
      about:
        'of drawings wiring, walk, board, rack or stage; of csv ' + Object.keys(TABLES).join(', '),
    },
    SOUND,
    { flags: '--song <title>', about: 'a song, for smf' },
    { flags: '--set <name>', about: 'a set, for smf and running-order' },
    { flags: '--lead <bars>', about: 'smf: send this many bars ahead of each section' },
    { flags: '--lead-ms <ms>', about: 'smf: send this many milliseconds ahead' },
    { flags: '--paper <size>', about: 'pdf: A4 or Letter', initial: 'A4' },
    {
      flags: '--part <ids...>',
      about:
        'pdf: parts of the book or labels (flags, strips, panels, cases); svg: which board or rack',
    },
    { flags: '--link <address>', about: 'pdf: what the code on a case label opens' },
    { flags: '--out <path>', about: 'a file; without it the text is printed' },
  ],
  run: async (rig, asked) => {
    const write =
      WRITERS[asked.as] ??
      refuse(`"${asked.as}" is not written; choose ${Object.keys(WRITERS).join(', ')}.`);
    return { json: null, lines: [], content: await write(rig, asked) };
  },
});
