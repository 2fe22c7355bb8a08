import type { WiringBox, WiringJack } from '../../../core/draw/wiring-geometry';
import { endWords } from '../../../core/rig';
import { useDocument } from '../../store/use-rig';
import type { Joining } from './use-joining';

/** How high a jack is that can be chosen, in px. */
const HEIGHT = 24;

/** One jack of a box; a free one can be chosen, and where another is chosen says whether it fits. */
export function DrawnJack({
  box,
  jack,
  joining,
}: {
  box: WiringBox;
  jack: WiringJack;
  joining: Joining;
}) {
  const rig = useDocument();
  const words = (
    <text
      x={jack.side === 'in' ? jack.x + 4 : jack.x - 4}
      y={jack.y + 3}
      textAnchor={jack.side === 'in' ? 'start' : 'end'}
      className="jack"
    >
      {jack.text}
      <title>{jack.label}</title>
    </text>
  );
  if (!jack.free) return words;
  const end = { device: box.device.id, jack: jack.id };
  const isAlone = box.jacks.every((j) => j === jack || Math.abs(j.y - jack.y) > 1);
  const width = isAlone ? box.width : box.width / 2;
  const press = () => joining.press(end);
  return (
    <g
      className="free-jack"
      data-jack={`${end.device}.${end.jack}`}
      data-held={jack.held === true}
      data-from={joining.isFrom(end)}
      data-fits={joining.fits(end)}
      role="button"
      tabIndex={0}
      aria-pressed={joining.isFrom(end)}
      aria-label={
        joining.fits(end)
          ? `Connect to ${endWords(rig, end)}`
          : `${box.device.host === undefined ? 'Free jack' : 'Jack'}: ${endWords(rig, end)}`
      }
      onClick={(e) => {
        e.stopPropagation();
        press();
      }}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return;
        e.preventDefault();
        e.stopPropagation();
        press();
      }}
    >
      <rect
        x={jack.side === 'in' ? jack.x : jack.x - width}
        y={jack.y - HEIGHT / 2}
        width={width}
        height={HEIGHT}
      />
      {words}
    </g>
  );
}
