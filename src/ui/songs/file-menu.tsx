'use client';
import { at } from '../../core/outcome';
import { Button, Menu } from '@mantine/core';
import { useRef, useState } from 'react';
import type { Blanks } from '../../core/formats';
import { type Edit, problemLines, type Rig, type Song, type SongSet } from '../../core/rig';
import { FileField, NotRead, type Wrong } from '../look/read-file';
import { fileName, save } from '../look/save-file';
import { useDocument, useRig } from '../store/use-rig';
import { allOf, howMany } from '../../core/units';

type Taken =
  { ok: true; songs?: Song[]; sets?: SongSet[]; notes?: string[] } | { ok: false; lines: string[] };

/** Edits that put songs and sets that were read into the rig: those it has are changed, the others added. */
export const taking = (
  rig: Rig,
  songs: readonly Song[] = [],
  sets: readonly SongSet[] = [],
): Edit[] => [
  ...songs.map((song): Edit =>
    rig.songs?.some((s) => s.id === song.id)
      ? { edit: 'setSong', song }
      : { edit: 'addSong', song },
  ),
  ...sets.map((set): Edit =>
    rig.sets?.some((s) => s.id === set.id) ? { edit: 'setSet', set } : { edit: 'addSet', set },
  ),
];

/** Reads a file by what it is. The readers are fetched when they are needed. */
async function read(rig: Rig, file: File, blanks: Blanks): Promise<Taken> {
  const formats = await import('../../core/formats');
  const name = file.name.toLowerCase();
  const said = (r: { ok: false; problems: Parameters<typeof problemLines>[0] }): Taken => ({
    ok: false,
    lines: problemLines(r.problems),
  });
  if (/\.(mid|midi|smf)$/.test(name)) {
    const found = formats.songsFromSmf(
      rig,
      new Uint8Array(await file.arrayBuffer()),
      file.name.replace(/\.[^.]+$/, ''),
    );
    if (!found.ok) return said(found);
    const { songs, set } = found.value;
    return { ok: true, songs, ...(set && { sets: [set] }) };
  }
  const text = await file.text();
  if (/\.(cho|chopro|chordpro|crd|pro)$/.test(name) || /^\s*\{\s*(t|title)\s*[:\s]/im.test(text)) {
    const songs = formats.songsFromChordPro(rig, text);
    return songs.ok ? { ok: true, songs: songs.value } : said(songs);
  }
  const head = at(text.slice(0, 2000).split(/\r?\n/), 0).toLowerCase();
  if (/(^|[,;\t"])set(["\s]*[,;\t])/.test(head)) {
    const sets = formats.setsFromCsv(rig, text);
    return sets.ok ? { ok: true, ...sets.value } : said(sets);
  }
  const songs = formats.songsFromCsv(rig, text, blanks);
  return songs.ok ? { ok: true, ...songs.value } : said(songs);
}

/** What can be written of a rig, and of the song or the set in hand. */
type What =
  'songs' | 'sets' | 'chordpro' | 'programs' | 'chart' | 'song' | 'song ahead' | 'set' | 'order';

/** Writes one file. The writers are fetched when they are needed. */
async function write(what: What, rig: Rig, song?: Song, set?: SongSet): Promise<void> {
  const f = await import('../../core/formats');
  const csv = (name: string, text: string) => save(`${name}.csv`, text, 'text/csv;charset=utf-8');
  const midi = (name: string, bytes: Uint8Array) =>
    save(`${name}.mid`, new Blob([bytes as BlobPart], { type: 'audio/midi' }), 'audio/midi');
  const cho = f.songsToChordPro(rig.songs ?? []);
  const of = (what: string) => fileName(rig.name, what);
  const writers: Record<What, () => void> = {
    songs: () => csv(of('songs'), f.songsToCsv(rig)),
    sets: () => csv(of('sets'), f.setsToCsv(rig)),
    chordpro: () => save(`${of('songs')}.cho`, cho, 'text/plain;charset=utf-8'),
    programs: () => csv(of('programs'), f.programMapCsv(rig)),
    chart: () => csv(of('MIDI chart'), f.midiChartCsv(rig)),
    song: () => song && midi(fileName(song.title), f.songToSmf(rig, song)),
    'song ahead': () =>
      song && midi(fileName(song.title, 'a bar ahead'), f.songToSmf(rig, song, { bars: 1 })),
    set: () => set && midi(fileName(set.name), f.setToSmf(rig, set)),
    order: () => set && csv(fileName(set.name, 'running order'), f.runningOrderToCsv(rig, set)),
  };
  writers[what]();
}

const errorWords = (e: unknown): string => (e instanceof Error ? e.message : String(e));

/** Songs and sets in and out of files. A file with anything wrong in it is refused whole, with its rows. */
export function FileMenu({ song, set }: { song?: Song; set?: SongSet }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const setNotice = useRig((s) => s.setNotice);
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const [blanks, setBlanks] = useState<Blanks>('keep');
  const take = async (file: File) => {
    const taken = await read(rig, file, blanks).catch((e: unknown): Taken => ({
      ok: false,
      lines: [errorWords(e)],
    }));
    if (!taken.ok) return setWrong({ file: file.name, lines: taken.lines });
    const edits = taking(rig, taken.songs, taken.sets);
    const counted = [
      taken.songs?.length ? howMany(taken.songs.length, 'song') : '',
      taken.sets?.length ? howMany(taken.sets.length, 'set') : '',
    ].filter(Boolean);
    const words = `read ${allOf(counted) || 'nothing'} from ${file.name}`;
    if (edits.length && edit(edits, words).ok)
      setNotice(
        `${at(words, 0).toUpperCase()}${words.slice(1)}. It can be undone.` +
          (taken.notes ?? []).map((n) => ` ${at(n, 0).toUpperCase()}${n.slice(1)}.`).join(''),
      );
  };
  const item = (what: What, label: string) => (
    <Menu.Item
      key={what}
      onClick={() =>
        void write(what, rig, song, set).catch((e: unknown) =>
          setNotice(`The file could not be written: ${errorWords(e)}.`),
        )
      }
    >
      {label}
    </Menu.Item>
  );
  return (
    <>
      <Menu position="bottom-start">
        <Menu.Target>
          <Button size="compact-sm" variant="default">
            Files
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => input.current?.click()}>
            Read in: CSV, ChordPro, MIDI file …
          </Menu.Item>
          <Menu.Item
            role="menuitemcheckbox"
            aria-checked={blanks === 'clear'}
            closeMenuOnClick={false}
            leftSection={blanks === 'clear' ? '☑' : '☐'}
            onClick={() => setBlanks(blanks === 'clear' ? 'keep' : 'clear')}
          >
            An empty cell of a songs CSV clears what is there
          </Menu.Item>
          <Menu.Label>Write</Menu.Label>
          {item('songs', 'All songs as CSV')}
          {item('sets', 'All sets as CSV')}
          {item('chordpro', 'Song headers as ChordPro')}
          {item('programs', 'Program map as CSV')}
          {item('chart', 'MIDI chart as CSV')}
          {song && [
            item('song', `${song.title} as a MIDI file, messages on the beat`),
            item('song ahead', `${song.title} as a MIDI file, messages a bar ahead`),
          ]}
          {set && [
            item('set', `${set.name} as a MIDI file`),
            item('order', `${set.name} as CSV with times`),
          ]}
        </Menu.Dropdown>
      </Menu>
      <FileField
        field={input}
        accept=".csv,.txt,.cho,.chopro,.chordpro,.crd,.pro,.mid,.midi,.smf"
        onFile={(file) => void take(file)}
      />
      <NotRead wrong={wrong} onClose={() => setWrong(null)} />
    </>
  );
}
