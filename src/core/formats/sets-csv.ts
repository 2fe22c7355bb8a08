import { at, done, type Outcome, type Problem } from '../outcome';
import { freshId, givenId } from '../rig/fresh-id';
import { issueWords } from '../rig/issue-words';
import { type Rig, type SetEntry, setSchema, type Song, type SongSet } from '../rig/schema';
import { runningOrder } from '../songs/running-order';
import { readCsv, type Row, type Table, toCsv, unreadColumns } from './csv';
import { namedSo, same } from './called';

const SET_HEADER = [
  'set',
  'starts',
  'minutes',
  'place',
  'song',
  'song id',
  'gap s',
  'notes',
  'set id',
] as const;

/** Every place of every set on a row of its own. Ids tell songs of one title and sets of one name apart. */
export function setsToCsv(rig: Rig): string {
  return toCsv(
    SET_HEADER,
    (rig.sets ?? []).flatMap((set) =>
      set.entries.map((e, i) => [
        set.name,
        set.starts,
        set.minutes,
        i + 1,
        rig.songs?.find((s) => s.id === e.song)?.title ?? e.song,
        e.song,
        e.gap,
        e.notes,
        set.id,
      ]),
    ),
  );
}

/** Sets that were read, and what else a person should know of the file. */
export interface ReadSets {
  sets: SongSet[];
  notes: string[];
}

type Say = (what: string) => void;
type OpenSet = SongSet & { entries: SetEntry[] };

/**
 * Reads sets from CSV: rows of one set together, in running order. Sets that the rig has by that
 * name are replaced.
 */
export function setsFromCsv(rig: Rig, text: string): Outcome<ReadSets> {
  const read = readCsv(text, ['set', 'song']);
  if (!read.ok) return read;
  const problems: Problem[] = [];
  const sets: OpenSet[] = [];
  const taken = new Set((rig.sets ?? []).map((s) => s.id));
  const begun: Row['cells'][] = [];
  let first: Row | undefined;
  for (const row of read.value.rows) {
    const say: Say = (what) => problems.push({ where: `row ${row.row}`, what });
    const { cells } = row;
    if (!cells.set) {
      say('the set has no name');
      continue;
    }
    let open = sets.at(-1);
    if (!open || !first || !isOneSet(first.cells, cells)) {
      if (begun.some((c) => isOneSet(c, cells)))
        say(`${cells.set} comes twice; put its rows together`);
      begun.push(cells);
      open = setOf(rig, read.value, cells, taken, say);
      first = row;
      sets.push(open);
    } else
      for (const column of ['starts', 'minutes'] as const)
        if (cells[column] && cells[column] !== first.cells[column])
          say(
            `${column} is "${cells[column]}" here and "${first.cells[column]}" in row ${first.row}; ` +
              'a set has one',
          );
    open.entries.push(entryOf(rig, read.value, open, cells, say));
  }
  for (const set of problems.length ? [] : sets) {
    const checked = setSchema.safeParse(set);
    if (!checked.success)
      problems.push({ where: set.name, what: issueWords(at(checked.error.issues, 0)) });
  }
  return problems.length
    ? { ok: false, problems }
    : done({ sets, notes: unreadColumns(read.value, SET_HEADER) });
}

/** Whether two rows are of one set: by its id, where both say it, or else by its name. */
const isOneSet = (a: Row['cells'], b: Row['cells']): boolean =>
  a['set id'] && b['set id'] ? a['set id'] === b['set id'] : same(a.set ?? '', b.set ?? '');

/** What a row that begins a set says of it; a set of that name keeps what the file does not say. */
function setOf(
  rig: Rig,
  { toNumber }: Table,
  c: Row['cells'],
  taken: Set<string>,
  say: Say,
): OpenSet {
  const name = c.set ?? '';
  const sets = rig.sets ?? [];
  const wanted = c['set id'];
  const known = wanted ? sets.find((s) => s.id === wanted) : namedSo(sets, name, say);
  const id = known?.id ?? givenId(wanted, name, taken);
  taken.add(id);
  const minutes = c.minutes ? toNumber(c.minutes) : undefined;
  if (minutes !== undefined && !(minutes >= 1 && minutes <= 600))
    say(`"${c.minutes}" is no length; give 1 to 600 minutes`);
  if (c.starts && !/^([01]\d|2[0-3]):[0-5]\d$/.test(c.starts))
    say(`"${c.starts}" is no time; write it as 20:30`);
  return {
    ...known,
    id,
    name,
    ...(c.starts && { starts: c.starts }),
    ...(minutes !== undefined && { minutes }),
    entries: [],
  };
}

function entryOf(
  rig: Rig,
  { toNumber }: Table,
  open: OpenSet,
  c: Row['cells'],
  say: Say,
): SetEntry {
  const song = songIn(rig, c, say);
  const gap = c['gap s'] ? toNumber(c['gap s']) : undefined;
  if (gap !== undefined && !(gap >= 0 && gap <= 7200))
    say(`"${c['gap s']}" is no gap; give 0 to 7200 seconds`);
  return {
    id: freshId(
      song?.id ?? 'song',
      open.entries.map((e) => e.id),
    ),
    song: song?.id ?? 'none',
    ...(gap !== undefined && { gap }),
    ...(c.notes && { notes: c.notes }),
  };
}

/** The song that a place means: by its id where that is of the rig, else the only one of that title. */
function songIn(rig: Rig, c: Row['cells'], say: Say): Song | undefined {
  const songs = rig.songs ?? [];
  const wanted = c.song ?? '';
  const byId = songs.find((s) => s.id === c['song id']) ?? songs.find((s) => s.id === wanted);
  if (byId) return byId;
  const titled = songs.filter((s) => same(s.title, wanted));
  if (!titled.length) say(`there is no song "${wanted}" in this rig; read the songs in first`);
  if (titled.length > 1)
    say(
      `the rig has ${titled.length} songs called ${wanted}; say which by the column "song id": ` +
        titled.map((s) => s.id).join(', '),
    );
  return titled[0];
}

/** A set as a running order for print: times, changeovers, keys. */
export function runningOrderToCsv(rig: Rig, set: SongSet): string {
  const order = runningOrder(rig, set);
  return toCsv(
    [
      'place',
      'song',
      'changeover',
      'gap s',
      'starts at s',
      'clock',
      'length s',
      'bpm',
      'key',
      'tuning',
    ],
    order.lines.map((l, i) => [
      i + 1,
      l.song?.title ?? l.entry.song,
      l.changeover.words,
      l.changeover.seconds,
      Math.round(l.startsAt),
      l.clock,
      Math.round(l.endsAt - l.startsAt),
      l.song?.bpm,
      l.song?.key,
      l.song?.tuning,
    ]),
  );
}
