'use client';
import { type Change, hex, messageWords } from '../../core/midi';
import type { Sent } from '../../core/midi/bus';
import type { Landing } from '../../core/midi/landing';
import { sure } from '../../core/outcome';
import { deviceOf, endWords, nameOf } from '../../core/rig';
import { fixed, howMany } from '../../core/units';
import { useDocument } from '../store/use-rig';

const SIZE = { left: 210, right: 70, row: 24, bar: 14, top: 22 };
const WIDTH = 1240;

/** Ticks of a scale that has room for about ten. */
function ticksFor(until: number): number[] {
  const rough = until / 10;
  const base = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((k) => k * base).find((s) => s >= rough) ?? rough;
  return Array.from({ length: Math.floor(until / step) + 1 }, (_, i) => i * step);
}

/**
 * A change drawn over time: a row for each lead that carries something, a row for each device from
 * when it was told until it is in place.
 */
export function BusTimeline({ change }: { change: Change }) {
  const leads = [
    ...new Set(
      change.traffic.sent.filter((s) => s.message.type !== 'clock').map((s) => `${s.lead}>${s.to}`),
    ),
  ];
  const devices = change.order.map((o) => o.device);
  const until =
    Math.max(
      1,
      change.doneMs,
      ...change.traffic.sent.filter((s) => s.message.type !== 'clock').map((s) => s.end),
    ) * 1.04;
  const x = (ms: number) => SIZE.left + ((WIDTH - SIZE.left - SIZE.right) * ms) / until;
  const rows = leads.length + devices.length;
  const height = SIZE.top + rows * SIZE.row + 8;
  const y = (row: number) => SIZE.top + row * SIZE.row;
  if (!rows) return null;
  return (
    <svg
      className="timeline bus-timeline-width"
      viewBox={`0 0 ${WIDTH} ${height}`}

      role="img"
      aria-label={
        `Messages on ${howMany(leads.length, 'lead')} and ${howMany(devices.length, 'device')}; all in place ` +
        `after ${fixed(change.doneMs, 2)} ms`
      }
      data-timeline
    >
      {ticksFor(until).map((t) => (
        <g key={t}>
          <line x1={x(t)} x2={x(t)} y1={SIZE.top - 4} y2={height} stroke="var(--rule)" />
          <text x={x(t)} y={12} fontSize={11} textAnchor="middle" fill="var(--faint)">
            {Number(t.toFixed(3))} ms
          </text>
        </g>
      ))}
      {leads.map((key, i) => (
        <LeadRow key={key} lead={key} x={x} y={y} i={i} change={change} until={until} />
      ))}
      {devices.map((id, n) => {
        const row = leads.length + n;
        const mine = change.landings.filter((l) => l.device === id && l.effect.what !== 'bank');
        const last = sure(mine.at(-1));
        return <Landings key={id} id={id} y={y} row={row} mine={mine} x={x} last={last} />;
      })}
    </svg>
  );
}

/** What one lead carries towards one device; `lead` is the id of the lead, ">" and the device. */
function LeadRow({
  lead,
  x,
  y,
  i,
  change,
  until,
}: {
  lead: string;
  x: (ms: number) => number;
  y: (row: number) => number;
  i: number;
  change: Change;
  until: number;
}) {
  const rig = useDocument();
  const [id, to] = lead.split('>');
  const l = rig.leads.find((q) => q.id === id);
  return (
    <g>
      <text x={4} y={y(i) + 15} fontSize={12} fill="var(--ink)">
        <title>{endWords(rig, l?.from ?? { device: '', jack: '' })}</title>
        {l
          ? `${nameOf(rig, to === l.to.device ? l.from.device : l.to.device)} → ${nameOf(rig, sure(to))}`
          : lead}
      </text>
      <line
        x1={SIZE.left}
        x2={WIDTH - SIZE.right}
        y1={y(i) + 11}
        y2={y(i) + 11}
        stroke="var(--rule)"
      />
      {change.traffic.sent
        .filter((s) => `${s.lead}>${s.to}` === lead && s.start <= until)
        .map((s, k) => {
          const w = Math.max(1.5, x(s.end) - x(s.start) - 1);
          return s.message.type === 'clock' ? (
            <line
              key={k}
              x1={x(s.start)}
              x2={x(s.start)}
              y1={y(i) + 2}
              y2={y(i) + 20}
              stroke="var(--faint)"
              strokeWidth={1.5}
            >
              <title>{`clock, ${fixed(s.start, 2)} ms`}</title>
            </line>
          ) : (
            <SentMessage key={k} x={x} s={s} y={y} i={i} w={w} />
          );
        })}
    </g>
  );
}

/** When each change lands on one device. */
function Landings({
  id,
  y,
  row,
  mine,
  x,
  last,
}: {
  id: string;
  y: (row: number) => number;
  row: number;
  mine: Landing[];
  x: (ms: number) => number;
  last: Landing;
}) {
  const rig = useDocument();
  return (
    <g data-lands={id}>
      <text x={4} y={y(row) + 15} fontSize={12} fontWeight={700} fill="var(--ink)">
        {deviceOf(rig, id)?.name}
      </text>
      {mine.map((l, k) => (
        <g key={k}>
          <rect
            x={x(l.arrived)}
            y={y(row) + 4}
            width={Math.max(2, x(l.at) - x(l.arrived))}
            height={SIZE.bar}
            fill="var(--tape)"
            stroke="var(--tape-edge)"
          >
            <title>{`told at ${fixed(l.arrived, 2)} ms, in place at ${fixed(l.at, 2)} ms`}</title>
          </rect>
          {l.silentFrom !== undefined && (
            <rect
              x={x(Math.max(0, l.silentFrom))}
              y={y(row) + 8}
              width={Math.max(1, x(l.at) - x(Math.max(0, l.silentFrom)))}
              height={6}
              fill="var(--ink)"
            >
              <title>silent while it loads</title>
            </rect>
          )}
        </g>
      ))}
      <text x={x(last.at) + 5} y={y(row) + 15} fontSize={11} fill="var(--ink)">
        {fixed(last.at, 1)} ms
      </text>
    </g>
  );
}

/** One message on a wire, as long as it takes. */
function SentMessage({
  x,
  s,
  y,
  i,
  w,
}: {
  x: (ms: number) => number;
  s: Sent;
  y: (row: number) => number;
  i: number;
  w: number;
}) {
  return (
    <g>
      <rect
        x={x(s.start)}
        y={y(i) + 4}
        width={w}
        height={SIZE.bar}
        rx={1}
        fill={s.message.type === 'program' ? 'var(--ink)' : 'var(--faint)'}
      >
        <title>
          {`${hex(s.bytes)}: ${messageWords(s.message)}, ${fixed(s.start, 2)} ` +
            `to ${fixed(s.end, 2)} ms`}
        </title>
      </rect>
      {w > 62 && (
        <text
          x={x(s.start) + 4}
          y={y(i) + 15}
          fontSize={10}
          fill="var(--sheet)"
          pointerEvents="none"
        >
          {hex(s.bytes)}
        </text>
      )}
    </g>
  );
}
