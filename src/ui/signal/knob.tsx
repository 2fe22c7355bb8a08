'use client';
import { useEffect, useRef, useState } from 'react';
import type { Parameter } from '../../core/kinds';
import { clockHour } from '../../core/units';

type KnobParameter = Extract<Parameter, { type: 'knob' }>;

/** A knob set by dragging up and down, by arrow keys, or by typing; 0 to 10 reads as clock hours. */
export function Knob({
  parameter,
  value,
  figure,
  onChange,
  own,
}: {
  parameter: KnobParameter;
  value: number;
  figure: (id: string) => number;
  onChange: (value: number) => void;
  own: boolean;
}) {
  const [live, setLive] = useState(value);
  const drag = useRef<{ y: number; from: number } | null>(null);
  useEffect(() => setLive(value), [value]);
  const span = parameter.max - parameter.min;
  const clamp = (v: number) =>
    Math.min(parameter.max, Math.max(parameter.min, Math.round(v * 10) / 10));
  const share = (live - parameter.min) / span;
  const angle = -150 + 300 * share;
  const reading = parameter.unit ? `${live} ${parameter.unit}` : clockHour(live);
  const detail = parameter.unit
    ? ''
    : `${live.toFixed(1)}${parameter.reads ? ` · ${parameter.reads(live, figure)}` : ''}`;
  const keys: Record<string, number> = {
    ArrowUp: span / 20,
    ArrowRight: span / 20,
    ArrowDown: -span / 20,
    ArrowLeft: -span / 20,
    PageUp: span / 5,
    PageDown: -span / 5,
    Home: -span,
    End: span,
  };
  return (
    <div className="knob">
      <span
        role="slider"
        tabIndex={0}
        aria-label={parameter.label}
        aria-valuemin={parameter.min}
        aria-valuemax={parameter.max}
        aria-valuenow={live}
        aria-valuetext={`${reading} ${detail}`}
        onKeyDown={(e) => {
          const step = keys[e.key];
          if (step === undefined) return;
          e.preventDefault();
          e.stopPropagation();
          const next = clamp(live + step);
          setLive(next);
          if (next !== live) onChange(next);
        }}
        onPointerDown={(e) => {
          drag.current = { y: e.clientY, from: live };
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={(e) =>
          drag.current &&
          setLive(clamp(drag.current.from + ((drag.current.y - e.clientY) / 120) * span))
        }
        onPointerUp={() => {
          if (drag.current && live !== drag.current.from) onChange(live);
          drag.current = null;
        }}
      >
        <svg width="46" height="46" viewBox="-23 -23 46 46" aria-hidden>
          <path
            d="M-10.5 18.2A21 21 0 1 1 10.5 18.2"
            fill="none"
            stroke="var(--rule)"
            strokeWidth="2"
          />
          <circle r="16" fill="var(--raised)" stroke="var(--ink)" strokeWidth="1.5" />
          <line
            x1="0"
            y1="-6"
            x2="0"
            y2="-16"
            stroke="var(--ink)"
            strokeWidth="3"
            strokeLinecap="round"
            transform={`rotate(${angle})`}
          />
        </svg>
      </span>
      <div>
        <strong>{parameter.label}</strong>
      </div>
      <div>
        {reading}
        {own ? '' : ' *'}
      </div>
      <div className="figures faint common-text">{detail}</div>
    </div>
  );
}
