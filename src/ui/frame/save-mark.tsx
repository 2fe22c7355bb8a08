'use client';
import { IconCloudCheck, IconCloudOff, IconCloudSearch, IconCloudUp } from '@tabler/icons-react';
import { saveRigFile } from '../look/save-file';
import { useRig, useRigStore } from '../store/use-rig';

const SHAPES = {
  looking: IconCloudSearch,
  saved: IconCloudCheck,
  saving: IconCloudUp,
  unsaved: IconCloudOff,
};
const WORDS = { looking: 'looking what was kept', saved: 'saved', saving: 'saving' };

/** Whether the work is on the server: saved, saving, not saved and why, or not known yet. */
export function SaveMark({ onRetry }: { onRetry: () => void }) {
  const save = useRig((s) => s.save);
  const keeps = useRig((s) => s.keeps);
  const store = useRigStore();
  const Shape = SHAPES[save.state];
  const text = save.state === 'unsaved' ? `not saved: ${save.why}` : WORDS[save.state];
  return (
    <span
      role="status"
      data-save={save.state}
      title={text}
      className="save-mark-box"
      style={{ fontWeight: save.state === 'unsaved' ? 700 : 400 }}
    >
      <Shape size={17} aria-hidden /> <span className="save-mark-box-2">{text}</span>
      {save.state === 'unsaved' && (
        <button type="button" className="sound" onClick={onRetry}>
          Try now
        </button>
      )}
      {!keeps && (
        <>
          <strong data-keeps-nothing>
            This browser keeps nothing (a private window, or a full disk): until it says “saved”, a
            reload loses what you did.
          </strong>
          <button
            type="button"
            className="sound"
            onClick={() => saveRigFile(store.getState().history.rig)}
          >
            Keep it as a file
          </button>
        </>
      )}
    </span>
  );
}
