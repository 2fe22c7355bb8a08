'use client';
import equal from 'fast-deep-equal';
import { memo } from 'react';
import { type PlacedStation, SIZE } from '../../core/draw';
import type { Severity } from '../../core/findings/finding';
import { type Device, jackLabels } from '../../core/rig';
import type { Hands } from './hands';
import { SeverityMark } from '../look/severity';
import { fixed, showLevel } from '../../core/units';
import { type Props } from './walk';
import { stateWords } from './walk-looks';

export const StationStrip = memo(function StationStrip({
  placed,
  device,
  selected,
  worst,
  onSelect,
  onChoose,
  onUnfold,
  hands,
}: {
  placed: PlacedStation;
  device: Device | undefined;
  selected: boolean;
  worst?: Severity;
  onSelect: Props['onSelect'];
  /** With Shift or Ctrl: chosen besides what is chosen, or no more. */
  onChoose: (device: string) => void;
  onUnfold: Props['onUnfold'];
  hands: Hands;
}) {
  const { station } = placed;
  const words = stateWords[station.state];
  const name = device?.name ?? station.device;
  const point = station.id.split(':')[1];
  const pass = point === undefined ? undefined : jackLabels(device, [point]);
  return (
    <button
      type="button"
      className={`station tape${placed.narrow ? ' narrow' : ''}`}
      data-state={station.state}
      data-live={station.output.levelDbu !== null && station.state === 'engaged'}
      data-device={station.device}
      data-station={station.id}
      data-folded={station.folded ? true : undefined}
      aria-pressed={selected}
      aria-label={
        `${name}, ${station.folded ? `${station.folded.length} inside, folded` : words}` +
        (station.output.levelDbu ? `, ${showLevel(station.output.levelDbu.normal, 'dBu')}` : '') +
        (station.headroomDb === null ? '' : `, headroom ${fixed(station.headroomDb)} dB`)
      }
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
      }}
      onClick={(e) =>
        e.shiftKey || e.ctrlKey || e.metaKey
          ? onChoose(station.device)
          : onSelect({ kind: 'device', id: station.device, station: station.id })
      }
      onDoubleClick={() => station.folded && onUnfold(station.device)}
      onPointerDown={(e) => hands.press(station.id, e)}
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
}, equal);
