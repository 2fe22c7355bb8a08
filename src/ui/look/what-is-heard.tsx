'use client';
import type { Report } from '../../core/report';
import type { Rig } from '../../core/rig';
import { fixed } from '../../core/units';

/** What the proposed rig brings to each destination, sound by sound. */
export function WhatIsHeard({ report, rig }: { report: Report; rig: Rig }) {
  return (
    <table className="sheet-table numbers figures">
      <thead>
        <tr>
          <th>Sound</th>
          {report.sounds[0]?.destinations.map((d) => (
            <th key={d.device}>{d.name}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {report.sounds.map((s) => (
          <tr key={s.sound}>
            <td>{rig.sounds.find((x) => x.id === s.sound)?.name}</td>
            {s.destinations.map((d) => (
              <td key={d.device}>
                {d.levelDbu
                  ? `${fixed(d.levelDbu.normal)} dBu, ${fixed(d.thdPercent?.normal ?? 0)} %`
                  : 'silent'}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
