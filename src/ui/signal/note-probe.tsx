'use client';
import { SegmentedControl, Select } from '@mantine/core';
import { type ReactElement, useState } from 'react';
import {
  Bar,
  BarChart,
  CartesianGrid,
  Line,
  LineChart,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { NoteAt } from '../../core/note';
import { BANDS } from '../../core/note/bands';
import { endWords } from '../../core/rig';
import { fixed, showLevel, withPrefix } from '../../core/units';
import type { Questions } from '../../worker/messages';
import { useAnswer } from '../look/use-answer';
import { useDocument, useRig, useSoundReport } from '../store/use-rig';
import { NoiseHere } from './noise-here';

const band = (hertz: number) => (hertz >= 1000 ? `${hertz / 1000}k` : String(hertz));

/** The played note at one place: how loud, how high, its bands and its wave, beside another's. */
export function NoteProbe({ device, point }: { device: string; point: string }) {
  const sound = useRig((s) => s.sound);
  const [beside, setBeside] = useState<string | null>(null);
  const [look, setLook] = useState<'bands' | 'wave'>('bands');
  const here = useAnswer('note', { sound, device, point });
  const other = useOther(beside, device, point);
  return (
    <section data-note={`${device} ${point}`}>
      <h3>One note here</h3>
      {here ? <NoteFigures note={here} other={other?.note} /> : <p className="faint">Silent.</p>}
      {here && (
        <>
          <Beside value={beside} onChange={setBeside} />
          <SegmentedControl
            size="xs"
            fullWidth
            mt={6}
            data={[
              { value: 'bands', label: 'Bands' },
              { value: 'wave', label: 'Wave' },
            ]}
            value={look}
            onChange={(v) => setLook(v === 'wave' ? 'wave' : 'bands')}
          />
          {other && !other.note && beside && (
            <p className="faint common-text-2">
              Nothing to show for {other.name}
              {beside === 'reference' && ': an instrument with electronics of its own plays here'}.
            </p>
          )}
          {look === 'bands' ? (
            <NoteBands note={here} other={other} />
          ) : (
            <NoteWave note={here} other={other} />
          )}
        </>
      )}
      <NoiseHere device={device} point={point} note={here} />
      <p className="faint common-text-2">
        The lowest usual note of what plays, as it is plucked; filters are typical for their kind.
        Unrelated parts meet at their highest instants.
      </p>
    </section>
  );
}

interface Other {
  name: string;
  note: NoteAt | null;
}

/** The note that is looked at beside: here in another sound, or at another station in this one. */
function useOther(beside: string | null, device: string, point: string): Other | undefined {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const [what, id = '', at = ''] = beside?.split(' ') ?? [];
  const asks: Record<string, Questions['note']['ask']> = {
    sound: { sound: id, device, point },
    station: { sound, device: id, point: at },
    before: { sound, device, point, as: 'before' },
    reference: { sound, device, point, as: 'reference' },
  };
  const ask = asks[what ?? ''];
  const note = useAnswer('note', ask ?? null);
  if (!ask) return undefined;
  const names: Record<string, string | undefined> = {
    sound: rig.sounds.find((s) => s.id === id)?.name,
    station: endWords(rig, { device: id, jack: at }),
    ...OTHERWISE,
  };
  return { name: names[what ?? ''] ?? id, note };
}

/** What of the same rig a note may be looked at beside. */
const OTHERWISE = {
  before: 'before the last edit',
  reference: 'the pickup through the reference lead',
};

function Beside({
  value,
  onChange,
}: {
  value: string | null;
  onChange: (value: string | null) => void;
}) {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const report = useSoundReport();
  const stations = (report?.stations ?? []).filter((s) => s.outs.length && s.output.levelDbu);
  return (
    <Select
      size="xs"
      mt={6}
      clearable
      searchable
      label="Beside"
      placeholder="another sound, station, edit, the reference"
      value={value}
      onChange={onChange}
      data={[
        {
          group: 'This sound',
          items: Object.entries(OTHERWISE).map(([value, label]) => ({ value, label })),
        },
        {
          group: 'Here in another sound',
          items: rig.sounds
            .filter((s) => s.id !== sound)
            .map((s) => ({ value: `sound ${s.id}`, label: s.name })),
        },
        {
          group: 'Behind another station',
          items: [
            ...new Map(
              stations.flatMap(({ device, outs }) =>
                outs.map((jack) => [`station ${device} ${jack}`, endWords(rig, { device, jack })]),
              ),
            ),
          ].map(([station, label]) => ({ value: station, label })),
        },
      ]}
    />
  );
}

function NoteFigures({ note, other }: { note: NoteAt; other?: NoteAt | null }) {
  const { level } = useRig((s) => s.units);
  const [soft, normal, hard] = note.touches;
  const short = (dbu: number) => showLevel(dbu, level).split(' ')[0];
  const than = other && normal.loudnessDbu - other.touches[1].loudnessDbu;
  return (
    <dl className="pairs figures">
      <dt>Loudness soft / normal / hard</dt>
      <dd data-loudness>
        {short(soft.loudnessDbu)} / {short(normal.loudnessDbu)} /{' '}
        {showLevel(hard.loudnessDbu, level)}
      </dd>
      {than !== undefined && than !== null && (
        <>
          <dt>Against what is beside</dt>
          <dd data-louder>
            {Math.abs(than) < 0.05
              ? 'as loud'
              : `${fixed(Math.abs(than))} dB ${than > 0 ? 'louder' : 'softer'}`}
          </dd>
        </>
      )}
      <dt>Level of the note</dt>
      <dd>{showLevel(normal.levelDbu, level)}</dd>
      <dt>Highest instant</dt>
      <dd>
        {showLevel(normal.truePeakDbu, level)}, {fixed(normal.crestDb)} dB over the level
      </dd>
      <dt>Middle of its power</dt>
      <dd>{withPrefix(normal.brightnessHertz, 'Hz')}</dd>
    </dl>
  );
}

const TIP = {
  background: 'var(--raised)',
  color: 'var(--ink)',
  border: '1px solid var(--rule)',
};
const TICK = { fontSize: 10, fill: 'var(--faint)' };

const framed = (label: string, chart: ReactElement) => (
  <div className="tone-chart-div" role="img" aria-label={label}>
    <ResponsiveContainer>{chart}</ResponsiveContainer>
  </div>
);

/** Level in third-octave bands, drawn from a floor under the quietest that is shown, and as a table. */
function NoteBands({ note, other }: { note: NoteAt; other?: Other }) {
  const { level } = useRig((s) => s.units);
  const mine = note.touches[1].bandsDbu;
  const theirs = other?.note?.touches[1].bandsDbu;
  const highest = Math.max(...[...mine, ...(theirs ?? [])].map((v) => v ?? -Infinity));
  const top = Math.ceil(highest / 10) * 10;
  const floor = top - 60;
  const rows = BANDS.map((hertz, i) => ({
    hertz: band(hertz),
    here: Math.max(0, (mine[i] ?? floor) - floor),
    beside: Math.max(0, (theirs?.[i] ?? floor) - floor),
  }));
  const named = (v: unknown) => showLevel(Number(v) + floor, level);
  return (
    <>
      {framed(
        `Bands of the note, ${BANDS.length} thirds of an octave, in dB; the table below has them`,
        <BarChart data={rows} margin={{ top: 6, right: 6, bottom: 0, left: -22 }} barGap={0}>
          <CartesianGrid stroke="var(--rule)" strokeDasharray="2 3" vertical={false} />
          <XAxis dataKey="hertz" tick={TICK} interval={3} />
          <YAxis
            domain={[0, 60]}
            ticks={[0, 20, 40, 60]}
            tickFormatter={(v) => String(Number(v) + floor)}
            tick={TICK}
          />
          <Tooltip
            formatter={named}
            labelFormatter={(v) => (typeof v === 'string' ? `${v} Hz` : v)}
            contentStyle={TIP}
          />
          <Bar name="here" dataKey="here" fill="var(--ink)" isAnimationActive={false} />
          {theirs && (
            <Bar
              name={other.name}
              dataKey="beside"
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth={1}
              isAnimationActive={false}
            />
          )}
        </BarChart>,
      )}
      <details>
        <summary className="small-print">Bands as a table</summary>
        <table className="sheet-table numbers figures common-text-2" data-table="bands">
          <thead>
            <tr>
              <th>Hz</th>
              <th>here</th>
              {theirs && <th>{other.name}</th>}
            </tr>
          </thead>
          <tbody>
            {BANDS.map((hertz, i) => (
              <tr key={hertz} data-band={hertz}>
                <td>{band(hertz)}</td>
                <td>{showLevel(mine[i] ?? null, level)}</td>
                {theirs && <td>{showLevel(theirs[i] ?? null, level)}</td>}
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </>
  );
}

/** One period of the wave, in volts. */
function NoteWave({ note, other }: { note: NoteAt; other?: Other }) {
  const period = 1000 / note.hertz;
  const theirs = other?.note?.wave;
  const rows = note.wave.map((v, i) => ({
    ms: (i / note.wave.length) * period,
    here: v,
    beside: theirs?.[i],
  }));
  const volts = (v: unknown) => withPrefix(Number(v), 'V');
  return framed(
    `One period of the wave, ${fixed(period)} ms, highest ` +
      withPrefix(Math.max(...note.wave.map(Math.abs)), 'V'),
    <LineChart data={rows} margin={{ top: 6, right: 6, bottom: 0, left: 0 }}>
      <CartesianGrid stroke="var(--rule)" strokeDasharray="2 3" />
      <XAxis
        dataKey="ms"
        type="number"
        domain={[0, period]}
        tickFormatter={(v) => `${fixed(Number(v), 0)} ms`}
        tick={TICK}
      />
      <YAxis tickFormatter={volts} tick={TICK} width={56} />
      <Tooltip
        formatter={volts}
        labelFormatter={(v) => `${fixed(Number(v))} ms`}
        contentStyle={TIP}
      />
      {theirs && (
        <Line
          name={other.name}
          dataKey="beside"
          dot={false}
          stroke="var(--faint)"
          strokeDasharray="5 4"
          isAnimationActive={false}
        />
      )}
      <Line
        name="here"
        dataKey="here"
        dot={false}
        stroke="var(--ink)"
        strokeWidth={2}
        isAnimationActive={false}
      />
    </LineChart>,
  );
}
