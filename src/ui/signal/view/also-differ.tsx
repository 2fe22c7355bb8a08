import { walkView } from '../../../core/draw';
import { nameOf } from '../../../core/rig/find';
import { useDocument } from '../../store/use-rig';
import type { Compared } from '../walk-looks';

/** What differs from the compared sound on devices that are not on this walk. */
export function AlsoDiffer({
  view,
  compared,
  name,
}: {
  view: NonNullable<ReturnType<typeof walkView>>;
  compared: Compared;
  name: string;
}) {
  const rig = useDocument();
  const shown = new Set(view.stations.flatMap((s) => [s.device, ...(s.folded ?? [])]));
  const rest = [...compared.words].filter(([id]) => !shown.has(id));
  if (!compared.words.size) return <div className="chips">Nothing differs from {name}.</div>;
  return rest.length ? (
    <div className="chips">
      Not on this walk, and different from {name}:{' '}
      {rest.map(([id, words]) => `${nameOf(rig, id)} (${words.join(', ')})`).join('; ')}
    </div>
  ) : null;
}
