import type { ReactNode } from 'react';
import { nameOf } from '../../../core/rig';
import type { FigureChange } from '../../../core/solve';
import { fixed, showChange } from '../../../core/units';
import { useDocument } from '../../store/use-rig';

/** What is heard differently at the destinations, as a table; what differs by nothing is left out. */
export function FigureChanges({
  title,
  rows,
}: {
  title: string;
  rows: readonly FigureChange[];
}): ReactNode {
  const rig = useDocument();
  const differ = rows.filter(
    (r) =>
      Math.abs(r.levelDb ?? 0) >= 0.05 ||
      Math.abs(r.thdPercent ?? 0) >= 0.05 ||
      Math.abs(r.signalToNoiseDb ?? 0) >= 0.05,
  );
  if (!differ.length) return <p className="faint common-text-2">{title}: nothing.</p>;
  const db = (v: number | null) => (v === null ? '–' : showChange(v));
  return (
    <table className="sheet-table numbers figures common-text-2">
      <thead>
        <tr>
          <th>{title}</th>
          <th>Level</th>
          <th>Saturation</th>
          <th>Signal to noise</th>
        </tr>
      </thead>
      <tbody>
        {differ.map((r) => (
          <tr key={r.destination}>
            <td>{nameOf(rig, r.destination)}</td>
            <td>{db(r.levelDb)}</td>
            <td>
              {r.thdPercent === null
                ? '–'
                : `${r.thdPercent > 0 ? '+' : ''}${fixed(r.thdPercent)} %`}
            </td>
            <td>{db(r.signalToNoiseDb)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
