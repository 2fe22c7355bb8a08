import type { Fix } from '../findings/finding';
import type { Rack, Rig } from '../rig/schema';
import { freeRackPlace, type RackClash, rackClashes } from './rack';

/** What another place in the same rack can cure. */
const BY_PLACE: ReadonlySet<RackClash['what']> = new Set<RackClash['what']>([
  'overlap',
  'too-high',
  'too-wide',
]);

const keyOf = ({ what, a, b }: RackClash): string => `${what} ${a.device.id} ${b?.device.id ?? ''}`;

/**
 * Ways out of what is wrong in a rack by mounting one of the two elsewhere in it: at the lowest place that is
 * free, tried on a copy, where it fits and nothing else is wrong. What hangs at the rear stays there.
 */
export function rackMoves(rig: Rig, rack: Rack, { what, a, b }: RackClash): Fix[] {
  if (!BY_PLACE.has(what)) return [];
  const before = new Set(rackClashes(rig, rack).map(keyOf));
  return [b, a].flatMap((mounted): Fix[] => {
    if (!mounted || mounted.rear) return [];
    const { device } = mounted;
    const isAbout = (c: RackClash) => [c.a, c.b].some((m) => m?.device.id === device.id);
    const having = (at: typeof device.rack): Rig => ({
      ...rig,
      devices: rig.devices.map((d) => (d.id === device.id ? { ...d, rack: at } : d)),
    });
    const at = { rack: rack.id, ...freeRackPlace(having(undefined), rack, device) };
    const after = rackClashes(having(at), rack);
    const isCured = !after.some((c) => isAbout(c) && BY_PLACE.has(c.what));
    if (!isCured || after.some((c) => !before.has(keyOf(c)))) return [];
    return [
      {
        words:
          `Mount ${device.name} at unit ${at.unit} of ${rack.name}` +
          (at.x === undefined ? '' : `, ${at.x} mm from the left rail`),
        edits: [{ edit: 'placeInRack', device: device.id, rack: at }],
      },
    ];
  });
}
