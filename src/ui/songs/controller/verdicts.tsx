import { IconCheck, IconX } from '@tabler/icons-react';
import { type Judged, ranked } from '../../../core/songs';
import { useDocument } from '../../store/use-rig';
import { howMany } from '../../../core/units';

/** How each candidate meets each need, and what it comes to. */
export function Verdicts({ judged }: { judged: readonly Judged[] }) {
  const [best] = ranked(useDocument(), judged);
  const points = judged[0]?.points.map((p) => p.need) ?? [];
  return (
    <>
      {points.map((need, i) => (
        <tr key={need} data-need={need}>
          <td>
            <strong>{need}</strong>
          </td>
          {judged.map((j) => {
            const p = j.points.find((x) => x.need === need) ?? j.points[i];
            return (
              <td key={j.candidate}>
                {p && p.need === need ? (
                  <>
                    <span className="sev" style={{ color: p.met ? 'var(--ink)' : 'var(--fault)' }}>
                      {p.met ? (
                        <IconCheck size={14} aria-label="met" />
                      ) : (
                        <IconX size={14} aria-label="missed" />
                      )}
                    </span>{' '}
                    {p.why}
                  </>
                ) : (
                  <span className="faint">–</span>
                )}
              </td>
            );
          })}
        </tr>
      ))}
      <tr>
        <td>
          <strong>So it</strong>
        </td>
        {judged.map((j) => (
          <td key={j.candidate} data-judged={j.candidate}>
            <strong>{j.misses === 0 ? 'does it all' : `misses ${j.misses}`}</strong>
            {j.pages > 1 ? `, ${j.pages} pages in the fullest song` : ''}
            {j.pageChanges ? `, changed ${howMany(j.pageChanges, 'time')} at most` : ''}
            {j === best && judged.length > 1 ? ' (does most)' : ''}
          </td>
        ))}
      </tr>
    </>
  );
}
