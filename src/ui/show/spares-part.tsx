import { Button } from '@mantine/core';
import { bitOf, type Loss, type SpareItem, type SparePlan } from '../../core/show';
import { fixed } from '../../core/units';
import { useWorking } from '../look/use-working';
import { useDocument, useRig } from '../store/use-rig';
import { minutesWords } from './finder/finder-view';

const gramsWords = (i: SpareItem): string =>
  [
    i.grams === null ? '' : `${fixed(i.grams / 1000)} kg`,
    i.price === null ? '' : `${i.price} in the crew’s money`,
  ]
    .filter(Boolean)
    .join(', ') || 'weight and price not known';

export function Spares({ plan, seconds }: { plan: SparePlan; seconds: number }) {
  return (
    <section data-spares>
      <h3>
        {plan.proven
          ? 'Smallest set of spares'
          : 'All spares that help; the smallest set was not found'}
      </h3>
      <p>
        {plan.take.length === 0
          ? 'No spare is needed, or none would help.'
          : `${plan.take.length} things, ${fixed(plan.grams / 1000)} kg: with them ${plan.cured} faults more ` +
            `are over within ${seconds} s. ${plan.without} need hands alone.`}
      </p>
      {plan.take.length > 0 && (
        <table className="sheet-table figures">
          <thead>
            <tr>
              <th>Take</th>
              <th>For so many faults</th>
              <th>Weight, price</th>
            </tr>
          </thead>
          <tbody>
            {plan.take.map((i) => (
              <tr key={i.words} data-spare={i.words}>
                <td>
                  <strong>{i.words}</strong>
                </td>
                <td>{i.cures.length}</td>
                <td>{gramsWords(i)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {plan.further.length > 0 && (
        <p className="small-print">
          What each further one would bring, in seconds of silence in 1000 shows:{' '}
          {plan.further.map((f) => `${f.item.words} ${Math.round(f.saves)}`).join('; ')}.
        </p>
      )}
      {plan.never.length > 0 && (
        <details>
          <summary>
            {plan.never.length} faults that nothing in a case brings back within {seconds} s
          </summary>
          <ul>
            {plan.never.map((l) => (
              <li key={l.fault.id}>
                {l.fault.words}
                {l.withSpares !== undefined && ` (at best ${minutesWords(l.withSpares)})`}{' '}
                <SecondWay loss={l} />
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

/** A change of wiring for what no spare cures, looked for on request and put in as one step. */
function SecondWay({ loss }: { loss: Loss }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const { work, start } = useWorking('rewire');
  const hit = loss.hits.find((h) => h.silent);
  const sound = hit?.sounds.find((s) => s.bits & bitOf('silent'))?.sound;
  if (!hit || sound === undefined) return null;
  if (work.state === 'working') return <span className="faint">trying leads …</span>;
  if (work.state === 'failed') return <span role="alert">{work.why}</span>;
  if (work.state === 'idle')
    return (
      <button
        type="button"
        className="linklike"
        onClick={() => start({ rig, fault: loss.fault.id, sound, ear: hit.ear })}
      >
        Look for a second way
      </button>
    );
  const found = work.answer;
  return found ? (
    <span data-second-way={loss.fault.id}>
      {found.words}.{' '}
      <Button
        size="compact-xs"
        variant="default"
        onClick={() => edit(found.edits, 'plugged a second way')}
      >
        Put it in
      </Button>
    </span>
  ) : (
    <span className="faint">No single lead between free jacks does it.</span>
  );
}
