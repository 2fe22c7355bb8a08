'use client';
import { deviceOf, jackLabels, nameOf } from '../../core/rig';
import { type StationFigures, touchWord } from '../../core/signal';
import { fixed, showChange, showLevel, withPrefix } from '../../core/units';
import { useDocument, useRig } from '../store/use-rig';

/** What one pass does to level, noise, saturation and latency in the chosen sound. */
export function InThisSound({ station, passes }: { station: StationFigures; passes: number }) {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  const { input, output } = station;
  const level = (v: number | null | undefined) => showLevel(v ?? null, units.level);
  const delta = (a: number | null | undefined, b: number | null | undefined) =>
    a === null || a === undefined || b === null || b === undefined ? 'none' : showChange(b - a);
  const thd = output.thdPercent;
  return (
    <>
      <h3>
        What it does here
        {passes > 1
          ? ` (pass by ${jackLabels(deviceOf(rig, station.device), station.ins) || 'itself'})`
          : ''}
      </h3>
      <dl className="pairs figures">
        <dt>Level, normal picking</dt>
        <dd>{level(output.levelDbu?.normal)}</dd>
        {input && (
          <>
            <dt>Changes level by</dt>
            <dd>{delta(input.levelDbu?.normal, output.levelDbu?.normal)}</dd>
          </>
        )}
        {station.gainDb !== null && (
          <>
            <dt>Small-signal gain</dt>
            <dd>{showChange(station.gainDb)}</dd>
          </>
        )}
        <dt>Noise</dt>
        <dd>{level(output.noiseDbu)}</dd>
        {input && (
          <>
            <dt>Changes noise by</dt>
            <dd>{delta(input.noiseDbu, output.noiseDbu)}</dd>
          </>
        )}
        <dt>Most of the noise from</dt>
        <dd>{output.noisiest ? nameOf(rig, output.noisiest) : 'none'}</dd>
        {thd && (
          <>
            <dt>Saturation soft / normal / hard</dt>
            <dd>
              {fixed(thd.soft)} / {fixed(thd.normal)} / {fixed(thd.hard)} %
            </dd>
            <dt>That is</dt>
            <dd>
              {touchWord(thd.soft / 100)}, {touchWord(thd.normal / 100)},{' '}
              {touchWord(thd.hard / 100)}
            </dd>
          </>
        )}
        {station.headroomDb !== null && (
          <>
            <dt>Headroom</dt>
            <dd>{fixed(station.headroomDb)} dB</dd>
          </>
        )}
        {input && input.lossDb !== null && (
          <>
            <dt>Lost into its input</dt>
            <dd>
              {fixed(input.lossDb, 2)} dB
              {input.sourceOhms !== null && input.loadOhms !== null
                ? ` (${withPrefix(input.sourceOhms, 'Ω')} into ${withPrefix(input.loadOhms, 'Ω')})`
                : ''}
            </dd>
          </>
        )}
        <dt>Latency so far</dt>
        <dd>
          {fixed(output.latencyMs ?? 0, 2)} ms
          {input && output.latencyMs !== null && input.latencyMs !== null
            ? `, of it ${fixed(output.latencyMs - input.latencyMs, 2)} here`
            : ''}
        </dd>
        <dt>Width</dt>
        <dd>{station.width}</dd>
      </dl>
    </>
  );
}
