import { useEffect } from 'react';
import { clipOf, fittedTo } from '../../../core/rig/clip';
import type { RigState } from '../../store/rig-store';
import { useRigStore } from '../../store/use-rig';

const isInText = (e: Event): boolean =>
  e.target instanceof HTMLElement &&
  (e.target.isContentEditable || ['INPUT', 'TEXTAREA'].includes(e.target.tagName));

/** The devices that are chosen: several, or one. */
const chosenIn = ({ chosen, selection }: RigState): readonly string[] =>
  chosen.length ? chosen : selection?.kind === 'device' ? [selection.id] : [];

/**
 * Ctrl C copies what is chosen as text, Ctrl V puts in what was copied, here or in another rig. Text in a
 * field, or text that is marked, is copied as ever.
 */
export function useClipboard(): void {
  const store = useRigStore();
  useEffect(() => {
    const onCopy = (e: ClipboardEvent) => {
      const state = store.getState();
      const ids = chosenIn(state);
      if (isInText(e) || !ids.length || window.getSelection()?.isCollapsed === false) return;
      e.clipboardData?.setData('text/plain', JSON.stringify(clipOf(state.history.rig, ids)));
      e.preventDefault();
      state.setNotice(`Copied ${ids.length === 1 ? 'a device' : `${ids.length} devices`}.`);
    };
    const paste = async (text: string) => {
      const { readClip } = await store.getState().ready();
      const state = store.getState();
      const read = readClip(text);
      if (!read.ok) return state.setNotice(read.problems.map((p) => p.what).join(' '));
      const { rig } = state.history;
      const { format: _format, version: _version, ...clip } = fittedTo(rig, read.value);
      if (!state.edit({ edit: 'paste', ...clip }).ok) return;
      state.choose(clip.devices.map((d) => d.id));
      const lost = Object.keys(clip.states).filter((n) => !rig.sounds.some((s) => s.name === n));
      if (lost.length)
        state.setNotice(
          `There is no sound ${lost.join(', ')} here: how they stand there did not come.`,
        );
    };
    const onPaste = (e: ClipboardEvent) => {
      if (!isInText(e))
        void paste(e.clipboardData?.getData('text/plain') ?? '').catch(() => undefined);
    };
    document.addEventListener('copy', onCopy);
    document.addEventListener('paste', onPaste);
    return () => {
      document.removeEventListener('copy', onCopy);
      document.removeEventListener('paste', onPaste);
    };
  }, [store]);
}
