'use client';
import {
  CartesianGrid,
  Line,
  LineChart,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { HeardNote } from '../../core/note';
import { BANDS } from '../../core/note/bands';
import { showLevel } from '../../core/units';
import { useDocument, useRig } from '../store/use-rig';

const band = (hertz: number) => (hertz >= 1000 ? `${hertz / 1000}k` : String(hertz));
const TICK = { fontSize: 11, fill: 'var(--faint)' };

/** The bands of one note at a destination, all sounds over one another; the chosen one is strong. */
export function NotesOver({ notes }: { notes: readonly HeardNote[] }) {
  const rig = useDocument();
  const current = useRig((s) => s.sound);
  const { level } = useRig((s) => s.units);
  const heard = notes.flatMap(({ sound, note }) =>
    note ? [{ id: sound, bands: note.touches[1].bandsDbu }] : [],
  );
  if (!heard.length) return null;
  const rows = BANDS.map((hertz, i) => ({
    hertz: band(hertz),
    ...Object.fromEntries(heard.map((h) => [h.id, h.bands[i]])),
  }));
  const top = Math.ceil(Math.max(...heard.flatMap((h) => h.bands.map((b) => b ?? -200))) / 10) * 10;
  const name = (id: string) => rig.sounds.find((s) => s.id === id)?.name ?? id;
  return (
    <section data-notes-over>
      <h3>One note here, in every sound, by thirds of an octave</h3>
      <div
        className="notes-over-height"
        role="img"
        aria-label={`Bands of one note in ${heard.length} sounds; the figures are in each probe's table`}
      >
        <ResponsiveContainer>
          <LineChart data={rows} margin={{ top: 6, right: 12, bottom: 0, left: -8 }}>
            <CartesianGrid stroke="var(--rule)" strokeDasharray="2 3" />
            <XAxis dataKey="hertz" tick={TICK} interval={2} />
            <YAxis
              domain={[top - 70, top]}
              ticks={[0, 10, 20, 30, 40, 50, 60, 70].map((down) => top - down)}
              allowDataOverflow
              tick={TICK}
            />
            <Tooltip
              formatter={(v) => showLevel(Number(v), level)}
              labelFormatter={(v) => (typeof v === 'string' ? `${v} Hz` : v)}
              contentStyle={{
                background: 'var(--raised)',
                color: 'var(--ink)',
                border: '1px solid var(--rule)',
              }}
            />
            {[...heard]
              .sort((a, b) => Number(a.id === current) - Number(b.id === current))
              .map((h) => (
                <Line
                  key={h.id}
                  name={name(h.id)}
                  dataKey={h.id}
                  dot={false}
                  connectNulls
                  stroke={h.id === current ? 'var(--ink)' : 'var(--faint)'}
                  strokeWidth={h.id === current ? 3 : 1.2}
                  isAnimationActive={false}
                />
              ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
    </section>
  );
}
