'use client';
import { budgetOf, type BudgetLine } from '../../core/build';
import { fixed } from '../../core/units';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';

/** Grams are limited in kilograms on the screen. */
const SHOWN: Partial<Record<BudgetLine['id'], { unit: string; by: number }>> = {
  grams: { unit: 'kg', by: 1000 },
};

/** What the whole weighs, measures, costs, draws and takes to build, against the limits that are set here. */
export function Budget() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const lines = budgetOf(rig);
  return (
    <section className="brief-part" aria-label="Limits" data-budget>
      <div className="brief-head">
        <h2>What it may weigh, cost and take</h2>
      </div>
      <table className="sheet-table figures" data-table="budget">
        <thead>
          <tr>
            <th></th>
            <th>Is</th>
            <th>At most</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l) => {
            const { unit, by } = SHOWN[l.id] ?? { unit: l.unit, by: 1 };
            const shown = (v: number) =>
              `${fixed(v / by, unit === 'kg' || unit === 'h' ? 1 : 0)}${unit ? ` ${unit}` : ''}`;
            return (
              <tr key={l.id} data-limit={l.id}>
                <td>
                  {l.label}
                  {l.note && <div className="faint common-text">{l.note}</div>}
                </td>
                <td>
                  <strong>{shown(l.value)}</strong>
                </td>
                <td>
                  <CommitNumber
                    w={104}
                    aria-label={`At most, ${l.label}`}
                    min={0.1}
                    placeholder="no limit"
                    suffix={unit ? ` ${unit}` : ''}
                    value={l.limit === undefined ? undefined : l.limit / by}
                    onCommit={(v) =>
                      edit({
                        edit: 'setLimits',
                        limits: Object.fromEntries(
                          Object.entries({
                            ...rig.limits,
                            [l.id]: v === undefined ? undefined : v * by,
                          }).filter(([, x]) => x !== undefined),
                        ),
                      })
                    }
                  />
                </td>
                <td>
                  {l.over > 0 ? (
                    <strong className="over">over by {shown(l.over)}</strong>
                  ) : l.limit === undefined ? (
                    ''
                  ) : (
                    `${shown(l.limit - l.value)} left`
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
