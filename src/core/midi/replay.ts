import { sure } from '../outcome';
import { type Scene } from '../control/scene';
import { addressIn } from './commands';
import { type Traffic } from './bus';
import { copyOf, standingIn, take } from './stand-in';
import { type Stage } from './stage';
import { type Landing, msUntilDone, landed, noteEffect } from './landing';
import { type Because, mismatchesOf } from './mismatch';
import { type Change } from './change';

/**
 * A change as another one from elsewhere to the same scene went: what was received, and what was
 * recalled by it.
 */
export interface Recording {
  received: Traffic['received'];
  recalled: (string | undefined)[];
  pressed: readonly string[];
  doneMs: number;
}

/** Notes how a change went, to be played again from other states. */
export function record(stage: Stage, change: Change): Recording {
  const at = new Map(change.landings.map((l) => [`${l.device} ${l.arrived}`, l]));
  return {
    received: change.traffic.received,
    pressed: change.pressed,
    doneMs: change.doneMs,
    recalled: change.traffic.received.map((r) => {
      const l = at.get(`${r.device} ${r.at}`);
      return l?.effect.what === 'program' && sure(stage.orders.graph.devices.get(r.device)).recalls
        ? l.effect.recalled.id
        : undefined;
    }),
  };
}

/**
 * What a change leaves unlike the scene, from the states of another, by playing again what was
 * received. The bus carries the same whatever the devices were doing, unless a program that a
 * sender recalls is another one: then nothing is given, and the change has to be run.
 */
export function replay(
  stage: Stage,
  from: Scene,
  to: Scene,
  recording: Recording,
): Pick<Change, 'mismatches' | 'end'> | undefined {
  const { orders, memory } = stage;
  const start = standingIn(orders, memory, from);
  const machine = copyOf(start);
  const landings: Pick<Landing, 'device' | 'at' | 'effect'>[] = [];
  const touched = new Map<string, Set<string>>();
  const because = new Map<string, Because>();
  for (const id of recording.pressed) {
    const m = sure(orders.graph.devices.get(id));
    const address = addressIn(to, id);
    if (!m.recalls || !address) continue;
    sure(machine.get(id)).bank = address.bank ?? 0;
    const effect = take(orders, memory, m, sure(machine.get(id)), {
      type: 'program',
      channel: m.channel === 'all' ? 1 : m.channel,
      number: address.number,
    });
    landings.push({ device: id, at: m.programMs, effect });
    touched.set(id, new Set(['program']));
  }
  for (const [i, r] of recording.received.entries()) {
    const m = sure(orders.graph.devices.get(r.device));
    const effect = take(orders, memory, m, sure(machine.get(r.device)), r.message);
    if (
      m.recalls &&
      (effect.what === 'program' ? effect.recalled.id : undefined) !== recording.recalled[i]
    )
      return undefined;
    if (effect.what !== 'nothing')
      landings.push({ device: r.device, at: r.at + msUntilDone(m, effect), effect });
    noteEffect(r.device, effect, touched, because);
  }
  landings.sort((a, b) => a.at - b.at);
  const end = landed(stage, start, landings, because);
  return { mismatches: mismatchesOf(stage, to, end, touched, because), end };
}
