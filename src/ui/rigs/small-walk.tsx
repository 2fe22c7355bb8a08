import type { SmallWalk } from '../../core/draw/small-walk';

/** How large it is in the list at most, in px. */
const WIDTH = 240;
const HIGHEST = 22;
/** How high a strip is in the walk, in px. */
const STRIP = 58;

/** The walk of a rig's first sound at a glance: a bar for each strip, a row for each lane. */
export function SmallWalkDrawing({ walk }: { walk: SmallWalk }) {
  const sx = Math.min(0.1, WIDTH / walk.width);
  const sy = Math.min(0.09, HIGHEST / walk.height);
  const { length } = walk.strips;
  return (
    <svg
      className="small-walk"
      width={walk.width * sx}
      height={Math.max(5, walk.height * sy)}
      role="img"
      aria-label={
        `Walk of the first sound: ${length} ${length === 1 ? 'strip' : 'strips'} ` +
        `in ${walk.lanes} ${walk.lanes === 1 ? 'lane' : 'lanes'}`
      }
    >
      {walk.strips.map(([x, y, width, isLive], i) => (
        <rect
          key={i}
          x={x * sx}
          y={y * sy}
          width={Math.max(2, width * sx)}
          height={Math.max(3, STRIP * sy)}
          fill={isLive ? 'var(--live)' : 'var(--faint)'}
        />
      ))}
    </svg>
  );
}
