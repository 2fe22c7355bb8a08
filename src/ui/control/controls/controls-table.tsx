import { sure } from '../../../core/outcome';
import { nameOf } from '../../../core/rig/find';
import type { Control } from '../../../core/rig/schema';
import { useDocument } from '../../store/use-rig';
import { TYPES } from './control-words';

/** Every control with what it moves; pedals that move only themselves stand below. */
export function ControlsTable({
  controls,
  own,
  chosen: control,
  onChoose: setChosen,
}: {
  controls: readonly Control[];
  own: readonly Control[];
  chosen: Control | undefined;
  onChoose: (id: string) => void;
}) {
  const rig = useDocument();
  return (
    <table className="sheet-table" data-table="controls">
      <thead>
        <tr>
          <th>Name</th>
          <th>Type</th>
          <th>Moves</th>
        </tr>
      </thead>
      <tbody>
        {controls.map((c) => (
          <tr
            key={c.id}
            data-click
            data-control={c.id}
            aria-current={c === control}
            tabIndex={0}
            onClick={() => setChosen(c.id)}
            onKeyDown={(e) => e.key === 'Enter' && setChosen(c.id)}
          >
            <td>
              <strong>{c.name}</strong>
            </td>
            <td>
              {sure(TYPES.find((t) => t.value === c.type)).label}
              {c.action ? `, ${c.action}` : ''}
              {c.device && nameOf(rig, c.device) !== c.name ? (
                <div className="faint common-text">on {nameOf(rig, c.device)}</div>
              ) : null}
            </td>
            <td>{c.assigns.map((a) => nameOf(rig, a.device)).join(', ') || 'nothing yet'}</td>
          </tr>
        ))}
        {own.map((c) => (
          <tr key={c.id} className="faint">
            <td>{c.name}</td>
            <td>pedal</td>
            <td>itself</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
