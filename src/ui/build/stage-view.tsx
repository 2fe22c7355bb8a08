'use client';
import { ActionIcon, Button, Group, Select, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { type Dispatch, type KeyboardEvent, type SetStateAction, useMemo, useState } from 'react';
import { inputList } from '../../core/build';
import type { InputLine } from '../../core/build/input-list';
import { stageSvg } from '../../core/formats';
import type { Outcome } from '../../core/outcome';
import { type Board, freshId, type Rig, type Stage } from '../../core/rig';
import type { Device, Rack } from '../../core/rig/schema';
import { showLevel } from '../../core/units';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';
import { DrawingFiles } from './drawing-files';
import { DrawnPlan } from './drawn-plan';

const USUAL: Stage = { width: 8, depth: 6, spots: [], marks: [] };

const nameIn = (rig: Rig, id: string): string =>
  rig.boards?.find((b) => b.id === id)?.name ??
  rig.racks?.find((r) => r.id === id)?.name ??
  rig.devices.find((d) => d.id === id)?.name ??
  id;

/** What the arrow keys move a thing by, in metres. */
const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [-0.1, 0],
  ArrowRight: [0.1, 0],
  ArrowUp: [0, -0.1],
  ArrowDown: [0, 0.1],
};

/** A stage with one thing moved, to the nearest 10 cm and never off the stage. */
function shiftedBy(from: Stage, id: string, dx: number, dy: number): Stage {
  const step = (v: number, most: number) => Math.round(Math.max(0, Math.min(most, v)) * 10) / 10;
  const move = <T extends { id: string; x: number; y: number }>(s: T): T =>
    s.id === id ? { ...s, x: step(s.x + dx, from.width), y: step(s.y + dy, from.depth) } : s;
  return { ...from, spots: from.spots.map(move), marks: from.marks.map(move) };
}

/**
 * The stage from above, from which leads between boards, racks and amplifiers get their lengths;
 * and the input list for the house.
 */
export function StageView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [selected, select] = useState<string | null>(null);
  const [words, setWords] = useState('');
  const [moved, setMoved] = useState<Stage | null>(null);
  const stage = moved ?? rig.stage ?? USUAL;
  const set = (change: Partial<Stage>) =>
    edit({ edit: 'setStage', stage: { ...(rig.stage ?? USUAL), ...change } });
  const svg = useMemo(() => stageSvg({ ...rig, stage }, { selected }), [rig, stage, selected]);
  const on = new Set(stage.spots.map((s) => s.id));
  const could = [
    ...(rig.boards ?? []),
    ...(rig.racks ?? []),
    ...rig.devices.filter((d) => d.host === undefined && !d.at && !d.rack && d.place !== 'house'),
  ].filter((x) => !on.has(x.id));
  const shifted = (id: string, dx: number, dy: number) => shiftedBy(rig.stage ?? USUAL, id, dx, dy);
  const drop = (id: string) =>
    set({
      spots: stage.spots.filter((s) => s.id !== id),
      marks: stage.marks.filter((m) => m.id !== id),
    });
  const onKey = (e: KeyboardEvent) => {
    if (!selected || e.ctrlKey || e.metaKey || e.altKey) return;
    const by = STEPS[e.key];
    if (by) edit({ edit: 'setStage', stage: shifted(selected, ...by) });
    else if (e.key === 'Delete' || e.key === 'Backspace') {
      drop(selected);
      select(null);
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div className="board" data-place="stage">
      <div className="board-main">
        <StageHead
          stage={stage}
          set={set}
          could={could}
          select={select}
          words={words}
          on={on}
          setWords={setWords}
        />
        <DrawnPlan
          svg={svg}
          label="The stage from above. Arrows move what is chosen by 10 cm, Delete takes it off."
          onPick={select}
          onKey={onKey}
          onDrag={(id, dx, dy, done) => {
            const next = shifted(id, dx / 100, dy / 100);
            if (!done) return setMoved(next);
            setMoved(null);
            edit({ edit: 'setStage', stage: next });
          }}
        />
      </div>
      <StageSide stage={stage} selected={selected} select={select} drop={drop} />
    </div>
  );
}

/** What stands where, and what the house and the monitors get. */
function StageSide({
  stage,
  ...line
}: {
  stage: Stage;
  selected: string | null;
  select: Dispatch<SetStateAction<string | null>>;
  drop: (id: string) => Outcome<Rig>;
}) {
  const rig = useDocument();
  const report = useRig((s) => s.report);
  return (
    <aside className="board-side scroll">
      <h3 className="common-gap">On the stage</h3>
      {stage.spots.length === 0 && (
        <div className="empty">
          Nothing yet. Put the board, the rack and the amplifiers where they stand: the leads
          between them then get their lengths.
        </div>
      )}
      {[
        ...stage.spots.map((s) => ({ ...s, name: nameIn(rig, s.id) })),
        ...stage.marks.map((m) => ({ ...m, name: m.words })),
      ].map((s) => (
        <SpotLine key={s.id} s={s} {...line} />
      ))}
      <h3 className="stage-view-gap">Inputs for the house and the monitors</h3>
      <InputLines lines={inputList(rig, report.sounds)} />
      <p className="faint common-text-2">
        Metres from the rear left corner. Leads are taken to run along the edges: metres across plus
        metres up or down the stage.
      </p>
    </aside>
  );
}

/** Each line to the house and the monitors: its feed, its levels, phantom. */
function InputLines({ lines }: { lines: InputLine[] }) {
  const units = useRig((s) => s.units);
  return (
    <table className="sheet-table figures common-text-2" data-table="inputs">
      <thead>
        <tr>
          <th>Input</th>
          <th>Feed</th>
          <th>Level</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l) => (
          <tr key={`${l.device} ${l.jack}`}>
            <td>
              <strong>{l.name}</strong>
              <div className="faint">{l.stereo}</div>
            </td>
            <td>
              {l.feed}
              {l.stand ? <div className="faint">{l.stand}</div> : null}
            </td>
            <td>
              {l.quietDbu === null
                ? 'silent'
                : `${showLevel(l.quietDbu, units.level)} to ${showLevel(l.loudDbu, units.level)}`}
              <div className="faint">
                phantom {[l.phantom, l.phantomFor].filter(Boolean).join(', ')}
              </div>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** One thing on the stage, with where it stands. */
function SpotLine({
  s,
  selected,
  select,
  drop,
}: {
  s: { name: string; id: string; x: number; y: number };
  selected: string | null;
  select: Dispatch<SetStateAction<string | null>>;
  drop: (id: string) => Outcome<Rig>;
}) {
  return (
    <Group gap={6} my={1} wrap="nowrap">
      <button
        type="button"
        className="clash stage-view-button"

        aria-current={selected === s.id}
        onClick={() => select(s.id)}
      >
        <strong>{s.name}</strong>{' '}
        <span className="figures faint">
          {s.x.toFixed(1)} m, {s.y.toFixed(1)} m
        </span>
      </button>
      <ActionIcon
        size="sm"
        variant="subtle"
        aria-label={`Take ${s.name} off the stage`}
        onClick={() => drop(s.id)}
      >
        <IconX size={14} />
      </ActionIcon>
    </Group>
  );
}

/** How large the stage is, and what is put on it. */
function StageHead({
  stage,
  set,
  could,
  select,
  words,
  on,
  setWords,
}: {
  stage: Stage;
  set: (change: Partial<Stage>) => Outcome<Rig>;
  could: (Board | Rack | Device)[];
  select: Dispatch<SetStateAction<string | null>>;
  words: string;
  on: Set<string>;
  setWords: Dispatch<SetStateAction<string>>;
}) {
  const rig = useDocument();
  return (
    <Group gap={8} px={14} pb={6} align="end">
      <CommitNumber
        w={90}
        label="Wide, m"
        min={1}
        max={100}
        value={stage.width}
        onCommit={(v) => v !== undefined && set({ width: v })}
      />
      <CommitNumber
        w={90}
        label="Deep, m"
        min={1}
        max={100}
        value={stage.depth}
        onCommit={(v) => v !== undefined && set({ depth: v })}
      />
      <Select
        size="xs"
        w={210}
        searchable
        placeholder="Put on the stage …"
        aria-label="Put on the stage"
        value={null}
        data={could.map((x) => ({ value: x.id, label: x.name }))}
        onChange={(id) => {
          if (
            id &&
            set({ spots: [...stage.spots, { id, x: stage.width / 2, y: stage.depth / 2 }] }).ok
          )
            select(id);
        }}
      />
      <form
        className="stage-view-row"
        onSubmit={(e) => {
          e.preventDefault();
          if (
            words.trim() &&
            set({
              marks: [
                ...stage.marks,
                {
                  id: freshId(words, [...on, ...stage.marks.map((m) => m.id)]),
                  words: words.trim(),
                  x: stage.width / 2,
                  y: stage.depth - 1,
                },
              ],
            }).ok
          )
            setWords('');
        }}
      >
        <TextInput
          size="xs"
          w={130}
          placeholder="a mark, in words"
          aria-label="A mark, in words"
          maxLength={120}
          value={words}
          onChange={(e) => setWords(e.currentTarget.value)}
        />
        <Button size="xs" variant="default" type="submit">
          Mark
        </Button>
      </form>
      <DrawingFiles name={`${rig.id}-stage`} svg={() => stageSvg(rig)} />
    </Group>
  );
}
