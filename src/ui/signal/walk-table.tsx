'use client';
import { useMemo } from 'react';
import type { WalkView } from '../../core/draw';
import { jackLabels, nameOf, type Rig } from '../../core/rig';
import { deviceOf } from '../../core/rig/find';
import { useAnswer } from '../look/use-answer';
import type { Selection } from '../store/rig-store';
import { useRig } from '../store/use-rig';
import { METER_ROWS, rowUnit } from './meter-rows';
import { stateWords } from './walk-looks';

/** The walk as a table: a row a strip, from where to where, how it stands, and the chosen figures. */
export function WalkTable({
  rig,
  view,
  rows,
  selection,
  onSelect,
}: {
  rig: Rig;
  view: WalkView;
  rows: readonly string[];
  selection: Selection;
  onSelect: (selection: Selection) => void;
}) {
  const units = useRig((s) => s.units);
  const sound = useRig((s) => s.sound);
  const shown = useMemo(() => METER_ROWS.filter((r) => rows.includes(r.id)), [rows]);
  const notes = useAnswer('stationNotes', shown.some((r) => r.ofNote) ? { sound } : null);
  const byId = new Map(view.stations.map((s) => [s.id, s]));
  const names = (ids: readonly string[]) =>
    [...new Set(ids.map((id) => nameOf(rig, byId.get(id)?.device ?? id)))].join(', ');
  return (
    <table className="sheet-table figures walk-table" data-table="walk">
      <caption className="faint">The walk of the chosen sound, in the order of the signal</caption>
      <thead>
        <tr>
          <th>Device</th>
          <th>From</th>
          <th>To</th>
          <th>Stands</th>
          {shown.map((r) => (
            <th key={r.id} title={r.explain}>
              {r.name}
              {rowUnit(r.id, units)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {[...view.stations]
          .sort((a, b) => a.lane - b.lane || a.column - b.column)
          .map((s) => {
            const device = deviceOf(rig, s.device);
            const choose = () => onSelect({ kind: 'device', id: s.device, station: s.id });
            return (
              <tr
                key={s.id}
                data-click
                data-table-station={s.id}
                tabIndex={0}
                aria-current={selection?.kind === 'device' && selection.id === s.device}
                onClick={choose}
                onKeyDown={(e) => e.key === 'Enter' && choose()}
              >
                <td>
                  <strong>{nameOf(rig, s.device)}</strong>{' '}
                  <span className="faint">{jackLabels(device, s.outs)}</span>
                </td>
                <td>{names(view.steps.flatMap((x) => (x.to === s.id ? [x.from] : []))) || '–'}</td>
                <td>{names(view.steps.flatMap((x) => (x.from === s.id ? [x.to] : []))) || '–'}</td>
                <td>{stateWords[s.state]}</td>
                {shown.map((r) => (
                  <td key={r.id} data-warn={r.warn?.(s) ?? false}>
                    {r.show(s, units, notes?.get(s.id))}
                  </td>
                ))}
              </tr>
            );
          })}
      </tbody>
    </table>
  );
}
