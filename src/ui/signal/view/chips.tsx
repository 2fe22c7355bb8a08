import { sure } from '../../../core/outcome';
import { nameOf } from '../../../core/rig/find';
import { SeverityMark } from '../../look/severity';
import { useDocument, useRig } from '../../store/use-rig';
import { useWorst } from '../use-worst';

/** Devices in a row of small strips, to be chosen from. */
export function Chips({ title, devices }: { title: string; devices: readonly string[] }) {
  const rig = useDocument();
  const select = useRig((s) => s.select);
  const worst = useWorst();
  return (
    <div className="chips">
      {title}:{' '}
      {devices.map((id) => (
        <button
          key={id}
          type="button"
          className="sound"
          data-chip={id}
          onClick={() => select({ kind: 'device', id })}
        >
          {worst.has(id) && <SeverityMark severity={sure(worst.get(id))} quiet />}
          {nameOf(rig, id)}
        </button>
      ))}
    </div>
  );
}
