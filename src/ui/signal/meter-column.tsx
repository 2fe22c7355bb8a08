'use client';
import { memo } from 'react';
import { type PlacedStation, SIZE } from '../../core/draw';
import { useRig } from '../store/use-rig';
import type { METER_ROWS } from './meter-rows';

/** The ends of a meter, in dBu. */
export const LOW = -115;
export const HIGH = 35;
const up = (dbu: number) =>
  SIZE.meter - 4 - ((Math.max(LOW, Math.min(HIGH, dbu)) - LOW) / (HIGH - LOW)) * (SIZE.meter - 8);

/**
 * The bar between noise and clip, and the figures, of one station; what differs in place of the bar
 * while two sounds are compared.
 */
export const MeterColumn = memo(function MeterColumn({
  placed,
  shown,
  differs,
  levelDb,
}: {
  placed: PlacedStation;
  shown: readonly (typeof METER_ROWS)[number][];
  differs: string[] | null;
  levelDb: number | null;
}) {
  const units = useRig((s) => s.units);
  const { station, x, y, width } = placed;
  const { levelDbu, noiseDbu, peakDbu } = station.output;
  const middle = width / 2;
  const top = y + SIZE.label + 3;
  if (placed.folded) return null;
  return (
    <div data-figures={station.id}>
      {!placed.narrow && differs && (
        <div
          className="differs"
          data-differs={station.device}
          title={differs.join('\n')}
          style={{ left: x - 12, top, width: width + 24, height: SIZE.meter }}
        >
          {differs.slice(0, 3).map((w) => (
            <div key={w}>{w}</div>
          ))}
          {levelDb !== null && Math.abs(levelDb) >= 0.05 && (
            <strong className="figures">
              {levelDb > 0 ? '+' : '−'}
              {Math.abs(levelDb).toFixed(1)} dB
            </strong>
          )}
        </div>
      )}
      {!placed.narrow && !differs && (
        <svg
          className="meter"
          style={{ left: x, top }}
          width={width}
          height={SIZE.meter}
          aria-hidden
        >
          <line
            x1={middle}
            x2={middle}
            y1={up(HIGH)}
            y2={up(LOW)}
            stroke="var(--rule)"
            strokeWidth={1}
          />
          {levelDbu && (
            <rect
              x={middle - 5}
              width={10}
              y={up(levelDbu.normal)}
              height={Math.max(1, up(noiseDbu ?? LOW) - up(levelDbu.normal))}
              fill="var(--live)"
            />
          )}
          {peakDbu !== null && (
            <line
              x1={middle - 7}
              x2={middle + 7}
              y1={up(peakDbu)}
              y2={up(peakDbu)}
              stroke="var(--ink)"
              strokeWidth={1.5}
            />
          )}
          {noiseDbu !== null && (
            <rect
              x={middle - 5}
              width={10}
              y={up(noiseDbu)}
              height={Math.max(1, up(LOW) - up(noiseDbu))}
              fill="var(--rule)"
            />
          )}
          {station.clipDbu !== null && station.clipDbu > LOW && (
            <path
              d={`M${middle - 9} ${up(station.clipDbu)}h18`}
              stroke="var(--ink)"
              strokeWidth={2.5}
              strokeDasharray="4 2"
            />
          )}
        </svg>
      )}
      {!placed.narrow &&
        shown.map((r, n) => (
          <span
            key={r.id}
            className="cell figures"
            data-row={r.id}
            data-warn={r.warn?.(station) ?? false}
            title={`${r.name}: ${r.explain}`}
            style={{ left: x - 14, top: top + SIZE.meter + 1 + n * SIZE.row, width: width + 28 }}
          >
            {r.show(station, units)}
          </span>
        ))}
    </div>
  );
});
