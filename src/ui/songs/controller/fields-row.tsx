import type { Candidate } from '../../../core/rig/schema';

/** One line of fields, a cell for each candidate. */
export function FieldsRow({
  label,
  each,
  cell,
}: {
  label: string;
  each: Candidate[];
  cell: (c: Candidate) => React.ReactNode;
}) {
  return (
    <tr className="no-print">
      <td>{label}</td>
      {each.map((c) => (
        <td key={c.id}>{cell(c)}</td>
      ))}
    </tr>
  );
}
