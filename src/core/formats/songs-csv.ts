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

/**
 * Reads songs from CSV into a rig: a row for each section, rows of one song together. Songs that
 * the rig has by that title keep their ids, and what the file does not say of them; the others are
 * new. Every row with something wrong is told; then nothing is taken.
 */
export function songsFromCsv(rig: Rig, text: string): Outcome<Song[]> {
  const read = readCsv(text, ['song', 'bpm', 'section', 'bars', 'sound']);
  if (!read.ok) return read;
  const problems: Problem[] = [];
  const say = (row: Row, what: string) => problems.push({ where: `row ${row.row}`, what });
  const songs: Song[] = [];
  const taken = new Set((rig.songs ?? []).map((s) => s.id));
  let open: Song | undefined;
  for (const row of read.value) {
    const c = row.cells;
    const title = c.song ?? '';
    if (!title) {
      say(row, 'the song has no title');
      continue;
    }
    if (!open || !same(open.title, title)) {
      const bpm = Number(c.bpm);
      if (!c.bpm || !Number.isFinite(bpm) || bpm < 20 || bpm > 400)
        say(row, `"${c.bpm ?? ''}" is no tempo; give 20 to 400 bpm`);
      const meter = readMeter(c.meter ?? '');
      if (!meter.ok) say(row, reasonOf(meter));
      const instrument = c.instrument
        ? rig.devices.find((d) => same(d.name, c.instrument!) || d.id === c.instrument)
        : undefined;
      if (c.instrument && !instrument)
        say(row, `there is no instrument "${c.instrument}" in this rig`);
      const known = rig.songs?.find((s) => same(s.title, title));
      if (songs.some((s) => same(s.title, title)))
        say(row, `${title} comes twice; put its rows together`);
      const id = known?.id ?? freshId(title, taken);
      taken.add(id);
      const kept =
        known &&
        Object.fromEntries(
          Object.entries(known).filter(
            ([k]) => !['key', 'tuning', 'instrument', 'meter'].includes(k),
          ),
        );
      open = {
        ...kept,
        id,
        title,
        bpm,
        ...(meter.ok && meter.value && { meter: meter.value }),
        ...(c.key && { key: c.key }),
        ...(c.tuning && { tuning: c.tuning }),
        ...(instrument && { instrument: instrument.id }),
        sections: [],
      };
      songs.push(open);
    }
    if (!c.section && !c.bars && !c.sound) continue;
    const bars = Number(c.bars);
    if (!Number.isInteger(bars) || bars < 1 || bars > 999)
      say(row, `"${c.bars ?? ''}" is no number of bars; give 1 to 999`);
    const sound =
      rig.sounds.find((s) => same(s.name, c.sound ?? '')) ??
      rig.sounds.find((s) => s.id === c.sound);
    if (!sound)
      say(
        row,
        `there is no sound "${c.sound ?? ''}"; the rig has ${rig.sounds
          .slice(0, 8)
          .map((s) => s.name)
          .join(', ')}`,
      );
    const meter = readMeter(c['section meter'] ?? '');
    if (!meter.ok) say(row, reasonOf(meter));
    const tempos = (c['section bpm'] ?? '')
      .split(/\s+/)
      .filter(Boolean)
      .map((t) => {
        const m = /^(\d+(?:\.\d+)?)(?:@(\d+))?$/.exec(t);
        if (!m || Number(m[1]) < 20 || Number(m[1]) > 400)
          say(row, `"${t}" is no tempo change; write 92, or 92@5 for bar 5 of the section`);
        return { bar: m?.[2] ? Number(m[2]) : 1, bpm: Number(m?.[1] ?? 0) };
      });
    const was = rig.songs?.find((s) => s.id === open!.id)?.sections[open.sections.length];
    open.sections.push({
      ...(was && same(was.name, c.section ?? '')
        ? { ...(was.states && { states: was.states }) }
        : {}),
      id: freshId(
        c.section || 'section',
        open.sections.map((s) => s.id),
      ),
      name: c.section || 'Section',
      bars,
      sound: sound?.id ?? 'none',
      ...(tempos.length && { tempos }),
      ...(meter.ok && meter.value && { meter: meter.value }),
      ...(c.notes && { notes: c.notes }),
    });
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
