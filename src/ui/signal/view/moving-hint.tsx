import { sure } from '../../../core/outcome';
import { leadOf, nameOf } from '../../../core/rig/find';
import { useDocument } from '../../store/use-rig';
import { moveEdit } from '../moving-edits';
import { PreviewPanel } from '../preview-panel';
import { usePreview } from '../use-preview';
import type { Moving } from '../walk-looks';
import type { InHand } from './use-moving';

/** What the device in hand would change where it is held, or how to choose a place for it. */
export function MovingHint({ moving, byKeys }: { moving: Moving } & Pick<InHand, 'byKeys'>) {
  const rig = useDocument();
  const preview = usePreview(moving.lead ? [moveEdit(rig, moving.device, moving.lead)] : null);
  const name = nameOf(rig, moving.device);
  if (!moving.lead)
    return byKeys ? (
      <div className="preview">
        Moving <strong>{name}</strong>: arrow keys choose the place, Enter puts it there, Escape
        leaves it.
      </div>
    ) : null;
  const { from, to } = sure(leadOf(rig, moving.lead));
  return preview ? (
    <PreviewPanel
      title={`${name} between ${nameOf(rig, from.device)} and ${nameOf(rig, to.device)}:`}
      preview={preview}
    />
  ) : null;
}
