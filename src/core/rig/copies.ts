import { applyEdits } from './apply';
import type { Edit } from './edits';
import type { Rig } from './schema';

const made = new WeakMap<Rig, Map<string, Rig | undefined>>();
/** So many copies of one rig are remembered, the newest. */
const MOST = 32;

/**
 * A rig with edits made on a copy; nothing where they cannot be made. The same edits give the same
 * copy, so that what every sound tries is made once.
 *
 *     const copy = copyWith(rig, [{ edit: 'disconnect', lead: 'l3' }]);
 */
export function copyWith(rig: Rig, edits: readonly Edit[]): Rig | undefined {
  let copies = made.get(rig);
  if (!copies) made.set(rig, (copies = new Map<string, Rig | undefined>()));
  const key = JSON.stringify(edits);
  if (!copies.has(key)) {
    const tried = applyEdits(rig, edits);
    copies.set(key, tried.ok ? tried.value.rig : undefined);
    const [oldest] = copies.keys();
    if (copies.size > MOST && oldest !== undefined) copies.delete(oldest);
  }
  return copies.get(key);
}
