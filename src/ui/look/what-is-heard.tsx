'use client';
import type { Report } from '../../core/report';
import type { Rig } from '../../core/rig';
import { fixed } from '../../core/units';

/** What is heard where, sound by sound; the longer list goes down the page. */
export function WhatIsHeard({ report, rig }: { report: Report; rig: Rig }) {
  const sounds = report.sounds.map((s) => ({
    id: s.sound,
    name: rig.sounds.find((x) => x.id === s.sound)?.name,
  }));
  const ends = (report.sounds[0]?.destinations ?? []).map((d) => ({ id: d.device, name: d.name }));
  const isTurned = ends.length > sounds.length;
  const [down, across] = isTurned ? [ends, sounds] : [sounds, ends];
  const at = (row: string, column: string) => {
    const [sound, end] = isTurned ? [column, row] : [row, column];
    const heard = report.sounds.find((s) => s.sound === sound);
    return heard?.destinations.find((d) => d.device === end);
  };
  return (
    <table className="sheet-table numbers figures">
      <thead>
        <tr>
          <th>{isTurned ? 'Heard by' : 'Sound'}</th>
          {across.map(({ id, name }) => (
            <th key={id}>{name}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {down.map((row) => (
          <tr key={row.id}>
            <td>{row.name}</td>
            {across.map((column) => (
              <td key={column.id}>
                <HeardThere there={at(row.id, column.id)} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

type There = Report['sounds'][number]['destinations'][number];

/** A level in dBu and distortion in percent, neither broken over lines. */
function HeardThere({ there }: { there: There | undefined }) {
  if (!there?.levelDbu) return <>silent</>;
  return (
    <>
      <span className="unbroken">{fixed(there.levelDbu.normal)} dBu,</span>{' '}
      <span className="unbroken">{fixed(there.thdPercent?.normal ?? 0)} %</span>
    </>
  );
}
