'use client';
import { type Dispatch, type SetStateAction, useState } from 'react';
import {
  CartesianGrid,
  Legend,
  Line,
  LineChart,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { allControls, STEPS, stepsOf } from '../../core/control';
import type { Reached } from '../../core/control/reach';
import type { Control } from '../../core/rig/schema';
import type { DestinationFigures } from '../../core/signal/destinations';
import { fixed } from '../../core/units';
import { useAnswer } from '../look/use-answer';
import { useDocument, useRig } from '../store/use-rig';

const DASHES = ['', '7 3', '2 3', '10 3 2 3', '4 4', '1 4', '12 4'];

/**
 * Which control reaches which destination in this sound, found by turning each from end to end; and
 * one control's sweep, drawn.
 */
export function ReachView() {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const report = useRig((s) => s.report);
  const controls = allControls(rig).filter((c) => c.type !== 'tap' && c.type !== 'tempo');
  const [picked, setPicked] = useState<string | null>(null);
  const control = controls.find((c) => c.id === picked) ?? controls[0];
  const table = useAnswer('reachTable', { sound });
  const sweep = useAnswer('sweep', control ? { sound, control: control.id } : null);
  const destinations = report.sounds[0]?.destinations ?? [];
  if (!controls.length)
    return (
      <div className="empty common-gap-2">
        No control moves anything yet. Set one up under Controls, or put a volume pedal into the
        walk.
      </div>
    );
  const heard = sweep?.destinations.filter((d) => d.levels.some((l) => l !== null)) ?? [];
  const moving = heard.filter((d) => d.verdict !== 'stays level');
  const shown = moving.length ? moving : heard;
  const chart =
    sweep?.at.map((at, i) => ({
      at,
      ...Object.fromEntries(shown.map((d) => [d.device, d.levels[i]])),
    })) ?? [];
  const steps =
    control && control.assigns[0] ? stepsOf(rig, control, control.assigns[0].device) : 0;
  return (
    <div className="scroll common-box-2">
      <p className="faint common-text-3">
        Each control was turned from end to end in {rig.sounds.find((s) => s.id === sound)?.name},
        and the whole rig evaluated at both. In an empty cell nothing that is heard changes: no
        level of any side or source, tone, hiss, latency or effect.
      </p>
      <ReachTable
        destinations={destinations}
        controls={controls}
        table={table}
        control={control}
        setPicked={setPicked}
      />
      {control && (
        <>
          <h3>{control.name}, heel to toe</h3>
          <div className="reach-view-columns">
            <SweepChart shown={shown} control={control} chart={chart} />
            <SweepTable control={control} heard={heard} />
          </div>
          <p className="faint common-text-2">
            {sweep ? `Evaluated at ${sweep.at.length} positions. ` : 'Working it out … '}
            {steps === Infinity
              ? 'It moves in the signal itself, without steps.'
              : steps === STEPS.controlChange
                ? 'It goes over MIDI, in 128 steps.'
                : steps === STEPS.direct
                  ? 'Its device reads it directly, in about 1024 steps (typical).'
                  : ''}{' '}
            A linear crossfade between equal unrelated signals dips 3.01 dB half way; of one and the
            same signal it does not.
          </p>
        </>
      )}
    </div>
  );
}

/** The sweep in figures: the level at the ends and between. */
function SweepTable({
  control,
  heard,
}: {
  control: Control;
  heard: {
    device: string;
    name: string;
    levels: (number | null)[];
    verdict: string;
    dipDb: number;
    bumpDb: number;
  }[];
}) {
  return (
    <table className="sheet-table figures reach-view-table" data-table="sweep">
      <thead>
        <tr>
          <th>At</th>
          <th>{control.type === 'pedal' ? 'Heel' : 'Off'}</th>
          <th>Half</th>
          <th>{control.type === 'pedal' ? 'Toe' : 'On'}</th>
          <th>On the way it</th>
        </tr>
      </thead>
      <tbody>
        {heard.map((d) => {
          const level = (x: number | null | undefined) =>
            x === null || x === undefined ? 'silent' : `${fixed(x)} dBu`;
          return (
            <tr key={d.device} data-sweep={d.device}>
              <td>{d.name}</td>
              <td>{level(d.levels[0])}</td>
              <td>{level(d.levels[(d.levels.length - 1) / 2])}</td>
              <td>{level(d.levels.at(-1))}</td>
              <td>
                <strong>{d.verdict}</strong>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** What is heard while the control goes from one end to the other. */
function SweepChart({
  shown,
  control,
  chart,
}: {
  shown: {
    device: string;
    name: string;
    levels: (number | null)[];
    verdict: string;
    dipDb: number;
    bumpDb: number;
  }[];
  control: Control;
  chart: { at: number }[];
}) {
  return (
    <div
      className="reach-view-div"
      role="img"
      aria-label={`Level at ${shown.length} destinations while ${control.name} goes from end to end`}
    >
      <ResponsiveContainer>
        <LineChart data={chart} margin={{ top: 8, right: 12, bottom: 14, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" strokeDasharray="2 3" />
          <XAxis
            dataKey="at"
            type="number"
            domain={[0, 100]}
            unit=" %"
            ticks={[0, 25, 50, 75, 100]}
            tick={{ fontSize: 11, fill: 'var(--faint)' }}
          />
          <YAxis
            unit=" dBu"
            width={72}
            domain={['auto', 'auto']}
            tick={{ fontSize: 11, fill: 'var(--faint)' }}
            tickFormatter={(v: number) => fixed(v, 0)}
          />
          <ReferenceLine x={50} stroke="var(--rule)" />
          <Tooltip
            formatter={(v) => `${fixed(Number(v))} dBu`}
            labelFormatter={(v) => `${fixed(Number(v), 0)} %`}
            contentStyle={{
              background: 'var(--raised)',
              color: 'var(--ink)',
              border: '1px solid var(--rule)',
            }}
          />
          <Legend
            iconSize={34}
            wrapperStyle={{ fontSize: 12 }}
            formatter={(name) => <span className="common-text-4">{name}</span>}
          />
          {shown.map((d, i) => (
            <Line
              key={d.device}
              dataKey={d.device}
              name={d.name}
              legendType="plainline"
              stroke="var(--ink)"
              strokeWidth={2}
              strokeDasharray={DASHES[i % DASHES.length]}
              dot={false}
              isAnimationActive={false}
              connectNulls={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}

/** Each control, and what it moves at each destination. */
function ReachTable({
  destinations,
  controls,
  table,
  control,
  setPicked,
}: {
  destinations: DestinationFigures[];
  controls: Control[];
  table: { control: string; reached: Reached[] }[] | null;
  control: Control | undefined;
  setPicked: Dispatch<SetStateAction<string | null>>;
}) {
  return (
    <table className="sheet-table figures" data-table="reach">
      <thead>
        <tr>
          <th>Control</th>
          {destinations.map((d) => (
            <th key={d.device}>{d.name}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {controls.map((c) => {
          const reached = table?.find((t) => t.control === c.id)?.reached;
          return (
            <tr
              key={c.id}
              data-click
              data-reach={c.id}
              aria-current={c === control}
              tabIndex={0}
              onClick={() => setPicked(c.id)}
              onKeyDown={(e) => e.key === 'Enter' && setPicked(c.id)}
            >
              <td>
                <strong>{c.name}</strong>
              </td>
              {destinations.map((d) => {
                const hit = reached?.find((r) => r.destination === d.device);
                return (
                  <td key={d.device} data-reached={`${c.id} ${d.device}`}>
                    {reached === undefined ? '…' : hit ? hit.what.join(', ') : ''}
                  </td>
                );
              })}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
