'use client';
import { Button, Group, TextInput } from '@mantine/core';
import { useState } from 'react';
import { freshId } from '../../../core/rig';
import { clockTime, timelineOf } from '../../../core/songs';
import { useDocument, useRig } from '../../store/use-rig';
import { FileMenu } from '../file-menu';
import { SongEditor } from './song-editor';

export function SongsView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const songs = rig.songs ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const [find, setFind] = useState('');
  const song = songs.find((s) => s.id === chosen) ?? songs[0];
  const shown = songs.filter((s) => s.title.toLowerCase().includes(find.trim().toLowerCase()));
  const add = () => {
    const id = freshId(
      'song',
      songs.map((s) => s.id),
    );
    const sound = rig.sounds[0]?.id;
    if (
      sound &&
      edit({
        edit: 'addSong',
        song: {
          id,
          title: `Song ${songs.length + 1}`,
          bpm: 120,
          sections: [{ id: 's1', name: 'Intro', bars: 4, sound }],
        },
      }).ok
    )
      setChosen(id);
  };
  return (
    <div className="songs-place">
      <aside className="song-list scroll no-print">
        <Group gap={6} mb={6}>
          <Button size="compact-sm" onClick={add} disabled={!rig.sounds.length}>
            Add a song
          </Button>
          <FileMenu song={song} />
        </Group>
        {songs.length > 8 && (
          <TextInput
            size="xs"
            placeholder="Find a song"
            aria-label="Find a song"
            value={find}
            onChange={(e) => setFind(e.currentTarget.value)}
            mb={4}
          />
        )}
        {shown.map((s) => (
          <button
            key={s.id}
            type="button"
            className="song-row"
            data-song={s.id}
            aria-current={s === song}
            onClick={() => setChosen(s.id)}
          >
            {s.title}
            <span>
              {s.bpm} bpm · {clockTime(timelineOf(s).lengthMs)}
            </span>
          </button>
        ))}
        {!songs.length && (
          <div className="empty">
            No songs yet. Add one, or read them in from a CSV, a ChordPro sheet or a MIDI file: each
            song then says its sounds, its delay times and its programs.
          </div>
        )}
      </aside>
      {song ? <SongEditor key={song.id} song={song} onGone={() => setChosen(null)} /> : <div />}
    </div>
  );
}
