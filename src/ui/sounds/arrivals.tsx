'use client';
import { Select } from '@mantine/core';
import { useState } from 'react';
import { nameOf } from '../../core/rig';
import { fixed, showLevel, withPrefix } from '../../core/units';
import { useDocument, useRig } from '../store/use-rig';

/**
 * Everything that arrives at one destination, sound by sound: what is heard, how loud, how clean,
 * how wide and where that began or was lost, how late.
 */
export function ArrivalsTable() {
  const rig = useDocument();
  const report = useRig((s) => s.report);
  const units = useRig((s) => s.units);
  const current = useRig((s) => s.sound);
  const setSound = useRig((s) => s.setSound);
  const destinations = report.sounds[0]?.destinations ?? [];
  const [at, setAt] = useState<string | null>(null);
  const destination = destinations.find((d) => d.device === at)?.device ?? destinations[0]?.device;
  if (!destination)
    return <div className="empty">No destination yet: connect a speaker or a console input.</div>;
  const name = (id: string) => nameOf(rig, id);
  return (
    <div className="scroll common-box-2">
      <Select
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
            <th>S/N</th>
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
            return (
              <tr
                key={s.sound}
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
                          {i === 0 ? 'left' : 'right'}:{' '}
                          {x.sources.map(name).join(', ') || 'nothing'}{' '}
                          {x.levelDbu ? showLevel(x.levelDbu.normal, units.level) : ''}
                        </div>
                      ))
                    : d.sources.map(name).join(', ') || 'nothing'}
                </td>
                <td>{d.levelDbu ? showLevel(d.levelDbu.normal, units.level) : 'silent'}</td>
                <td>
                  {d.signalToNoiseDb === null ? '–' : `${fixed(d.signalToNoiseDb)} dB`}
                  {d.noisiest && d.signalToNoiseDb !== null ? (
                    <div className="faint common-text">most from {name(d.noisiest)}</div>
                  ) : null}
                </td>
                <td>
                  {d.thdPercent
                    ? `${fixed(d.thdPercent.soft)} / ${fixed(d.thdPercent.normal)} / ${fixed(d.thdPercent.hard)} %`
                    : '–'}
                </td>
                <td>{width}</td>
                <td>{d.latencyMs === null ? '–' : `${fixed(d.latencyMs)} ms`}</td>
                <td>{d.polarity ?? '–'}</td>
                <td>
                  {d.notchHz === null ? 'none' : `first notch ${withPrefix(d.notchHz, 'Hz')}`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="faint common-text-2">
        Of two sides the figures are those of the louder; where they carry different things, each
        side is told apart. Combing is figured for dry copies of one source that arrive at different
        times.
      </p>
    </div>
  );
}
