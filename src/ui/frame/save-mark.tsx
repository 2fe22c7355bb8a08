'use client';
import { IconCloudCheck, IconCloudOff, IconCloudUp } from '@tabler/icons-react';
import { useRig } from '../store/use-rig';

/** Whether the work is on the server: saved, saving, or not saved and why. */
export function SaveMark({ onRetry }: { onRetry: () => void }) {
  const save = useRig((s) => s.save);
  const [Shape, text] =
    save.state === 'saved'
      ? [IconCloudCheck, 'saved']
      : save.state === 'saving'
        ? [IconCloudUp, 'saving']
        : [IconCloudOff, `not saved: ${save.why}`];
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
    </span>
  );
}
