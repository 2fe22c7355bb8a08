'use client';
import { useMemo, useState } from 'react';
import { type Press, pressesBetween } from '../../core/control';
import { nameOf, type Sound } from '../../core/rig';
import { useDocument } from '../store/use-rig';

const count = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

/** How many switches are pressed and knobs or pedals set from every sound to every other, and which. */
export function PressesTable() {
  const rig = useDocument();
  const { sounds } = rig;
  const [pair, setPair] = useState<readonly [string, string] | null>(null);
  const table = useMemo(() => sounds.map((from) => sounds.map((to) => pressesBetween(rig, from, to))), [rig, sounds]);
  if (sounds.length < 2) return <div className="empty" style={{ margin: 20 }}>Add a second sound, then the way from one to the other can be counted.</div>;
  const [from, to] = (pair ?? [sounds[0]!.id, sounds[1]!.id]).map((id) => sounds.findIndex((s) => s.id === id));
  const chosen = table[from!]?.[to!];
  const words = (p: Press) => `${nameOf(rig, p.device)}: ${p.changes.join(', ')}`;
  const cell = (a: Sound, b: Sound, i: number, k: number) => {
    if (a === b) return <td key={b.id} className="faint">–</td>;
    const { presses, turns } = table[i]![k]!;
    const said = `${count(presses.length, 'press', 'presses')}${turns.length ? `, ${turns.length} to set` : ''}`;
    return (
      <td key={b.id} data-presses={`${a.id} ${b.id}`}>
        <button type="button" className="press-count" aria-pressed={i === from && k === to} aria-label={`${a.name} to ${b.name}: ${said}`} title={`${a.name} to ${b.name}: ${said}`} onClick={() => setPair([a.id, b.id])}>
          {presses.length}{turns.length > 0 && <span className="faint"> + {turns.length} to set</span>}
        </button>
      </td>
    );
  };
  return (
    <div className="scroll" style={{ padding: '6px 14px 20px' }}>
      <p className="faint" style={{ fontSize: 12, margin: '0 0 6px' }}>Presses from the sound of a row to the sound of a column. A device with programs is one press for all that changes in it; so is everything inside a modeler.</p>
      <table className="sheet-table figures" data-table="presses">
        <thead><tr><th>From, to</th>{sounds.map((s) => <th key={s.id}>{s.name}</th>)}</tr></thead>
        <tbody>{sounds.map((a, i) => <tr key={a.id}><td><strong>{a.name}</strong></td>{sounds.map((b, k) => cell(a, b, i, k))}</tr>)}</tbody>
      </table>
      {chosen && from !== undefined && to !== undefined && sounds[from] && sounds[to] && (
        <section data-list="presses" aria-live="polite">
          <h3>{sounds[from].name} to {sounds[to].name}</h3>
          {chosen.presses.length + chosen.turns.length === 0 && <p>Nothing to do: the two differ in nothing that is pressed or turned.</p>}
          <ol>{chosen.presses.map((p) => <li key={p.device}>{words(p)}</li>)}</ol>
          {chosen.turns.length > 0 && <><h3>To set besides: a pedal by foot, a knob by hand</h3><ul>{chosen.turns.map((p) => <li key={p.device}>{words(p)}</li>)}</ul></>}
        </section>
      )}
    </div>
  );
}
