'use client';
import { MultiSelect, Select } from '@mantine/core';
import { useEffect, useState } from 'react';
import {
  Bar,
  CartesianGrid,
  ComposedChart,
  Legend,
  Line,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { BoostWorth } from '../../core/analysis';
import { gainLadder } from '../../core/report';
import type { Rung } from '../../core/report/ladder';
import { nameOf } from '../../core/rig';
import { touchWord } from '../../core/signal';
import { fixed, showChange, showLevel } from '../../core/units';
import { useDocument, useRig } from '../store/use-rig';

const FEW = 5;

/** The gain ladder over a run of sounds, as chart and table, and what each gain stage is worth. */
export function GainLadder() {
  const rig = useDocument();
  const report = useRig((s) => s.report);
  const units = useRig((s) => s.units);
  const destinations = report.sounds[0]?.destinations ?? [];
  const [chosen, setChosen] = useState<string[] | null>(null);
  const [at, setAt] = useState<string | null>(null);
  const destination =
    destinations.find((d) => d.device === at)?.device ??
    destinations.find((d) => d.levelDbu)?.device ??
    destinations[0]?.device;
  const run =
    chosen?.filter((id) => rig.sounds.some((s) => s.id === id)) ??
    rig.sounds.slice(0, FEW).map((s) => s.id);
  if (!destination)
    return (
      <div className="empty">
        No destination yet: connect a speaker or a console input, then the ladder can be figured.
      </div>
    );
  const rungs = gainLadder(rig, report, run, destination);
  const chart = rungs.map((r) => ({
    name: r.name,
    level: r.levelDbu,
    noise: r.idleNoiseDbu,
    soft: r.thdPercent?.soft,
    normal: r.thdPercent?.normal,
    hard: r.thdPercent?.hard,
  }));
  const level = (v: number | null) => showLevel(v, units.level);
  return (
    <div className="scroll common-box-2">
      <div className="gain-ladder-row">
        <MultiSelect
          searchable
          size="xs"
          label="Steps, in the order they are played"
          className="gain-ladder-width"
          data={rig.sounds.map((s) => ({ value: s.id, label: s.name }))}
          value={run}
          onChange={setChosen}
        />
        <Select
          searchable
          size="xs"
          label="Heard at"
          data={destinations.map((d) => ({ value: d.device, label: d.name }))}
          value={destination}
          onChange={setAt}
          allowDeselect={false}
        />
      </div>
      <LadderChart rungs={rungs} destination={destination} chart={chart} />
      <LadderTable rungs={rungs} level={level} />
      <p className="faint common-text-2">
        Brightness is how much louder 5 kHz is than 1 kHz by the filters on the way; what saturation
        adds comes on top. Presses count the switches that differ from the step before; a host or
        switcher with programs is one press. A drive’s knob that differs has to be turned by hand.
      </p>
      <Boosts destination={destination} />
    </div>
  );
}

/** The ladder in figures, sound by sound. */
function LadderTable({ rungs, level }: { rungs: Rung[]; level: (v: number | null) => string }) {
  const rig = useDocument();
  return (
    <table className="sheet-table numbers figures" data-table="ladder">
      <thead>
        <tr>
          <th>Step</th>
          <th>Level</th>
          <th>Change</th>
          <th>Saturation soft / normal / hard</th>
          <th>That is</th>
          <th>Brightness</th>
          <th>Idle noise</th>
          <th>S/N</th>
          <th>Presses</th>
        </tr>
      </thead>
      <tbody>
        {rungs.map((r) => (
          <tr key={r.sound} data-rung={r.sound}>
            <td>{r.name}</td>
            <td>{level(r.levelDbu)}</td>
            <td>{r.change ? showChange(r.change.levelDb) : ''}</td>
            <td>
              {r.thdPercent
                ? `${fixed(r.thdPercent.soft)} / ${fixed(r.thdPercent.normal)} / ${fixed(r.thdPercent.hard)} %`
                : '–'}
            </td>
            <td>
              {r.thdPercent
                ? `${touchWord(r.thdPercent.soft / 100)} → ${touchWord(r.thdPercent.hard / 100)}`
                : '–'}
            </td>
            <td>{r.brightnessDb === null ? '–' : showChange(r.brightnessDb)}</td>
            <td>{level(r.idleNoiseDbu)}</td>
            <td>{r.signalToNoiseDb === null ? '–' : `${fixed(r.signalToNoiseDb)} dB`}</td>
            <td title={r.pressed.map((d) => nameOf(rig, d)).join(', ')}>
              {r.change
                ? `${r.presses}` +
                  (r.presses ? `: ${r.pressed.map((d) => nameOf(rig, d)).join(', ')}` : '') +
                  (r.turned.length
                    ? `, and by hand ${r.turned.map((d) => nameOf(rig, d)).join(', ')}`
                    : '')
                : ''}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Saturation at three touches, in percent. */
const BARS = [
  { dataKey: 'soft', name: 'saturation, soft', fill: 'var(--tape)', stroke: 'var(--tape-edge)' },
  { dataKey: 'normal', name: 'saturation, normal', fill: 'var(--tape-edge)' },
  { dataKey: 'hard', name: 'saturation, hard', fill: 'var(--faint)' },
];

/** Level and idle noise, in dBu. */
const LINES = [
  { dataKey: 'level', name: 'level', strokeWidth: 2.5 },
  { dataKey: 'noise', name: 'idle noise', strokeDasharray: '3 4' },
];

/** The ladder drawn: how hot each sound is and how much it distorts. */
function LadderChart({
  rungs,
  destination,
  chart,
}: {
  rungs: Rung[];
  destination: string;
  chart: {
    name: string;
    level: number | null;
    noise: number | null;
    soft: number | undefined;
    normal: number | undefined;
    hard: number | undefined;
  }[];
}) {
  const rig = useDocument();
  return (
    <div
      className="gain-ladder-gap"
      role="img"
      aria-label={`Saturation and level of ${rungs.length} steps at ${nameOf(rig, destination)}`}
    >
      <ResponsiveContainer>
        <ComposedChart data={chart} margin={{ top: 8, right: 0, bottom: 0, left: -6 }}>
          <CartesianGrid stroke="var(--rule)" strokeDasharray="2 3" vertical={false} />
          <XAxis dataKey="name" tick={{ fontSize: 12, fill: 'var(--ink)' }} />
          <YAxis
            yAxisId="thd"
            domain={[0, 50]}
            unit=" %"
            tick={{ fontSize: 11, fill: 'var(--faint)' }}
          />
          <YAxis
            yAxisId="level"
            orientation="right"
            unit=" dBu"
            width={70}
            tick={{ fontSize: 11, fill: 'var(--faint)' }}
          />
          <Tooltip
            formatter={(v, n) =>
              `${fixed(Number(v))} ${String(n).startsWith('saturation') ? '%' : 'dBu'}`
            }
            contentStyle={{
              background: 'var(--raised)',
              color: 'var(--ink)',
              border: '1px solid var(--rule)',
            }}
          />
          <Legend
            wrapperStyle={{ fontSize: 12 }}
            formatter={(name) => <span className="common-text-4">{name}</span>}
          />
          {BARS.map((b) => (
            <Bar key={b.dataKey} yAxisId="thd" isAnimationActive={false} {...b} />
          ))}
          {LINES.map((l) => (
            <Line
              key={l.dataKey}
              yAxisId="level"
              stroke="var(--ink)"
              isAnimationActive={false}
              {...l}
            />
          ))}
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}

/**
 * Loudness against saturation of every engaged gain stage in the chosen sound: what is lost by
 * leaving it out.
 */
function Boosts({ destination }: { destination: string }) {
  const rig = useDocument();
  const door = useRig((s) => s.door);
  const sound = useRig((s) => s.sound);
  const report = useRig((s) => s.report);
  const [worths, setWorths] = useState<BoostWorth[] | null>(null);
  useEffect(() => {
    let wanted = true;
    door?.ask('boosts', { sound }).then(
      (w) => wanted && setWorths(w),
      () => wanted && setWorths([]),
    );
    return () => {
      wanted = false;
    };
  }, [door, sound, report]);
  const shown = worths?.filter((w) => w.destination === destination) ?? [];
  return (
    <>
      <h3>
        Loudness against saturation in {rig.sounds.find((s) => s.id === sound)?.name}, at{' '}
        {nameOf(rig, destination)}
      </h3>
      {worths === null ? (
        <p className="faint">Figuring …</p>
      ) : shown.length === 0 ? (
        <p className="faint">No gain stage is engaged on this way.</p>
      ) : (
        <table className="sheet-table numbers figures" data-table="boosts">
          <thead>
            <tr>
              <th>Gain stage</th>
              <th>Adds level</th>
              <th>Adds saturation</th>
              <th>So it gives</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((w) => (
              <tr key={w.device}>
                <td>{nameOf(rig, w.device)}</td>
                <td>{showChange(w.levelDb)}</td>
                <td>
                  {w.saturationPercent > 0 ? '+' : ''}
                  {fixed(w.saturationPercent)} %
                </td>
                <td>{w.verdict}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
