import { useMemo } from 'react';
import { LEAD_DASH, LEAD_TAGS } from '../../../core/draw';
import { midiMap } from '../../../core/draw/midi-map';
import type { Severity } from '../../../core/findings/finding';
import { nameOf } from '../../../core/rig/find';
import { SeverityMark } from '../../look/severity';
import { useDocument } from '../../store/use-rig';
import { howMany } from '../../../core/units';

/** The devices and the leads between them, those that carry nothing marked. */
export function WiringMap({
  picked,
  onPick,
  worst,
}: {
  picked: string | null;
  onPick: (id: string) => void;
  worst: (id: string) => Severity | undefined;
}) {
  const rig = useDocument();
  const map = useMemo(() => midiMap(rig), [rig]);
  if (!map.boxes.length) return null;
  return (
    <svg
      className="wiring midi-map map-box"
      viewBox={`0 0 ${map.width} ${map.height}`}
      style={{ width: Math.min(map.width, 1240) }}
      role="group"
      aria-label={
        `${howMany(map.boxes.length, 'device')} joined by ` +
        `${howMany(map.lines.length, 'lead')} for messages and controls`
      }
    >
      {map.lines.map(({ lead, d, tag, broken, from, to }) => (
        <g key={lead.id} data-way={lead.id} data-broken={broken}>
          <title>
            {`${nameOf(rig, lead.from.device)}, ${from} ` +
              `to ${nameOf(rig, lead.to.device)}, ${to}${broken ? ': carries nothing' : ''}`}
          </title>
          <path
            d={d}
            fill="none"
            stroke={broken ? 'var(--fault)' : 'var(--ink)'}
            strokeWidth={broken ? 2.4 : 1.6}
            strokeDasharray={LEAD_DASH[lead.type]}
            markerEnd="url(#arrow)"
          />
          <text className="waytag" x={tag.x} y={tag.y - 4} textAnchor="middle">
            {broken ? '✕ ' : ''}
            {LEAD_TAGS[lead.type]}
          </text>
        </g>
      ))}
      <defs>
        <marker
          id="arrow"
          viewBox="0 0 8 8"
          refX="7"
          refY="4"
          markerWidth="7"
          markerHeight="7"
          orient="auto"
        >
          <path d="M0 0 L8 4 L0 8 z" fill="var(--ink)" />
        </marker>
      </defs>
      {map.boxes.map(({ device, x, y, width, height }) => {
        const severity = worst(device.id);
        return (
          <g
            key={device.id}
            className="box"
            data-on={picked === device.id}
            tabIndex={0}
            role="button"
            aria-label={device.name}
            onClick={() => onPick(device.id)}
            onKeyDown={(e) => e.key === 'Enter' && onPick(device.id)}
          >
            <rect x={x} y={y} width={width} height={height} rx={2} />
            <foreignObject x={x + 2} y={y + 2} width={width - 4} height={height - 4}>
              <div className="boxname map-columns">
                {device.name}
                {severity && (
                  <span className="map-span">
                    <SeverityMark severity={severity} quiet />
                  </span>
                )}
              </div>
            </foreignObject>
          </g>
        );
      })}
    </svg>
  );
}
