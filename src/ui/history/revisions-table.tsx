import type { Revision } from './use-revisions';

/** Revisions as rows to choose from. */
export function RevisionsTable({
  rows,
  picked,
  onPick,
}: {
  rows: readonly Revision[];
  picked: number | null;
  onPick: (number: number) => void;
}) {
  return (
    <table className="sheet-table" data-table="revisions">
      <thead>
        <tr>
          <th>Revision</th>
          <th>Saved</th>
          <th>By</th>
          <th>What was done</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr
            key={r.number}
            data-click
            data-revision={r.number}
            aria-current={picked === r.number}
            tabIndex={0}
            onClick={() => onPick(r.number)}
            onKeyDown={(e) => e.key === 'Enter' && onPick(r.number)}
          >
            <td className="figures">{r.number}</td>
            <td className="figures one-line">{new Date(r.savedAt).toLocaleString('en-GB')}</td>
            <td>{r.by}</td>
            <td>
              {r.name && (
                <>
                  <strong className="tape">{r.name}</strong>{' '}
                </>
              )}
              {r.words}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
