import { controlWiringRemarks } from '../control/wiring-remarks';
import { brokenAssignments, unreachedAssignments } from '../control/assignment-remarks';
import type { Rig } from '../rig/schema';
import { songRemarks } from '../songs/remarks';
import { setStage } from './change';
import { changeRemarks, type SceneRemark, unheardRemarks } from './change-remarks';
import { deadLeadRemarks, listenerRemarks, reachRemarks, wireRemarks } from './wiring-remarks';

let last: { rig: Rig; remarks: SceneRemark[] } | undefined;

const same = (a: Rig, b: Rig): boolean =>
  a.devices === b.devices &&
  a.leads === b.leads &&
  a.sounds === b.sounds &&
  a.controls === b.controls &&
  a.songs === b.songs &&
  a.sets === b.sets;

/**
 * What is wrong with control, messages and songs, whatever the sound or in which; remembered while
 * nothing that it depends on changes.
 */
export function controlRemarks(rig: Rig): SceneRemark[] {
  if (last && same(last.rig, rig)) return last.remarks;
  const all = rig.sounds.map((s) => s.id);
  const stage = setStage(rig);
  const everywhere = [
    ...wireRemarks(rig),
    ...controlWiringRemarks(rig),
    ...brokenAssignments(rig),
    ...unreachedAssignments(rig),
  ];
  // Without devices that know MIDI there is nothing to simulate.
  const reached = stage.orders.graph.devices.size ? reachRemarks(stage.orders) : [];
  const midi = stage.orders.graph.devices.size
    ? [...reached, ...deadLeadRemarks(stage.orders, reached), ...listenerRemarks(stage.orders)]
    : [];
  const remarks = [
    ...[...everywhere, ...midi].map((remark) => ({ sounds: all, remark })),
    ...(stage.orders.graph.devices.size ? [...changeRemarks(stage), ...unheardRemarks(stage)] : []),
    ...songRemarks(rig),
  ];
  last = { rig, remarks };
  return remarks;
}
