'use client';
import { nameOf } from '../../core/rig';
import { useDocument, useRig } from '../store/use-rig';

/** Who else has the rig open, and which device they have in hand. */
export function Others() {
  const rig = useDocument();
  const others = useRig((s) => s.others);
  const select = useRig((s) => s.select);
  if (!others.length) return null;
  return (
    <span className="others" role="status" aria-label="Who else is here" data-others>
      {others.slice(0, 3).map(({ tab, name, device }) => {
        const at = device !== null && rig.devices.some((d) => d.id === device) ? device : undefined;
        const who = name || 'somebody';
        return at === undefined ? (
          <span key={tab}>{who}</span>
        ) : (
          <button
            key={tab}
            type="button"
            className="sound"
            title={`Go to ${nameOf(rig, at)}`}
            onClick={() => select({ kind: 'device', id: at })}
          >
            {who}: {nameOf(rig, at)}
          </button>
        );
      })}
      {others.length > 3 && <span>and {others.length - 3} more</span>}
    </span>
  );
}
