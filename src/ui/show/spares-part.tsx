import { Button } from '@mantine/core';
import { bitOf, type Loss, type SpareItem, type SparePlan, type Survival } from '../../core/show';
import { fixed, howMany } from '../../core/units';
import { useWorking } from '../look/use-working';
import { useDocument, useRig } from '../store/use-rig';
import { minutesWords } from './finder/finder-view';

const gramsWords = (i: SpareItem): string =>
  [
    i.grams === null ? '' : `${fixed(i.grams / 1000)} kg`,
    i.litres === null ? '' : `${fixed(i.litres)} l`,
    i.price === null ? '' : `${i.price} in the crew’s money`,
  ]
    .filter(Boolean)
    .join(', ') || 'weight, room and price not known';

/** The room that spares take, against what the cases have left, where they have measures. */
const roomWords = ({ litres, room }: SparePlan): string =>
  room === null
    ? `${fixed(litres)} l (no case has measures, so its room is not known)`
    : litres > room
      ? `${fixed(litres)} l, and the cases have about ${fixed(room)} l left: take another case`
      : `${fixed(litres)} l of about ${fixed(room)} l left in the cases`;

/** Promises that sound comes back, by the drill's seconds. */
export function Survivals({
  survivals,
  seconds,
}: {
  survivals: readonly Survival[];
  seconds: number;
}) {
  if (!survivals.length) return null;
  return (
    <section data-survivals>
      <h3>Promised to come back</h3>
      <ul>
        {survivals.map((s) => (
          <SurvivalLine key={s.promise} s={s} seconds={seconds} />
        ))}
      </ul>
    </section>
  );
}

/** How one such promise stands, and by what it is kept. */
function SurvivalLine({ s, seconds }: { s: Survival; seconds: number }) {
  const rig = useDocument();
  const sound = rig.sounds.find((x) => x.id === s.sound)?.name;
  return (
    <li data-survival={s.promise}>
      <strong className={s.kept ? undefined : 'over'}>{s.kept ? 'kept' : 'not kept'}</strong>:{' '}
      {s.words}.{' '}
      {s.seconds === null
        ? `In ${sound ?? 'a sound'} nothing at hand, and no spare, brings it back.`
        : s.seconds === 0
          ? 'It is heard all the same.'
          : `At worst ${minutesWords(s.seconds)}, in ${sound ?? 'a sound'}: ${s.by ?? ''}` +
            `${s.kept ? '' : `, where ${seconds} s are allowed`}.`}
    </li>
  );
}

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
          : `${plan.take.length} things, ${fixed(plan.grams / 1000)} kg, ${roomWords(plan)}: ` +
            `with them ${howMany(plan.cured, 'fault')} more ` +
            `are over within ${seconds} s. ${plan.without} need hands alone.`}
      </p>
      {plan.take.length > 0 && (
        <table className="sheet-table figures">
          <thead>
            <tr>
              <th>Take</th>
              <th>For so many faults</th>
              <th>Weight, room, price</th>
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
            {howMany(plan.never.length, 'fault')} that nothing in a case brings back within{' '}
            {seconds} s
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
