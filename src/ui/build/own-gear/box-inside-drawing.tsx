import { useMemo } from 'react';
import { boxInside } from '../../../core/draw/box-inside';
import { type Assembly, checkSheet } from '../../../core/rig';

/** The inside of a box as a small walk: jacks at its edges, parts between them. */
export function BoxInsideDrawing({ sheet }: { sheet: Assembly }) {
  const drawn = useMemo(() => (checkSheet(sheet).ok ? boxInside(sheet) : null), [sheet]);
  if (!drawn) return null;
  return (
    <svg
      className="own-gear-drawing"
      viewBox={`0 0 ${drawn.width} ${drawn.height}`}
      style={{ width: Math.min(drawn.width, 900) }}
      role="img"
      aria-label={`${sheet.name}: ${sheet.parts.map((p) => p.name).join(', ')}`}
    >
      {drawn.ways.map(({ id, points }) => (
        <polyline
          key={id}
          points={points.map((p) => `${p.x},${p.y}`).join(' ')}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.6}
        />
      ))}
      {drawn.boxes.map((b) => (
        <g key={`${b.is} ${b.id}`} data-inside={b.id}>
          <rect
            x={b.x}
            y={b.y}
            width={b.width}
            height={b.height}
            rx={b.is === 'jack' ? 13 : 2}
            fill={b.is === 'jack' ? 'var(--tape)' : 'var(--raised)'}
            stroke={b.is === 'jack' ? 'var(--tape-edge)' : 'var(--ink)'}
          />
          <text
            x={b.x + b.width / 2}
            y={b.y + b.height / 2 + 4}
            textAnchor="middle"
            fontSize={12}
            fontWeight={b.is === 'part' ? 700 : 400}
            fill={b.is === 'jack' ? 'var(--tape-ink)' : 'var(--ink)'}
          >
            {b.label.length > 19 ? `${b.label.slice(0, 18)}…` : b.label}
          </text>
        </g>
      ))}
    </svg>
  );
}
