import { Button, Group } from '@mantine/core';
import { at } from '../../../core/outcome';
import { freshId } from '../../../core/rig';
import type { Song } from '../../../core/rig/schema';
import { clockTime, timelineOf } from '../../../core/songs';
import { useDocument, useRig } from '../../store/use-rig';
import { Differs } from './differs';
import { Ribbon } from './ribbon';
import { SectionsTable } from './sections-table';
import { SongHead } from './song-head';
import { CommitLines } from '../../look/commit-text';
import { howMany } from '../../../core/units';

/** A song: its head, its sections in order, and what differs in it from the sounds. */
export function SongEditor({ song, onGone }: { song: Song; onGone: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const set = (change: Partial<Song>, going?: string) =>
    edit({ edit: 'setSong', song: { ...song, ...change } }, undefined, going);
  const setBars = (id: string, bars: number, going?: string) =>
    set({ sections: song.sections.map((s) => (s.id === id ? { ...s, bars } : s)) }, going);
  const line = timelineOf(song);
  const add = () =>
    set({
      sections: [
        ...song.sections,
        {
          id: freshId(
            'section',
            song.sections.map((s) => s.id),
          ),
          name: `Section ${song.sections.length + 1}`,
          bars: 8,
          sound: song.sections.at(-1)?.sound ?? at(rig.sounds, 0).id,
        },
      ],
    });
  return (
    <div className="scroll common-box" data-editor="song">
      <SongHead song={song} onChange={set} onGone={onGone} />
      <Ribbon song={song} onBars={setBars} />
      <SectionsTable song={song} onChange={(sections) => set({ sections })} />
      <Group gap={8} mt={6}>
        <Button size="compact-sm" variant="default" onClick={add}>
          Add a section
        </Button>
        <span className="faint small-print">
          {howMany(line.bars.length, 'bar')}, {clockTime(line.lengthMs)}.{' '}
          {new Set(song.sections.map((s) => s.sound)).size} different sounds.
        </span>
      </Group>
      <Differs song={song} />
      <CommitLines
        mt={10}
        label="Notes"
        minRows={1}
        maxRows={5}
        value={song.notes}
        onCommit={(notes) => set({ notes })}
      />
    </div>
  );
}
