import { kindOf } from '../kinds';
import { midiGraph, midiOf, type Presses, reachIn } from '../midi';
import { sure } from '../outcome';
import { cutText } from '../rig';
import { isEngaged, resolveState, stateIn } from '../rig/device-state';
import { deviceOf, nameOf } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Assignment, Device, Rig, Sound } from '../rig/schema';
import { type Try } from './press-ways';

/** The outermost device around a block. */
const outer = (rig: Rig, d: Device): Device =>
  d.host === undefined ? d : outer(rig, sure(deviceOf(rig, d.host)));

/**
 * A switch whose assignments move everything that differs: inside one host, or over control changes
 * from a controller that reaches all of it.
 */
export function byControl(rig: Rig, a: Sound, b: Sound, before: Presses): Try | undefined {
  const moved = rig.devices.filter(
    (d) =>
      before.presses.some((p) => p.device === d.id || p.device === outer(rig, d).id) ||
      before.turns.some((t) => t.device === d.id),
  );
  const assigns: Assignment[] = [];
  const graph = midiGraph(rig);
  const sender = [...graph.devices.values()].find(
    (m) => m.commands && moved.some((d) => reachIn(graph, m.device.id).has(outer(rig, d).id)),
  );
  for (const d of moved) {
    const kind = kindOf(d.kind);
    const m = midiOf(outer(rig, d));
    const can = (setting: string) =>
      d.host !== undefined ||
      (sender !== undefined &&
        reachIn(graph, sender.device.id).has(d.id) &&
        (m?.mapped.some(
          (c) => c.device === d.id && c.setting === setting && c.way === 'absolute',
        ) ??
          false));
    const [x, y] = [stateIn(a, d.id), stateIn(b, d.id)];
    const add = (
      setting: string,
      off: string | number | boolean,
      on: string | number | boolean,
    ) => {
      if (off !== on && can(setting))
        assigns.push({
          id: freshId(
            `${d.id}-${setting}`,
            assigns.map((q) => q.id),
          ),
          device: d.id,
          setting,
          off,
          on,
        });
    };
    if (!kind.alwaysOn) add('engaged', isEngaged(kind, d, x), isEngaged(kind, d, y));
    const [before_, after_] = [resolveState(kind, d, x), resolveState(kind, d, y)];
    for (const p of kind.parameters) {
      if (p.type === 'knob') add(p.id, before_.knob(p.id), after_.knob(p.id));
      else if (p.type === 'choice') add(p.id, before_.choice(p.id), after_.choice(p.id));
      else if (p.type === 'switch') add(p.id, before_.on(p.id), after_.on(p.id));
    }
  }
  const host = moved
    .map((d) => outer(rig, d))
    .find((d) => d.id !== sender?.device.id && kindOf(d.kind).switches);
  const at = sender?.device ?? host;
  if (assigns.length < 2 || !at) return undefined;
  const id = freshId(
    `${b.name} switch`,
    (rig.controls ?? []).map((c) => c.id),
  );
  return {
    words: `Put ${assigns.length} assignments on one switch of ${at.name}`,
    why:
      `${[...new Set(assigns.map((x) => nameOf(rig, x.device)))].join(', ')} can be moved ` +
      `together: off is ${a.name}, on is ${b.name}.`,
    edits: [
      {
        edit: 'addControl',
        control: {
          id,
          name: cutText(`${a.name} / ${b.name}`, 120),
          type: 'switch',
          device: at.id,
          action: 'latching',
          assigns,
        },
      },
      { edit: 'setPosition', sound: a.id, control: id, at: false },
      { edit: 'setPosition', sound: b.id, control: id, at: true },
    ],
  };
}
