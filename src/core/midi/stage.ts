import type { Rig } from '../rig/schema';
import { allScenes, type Scene } from '../control/scene';
import { type Orders, ordersOf } from './commands';
import { type Memory, memoryOf } from './stand-in';

/** A simulated bus with the devices on it, ready to run changes. */
export interface Stage {
  orders: Orders;
  memory: Memory;
  scene: (id: string) => Scene | undefined;
}

/** Sets the stage: scenes default to all sounds and what songs make of them. */
export function setStage(rig: Rig, scenes: readonly Scene[] = allScenes(rig)): Stage {
  const orders = ordersOf(rig, scenes);
  const byId = new Map(scenes.map((s) => [s.id, s]));
  return { orders, memory: memoryOf(orders), scene: (id) => byId.get(id) };
}

/** Devices whose state MIDI sets in a scene: they are told by somebody, or are called on themselves. */
export function underMidi({ orders }: Stage, scene: Scene): string[] {
  const roots = orders.roots(scene);
  return [...orders.graph.devices.keys()].filter(
    (id) => roots.includes(id) || orders.commanderOf.has(id),
  );
}
