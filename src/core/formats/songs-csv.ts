import { at, done, type Outcome, type Problem, reasonOf, refused } from '../outcome';
import { freshId } from '../rig/fresh-id';
import { nameOf } from '../rig/find';
import {
  type Meter,
  type Rig,
  type Section,
  type SetEntry,
  setSchema,
  type Song,
  type SongSet,
  songSchema,
} from '../rig/schema';
import { COMMON_TIME, meterWords } from '../songs/timeline';
import { runningOrder } from '../songs/running-order';
import { readCsv, type Row, toCsv } from './csv';

const SONG_HEADER = [
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

/** Every section of every song on a row of its own; the columns of the song are the same on all its rows. */
export function songsToCsv(rig: Rig): string {
  const tempo = (s: Section) =>
    (s.tempos ?? []).map((t) => (t.bar === 1 ? String(t.bpm) : `${t.bpm}@${t.bar}`)).join(' ');
  return toCsv(
    SONG_HEADER,
    (rig.songs ?? []).flatMap((song) =>
      (song.sections.length ? song.sections : [undefined]).map((s) => [
        song.title,
        song.bpm,
        meterWords(song.meter ?? COMMON_TIME),
        song.key,
        song.tuning,
        song.instrument === undefined ? '' : nameOf(rig, song.instrument),
        s?.name,
        s?.bars,
        s === undefined ? '' : (rig.sounds.find((x) => x.id === s.sound)?.name ?? s.sound),
        s && tempo(s),
        s?.meter && meterWords(s.meter),
        s?.notes,
      ]),
    ),
  );
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

function readMeter(text: string): Outcome<Meter | undefined> {
  if (!text) return done(undefined);
  const m = /^(\d{1,2})\s*\/\s*(2|4|8|16)$/.exec(text);
  return m
    ? done({ beats: Number(m[1]), unit: Number(m[2]) as Meter['unit'] })
    : refused(`"${text}" is no meter; write it as 4/4 or 6/8`);
}

type Say = (what: string) => void;

/** What a row that begins a song says of it; a song of that title keeps its id and what the file does not say. */
function songOf(rig: Rig, cells: Row['cells'], taken: Set<string>, say: Say): Song {
  const title = cells.song ?? '';
  const bpm = Number(cells.bpm);
  if (!cells.bpm || !Number.isFinite(bpm) || bpm < 20 || bpm > 400)
    say(`"${cells.bpm ?? ''}" is no tempo; give 20 to 400 bpm`);
  const meter = readMeter(cells.meter ?? '');
  if (!meter.ok) say(reasonOf(meter));
  const wanted = cells.instrument;
  const instrument = wanted
    ? rig.devices.find((d) => same(d.name, wanted) || d.id === wanted)
    : undefined;
  if (wanted && !instrument) say(`there is no instrument "${wanted}" in this rig`);
  const known = rig.songs?.find((s) => same(s.title, title));
  const id = known?.id ?? freshId(title, taken);
  taken.add(id);
  const told = ['key', 'tuning', 'instrument', 'meter'];
  return {
    ...(known && Object.fromEntries(Object.entries(known).filter(([k]) => !told.includes(k)))),
    id,
    title,
    bpm,
    ...(meter.ok && meter.value && { meter: meter.value }),
    ...(cells.key && { key: cells.key }),
    ...(cells.tuning && { tuning: cells.tuning }),
    ...(instrument && { instrument: instrument.id }),
    sections: [],
  };
}

/** Tempo changes as `92 96@5`: a tempo, or a tempo from a bar of the section on. */
const temposIn = (text: string, say: Say) =>
  text
    .split(/\s+/)
    .filter(Boolean)
    .map((t) => {
      const m = /^(\d+(?:\.\d+)?)(?:@(\d+))?$/.exec(t);
      if (!m || Number(m[1]) < 20 || Number(m[1]) > 400)
        say(`"${t}" is no tempo change; write 92, or 92@5 for bar 5 of the section`);
      return { bar: m?.[2] ? Number(m[2]) : 1, bpm: Number(m?.[1] ?? 0) };
    });

/** What a row says of a section; one of that name in that place keeps its states. */
function sectionOf(rig: Rig, song: Song, cells: Row['cells'], say: Say): Song['sections'][number] {
  const bars = Number(cells.bars);
  if (!Number.isInteger(bars) || bars < 1 || bars > 999)
    say(`"${cells.bars ?? ''}" is no number of bars; give 1 to 999`);
  const sound =
    rig.sounds.find((s) => same(s.name, cells.sound ?? '')) ??
    rig.sounds.find((s) => s.id === cells.sound);
  if (!sound) {
    const some = rig.sounds.slice(0, 8).map((s) => s.name);
    say(`there is no sound "${cells.sound ?? ''}"; the rig has ${some.join(', ')}`);
  }
  const meter = readMeter(cells['section meter'] ?? '');
  if (!meter.ok) say(reasonOf(meter));
  const tempos = temposIn(cells['section bpm'] ?? '', say);
  const was = rig.songs?.find((s) => s.id === song.id)?.sections[song.sections.length];
  const taken = song.sections.map((s) => s.id);
  return {
    ...(was?.states && same(was.name, cells.section ?? '') && { states: was.states }),
    id: freshId(cells.section || 'section', taken),
    name: cells.section || 'Section',
    bars,
    sound: sound?.id ?? 'none',
    ...(tempos.length && { tempos }),
    ...(meter.ok && meter.value && { meter: meter.value }),
    ...(cells.notes && { notes: cells.notes }),
  };
}

/**
 * Reads songs from CSV into a rig: a row for each section, rows of one song together. Songs that
 * the rig has by that title keep their ids, and what the file does not say of them; the others are
 * new. Every row with something wrong is told; then nothing is taken.
 */
export function songsFromCsv(rig: Rig, text: string): Outcome<Song[]> {
  const read = readCsv(text, ['song', 'bpm', 'section', 'bars', 'sound']);
  if (!read.ok) return read;
  const problems: Problem[] = [];
  const songs: Song[] = [];
  const taken = new Set((rig.songs ?? []).map((s) => s.id));
  for (const { row, cells } of read.value) {
    const say: Say = (what) => problems.push({ where: `row ${row}`, what });
    const title = cells.song ?? '';
    if (!title) {
      say('the song has no title');
      continue;
    }
    let open = songs.at(-1);
    if (!open || !same(open.title, title)) {
      const isTwice = songs.some((s) => same(s.title, title));
      open = songOf(rig, cells, taken, say);
      if (isTwice) say(`${title} comes twice; put its rows together`);
      songs.push(open);
    }
    if (cells.section || cells.bars || cells.sound)
      open.sections.push(sectionOf(rig, open, cells, say));
  }
  for (const song of problems.length ? [] : songs) {
    const checked = songSchema.safeParse(song);
    if (!checked.success)
      problems.push({ where: song.title, what: at(checked.error.issues, 0).message });
  }
  return problems.length ? { ok: false, problems } : { ok: true, value: songs };
}

const SET_HEADER = ['set', 'starts', 'minutes', 'place', 'song', 'gap s', 'notes'] as const;

/** Every place of every set on a row of its own. */
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
        e.gap,
        e.notes,
      ]),
    ),
  );
}

/**
 * Reads sets from CSV: rows of one set together, in running order. Sets that the rig has by that
 * name are replaced.
 */
export function setsFromCsv(rig: Rig, text: string): Outcome<SongSet[]> {
  const read = readCsv(text, ['set', 'song']);
  if (!read.ok) return read;
  const problems: Problem[] = [];
  const say = (row: Row, what: string) => problems.push({ where: `row ${row.row}`, what });
  const sets: SongSet[] = [];
  const taken = new Set((rig.sets ?? []).map((s) => s.id));
  let open: (SongSet & { entries: SetEntry[] }) | undefined;
  for (const row of read.value) {
    const c = row.cells;
    if (!c.set) {
      say(row, 'the set has no name');
      continue;
    }
    if (!open || !same(open.name, c.set)) {
      const known = rig.sets?.find((s) => same(s.name, c.set!));
      const id = known?.id ?? freshId(c.set, taken);
      taken.add(id);
      const minutes = c.minutes ? Number(c.minutes) : undefined;
      if (minutes !== undefined && !(minutes >= 1 && minutes <= 600))
        say(row, `"${c.minutes}" is no length; give 1 to 600 minutes`);
      if (c.starts && !/^([01]\d|2[0-3]):[0-5]\d$/.test(c.starts))
        say(row, `"${c.starts}" is no time; write it as 20:30`);
      if (sets.some((s) => same(s.name, c.set!)))
        say(row, `${c.set} comes twice; put its rows together`);
      open = {
        ...known,
        id,
        name: c.set,
        ...(c.starts && { starts: c.starts }),
        ...(minutes !== undefined && { minutes }),
        entries: [],
      };
      sets.push(open);
    }
    const song =
      rig.songs?.find((s) => same(s.title, c.song ?? '')) ??
      rig.songs?.find((s) => s.id === c.song);
    if (!song) say(row, `there is no song "${c.song ?? ''}" in this rig; read the songs in first`);
    const gap = c['gap s'] ? Number(c['gap s']) : undefined;
    if (gap !== undefined && !(gap >= 0 && gap <= 7200))
      say(row, `"${c['gap s']}" is no gap; give 0 to 7200 seconds`);
    open.entries.push({
      id: freshId(
        song?.id ?? 'song',
        open.entries.map((e) => e.id),
      ),
      song: song?.id ?? 'none',
      ...(gap !== undefined && { gap }),
      ...(c.notes && { notes: c.notes }),
    });
  }
  for (const set of problems.length ? [] : sets) {
    const checked = setSchema.safeParse(set);
    if (!checked.success)
      problems.push({ where: set.name, what: at(checked.error.issues, 0).message });
  }
  return problems.length ? { ok: false, problems } : { ok: true, value: sets };
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
