import { ActionIcon, Group, Select } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconTrash } from '@tabler/icons-react';
import type { Meter, Section } from '../../../core/rig/schema';
import { clockTime, cueSheet } from '../../../core/songs';
import { meterWords } from '../../../core/songs/timeline';
import { CommitNumber } from '../../look/commit-number';
import { CommitText } from '../../look/commit-text';
import { useDocument, useRig } from '../../store/use-rig';
import { meterOf, METERS } from './meters';
import { TempoField, tempoText } from './tempo-field';

interface Moves {
  first: boolean;
  last: boolean;
  onMove: (by: 1 | -1) => void;
  onRemove: () => void;
}

interface Changed {
  section: Section;
  onChange: (change: Partial<Section>) => void;
}

/** One section as a row of fields. */
export function SectionRow({
  section: s,
  i,
  cue,
  shows,
  bpm,
  meter,
  onChange: set,
  ...moves
}: Moves &
  Changed & {
    i: number;
    cue: ReturnType<typeof cueSheet>[number];
    /** The devices whose programs are shown, in the order of the column's head. */
    shows: string[];
    /** The tempo that it begins with. */
    bpm: number;
    /** The meter of the song. */
    meter: Meter | undefined;
  }) {
  return (
    <tr data-section={s.id}>
      <td>{cue.bar}</td>
      <td>{clockTime(cue.atMs)}</td>
      <td>
        <CommitText
          w={120}
          aria-label={`Name of section ${i + 1}`}
          needed
          value={s.name}
          onCommit={(name) => set({ name })}
        />
      </td>
      <td>
        <CommitNumber
          w={62}
          aria-label={`Bars of ${s.name}`}
          min={1}
          max={999}
          allowDecimal={false}
          value={s.bars}
          onCommit={(bars) => bars !== undefined && set({ bars })}
        />
      </td>
      <td>
        <MeterChoice section={s} meter={meter} onChange={set} />
      </td>
      <td>
        <SoundChoice section={s} onChange={set} />
      </td>
      <td>
        <TempoField
          key={tempoText(s.tempos)}
          section={s}
          going={bpm}
          onChange={(t) => set({ tempos: t })}
        />
      </td>
      <td className="one-of-many" title={cue.programs}>
        {shows.map((id) => cue.shown.find((a) => a.device === id)?.shown ?? '–').join(' · ')}
      </td>
      <td>
        <CommitText
          w={96}
          aria-label={`Notes of ${s.name}`}
          value={s.notes}
          onCommit={(notes) => set({ notes })}
        />
      </td>
      <td>
        <SectionMoves name={s.name} {...moves} />
      </td>
    </tr>
  );
}

/** The meter of its own, or none: that of the song then holds. */
function MeterChoice({ section: s, meter, onChange: set }: Changed & { meter: Meter | undefined }) {
  return (
    <Select
      size="xs"
      w={74}
      aria-label={`Meter of ${s.name}`}
      clearable={s.meter !== undefined}
      placeholder={meterWords(meter)}
      data={METERS}
      value={s.meter ? meterWords(s.meter) : null}
      onChange={(v) => set({ meter: v ? meterOf(v) : undefined })}
    />
  );
}

/** The sound that it calls; the figures on screen follow. */
function SoundChoice({ section: s, onChange: set }: Changed) {
  const rig = useDocument();
  const setSound = useRig((x) => x.setSound);
  return (
    <Select
      size="xs"
      w={140}
      searchable
      aria-label={`Sound of ${s.name}`}
      data={rig.sounds.map((x) => ({ value: x.id, label: x.name }))}
      value={rig.sounds.some((x) => x.id === s.sound) ? s.sound : null}
      placeholder={rig.sounds.some((x) => x.id === s.sound) ? undefined : `"${s.sound}" is gone`}
      allowDeselect={false}
      onChange={(v) => {
        if (!v) return;
        set({ sound: v });
        setSound(v);
      }}
    />
  );
}

function SectionMoves({ name, first, last, onMove, onRemove }: Moves & { name: string }) {
  return (
    <Group gap={3} wrap="nowrap">
      <ActionIcon
        size="sm"
        variant="default"
        aria-label={`Move ${name} up`}
        disabled={first}
        onClick={() => onMove(-1)}
      >
        <IconArrowUp size={14} />
      </ActionIcon>
      <ActionIcon
        size="sm"
        variant="default"
        aria-label={`Move ${name} down`}
        disabled={last}
        onClick={() => onMove(1)}
      >
        <IconArrowDown size={14} />
      </ActionIcon>
      <ActionIcon size="sm" variant="default" aria-label={`Remove ${name}`} onClick={onRemove}>
        <IconTrash size={14} />
      </ActionIcon>
    </Group>
  );
}
