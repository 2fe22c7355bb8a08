'use client';
import { IconChevronDown, IconChevronRight } from '@tabler/icons-react';
import dynamic from 'next/dynamic';
import { type RefObject, useCallback, useMemo, useState } from 'react';
import { SIZE } from '../../core/draw';
import type { WalkGeometry } from '../../core/draw/walk-geometry';
import { kindOf } from '../../core/kinds';
import { deviceOf } from '../../core/rig/find';
import type { Rig } from '../../core/rig';
import { howMany } from '../../core/units/display';
import type { Selection } from '../store/rig-store';
import { laterPart } from '../look/later';
import { useAnswer } from '../look/use-answer';
import { useFirstHand } from '../look/use-first-hand';
import { useRig, useRigStore } from '../store/use-rig';
import { MANY, useFarLater } from './far-later';
import { Hands } from './hands';
import { HIGH, LOW, MeterColumn } from './meter-column';
import { type MeterRow, rowUnit } from './meter-rows';
import { useWorst } from './use-worst';
import { type Moving, type Compared } from './walk-looks';
import { LeadTags, Ways } from './walk-leads';
import { StationStrip } from './station-strip';
import { useMarquee } from './use-marquee';

const WalkHands = dynamic(
  laterPart('hands', () => import('./walk-hands').then((m) => m.WalkHands)),
  { ssr: false },
);

/** Whether a device goes with its leads from one place to another. */
const canMove = (rig: Rig, id: string): boolean => {
  const device = deviceOf(rig, id);
  return device !== undefined && kindOf(device.kind).through !== undefined;
};

export interface Props {
  rig: Rig;
  /** The whole walk, of which what is in sight is drawn. */
  placed: WalkGeometry;
  shown: readonly MeterRow[];
  selection: Selection;
  moving: Moving | null;
  compared: Compared | null;
  onSelect: (s: Selection) => void;
  onMoving: (m: Moving | null) => void;
  onDrop: (device: string, lead: string) => void;
  onUnfold: (host: string) => void;
  onFoldLane: (lane: string) => void;
  /** What scrolls it. */
  scroller: RefObject<HTMLElement | null>;
}

/** The walk of one sound with the meter bridge under each lane. */
export function Walk({
  rig,
  placed,
  shown,
  selection,
  moving,
  compared,
  onSelect,
  onMoving,
  onDrop,
  onUnfold,
  onFoldLane,
  scroller,
}: Props) {
  const chosen = useRig((s) => s.chosen);
  const held = useMemo(
    () =>
      new Set([
        ...chosen,
        ...(selection ? [selection.id] : []),
        ...(moving ? [moving.device] : []),
      ]),
    [chosen, selection, moving],
  );
  const geometry = useFarLater(placed, scroller, held);
  const marquee = useMarquee(placed);
  const sound = useRig((s) => s.sound);
  const notes = useAnswer('stationNotes', shown.some((r) => r.ofNote) ? { sound } : null);
  const [hands] = useState(() => new Hands());
  const isHere = useFirstHand();
  return (
    <>
      <div
        className="walk"
        style={{ width: geometry.width, height: geometry.height }}
        role="group"
        aria-label={
          placed.stations.length > MANY
            ? `Walk of the chosen sound, ${howMany(placed.stations.length, 'strip')}: those in sight, all in the table`
            : 'Walk of the chosen sound'
        }
        {...marquee.handlers}
      >
        {marquee.frame && (
          <div
            className="marquee"
            style={{
              left: marquee.frame.x,
              top: marquee.frame.y,
              width: marquee.frame.width,
              height: marquee.frame.height,
            }}
          />
        )}
        <Gutter geometry={geometry} onFoldLane={onFoldLane} compared={compared} shown={shown} />
        <Ways geometry={geometry} />
        <Strips geometry={geometry} {...{ rig, selection, onSelect, onUnfold, hands }} />
        {geometry.stations.map((p) => (
          <MeterColumn
            key={p.station.id}
            placed={p}
            shown={shown}
            note={notes?.get(p.station.id)}
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
      {isHere && (
        <WalkHands
          canMove={(device) => canMove(rig, device)}
          {...{ geometry, hands, moving, onMoving, onDrop }}
        />
      )}
    </>
  );
}

/** The strips of the stations, each with what is worst about it. */
function Strips({
  geometry,
  rig,
  selection,
  onSelect,
  onUnfold,
  hands,
}: { geometry: WalkGeometry; hands: Hands } & Pick<
  Props,
  'rig' | 'selection' | 'onSelect' | 'onUnfold'
>) {
  const worst = useWorst();
  const chosen = useRig((s) => s.chosen);
  const store = useRigStore();
  const also = useCallback(
    (device: string) => {
      const { chosen: now, selection: one, choose } = store.getState();
      const all = now.length ? now : one?.kind === 'device' ? [one.id] : [];
      choose(all.includes(device) ? all.filter((d) => d !== device) : [...all, device]);
    },
    [store],
  );
  const devices = useMemo(() => new Map(rig.devices.map((d) => [d.id, d])), [rig.devices]);
  return geometry.stations.map((p) => {
    const device = devices.get(p.station.device);
    return (
      <StationStrip
        key={p.station.id}
        placed={p}
        device={device}
        selected={
          chosen.includes(p.station.device) ||
          (selection?.kind === 'device' && selection.id === p.station.device)
        }
        onChoose={also}
        worst={
          worst.get(p.station.device) ?? p.station.folded?.map((d) => worst.get(d)).find((x) => x)
        }
        onSelect={onSelect}
        onUnfold={onUnfold}
        hands={hands}
      />
    );
  });
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
  shown: readonly MeterRow[];
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
