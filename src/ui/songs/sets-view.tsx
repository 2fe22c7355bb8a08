'use client';
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ActionIcon, Button, Group, Select, Tooltip } from '@mantine/core';
import { IconGripVertical, IconTrash } from '@tabler/icons-react';
import { useState } from 'react';
import { at, type Outcome } from '../../core/outcome';
import { freshId, type SongSet } from '../../core/rig';
import type { Rig } from '../../core/rig/schema';
import { CHANGEOVER_SECONDS, clockTime, runningOrder, type SetLine } from '../../core/songs';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';
import { FileMenu } from './file-menu';
import { CommitText } from '../look/commit-text';
import { howMany } from '../../core/units';

/** Running orders: songs dragged into place, what has to be done between them, and when each begins. */
export function SetsView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const sets = rig.sets ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const set = sets.find((s) => s.id === chosen) ?? sets[0];
  const add = () => {
    const id = freshId(
      'set',
      sets.map((s) => s.id),
    );
    if (edit({ edit: 'addSet', set: { id, name: `Set ${sets.length + 1}`, entries: [] } }).ok)
      setChosen(id);
  };
  return (
    <div className="songs-place">
      <aside className="song-list scroll no-print">
        <Group gap={6} mb={6}>
          <Button size="compact-sm" onClick={add}>
            Add a set
          </Button>
          <FileMenu set={set} />
        </Group>
        {sets.map((s) => (
          <button
            key={s.id}
            type="button"
            className="song-row"
            data-set={s.id}
            aria-current={s === set}
            onClick={() => setChosen(s.id)}
          >
            {s.name}
            <span>
              {howMany(s.entries.length, 'song')} · {clockTime(runningOrder(rig, s).seconds * 1000)}
            </span>
          </button>
        ))}
        {!sets.length && (
          <div className="empty">
            No sets yet. A set puts songs in order and works out changeovers and times.
          </div>
        )}
      </aside>
      {set ? <SetEditor key={set.id} set={set} onGone={() => setChosen(null)} /> : <div />}
    </div>
  );
}

function SetEditor({ set, onGone }: { set: SongSet; onGone: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const save = (change: Partial<SongSet>, words?: string) =>
    edit({ edit: 'setSet', set: { ...set, ...change } }, words);
  const order = runningOrder(rig, set);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = set.entries.map((e) => e.id);
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over.id))];
    const title = rig.songs?.find((s) => s.id === at(set.entries, from).song)?.title ?? 'a song';
    save(
      { entries: arrayMove(set.entries, from, to) },
      `moved ${title} to place ${to + 1} of ${set.name}`,
    );
  };
  const times = { ...CHANGEOVER_SECONDS, ...set.times };
  return (
    <div className="scroll common-box" data-editor="set">
      <SetHead set={set} save={save} times={times} onGone={onGone} />
      <p data-times className="common-gap-5">
        {howMany(order.lines.length, 'song')}, <strong>{clockTime(order.seconds * 1000)}</strong> in
        all, {clockTime(order.musicSeconds * 1000)} of it music;{' '}
        {howMany(order.changes.instrument, 'change')} of instrument, {order.changes.retune}{' '}
        retunings.
        {order.spareSeconds !== undefined &&
          (order.spareSeconds >= 0
            ? ` ${clockTime(order.spareSeconds * 1000)} to spare.`
            : ` ${clockTime(-order.spareSeconds * 1000)} too long.`)}
      </p>
      <div className="set-line faint set-editor-text">
        <span />
        <span>#</span>
        <span>Song</span>
        <span>Before it</span>
        <span>Gap, s</span>
        <span>{set.starts ? 'Begins' : 'At'}</span>
        <span />
      </div>
      <DndContext
        id={`set-${set.id}`}
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={drop}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          {order.lines.map((l, i) => (
            <Line
              key={l.entry.id}
              line={l}
              place={i + 1}
              onGap={(gap) =>
                save({ entries: set.entries.map((e) => (e === l.entry ? { ...e, gap } : e)) })
              }
              onNotes={(notes) =>
                save({ entries: set.entries.map((e) => (e === l.entry ? { ...e, notes } : e)) })
              }
              onRemove={() => save({ entries: set.entries.filter((e) => e !== l.entry) })}
            />
          ))}
        </SortableContext>
      </DndContext>
      <Select
        mt={8}
        size="sm"
        w={320}
        searchable
        placeholder="Add a song …"
        aria-label="Add a song to the set"
        value={null}
        data={(rig.songs ?? []).map((s) => ({
          value: s.id,
          label: `${s.title}${set.entries.some((e) => e.song === s.id) ? ' (is in it)' : ''}`,
        }))}
        onChange={(v) => v && save({ entries: [...set.entries, { id: freshId(v, ids), song: v }] })}
      />
      {!rig.songs?.length && (
        <div className="empty">This rig has no songs to put in order. Add them under Songs.</div>
      )}
    </div>
  );
}

/** The name of the set, its times, and what can be done with it. */
function SetHead({
  set,
  save,
  times,
  onGone,
}: {
  set: SongSet;
  save: (change: Partial<SongSet>, words?: string) => Outcome<Rig>;
  times: { plain: number; retune: number; instrument: number };
  onGone: () => void;
}) {
  const edit = useRig((s) => s.edit);
  return (
    <Group gap={8} align="end">
      <CommitText
        size="sm"
        w={230}
        label="Name"
        needed
        value={set.name}
        onCommit={(name) => save({ name })}
      />
      <CommitText
        size="sm"
        w={90}
        label="Starts at"
        placeholder="20:30"
        value={set.starts}
        onCommit={(starts) => save({ starts })}
      />
      <CommitNumber
        size="sm"
        w={100}
        label="Minutes"
        placeholder="no limit"
        min={1}
        max={600}
        value={set.minutes}
        onCommit={(minutes) => save({ minutes })}
      />
      {(['plain', 'retune', 'instrument'] as const).map((k) => (
        <CommitNumber
          key={k}
          size="sm"
          w={110}
          label={{ plain: 'Straight on, s', retune: 'Retune, s', instrument: 'Instrument, s' }[k]}
          min={0}
          max={3600}
          value={times[k]}
          onCommit={(v) => save({ times: { ...times, [k]: v ?? 0 } })}
        />
      ))}
      <Tooltip label="Remove (can be undone)">
        <ActionIcon
          size="lg"
          variant="default"
          aria-label={`Remove ${set.name}`}
          onClick={() => {
            onGone();
            edit({ edit: 'removeSet', set: set.id });
          }}
        >
          <IconTrash size={16} />
        </ActionIcon>
      </Tooltip>
    </Group>
  );
}

function Line({
  line,
  place,
  onGap,
  onNotes,
  onRemove,
}: {
  line: SetLine;
  place: number;
  onGap: (v: number | undefined) => void;
  onNotes: (v: string | undefined) => void;
  onRemove: () => void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: line.entry.id,
  });
  const { song, entry, changeover } = line;
  const title = song?.title ?? `"${entry.song}" is gone`;
  return (
    <div
      ref={setNodeRef}
      className="set-line"
      data-entry={entry.song}
      data-dragged={isDragging}
      style={{ transform: CSS.Transform.toString(transform), transition }}
    >
      <button
        type="button"
        className="handle"
        aria-label={`Move ${title}`}
        {...attributes}
        {...listeners}
      >
        <IconGripVertical size={16} />
      </button>
      <span className="figures">{place}</span>
      <span>
        <strong>{title}</strong>
        {song && (
          <span className="faint common-text-2">
            {' '}
            {song.bpm} bpm{song.key ? ` · ${song.key}` : ''}
            {song.tuning ? ` · ${song.tuning}` : ''}
          </span>
        )}
      </span>
      <span>
        <span data-changeover>{changeover.words}</span>{' '}
        <CommitText
          variant="unstyled"
          aria-label={`Note for ${title}`}
          placeholder="note …"
          value={entry.notes}
          styles={{ input: { minHeight: 24, height: 24 } }}
          onCommit={onNotes}
        />
      </span>
      <CommitNumber
        aria-label={`Gap before ${title}`}
        min={0}
        max={7200}
        placeholder={String(changeover.seconds)}
        value={entry.gap}
        onCommit={onGap}
      />
      <span className="figures">{line.clock ?? clockTime(line.startsAt * 1000)}</span>
      <ActionIcon
        size="sm"
        variant="default"
        aria-label={`Take ${title} out of the set`}
        onClick={onRemove}
      >
        <IconTrash size={14} />
      </ActionIcon>
    </div>
  );
}
