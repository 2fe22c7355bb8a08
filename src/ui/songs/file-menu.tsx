'use client';
import { at } from '../../core/outcome';
import { Button, Menu, Modal } from '@mantine/core';
import { useRef, useState } from 'react';
import { type Edit, problemLines, type Rig, type Song, type SongSet } from '../../core/rig';
import { save } from '../look/save-file';
import { useDocument, useRig } from '../store/use-rig';

type Taken = { ok: true; songs?: Song[]; sets?: SongSet[] } | { ok: false; lines: string[] };

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
async function read(rig: Rig, file: File): Promise<Taken> {
  const formats = await import('../../core/formats');
  const name = file.name.toLowerCase();
  const said = (r: { ok: false; problems: Parameters<typeof problemLines>[0] }): Taken => ({
    ok: false,
    lines: problemLines(r.problems),
  });
  if (/\.(mid|midi|smf)$/.test(name)) {
    const song = formats.songFromSmf(
      rig,
      new Uint8Array(await file.arrayBuffer()),
      file.name.replace(/\.[^.]+$/, ''),
    );
    return song.ok ? { ok: true, songs: [song.value] } : said(song);
  }
  const text = await file.text();
  if (/\.(cho|chopro|chordpro|crd|pro)$/.test(name) || /^\s*\{\s*(t|title)\s*[:\s]/im.test(text)) {
    const songs = formats.songsFromChordPro(rig, text);
    return songs.ok ? { ok: true, songs: songs.value } : said(songs);
  }
  const head = at(text.slice(0, 2000).split(/\r?\n/), 0).toLowerCase();
  if (/(^|[,;\t"])set(["\s]*[,;\t])/.test(head)) {
    const sets = formats.setsFromCsv(rig, text);
    return sets.ok ? { ok: true, sets: sets.value } : said(sets);
  }
  const songs = formats.songsFromCsv(rig, text);
  return songs.ok ? { ok: true, songs: songs.value } : said(songs);
}

/** Songs and sets in and out of files. A file with anything wrong in it is refused whole, with its rows. */
export function FileMenu({ song, set }: { song?: Song; set?: SongSet }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const setNotice = useRig((s) => s.setNotice);
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<{ file: string; lines: string[] } | null>(null);
  const take = async (file: File) => {
    const taken = await read(rig, file).catch((e: unknown): Taken => ({
      ok: false,
      lines: [e instanceof Error ? e.message : String(e)],
    }));
    if (!taken.ok) return setWrong({ file: file.name, lines: taken.lines });
    const edits = taking(rig, taken.songs, taken.sets);
    const counted = [
      taken.songs?.length ? `${taken.songs.length} songs` : '',
      taken.sets?.length ? `${taken.sets.length} sets` : '',
    ].filter(Boolean);
    const words = `read ${counted.join(' and ') || 'nothing'} ` + `from ${file.name}`;
    if (edits.length && edit(edits, words).ok)
      setNotice(`${at(words, 0).toUpperCase()}${words.slice(1)}. It can be undone.`);
  };
  const write = async (what: string) => {
    const f = await import('../../core/formats');
    const midi = (bytes: Uint8Array) => new Blob([bytes as BlobPart], { type: 'audio/midi' });
    if (what === 'songs') save(`${rig.id}-songs.csv`, f.songsToCsv(rig), 'text/csv;charset=utf-8');
    else if (what === 'sets')
      save(`${rig.id}-sets.csv`, f.setsToCsv(rig), 'text/csv;charset=utf-8');
    else if (what === 'programs')
      save(`${rig.id}-programs.csv`, f.programMapCsv(rig), 'text/csv;charset=utf-8');
    else if (what === 'chart')
      save(`${rig.id}-midi-chart.csv`, f.midiChartCsv(rig), 'text/csv;charset=utf-8');
    else if (what === 'chordpro')
      save(`${rig.id}-songs.cho`, f.songsToChordPro(rig.songs ?? []), 'text/plain;charset=utf-8');
    else if (what === 'order' && set)
      save(`${set.id}-running-order.csv`, f.runningOrderToCsv(rig, set), 'text/csv;charset=utf-8');
    else if (what === 'song' && song)
      save(`${song.id}.mid`, midi(f.songToSmf(rig, song)), 'audio/midi');
    else if (what === 'song ahead' && song)
      save(`${song.id}.mid`, midi(f.songToSmf(rig, song, { bars: 1 })), 'audio/midi');
    else if (what === 'set' && set) save(`${set.id}.mid`, midi(f.setToSmf(rig, set)), 'audio/midi');
  };
  const item = (what: string, label: string) => (
    <Menu.Item
      key={what}
      onClick={() =>
        void write(what).catch((e: unknown) =>
          setNotice(
            `The file could not be written: ${e instanceof Error ? e.message : String(e)}.`,
          ),
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
      <input
        ref={input}
        type="file"
        hidden
        data-read
        accept=".csv,.txt,.cho,.chopro,.chordpro,.crd,.pro,.mid,.midi,.smf"
        onChange={(e) => {
          const file = e.currentTarget.files?.[0];
          e.currentTarget.value = '';
          if (file) void take(file);
        }}
      />
      <Modal
        opened={wrong !== null}
        onClose={() => setWrong(null)}
        title={`${wrong?.file ?? ''} was not read`}
        size="lg"
      >
        <p>Nothing was taken from it. Put these right and read it again:</p>
        <ul data-list="problems">
          {wrong?.lines.slice(0, 40).map((l) => (
            <li key={l}>{l}</li>
          ))}
        </ul>
        {wrong && wrong.lines.length > 40 && <p>and {wrong.lines.length - 40} more.</p>}
      </Modal>
    </>
  );
}
