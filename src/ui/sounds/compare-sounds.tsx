'use client';
import { Select } from '@mantine/core';
import { useState } from 'react';
import { compareSounds } from '../../core/changes';
import { fixed, showChange, showLevel } from '../../core/units';
import { useDocument, useRig } from '../store/use-rig';

/** Two sounds side by side: which switches and knobs differ, and what that does at each destination. */
export function CompareSounds() {
  const rig = useDocument();
  const report = useRig((s) => s.report);
  const units = useRig((s) => s.units);
  const [a, setA] = useState(rig.sounds[0]?.id ?? null);
  const [b, setB] = useState(rig.sounds[1]?.id ?? null);
  const [one, two] = [a, b].map((id) => report.sounds.find((s) => s.sound === id));
  const data = rig.sounds.map((s) => ({ value: s.id, label: s.name }));
  if (rig.sounds.length < 2)
    return (
      <div className="empty common-gap-2">Add a second sound, then the two can be compared.</div>
    );
  const lines = a && b ? compareSounds(rig, a, b) : [];
  return (
    <div className="scroll common-box-2">
      <div className="compare-sounds-row">
        {(
          [
            ['From', a, setA],
            ['To', b, setB],
          ] as const
        ).map(([label, value, set]) => (
          <Select
            key={label}
            searchable
            size="xs"
            label={label}
            data={data}
            value={value}
            onChange={set}
            allowDeselect={false}
          />
        ))}
      </div>
      <h3>What changes</h3>
      {lines.length ? (
        <ul data-list="differences">
          {lines.map((l) => (
            <li key={l}>{l}</li>
          ))}
        </ul>
      ) : (
        <p>Nothing: the two are the same.</p>
      )}
      <h3>What that does</h3>
      <table className="sheet-table numbers figures">
        <thead>
          <tr>
            <th>At</th>
            <th>Level before</th>
            <th>after</th>
            <th>change</th>
            <th>Saturation before</th>
            <th>after</th>
            <th>S/N before</th>
            <th>after</th>
            <th>Width before</th>
            <th>after</th>
          </tr>
        </thead>
        <tbody>
          {one?.destinations.map((d) => {
            const e = two?.destinations.find((x) => x.device === d.device);
            const thd = (x?: typeof d) => (x?.thdPercent ? `${fixed(x.thdPercent.normal)} %` : '–');
            const noise = (x?: typeof d) =>
              x && x.signalToNoiseDb !== null ? `${fixed(x.signalToNoiseDb)} dB` : '–';
            return (
              <tr key={d.device}>
                <td>{d.name}</td>
                <td>{showLevel(d.levelDbu?.normal ?? null, units.level)}</td>
                <td>{showLevel(e?.levelDbu?.normal ?? null, units.level)}</td>
                <td>
                  {d.levelDbu && e?.levelDbu
                    ? showChange(e.levelDbu.normal - d.levelDbu.normal)
                    : '–'}
                </td>
                <td>{thd(d)}</td>
                <td>{thd(e)}</td>
                <td>{noise(d)}</td>
                <td>{noise(e)}</td>
                <td>{d.channels}</td>
                <td>{e?.channels}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
