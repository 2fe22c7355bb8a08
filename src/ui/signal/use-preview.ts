import { useEffect, useState } from 'react';
import { reasonOf } from '../../core/outcome';
import type { Preview } from '../../core/report';
import type { Edit } from '../../core/rig';
import { useRig } from '../store/use-rig';

export type PreviewState =
  { state: 'working' } | { state: 'refused'; why: string } | { state: 'ready'; preview: Preview };

/** What edits would change in the chosen sound, figured in the worker; nothing where there are no edits. */
export function usePreview(edits: Edit[] | null): PreviewState | null {
  const door = useRig((s) => s.door);
  const sound = useRig((s) => s.sound);
  const [answer, setAnswer] = useState<{ key: string; state: PreviewState } | null>(null);
  const key = edits ? JSON.stringify([sound, edits]) : null;
  useEffect(() => {
    if (!key || !door) return;
    let wanted = true;
    const [soundId, list] = JSON.parse(key) as [string, Edit[]];
    door.ask('preview', { edits: list, sound: soundId }).then(
      (a) =>
        wanted &&
        setAnswer({
          key,
          state: a.ok
            ? { state: 'ready', preview: a.value }
            : { state: 'refused', why: reasonOf(a) },
        }),
      (e: Error) => wanted && setAnswer({ key, state: { state: 'refused', why: e.message } }),
    );
    return () => {
      wanted = false;
    };
  }, [door, key]);
  if (!key) return null;
  return answer?.key === key ? answer.state : { state: 'working' };
}
