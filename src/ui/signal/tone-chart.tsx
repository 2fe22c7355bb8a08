'use client';
import { useEffect, useState } from 'react';
import {
  CartesianGrid,
  Legend,
  Line,
  LineChart,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { PickupTone } from '../../core/analysis';
import { DEFAULT_REFERENCE, nameOf } from '../../core/rig';
import type { Reference } from '../../core/rig/schema';
import { fixed, showChange, withPrefix } from '../../core/units';
import { useDocument, useRig } from '../store/use-rig';

const TICKS = [50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000];
const hertz = (v: number) => (v >= 1000 ? `${v / 1000}k` : String(v));

/**
 * Response from a bare pickup to the first active input, as wired in this sound, against the
 * reference lead.
 */
export function ToneChart({ pickup }: { pickup: string }) {
  const rig = useDocument();
  const door = useRig((s) => s.door);
  const sound = useRig((s) => s.sound);
  const report = useRig((s) => s.report);
  const [tone, setTone] = useState<PickupTone | undefined>();
  useEffect(() => {
    let wanted = true;
    door?.ask('tone', { sound, pickup }).then(
      (t) => wanted && setTone(t),
      () => wanted && setTone(undefined),
    );
    return () => {
      wanted = false;
    };
  }, [door, sound, pickup, report]);
  if (!tone) return null;
  const reference = rig.reference ?? DEFAULT_REFERENCE;
  const against = tone.now.at5kHzDb - tone.reference.at5kHzDb;
  return (
    <section>
      <h3>
        Tone, {nameOf(rig, tone.pickup)} to {nameOf(rig, tone.listener)}
      </h3>
      <ToneCurve tone={tone} reference={reference} />
      <dl className="pairs figures">
        <dt>Peak</dt>
        <dd>
          {tone.now.peakHz && tone.now.peakDb !== null
            ? `${showChange(tone.now.peakDb, 2)} at ${withPrefix(tone.now.peakHz, 'Hz')}`
            : 'none'}
        </dd>
        <dt>At 5 kHz</dt>
        <dd>{showChange(tone.now.at5kHzDb, 2)}</dd>
        <dt>Against the reference, 5 kHz</dt>
        <dd>{showChange(against)}</dd>
        <dt>3 dB under 1 kHz</dt>
        <dd>{tone.now.minus3dBHz ? withPrefix(tone.now.minus3dBHz, 'Hz') : 'above 100 MHz'}</dd>
      </dl>
    </section>
  );
}

/** The curve of the section, from the lowest to the highest frequency. */
function ToneCurve({ tone, reference }: { tone: PickupTone; reference: Reference }) {
  return (
    <div
      className="tone-chart-div"
      role="img"
      aria-label={
        `Response: peak ${tone.now.peakHz ? withPrefix(tone.now.peakHz, 'Hz') : 'none'}, ` +
        `${fixed(tone.now.at5kHzDb)} dB at 5 kHz`
      }
    >
      <ResponsiveContainer>
        <LineChart data={tone.curve} margin={{ top: 4, right: 6, bottom: 0, left: -22 }}>
          <CartesianGrid stroke="var(--rule)" strokeDasharray="2 3" />
          <XAxis
            dataKey="hertz"
            type="number"
            scale="log"
            domain={[50, 20_000]}
            ticks={TICKS}
            tickFormatter={hertz}
            allowDataOverflow
            tick={{ fontSize: 10, fill: 'var(--faint)' }}
          />
          <YAxis
            domain={[-24, 12]}
            ticks={[-24, -18, -12, -6, 0, 6, 12]}
            allowDataOverflow
            tick={{ fontSize: 10, fill: 'var(--faint)' }}
          />
          <Tooltip
            formatter={(v) => `${fixed(Number(v))} dB`}
            labelFormatter={(v) => withPrefix(Number(v), 'Hz')}
            contentStyle={{
              background: 'var(--raised)',
              color: 'var(--ink)',
              border: '1px solid var(--rule)',
            }}
          />
          <Legend iconType="plainline" wrapperStyle={{ fontSize: 11 }} />
          <Line
            name="as wired, dB"
            dataKey="now"
            dot={false}
            stroke="var(--ink)"
            strokeWidth={2.5}
            isAnimationActive={false}
          />
          <Line
            name={`reference: ${reference.metres} m, ${withPrefix(reference.ohms, 'Ω')}`}
            dataKey="reference"
            dot={false}
            stroke="var(--faint)"
            strokeWidth={1.5}
            strokeDasharray="5 4"
            isAnimationActive={false}
          />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
