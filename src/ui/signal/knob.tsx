'use client';
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import type { Parameter } from '../../core/kinds';
import { clockHour } from '../../core/units';

type KnobParameter = Extract<Parameter, { type: 'knob' }>;

/** How far up or down a pointer goes from one end of a knob to the other, in pixels. */
const TRAVEL = 120;

/** What each key turns a knob by, as a share of its whole way. */
const KEYS: Record<string, number> = {
  ArrowUp: 1 / 20,
  ArrowRight: 1 / 20,
  ArrowDown: -1 / 20,
  ArrowLeft: -1 / 20,
  PageUp: 1 / 5,
  PageDown: -1 / 5,
  Home: -1,
  End: 1,
};

/** Where a knob stands while a hand is on it, and what the hand does: the rig hears of it when it lets go. */
function useTurning(parameter: KnobParameter, value: number, onChange: (value: number) => void) {
  const [live, setLive] = useState(value);
  const drag = useRef<{ y: number; from: number } | null>(null);
  useEffect(() => setLive(value), [value]);
  const span = parameter.max - parameter.min;
  const clamp = (v: number) =>
    Math.min(parameter.max, Math.max(parameter.min, Math.round(v * 10) / 10));
  return {
    live,
    hand: {
      onKeyDown: (e: KeyboardEvent) => {
        const step = KEYS[e.key];
        if (step === undefined) return;
        e.preventDefault();
        e.stopPropagation();
        const next = clamp(live + step * span);
        setLive(next);
        if (next !== live) onChange(next);
      },
      onPointerDown: (e: PointerEvent) => {
        drag.current = { y: e.clientY, from: live };
        e.currentTarget.setPointerCapture(e.pointerId);
      },
      onPointerMove: (e: PointerEvent) =>
        drag.current &&
        setLive(clamp(drag.current.from + ((drag.current.y - e.clientY) / TRAVEL) * span)),
      onPointerUp: () => {
        if (drag.current && live !== drag.current.from) onChange(live);
        drag.current = null;
      },
    },
  };
}

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
  const { live, hand } = useTurning(parameter, value, onChange);
  const reading = parameter.unit ? `${live} ${parameter.unit}` : clockHour(live);
  const detail = parameter.unit
    ? ''
    : `${live.toFixed(1)}${parameter.reads ? ` · ${parameter.reads(live, figure)}` : ''}`;
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
        {...hand}
      >
        <Face share={(live - parameter.min) / (parameter.max - parameter.min)} />
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

/** The knob drawn, its pointer at a share of its way. */
function Face({ share }: { share: number }) {
  return (
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
        transform={`rotate(${-150 + 300 * share})`}
      />
    </svg>
  );
}
