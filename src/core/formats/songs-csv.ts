import { at, done, type Outcome, type Problem, reasonOf, refused } from '../outcome';
import { freshId, givenId } from '../rig/fresh-id';
import { issueWords } from '../rig/issue-words';
import { type Meter, type Rig, type Section, type Song, songSchema } from '../rig/schema';
import { COMMON_TIME, meterWords } from '../songs/timeline';
import { calledIn, same, whoIs } from './called';
import { readCsv, type Row, type Table, toCsv, unreadColumns } from './csv';

const SONG_HEADER = [
  'id',
  'song',
  'bpm',
  'meter',
  'key',
  'tuning',
  'instrument',
  'section',
  'bars',
  'sound',
  'section bpm',
  'section meter',
  'notes',
] as const;

/** Columns that say the same on all rows of a song. */
const OF_SONG = ['song', 'bpm', 'meter', 'key', 'tuning', 'instrument'] as const;

/**
 * Every section of every song on a row of its own; the columns of the song are the same on all its
 * rows. The id tells songs of one title apart.
 */
export function songsToCsv(rig: Rig): string {
  const tempo = (s: Section) =>
    (s.tempos ?? []).map((t) => (t.bar === 1 ? String(t.bpm) : `${t.bpm}@${t.bar}`)).join(' ');
  return toCsv(
    SONG_HEADER,
    (rig.songs ?? []).flatMap((song) =>
      (song.sections.length ? song.sections : [undefined]).map((s) => [
        song.id,
        song.title,
        song.bpm,
        meterWords(song.meter ?? COMMON_TIME),
        song.key,
        song.tuning,
        calledIn(rig.devices, song.instrument),
        s?.name,
        s?.bars,
        calledIn(rig.sounds, s?.sound),
        s && tempo(s),
        s?.meter && meterWords(s.meter),
        s?.notes,
      ]),
    ),
  );
}

/** Songs that were read, and what else a person should know of the file. */
export interface ReadSongs {
  songs: Song[];
  notes: string[];
}

/** What an empty cell means for a song that the rig has: what is there stays, or goes. */
export type Blanks = 'keep' | 'clear';

function readMeter(text: string): Outcome<Meter | undefined> {
  if (!text) return done(undefined);
  const m = /^(\d{1,2})\s*\/\s*(2|4|8|16)$/.exec(text);
  return m
    ? done({ beats: Number(m[1]), unit: Number(m[2]) as Meter['unit'] })
    : refused(`"${text}" is no meter; write it as 4/4 or 6/8`);
}

type Say = (what: string) => void;

/**
 * Reads songs from CSV into a rig: a row for each section, rows of one song together. A song is the
 * one of its id; without one, the only one of its title. Songs that the rig has keep what the file
 * does not say of them; the others are new. Every row with something wrong is told; then nothing is
 * taken.
 *
 *     const read = songsFromCsv(rig, text, 'keep');
 *     if (read.ok) read.value.songs.forEach(take);
 */
export function songsFromCsv(rig: Rig, text: string, blanks: Blanks = 'keep'): Outcome<ReadSongs> {
  const read = readCsv(text, ['song', 'bpm', 'section', 'bars', 'sound']);
  return read.ok ? new SongTable(rig, read.value, blanks).songs() : read;
}

/** A song as its rows come: the first of them says what it is, the others must agree. */
interface Open {
  song: Song;
  known: Song | undefined;
  first: Row;
}

/** The idea: rows are taken one by one into the song that is open; each says what is wrong with it. */
class SongTable {
  private readonly problems: Problem[] = [];
  private readonly open: Open[] = [];
  private readonly taken: Set<string>;

  constructor(
    private readonly rig: Rig,
    private readonly table: Table,
    private readonly blanks: Blanks,
  ) {
    this.taken = new Set((rig.songs ?? []).map((s) => s.id));
  }

  songs(): Outcome<ReadSongs> {
    for (const row of this.table.rows) this.take(row);
    const songs = this.open.map((o) => o.song);
    for (const song of this.problems.length ? [] : songs) {
      const checked = songSchema.safeParse(song);
      if (!checked.success)
        this.problems.push({ where: song.title, what: issueWords(at(checked.error.issues, 0)) });
    }
    const { problems } = this;
    if (problems.length) return { ok: false, problems };
    return done({ songs, notes: unreadColumns(this.table, SONG_HEADER) });
  }

  private take(row: Row): void {
    const say: Say = (what) => this.problems.push({ where: `row ${row.row}`, what });
    const { cells } = row;
    if (!cells.song) return say('the song has no title');
    let open = this.open.at(-1);
    if (!open || !isSameSong(open.first.cells, cells)) {
      this.refuseTwice(cells, say);
      open = { ...this.begin(cells, say), first: row };
      this.open.push(open);
    } else {
      for (const column of OF_SONG) {
        const [now, before] = [cells[column] ?? '', open.first.cells[column] ?? ''];
        if (now && !same(now, before))
          say(
            `${column} is "${now}" here and "${before}" in row ${open.first.row}; a song has one` +
              `${column === 'bpm' || column === 'meter' ? `, and "section ${column}" is for changes` : ''}`,
          );
      }
    }
    if (cells.section || cells.bars || cells.sound)
      open.song.sections.push(this.section(open, cells, say));
  }

  private refuseTwice(cells: Row['cells'], say: Say): void {
    if (this.open.some((o) => isSameSong(o.first.cells, cells)))
      say(`${cells.song} comes twice; put its rows together, or give two songs an id each`);
  }

  /** The song of the rig that a row means: by its id, else the only one of that title. */
  private knownSong(cells: Row['cells'], say: Say): Song | undefined {
    const songs = this.rig.songs ?? [];
    if (cells.id) return songs.find((s) => s.id === cells.id);
    const titled = songs.filter((s) => same(s.title, cells.song ?? ''));
    if (titled.length > 1)
      say(
        `the rig has ${titled.length} songs called ${cells.song}; say which by the column "id": ` +
          titled.map((s) => s.id).join(', '),
      );
    return titled[0];
  }

  /** What a row that begins a song says of it. */
  private begin(cells: Row['cells'], say: Say): Omit<Open, 'first'> {
    const known = this.knownSong(cells, say);
    const bpm = this.table.toNumber(cells.bpm ?? '');
    if (!(bpm >= 20 && bpm <= 400)) say(`"${cells.bpm ?? ''}" is no tempo; give 20 to 400 bpm`);
    const meter = readMeter(cells.meter ?? '');
    if (!meter.ok) say(reasonOf(meter));
    const wanted = cells.instrument;
    const missing = (name: string) => `there is no instrument "${name}" in this rig`;
    const instrument = wanted ? whoIs(this.rig.devices, wanted, { say, missing }) : undefined;
    const id = known?.id ?? givenId(cells.id, cells.song ?? 'song', this.taken);
    this.taken.add(id);
    const kept = this.kept(known, ['key', 'tuning', 'instrument', 'meter'], cells);
    const song: Song = {
      ...kept,
      id,
      title: cells.song ?? '',
      bpm,
      ...(meter.ok && meter.value && { meter: meter.value }),
      ...(cells.key && { key: cells.key }),
      ...(cells.tuning && { tuning: cells.tuning }),
      ...(instrument && { instrument: instrument.id }),
      sections: [],
    };
    return { song, known };
  }

  /** What stays of something known: all, but for what an empty cell of the file clears. */
  private kept<T extends object>(
    known: T | undefined,
    told: readonly string[],
    cells: Row['cells'],
    columnOf: (field: string) => string = (field) => field,
  ): Partial<T> {
    if (!known) return {};
    const goes = (field: string) =>
      this.blanks === 'clear' && told.includes(field) && cells[columnOf(field)] === '';
    return Object.fromEntries(Object.entries(known).filter(([k]) => !goes(k))) as Partial<T>;
  }

  /** What a row says of a section; the one of that name in that place keeps what the file does not say. */
  private section({ song, known }: Open, cells: Row['cells'], say: Say): Section {
    const { rig } = this;
    const bars = this.table.toNumber(cells.bars ?? '');
    if (!Number.isInteger(bars) || bars < 1 || bars > 999)
      say(`"${cells.bars ?? ''}" is no number of bars; give 1 to 999`);
    const missing = (name: string) => {
      const some = rig.sounds.slice(0, 8).map((s) => s.name);
      return `there is no sound "${name}"; the rig has ${some.join(', ')}`;
    };
    const sound = whoIs(rig.sounds, cells.sound ?? '', { say, missing });
    const meter = readMeter(cells['section meter'] ?? '');
    if (!meter.ok) say(reasonOf(meter));
    const tempos = this.tempos(cells['section bpm'] ?? '', bars, say);
    const name = cells.section || 'Section';
    const here = known?.sections[song.sections.length];
    const was = here && same(here.name, name) ? here : undefined;
    const columns: Record<string, string> = { tempos: 'section bpm', meter: 'section meter' };
    const told = ['tempos', 'meter', 'notes'];
    const taken = new Set(song.sections.map((s) => s.id));
    return {
      ...this.kept(was, told, cells, (field) => columns[field] ?? field),
      id: was && !taken.has(was.id) ? was.id : freshId(name, taken),
      name,
      bars,
      sound: sound?.id ?? 'none',
      ...(tempos.length && { tempos }),
      ...(meter.ok && meter.value && { meter: meter.value }),
      ...(cells.notes && { notes: cells.notes }),
    };
  }

  /** Tempo changes as `92 96@5`: a tempo, or a tempo from a bar of the section on. */
  private tempos(text: string, bars: number, say: Say): { bar: number; bpm: number }[] {
    return text
      .split(/\s+/)
      .filter(Boolean)
      .map((t) => {
        const [tempo = '', from] = t.split('@');
        const bpm = this.table.toNumber(tempo);
        const bar = from === undefined ? 1 : this.table.toNumber(from);
        if (!(bpm >= 20 && bpm <= 400) || !(bar >= 1) || t.split('@').length > 2)
          say(`"${t}" is no tempo change; write 92, or 92@5 for bar 5 of the section`);
        else if (!Number.isInteger(bar))
          say(`"${t}" changes the tempo within a bar; a tempo changes where a bar begins`);
        else if (bar > bars) say(`"${t}" is past the end of the section, which has ${bars} bars`);
        return { bar, bpm };
      });
  }
}

/** Whether a row goes on with the song of another: by its id, or by the title where it says none. */
const isSameSong = (first: Row['cells'], row: Row['cells']): boolean =>
  row.id ? first.id === row.id : same(first.song ?? '', row.song ?? '');
