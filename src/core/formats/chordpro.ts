import { at, type Outcome, refused } from '../outcome';
import { cutText } from '../rig';
import { freshId } from '../rig/fresh-id';
import type { Rig, Song } from '../rig/schema';
import { MOST_CHART } from '../rig/choices';
import { COMMON_TIME, meterWords } from '../songs/timeline';

const DIRECTIVE = /^\s*\{\s*([a-z_]+)\s*(?::\s*(.*?)|\s+(.*?))?\s*\}\s*$/i;
const SHORT: Record<string, string> = {
  t: 'title',
  st: 'subtitle',
  c: 'comment',
  soc: 'start_of_chorus',
  sov: 'start_of_verse',
  sob: 'start_of_bridge',
  eoc: 'end_of_chorus',
  eov: 'end_of_verse',
  eob: 'end_of_bridge',
  ns: 'new_song',
};
/** Bars a section gets where a lyric sheet does not say. */
export const USUAL_BARS = 8;

/** What one sheet has said so far. */
interface Sheet {
  title?: string;
  bpm?: number;
  key?: string;
  meter?: Song['meter'];
  tuning?: string;
  sections: string[];
  /** Where it begins in the file. */
  line: number;
  /** The sheet itself, as it is written. */
  chart: string[];
}

/** A directive's name in full and what it says; undefined for a line of the song itself. */
export function directiveOf(line: string): { key: string; rest: string } | undefined {
  const m = DIRECTIVE.exec(line);
  if (!m) return undefined;
  const name = SHORT[at(m, 1).toLowerCase()] ?? at(m, 1).toLowerCase();
  const value = (m[2] ?? m[3] ?? '').trim();
  if (name !== 'meta') return { key: name, rest: value };
  return {
    key: at(value.split(/\s+/), 0).toLowerCase(),
    rest: value.replace(/^\S+\s*/, ''),
  };
}

/** Takes what a directive says into the sheet; what is wrong with it, in words. */
function takeIn(now: Sheet, key: string, rest: string): string | undefined {
  if (key === 'title' || key === 'key' || key === 'tuning') now[key] = rest;
  else if (key === 'tempo') {
    const bpm = Number(rest.replace(/[^\d.].*$/, ''));
    if (!(bpm >= 20 && bpm <= 400)) return `"${rest}" is no tempo; give 20 to 400 bpm`;
    now.bpm = bpm;
  } else if (key === 'time') {
    const t = /^(\d{1,2})\/(2|4|8|16)$/.exec(rest);
    if (!t) return `"${rest}" is no meter; write it as 4/4`;
    now.meter = {
      beats: Number(t[1]),
      unit: Number(t[2]) as NonNullable<Song['meter']>['unit'],
    };
  } else if (key.startsWith('start_of_')) {
    const word = key.slice('start_of_'.length).replaceAll('_', ' ');
    if (word !== 'tab' && word !== 'grid')
      now.sections.push(
        /^label="?(.*?)"?$/.exec(rest)?.[1] ??
          (rest || `${at(word, 0).toUpperCase()}${word.slice(1)}`),
      );
  }
  return undefined;
}

/** A song of what a sheet said; sections get a usual length on the sound given. */
function songOf(now: Sheet, title: string, taken: Set<string>, sound: string): Song {
  const id = freshId(title, taken);
  taken.add(id);
  const names = now.sections.length ? now.sections : ['Song'];
  const ids: string[] = [];
  return {
    id,
    title: cutText(title, 120),
    bpm: now.bpm ?? 120,
    ...(now.key && { key: cutText(now.key, 20) }),
    ...(now.meter && { meter: now.meter }),
    ...(now.tuning && { tuning: cutText(now.tuning, 60) }),
    ...(now.chart.some((l) => l.trim() && !directiveOf(l)) && {
      chart: cutText(now.chart.join('\n').trim(), MOST_CHART),
    }),
    ...(now.bpm === undefined && {
      notes: 'The sheet names no tempo; 120 bpm stands in for it.',
    }),
    sections: names.map((name) => {
      const section = freshId(name, ids);
      ids.push(section);
      return { id: section, name: cutText(name, 120), bars: USUAL_BARS, sound };
    }),
  };
}

/**
 * Reads ChordPro song sheets into songs, each with its whole sheet as its chart: title, tempo, time, key, tuning (as a
 * `meta` line), and the names of verses, choruses and bridges as sections of eight bars on the
 * rig's first sound. Several songs in one file are parted by `new_song`.
 */
export function songsFromChordPro(rig: Rig, text: string): Outcome<Song[]> {
  const songs: Song[] = [];
  const taken = new Set((rig.songs ?? []).map((s) => s.id));
  const problems: { where: string; what: string }[] = [];
  const first = rig.sounds[0];
  if (!first) return refused('the rig has no sound that a song could call; add one first');
  let now: Sheet = { sections: [], line: 1, chart: [] };
  const close = (line: number) => {
    if (now.title !== undefined) songs.push(songOf(now, now.title, taken, first.id));
    else if (now.sections.length || now.bpm !== undefined)
      problems.push({ where: `line ${now.line}`, what: 'this song has no {title: …}' });
    else return;
    now = { sections: [], line, chart: [] };
  };
  text.split(/\r?\n/).forEach((line, i) => {
    const said = directiveOf(line);
    if (said?.key === 'new_song') return close(i + 2);
    now.chart.push(line);
    if (!said) return;
    const wrong = takeIn(now, said.key, said.rest);
    if (wrong !== undefined) problems.push({ where: `line ${i + 1}`, what: wrong });
  });
  close(0);
  if (!songs.length && !problems.length)
    problems.push({ where: '', what: 'no song in this file: a sheet begins with {title: …}' });
  return problems.length ? { ok: false, problems } : { ok: true, value: songs };
}

/** Directives that the song itself says; a chart need not say them again. */
const HEADERS = ['title', 'tempo', 'time', 'key', 'tuning'];

/** The lines of a chart without the headers, which the song says as they are now. */
const bodyOf = (chart: string): string[] =>
  chart.split(/\r?\n/).filter((line) => !HEADERS.includes(directiveOf(line)?.key ?? ''));

/**
 * Songs as ChordPro: title, tempo, time, key, tuning; then the chart where there is one, else the names
 * of the sections.
 */
export function songsToChordPro(songs: readonly Song[]): string {
  const plain = (t: string) => t.replace(/[{}\r\n]/g, ' ').trim();
  return (
    songs
      .map((s) =>
        [
          `{title: ${plain(s.title)}}`,
          `{tempo: ${s.bpm}}`,
          `{time: ${meterWords(s.meter ?? COMMON_TIME)}}`,
          ...(s.key ? [`{key: ${plain(s.key)}}`] : []),
          ...(s.tuning ? [`{meta: tuning ${plain(s.tuning)}}`] : []),
          ...(s.chart
            ? bodyOf(s.chart)
            : s.sections.flatMap((x) => [`{start_of_verse: ${plain(x.name)}}`, '{end_of_verse}'])),
        ].join('\n'),
      )
      .join('\n{new_song}\n') + '\n'
  );
}
