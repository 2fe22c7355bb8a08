'use client';
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import type { Parameter } from '../../core/kinds';
import { asSet, clockHour, readKnob } from '../../core/units';

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

/** A step by keys while Shift is held is so much finer. */
const FINE = 5;
/** While a hand turns a knob, figures follow about so often, in ms. */
const FOLLOW_MS = 60;

/**
 * Where a knob stands while a hand is on it, and what the hand does: the rig follows while it turns, and has
 * the last of it when it lets go.
 */
function useTurning(
  parameter: KnobParameter,
  value: number,
  onChange: (value: number, going?: string) => void,
) {
  const [live, setLive] = useState(value);
  const drag = useRef<{ y: number; from: number; told: number; at: number; going: string } | null>(
    null,
  );
  useEffect(() => {
    if (!drag.current) setLive(value);
  }, [value]);
  const span = parameter.max - parameter.min;
  const clamp = (v: number) =>
    Math.min(parameter.max, Math.max(parameter.min, Math.round(v * 10) / 10));
  const put = (next: number) => {
    setLive(next);
    if (next !== live) onChange(next);
  };
  return {
    live,
    put: (v: number) => put(clamp(v)),
    hand: {
      onKeyDown: (e: KeyboardEvent) => {
        const step = KEYS[e.key];
        if (step === undefined) return;
        e.preventDefault();
        e.stopPropagation();
        put(clamp(live + (step * span) / (e.shiftKey ? FINE : 1)));
      },
      onPointerDown: (e: PointerEvent) => {
        // One turning by a hand is one step in the history: each has a name of its own.
        const going = `knob ${e.timeStamp}`;
        drag.current = { y: e.clientY, from: live, told: live, at: e.timeStamp, going };
        e.currentTarget.setPointerCapture(e.pointerId);
      },
      onPointerMove: (e: PointerEvent) => {
        const turn = drag.current;
        if (!turn) return;
        const next = clamp(turn.from + ((turn.y - e.clientY) / TRAVEL) * span);
        setLive(next);
        if (next === turn.told || e.timeStamp - turn.at < FOLLOW_MS) return;
        [turn.told, turn.at] = [next, e.timeStamp];
        onChange(next, turn.going);
      },
      onPointerUp: () => {
        const turn = drag.current;
        drag.current = null;
        if (turn && live !== turn.told) onChange(live, turn.going);
      },
      onDoubleClick: () => put(parameter.initial),
    },
  };
}

/** What is being typed for a knob: a number in its unit, or where it points by the clock. */
function TypedValue({
  parameter,
  first,
  onDone,
}: {
  parameter: KnobParameter;
  first: string;
  onDone: (value: number | undefined) => void;
}) {
  const [text, setText] = useState(first);
  const [isWrong, setWrong] = useState(false);
  const read = () => {
    const number = Number(text.trim().replace(',', '.').replace('−', '-'));
    if (!parameter.unit) return readKnob(text);
    return text.trim() && Number.isFinite(number) ? number : undefined;
  };
  return (
    <input
      className="knob-field"
      ref={(field) => field?.focus()}
      aria-label={`${parameter.label}, typed`}
      aria-invalid={isWrong}
      title={parameter.unit ? `in ${parameter.unit}` : 'a number, or half past 2, noon, 3:15'}
      value={text}
      onChange={(e) => {
        setText(e.currentTarget.value);
        setWrong(false);
      }}
      onBlur={() => onDone(read())}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape') onDone(undefined);
        else if (e.key !== 'Enter') return;
        else if (read() === undefined) setWrong(true);
        else onDone(read());
      }}
    />
  );
}

/**
 * A knob set by dragging up and down, by arrow keys (finer with Shift), or by typing a value or where it
 * points; a double press puts it back to where it starts. 0 to 10 reads as clock hours.
 */
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
  onChange: (value: number, going?: string) => void;
  own: boolean;
}) {
  const { live, put, hand } = useTurning(parameter, value, onChange);
  const [typed, setTyped] = useState<string>();
  const knob = useRef<HTMLSpanElement>(null);
  const reading = parameter.unit ? asSet(live, parameter.unit) : clockHour(live);
  const detail = parameter.unit
    ? ''
    : `${live.toFixed(1)}${parameter.reads ? ` · ${parameter.reads(live, figure)}` : ''}`;
  const onKeyDown = (e: KeyboardEvent) => {
    const isTyped = /^[\d.,−-]$/.test(e.key) && !e.ctrlKey && !e.metaKey && !e.altKey;
    if (!isTyped) return hand.onKeyDown(e);
    // A digit is for the knob that has the focus, not for the sound of that number.
    e.preventDefault();
    e.stopPropagation();
    setTyped(e.key);
  };
  return (
    <div className="knob">
      <span
        ref={knob}
        role="slider"
        tabIndex={0}
        aria-label={parameter.label}
        aria-valuemin={parameter.min}
        aria-valuemax={parameter.max}
        aria-valuenow={live}
        aria-valuetext={`${reading} ${detail}`}
        {...hand}
        onKeyDown={onKeyDown}
      >
        <Face share={(live - parameter.min) / (parameter.max - parameter.min)} />
      </span>
      <div>
        <strong>{parameter.label}</strong>
      </div>
      {typed === undefined ? (
        <div>
          {reading}
          {own ? '' : ' *'}
        </div>
      ) : (
        <TypedValue
          parameter={parameter}
          first={typed}
          onDone={(v) => {
            setTyped(undefined);
            knob.current?.focus();
            if (v !== undefined) put(v);
          }}
        />
      )}
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
