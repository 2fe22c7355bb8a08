'use client';
import equal from 'fast-deep-equal';
import { memo } from 'react';
import { type PlacedStation, SIZE } from '../../core/draw';
import { useRig } from '../store/use-rig';
import type { StationNote } from '../../core/note';
import { BANDS } from '../../core/note/bands';
import type { MeterRow } from './meter-rows';

/** The ends of a meter, in dBu. */
export const LOW = -115;
export const HIGH = 35;
const up = (dbu: number) =>
  SIZE.meter - 4 - ((Math.max(LOW, Math.min(HIGH, dbu)) - LOW) / (HIGH - LOW)) * (SIZE.meter - 8);

/** How far figures reach to either side of their strip, in pixels. */
const BESIDE = 14;

/** Where the meter of a station begins, under its label. */
const topOf = (y: number): number => y + SIZE.label + 3;

/**
 * The bar between noise and clip, and the figures, of one station; what differs in place of the bar
 * while two sounds are compared.
 */
export const MeterColumn = memo(function MeterColumn({
  placed,
  shown,
  differs,
  levelDb,
  note,
}: {
  placed: PlacedStation;
  /** The played note behind it, where a row wants it and it is worked out. */
  note: StationNote | undefined;
  shown: readonly MeterRow[];
  differs: string[] | null;
  levelDb: number | null;
}) {
  const units = useRig((s) => s.units);
  const { station, x, y, width } = placed;
  // A narrow strip is as high as its meter would be: nothing lies over it.
  if (placed.folded || placed.narrow) return null;
  return (
    <div
      className="figure-column"
      data-figures={station.id}
      style={{
        left: x - BESIDE,
        top: topOf(y),
        width: width + 2 * BESIDE,
        height: SIZE.meter + 1 + shown.length * SIZE.row,
      }}
    >
      {differs ? (
        <Differs placed={placed} words={differs} levelDb={levelDb} />
      ) : (
        <Meter placed={placed} />
      )}
      {shown.map((r) => (
        <span
          key={r.id}
          className="cell figures"
          data-row={r.id}
          data-warn={r.warn?.(station) ?? false}
          title={`${r.name}: ${r.explain}`}
          style={{ height: SIZE.row }}
        >
          {r.ofNote === 'bands' && note ? (
            <Profile note={note} words={r.show(station, units, note)} />
          ) : (
            r.show(station, units, note)
          )}
        </span>
      ))}
    </div>
  );
}, equal);

/** So far under the highest band a bar is empty, in dB. */
const PROFILE_DB = 40;

/** The bands of the note as a row of bars. */
function Profile({ note: { bandsDbu }, words }: { note: StationNote; words: string }) {
  const highest = Math.max(...bandsDbu.map((v) => v ?? -Infinity));
  const high = SIZE.row - 3;
  return (
    <svg
      className="profile"
      role="img"
      aria-label={words}
      width={bandsDbu.length * 2.5}
      height={high}
    >
      <title>{words}</title>
      {bandsDbu.map((v, i) => {
        const share = v === null ? 0 : Math.max(0, 1 - (highest - v) / PROFILE_DB);
        return (
          <rect
            key={BANDS[i]}
            x={i * 2.5}
            y={high * (1 - share)}
            width={1.8}
            height={high * share}
          />
        );
      })}
    </svg>
  );
}

/** How a station differs from the sound that is compared: in words, and in level. */
function Differs({
  placed: { station, width },
  words,
  levelDb,
}: {
  placed: PlacedStation;
  words: string[];
  levelDb: number | null;
}) {
  return (
    <div
      className="differs"
      data-differs={station.device}
      title={words.join('\n')}
      style={{ width: width + 24, height: SIZE.meter }}
    >
      {words.slice(0, 3).map((w) => (
        <div key={w}>{w}</div>
      ))}
      {levelDb !== null && Math.abs(levelDb) >= 0.05 && (
        <strong className="figures">
          {levelDb > 0 ? '+' : '−'}
          {Math.abs(levelDb).toFixed(1)} dB
        </strong>
      )}
    </div>
  );
}

/** Level over noise, the peak above, and where the station clips. */
function Meter({ placed: { station, width } }: { placed: PlacedStation }) {
  const { levelDbu, noiseDbu, peakDbu } = station.output;
  const middle = width / 2;
  const bar = (fromDbu: number, toDbu: number, fill: string) => (
    <rect
      x={middle - 5}
      width={10}
      y={up(fromDbu)}
      height={Math.max(1, up(toDbu) - up(fromDbu))}
      fill={fill}
    />
  );
  const across = { x1: middle - 7, x2: middle + 7 };
  return (
    <svg className="meter" width={width} height={SIZE.meter} aria-hidden>
      <line
        x1={middle}
        x2={middle}
        y1={up(HIGH)}
        y2={up(LOW)}
        stroke="var(--rule)"
        strokeWidth={1}
      />
      {levelDbu && bar(levelDbu.normal, noiseDbu ?? LOW, 'var(--live)')}
      {peakDbu !== null && (
        <line {...across} y1={up(peakDbu)} y2={up(peakDbu)} stroke="var(--ink)" strokeWidth={1.5} />
      )}
      {noiseDbu !== null && bar(noiseDbu, LOW, 'var(--rule)')}
      {station.clipDbu !== null && station.clipDbu > LOW && (
        <path
          d={`M${middle - 9} ${up(station.clipDbu)}h18`}
          stroke="var(--ink)"
          strokeWidth={2.5}
          strokeDasharray="4 2"
        />
      )}
    </svg>
  );
}
