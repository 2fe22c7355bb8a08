'use client';
import { Select } from '@mantine/core';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import type { HeardNote } from '../../core/note';
import type { SoundReport } from '../../core/report/report';
import { nameOf } from '../../core/rig';
import type { DestinationFigures } from '../../core/signal/destinations';
import { fixed, showLevel, withPrefix } from '../../core/units';
import { useAnswer } from '../look/use-answer';
import { useDocument, useRig } from '../store/use-rig';

const NotesOver = dynamic(() => import('./notes-over').then((m) => m.NotesOver), { ssr: false });

/**
 * Everything that arrives at one destination, sound by sound: what is heard, how loud, how clean,
 * how wide and where that began or was lost, how late.
 */
export function ArrivalsTable() {
  const rig = useDocument();
  const report = useRig((s) => s.report);
  const destinations = report.sounds[0]?.destinations ?? [];
  const [at, setAt] = useState<string | null>(null);
  const destination = destinations.find((d) => d.device === at)?.device ?? destinations[0]?.device;
  const notes = useAnswer('notes', destination ? { destination } : null);
  if (!destination)
    return <div className="empty">No destination yet: connect a speaker or a console input.</div>;
  const name = (id: string) => nameOf(rig, id);
  return (
    <div className="scroll common-box-2">
      <Select
        searchable
        size="xs"
        w={260}
        label="Heard at"
        data={destinations.map((d) => ({ value: d.device, label: d.name }))}
        value={destination}
        onChange={setAt}
        allowDeselect={false}
      />
      <table className="sheet-table figures common-gap-3" data-table="arrivals">
        <thead>
          <tr>
            <th>Sound</th>
            <th>Hears</th>
            <th>Level</th>
            <th title="One played note, weighted as it counts for loudness (ITU-R BS.1770)">
              Loudness
            </th>
            <th title="At 1 kHz, over all noise from 20 Hz to 20 kHz">S/N</th>
            <th title="Loudness of the note over the noise while it is played, both weighted (ITU-R BS.1770)">
              S/N weighted
            </th>
            <th>Saturation soft / normal / hard</th>
            <th>Width</th>
            <th>Latency</th>
            <th>Polarity</th>
            <th>Combing</th>
          </tr>
        </thead>
        <tbody>
          {report.sounds.map((s) => {
            const d = s.destinations.find((x) => x.device === destination);
            if (!d) return null;
            const width =
              d.channels === 'silent'
                ? ''
                : [
                    d.pairedWith
                      ? `${d.side} side of stereo, the other at ${name(d.pairedWith)}`
                      : d.channels,
                    d.widenedBy && (d.channels === 'stereo' || d.pairedWith)
                      ? `wide from ${name(d.widenedBy)}`
                      : '',
                    d.collapsedAt && d.widenedBy
                      ? `widened by ${name(d.widenedBy)}, lost at ${name(d.collapsedAt)}`
                      : '',
                  ]
                    .filter(Boolean)
                    .join('; ');
            const heard = notes?.find((n) => n.sound === s.sound);
            return <ArrivalRow key={s.sound} s={s} d={d} name={name} width={width} heard={heard} />;
          })}
        </tbody>
      </table>
      {notes && <NotesOver notes={notes} />}
      <p className="faint common-text-2">
        Of two sides the figures are those of the louder; where they carry different things, each
        side is told apart. Combing is figured for dry copies of one source that arrive at different
        times.
      </p>
    </div>
  );
}

/** What arrives in one sound: level, dirt, noise, and when. */
function ArrivalRow({
  s,
  d,
  name,
  width,
  heard,
}: {
  s: SoundReport;
  d: DestinationFigures;
  name: (id: string) => string;
  width: string;
  heard: HeardNote | undefined;
}) {
  const current = useRig((s) => s.sound);
  const setSound = useRig((s) => s.setSound);
  const rig = useDocument();
  const units = useRig((s) => s.units);
  return (
    <tr
      data-arrival={s.sound}
      data-click
      aria-current={s.sound === current}
      onClick={() => setSound(s.sound)}
    >
      <td>
        <strong>{rig.sounds.find((x) => x.id === s.sound)?.name ?? s.sound}</strong>
      </td>
      <td>
        {d.sides.length > 0 && d.channels === 'dual mono'
          ? d.sides.map((x, i) => (
              <div key={x.jack}>
                {i === 0 ? 'left' : 'right'}: {x.sources.map(name).join(', ') || 'nothing'}{' '}
                {x.levelDbu ? showLevel(x.levelDbu.normal, units.level) : ''}
              </div>
            ))
          : d.sources.map(name).join(', ') || 'nothing'}
      </td>
      <td>{d.levelDbu ? showLevel(d.levelDbu.normal, units.level) : 'silent'}</td>
      <td data-loudness>
        {heard?.note ? showLevel(heard.note.touches[1].loudnessDbu, units.level) : '–'}
      </td>
      <td>
        {d.signalToNoiseDb === null ? '–' : `${fixed(d.signalToNoiseDb)} dB`}
        {d.noisiest && d.signalToNoiseDb !== null ? (
          <div className="faint common-text">most from {name(d.noisiest)}</div>
        ) : null}
      </td>
      <td data-weighted>
        {typeof heard?.weightedSignalToNoiseDb !== 'number' ? (
          '–'
        ) : (
          <>
            {fixed(heard.weightedSignalToNoiseDb)} dB
            {heard.noise.playing && (
              <div className="faint common-text">
                {name(heard.noise.playing.device)}, about{' '}
                {withPrefix(heard.noise.playing.band, 'Hz')}
              </div>
            )}
          </>
        )}
      </td>
      <td>
        {d.thdPercent
          ? `${fixed(d.thdPercent.soft)} / ${fixed(d.thdPercent.normal)} / ${fixed(d.thdPercent.hard)} %`
          : '–'}
      </td>
      <td>{width}</td>
      <td>{d.latencyMs === null ? '–' : `${fixed(d.latencyMs)} ms`}</td>
      <td>{d.polarity ?? '–'}</td>
      <td>{d.notchHz === null ? 'none' : `first notch ${withPrefix(d.notchHz, 'Hz')}`}</td>
    </tr>
  );
}
