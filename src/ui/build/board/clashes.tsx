import { clashWords, type judge, type Model } from '../../../core/build';
import { SEVERITIES } from '../../../core/findings/finding';
import { at as entryAt } from '../../../core/outcome';
import { SeverityMark } from '../../look/severity';

/** What hits what, the worst first. */
export function Clashes({
  model,
  judged,
  onPick,
}: {
  model: Model;
  judged: ReturnType<typeof judge>;
  onPick: (id: string) => void;
}) {
  if (!judged.clashes.length) return null;
  const told = judged.clashes
    .map((c) => ({ c, ...clashWords(model, c) }))
    .sort((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));
  return (
    <section data-list="clashes">
      <h3 className="common-gap-4">To put right</h3>
      {told.slice(0, 30).map((t, i) => (
        <button
          key={i}
          type="button"
          className="clash"
          onClick={() => onPick(entryAt(model.items, t.c.a).device.id)}
        >
          <SeverityMark severity={t.severity} /> <strong>{t.what}</strong> {t.why}
        </button>
      ))}
      {told.length > 30 && <p>and {told.length - 30} more</p>}
    </section>
  );
}
