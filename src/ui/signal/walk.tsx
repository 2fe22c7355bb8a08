'use client';
import {
  DndContext,
  type DragEndEvent,
  type DragOverEvent,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { IconChevronDown, IconChevronRight } from '@tabler/icons-react';
import { memo, useMemo } from 'react';
import {
  LEAD_DASH,
  LEAD_NAMES,
  LEAD_TAGS,
  type PlacedLead,
  type PlacedStation,
  placeWalk,
  SIZE,
  type WalkView,
} from '../../core/draw';
import type { WalkGeometry } from '../../core/draw/walk-geometry';
import type { Severity } from '../../core/findings/finding';
import { kindOf } from '../../core/kinds';
import { type Device, endWords, jackLabels, type Rig } from '../../core/rig';
import { SeverityMark } from '../look/severity';
import type { Selection } from '../store/rig-store';
import { useRig } from '../store/use-rig';
import { HIGH, LOW, MeterColumn } from './meter-column';
import { METER_ROWS, type MeterRow, rowUnit } from './meter-rows';
import { useWorst } from './use-worst';

/** A device being moved, and the lead it would go into. */
export interface Moving {
  device: string;
  lead: string | null;
}

/** What differs from another sound, in words by device, and the change in level at each station. */
export interface Compared {
  words: ReadonlyMap<string, string[]>;
  levelDb: (station: string) => number | null;
}

interface Props {
  rig: Rig;
  view: WalkView;
  rows: readonly string[];
  selection: Selection;
  moving: Moving | null;
  compared: Compared | null;
  onSelect: (s: Selection) => void;
  onMoving: (m: Moving | null) => void;
  onDrop: (device: string, lead: string) => void;
  onUnfold: (host: string) => void;
  foldedLanes: readonly string[];
  onFoldLane: (lane: string) => void;
}

/** The walk of one sound with the meter bridge under each lane. */
export function Walk({
  rig,
  view,
  rows,
  selection,
  moving,
  compared,
  onSelect,
  onMoving,
  onDrop,
  onUnfold,
  foldedLanes,
  onFoldLane,
}: Props) {
  const shown = useMemo(() => METER_ROWS.filter((r) => rows.includes(r.id)), [rows]);
  const geometry = useMemo(
    () =>
      placeWalk(
        view,
        rig.leads,
        shown.length,
        compared
          ? (s) => !compared.words.has(s.device) && !s.folded?.some((d) => compared.words.has(d))
          : undefined,
        new Set(foldedLanes),
      ),
    [view, rig.leads, shown.length, compared, foldedLanes],
  );
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const over = (e: DragOverEvent) =>
    onMoving({
      device: String(e.active.data.current!.device),
      lead: e.over ? String(e.over.id) : null,
    });
  const end = (e: DragEndEvent) => {
    if (e.over) onDrop(String(e.active.data.current!.device), String(e.over.id));
    onMoving(null);
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={(e) => onMoving({ device: String(e.active.data.current!.device), lead: null })}
      onDragOver={over}
      onDragEnd={end}
      onDragCancel={() => onMoving(null)}
    >
      <div
        className="walk"
        style={{ width: geometry.width, height: geometry.height }}
        role="group"
        aria-label="Walk of the chosen sound"
      >
        <Gutter geometry={geometry} onFoldLane={onFoldLane} compared={compared} shown={shown} />
        <Ways geometry={geometry} />
        <Strips geometry={geometry} {...{ rig, selection, onSelect, onUnfold }} />
        {geometry.stations.map((p) => (
          <MeterColumn
            key={p.station.id}
            placed={p}
            shown={shown}
            differs={
              compared
                ? (compared.words.get(p.station.device) ??
                  p.station.folded?.flatMap((d) => compared.words.get(d) ?? []) ??
                  [])
                : null
            }
            levelDb={compared ? compared.levelDb(p.station.id) : null}
          />
        ))}
        <LeadTags geometry={geometry} {...{ rig, selection, moving, onSelect }} />
      </div>
    </DndContext>
  );
}

/** The strips of the stations, each with what is worst about it. */
function Strips({
  geometry,
  rig,
  selection,
  onSelect,
  onUnfold,
}: { geometry: WalkGeometry } & Pick<Props, 'rig' | 'selection' | 'onSelect' | 'onUnfold'>) {
  const worst = useWorst();
  const devices = useMemo(() => new Map(rig.devices.map((d) => [d.id, d])), [rig.devices]);
  return geometry.stations.map((p) => {
    const device = devices.get(p.station.device);
    return (
      <StationStrip
        key={p.station.id}
        placed={p}
        device={device}
        canMove={
          !p.station.folded && device !== undefined && kindOf(device.kind).through !== undefined
        }
        selected={selection?.kind === 'device' && selection.id === p.station.device}
        worst={
          worst.get(p.station.device) ?? p.station.folded?.map((d) => worst.get(d)).find((x) => x)
        }
        onSelect={onSelect}
        onUnfold={onUnfold}
      />
    );
  });
}

/** The tags of the leads: what each is, and whether a device in hand can go there. */
function LeadTags({
  geometry,
  rig,
  selection,
  moving,
  onSelect,
}: { geometry: WalkGeometry } & Pick<Props, 'rig' | 'selection' | 'moving' | 'onSelect'>) {
  const takes = (device: string, { lead }: PlacedLead) =>
    lead.from.device !== device && lead.to.device !== device;
  return geometry.leads.map((l) => (
    <LeadTag
      key={l.lead.id}
      placed={l}
      words={
        `${endWords(rig, l.lead.from)} ` +
        `to ${endWords(rig, l.lead.to)}, ${LEAD_NAMES[l.lead.type]}, ${l.lead.metres} m`
      }
      selected={selection?.kind === 'lead' && selection.id === l.lead.id}
      target={moving !== null && takes(moving.device, l)}
      over={moving?.lead === l.lead.id}
      onSelect={onSelect}
    />
  ));
}

/** The ways between stations, those that carry sound over those that do not. */
function Ways({ geometry }: { geometry: WalkGeometry }) {
  return (
    <svg className="ways" width={geometry.width} height={geometry.height} aria-hidden>
      {[...geometry.ways]
        .sort((a, b) => Number(a.flat) - Number(b.flat))
        .map((w) => (
          <g
            key={w.key}
            fill="none"
            stroke={w.live ? 'var(--live)' : 'var(--rule)'}
            strokeWidth={w.live ? 3 : 2}
          >
            <path d={w.d} stroke="var(--sheet)" strokeWidth={w.stereo ? 16 : 10} />
            <path d={w.d} strokeDasharray={LEAD_DASH[w.type]} />
            {w.stereo && (
              <path d={w.d} transform="translate(0 5)" strokeDasharray={LEAD_DASH[w.type]} />
            )}
          </g>
        ))}
    </svg>
  );
}

/** The names of the meter rows beside each lane, and the fold of a lane. */
function Gutter({
  geometry,
  onFoldLane,
  compared,
  shown,
}: {
  geometry: WalkGeometry;
  onFoldLane: (lane: string) => void;
  compared: Compared | null;
  shown: MeterRow[];
}) {
  const units = useRig((s) => s.units);
  return (
    <div className="gutter" style={{ height: geometry.height, width: SIZE.gutter - 4 }}>
      {geometry.lanes.map((lane) => (
        <div key={lane.key}>
          {geometry.lanes.length > 1 && (
            <button
              type="button"
              className="lanefold"
              data-lane={lane.key}
              aria-expanded={!lane.folded}
              aria-label={`${lane.folded ? 'Unfold' : 'Fold'} lane ${geometry.lanes.indexOf(lane) + 1}`}
              style={{ top: lane.y + SIZE.label / 2 - 12 }}
              onClick={() => onFoldLane(lane.key)}
            >
              {lane.folded ? (
                <IconChevronRight size={15} aria-hidden />
              ) : (
                <IconChevronDown size={15} aria-hidden />
              )}
            </button>
          )}
          {!lane.folded && (
            <div aria-hidden>
              {!compared && (
                <span className="rowname" style={{ top: lane.y + SIZE.label + 3 }}>
                  +{HIGH} dBu
                </span>
              )}
              {!compared && (
                <span className="rowname" style={{ top: lane.y + SIZE.label + SIZE.meter - 13 }}>
                  −{-LOW} dBu
                </span>
              )}
              {compared && (
                <span className="rowname" style={{ top: lane.y + SIZE.label + 3 }}>
                  What differs
                </span>
              )}
              {shown.map((r, n) => (
                <span
                  key={r.id}
                  className="rowname"
                  title={r.explain}
                  style={{ top: lane.y + SIZE.label + SIZE.meter + 4 + n * SIZE.row }}
                >
                  {r.name}
                  {rowUnit(r.id, units)}
                </span>
              ))}
            </div>
          )}
        </div>
      ))}
    </div>
  );
}

const StationStrip = memo(function StationStrip({
  placed,
  device,
  canMove,
  selected,
  worst,
  onSelect,
  onUnfold,
}: {
  placed: PlacedStation;
  device: Device | undefined;
  canMove: boolean;
  selected: boolean;
  worst?: Severity;
  onSelect: Props['onSelect'];
  onUnfold: Props['onUnfold'];
}) {
  const { station } = placed;
  const { setNodeRef, listeners, isDragging, transform } = useDraggable({
    id: `station ${station.id}`,
    data: { device: station.device },
    disabled: !canMove,
  });
  const words = { engaged: 'engaged', through: 'bypassed', muted: 'muted', unused: 'not in use' }[
    station.state
  ];
  const name = device?.name ?? station.device;
  const point = station.id.split(':')[1];
  const pass = point === undefined ? undefined : jackLabels(device, [point]);
  return (
    <button
      ref={setNodeRef}
      type="button"
      className={`station tape${placed.narrow ? ' narrow' : ''}`}
      data-state={station.state}
      data-live={station.output.levelDbu !== null && station.state === 'engaged'}
      data-device={station.device}
      data-station={station.id}
      data-folded={station.folded ? true : undefined}
      aria-pressed={selected}
      aria-label={`${name}, ${station.folded ? `${station.folded.length} inside, folded` : words}`}
      title={
        `${name}: ${words}` +
        (station.ins.length || station.outs.length
          ? ` (${[jackLabels(device, station.ins), jackLabels(device, station.outs)].filter(Boolean).join(' → ')})`
          : '') +
        (station.folded ? '. Double-click to unfold' : '')
      }
      style={{
        left: placed.x,
        top: placed.y,
        width: placed.width,
        height: placed.narrow && !placed.folded ? SIZE.label + SIZE.meter : SIZE.label,
        opacity: isDragging ? 0.7 : 1,
        zIndex: isDragging ? 9 : undefined,
        transform:
          transform && !placed.narrow ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
      }}
      onClick={() => onSelect({ kind: 'device', id: station.device, station: station.id })}
      onDoubleClick={() => station.folded && onUnfold(station.device)}
      {...listeners}
    >
      {worst && !placed.narrow && (
        <span className="flag">
          <SeverityMark severity={worst} quiet />
        </span>
      )}
      <span>
        {name}
        {pass && !placed.narrow && (
          <>
            <br />
            <span className="pass">{pass}</span>
          </>
        )}
        {station.folded && !placed.narrow && (
          <>
            <br />
            <span className="pass">{station.folded.length} inside</span>
          </>
        )}
      </span>
    </button>
  );
});

const LeadTag = memo(function LeadTag({
  placed,
  words,
  selected,
  target,
  over,
  onSelect,
}: {
  placed: PlacedLead;
  words: string;
  selected: boolean;
  target: boolean;
  over: boolean;
  onSelect: Props['onSelect'];
}) {
  const { setNodeRef } = useDroppable({ id: placed.lead.id, disabled: !target });
  return (
    <button
      ref={setNodeRef}
      type="button"
      className="leadtag"
      data-lead={placed.lead.id}
      data-target={target}
      data-over={over}
      aria-pressed={selected}
      aria-label={`Lead: ${words}`}
      title={`Probe: ${words}`}
      style={{ left: placed.x - 11, top: placed.y - 12 }}
      onClick={() => onSelect({ kind: 'lead', id: placed.lead.id })}
    >
      {LEAD_TAGS[placed.lead.type]}
      {placed.count > 1 && (
        <>
          <br />×{placed.count}
        </>
      )}
    </button>
  );
});
