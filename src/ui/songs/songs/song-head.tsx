import { ActionIcon, Group, Select, Tooltip } from '@mantine/core';
import { IconCopy, IconTrash } from '@tabler/icons-react';
import { kindOf } from '../../../core/kinds';
import { cutText, freshId } from '../../../core/rig';
import type { Song } from '../../../core/rig/schema';
import { COMMON_TIME, meterWords } from '../../../core/songs/timeline';
import { CommitNumber } from '../../look/commit-number';
import { CommitText } from '../../look/commit-text';
import { useDocument, useRig } from '../../store/use-rig';
import { meterOf, METERS } from './meters';

/** What is said of a whole song: title, tempo, meter, key, tuning, instrument. */
export function SongHead({
  song,
  onChange: set,
  onGone,
}: {
  song: Song;
  onChange: (change: Partial<Song>) => void;
  onGone: () => void;
}) {
  const rig = useDocument();
  const instruments = rig.devices.filter((d) => kindOf(d.kind).job === 'instrument');
  const meter = meterWords(song.meter ?? COMMON_TIME);
  return (
    <Group gap={8} align="end">
      <CommitText
        size="sm"
        w={210}
        label="Title"
        needed
        value={song.title}
        onCommit={(title) => set({ title })}
      />
      <CommitNumber
        size="sm"
        w={88}
        label="Tempo, bpm"
        min={20}
        max={400}
        decimalScale={2}
        value={song.bpm}
        onCommit={(bpm) => bpm !== undefined && set({ bpm })}
      />
      <Select
        size="sm"
        w={78}
        label="Meter"
        data={METERS.includes(meter) ? METERS : [...METERS, meter]}
        value={meter}
        allowDeselect={false}
        onChange={(v) => v && set({ meter: meterOf(v) })}
      />
      <CommitText size="sm" w={110} label="Key" value={song.key} onCommit={(key) => set({ key })} />
      <CommitText
        size="sm"
        w={112}
        label="Tuning"
        value={song.tuning}
        onCommit={(tuning) => set({ tuning })}
      />
      <Select
        searchable
        size="sm"
        w={150}
        label="Instrument"
        clearable
        placeholder="not said"
        data={instruments.map((d) => ({ value: d.id, label: d.name }))}
        value={song.instrument ?? null}
        onChange={(v) => set({ instrument: v ?? undefined })}
      />
      <CopyOrRemove song={song} onGone={onGone} />
    </Group>
  );
}

function CopyOrRemove({ song, onGone }: { song: Song; onGone: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  return (
    <>
      <Tooltip label="Copy">
        <ActionIcon
          size="lg"
          variant="default"
          aria-label={`Copy ${song.title}`}
          onClick={() =>
            edit({
              edit: 'addSong',
              song: {
                ...song,
                id: freshId(
                  song.id,
                  (rig.songs ?? []).map((s) => s.id),
                ),
                title: `${cutText(song.title, 110)} copy`,
              },
            })
          }
        >
          <IconCopy size={16} />
        </ActionIcon>
      </Tooltip>
      <Tooltip label="Remove (can be undone)">
        <ActionIcon
          size="lg"
          variant="default"
          aria-label={`Remove ${song.title}`}
          onClick={() => {
            onGone();
            edit({ edit: 'removeSong', song: song.id });
          }}
        >
          <IconTrash size={16} />
        </ActionIcon>
      </Tooltip>
    </>
  );
}
