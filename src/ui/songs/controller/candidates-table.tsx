import type { Candidate } from '../../../core/rig/schema';
import type { judge } from '../../../core/songs';
import { CommitText } from '../../look/commit-text';
import { SheetFields } from './sheet-fields';
import { Verdicts } from './verdicts';
import { TakeOut } from '../../look/take-out';

type Judged = ReturnType<typeof judge>;

/** The candidates side by side: what their sheets say, and how each meets each need. */
export function CandidatesTable({
  candidates,
  judged,
  onSave: save,
}: {
  candidates: Candidate[];
  judged: readonly Judged[];
  onSave: (list: Candidate[]) => void;
}) {
  const set = (c: Candidate, change: Partial<Candidate>) =>
    save(candidates.map((x) => (x === c ? { ...x, ...change } : x)));
  return (
    <table className="sheet-table figures common-gap-3" data-table="candidates">
      <thead>
        <tr>
          <th>Candidate</th>
          {candidates.map((c) => (
            <th key={c.id}>
              <CommitText
                aria-label="Name of the candidate"
                needed
                value={c.name}
                onCommit={(name) => set(c, { name })}
              />
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        <SheetFields candidates={candidates} onChange={set} />
        <Verdicts judged={judged} />
        <tr className="no-print">
          <td />{' '}
          {candidates.map((c) => (
            <td key={c.id}>
              <TakeOut
                what={`Take ${c.name} out`}
                onClick={() => save(candidates.filter((x) => x !== c))}
              />
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}
