import { sure } from '../outcome';
import { isEngaged, settingOf, stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import { runChange } from './change';
import { setStage, type Stage, underMidi } from './stage';
import { addressIn } from './commands';
import { sceneOf, type Scene } from '../control/scene';
import { deviceOf } from '../rig/find';
import type { Control, Device, Rig, Sound } from '../rig/schema';
import { settingWords } from '../rig/words';
import { effectiveSound, holdsIn, valueAt } from '../control/effective';

/**
 * One thing a foot or a hand does to come from one sound to another: on which device, and what
 * changes by it. `control` names a switch that was set up.
 */
export interface Press {
  device: string;
  changes: string[];
  control?: string;
  calls?: boolean;
}

/** What it takes to come from one sound to another. */
export interface Presses {
  /**
   * Foot switches: one a control, one a device, or one a sender that calls the sound on everything
   * it tells.
   */
  presses: Press[];
  /** Knobs and pedals that have to be set by hand or foot, because nothing sets them. */
  turns: Press[];
}

/** The device whose program sets this one: the nearest programmable host around it, or itself. */
export function programOf(rig: Rig, device: Device): Device | undefined {
  for (
    let at: Device | undefined = device;
    at;
    at = at.host === undefined ? undefined : deviceOf(rig, at.host)
  ) {
    if (kindOf(at.kind).programs) return at;
  }
  return undefined;
}

/** One setting that differs: on which device, in words, and whether a hand or foot turns it. */
interface Difference {
  device: Device;
  setting: string;
  words: string;
  program?: Device;
  turned: boolean;
}

function differences(rig: Rig, from: Sound, to: Sound): Difference[] {
  const [one, two] = [effectiveSound(rig, from), effectiveSound(rig, to)];
  return rig.devices.flatMap((device) => {
    const kind = kindOf(device.kind);
    const [a, b] = [stateIn(one, device.id), stateIn(two, device.id)];
    const program = programOf(rig, device);
    const found: Difference[] = [];
    // Which instrument is played is no press of a switch.
    if (kind.job !== 'instrument' && isEngaged(kind, device, a) !== isEngaged(kind, device, b)) {
      const words = kind.stateWords ?? { on: 'on', off: 'off' };
      found.push({
        device,
        setting: 'engaged',
        words: isEngaged(kind, device, b) ? words.on : words.off,
        program,
        turned: false,
      });
    }
    for (const p of kind.parameters) {
      const value = settingOf(kind, device, b, p.id);
      if (value === undefined || value === settingOf(kind, device, a, p.id)) continue;
      // A knob on a pedal that is off in the second sound can wait.
      if (p.type === 'knob' && !program && !isEngaged(kind, device, b)) continue;
      found.push({
        device,
        setting: p.id,
        words: settingWords(kind.id, p.id, value),
        program,
        turned: p.type === 'knob' && (p.foot === true || !program),
      });
    }
    return found;
  });
}

const stages = new WeakMap<Rig['sounds'], { rig: Rig; stage: Stage; scenes: Map<string, Scene> }>();

/** The simulated bus with a rig's sounds, kept while devices, leads, sounds and controls stay the same. */
export function stageOfSounds(rig: Rig): { stage: Stage; scenes: Map<string, Scene> } {
  const hit = stages.get(rig.sounds);
  if (
    hit &&
    hit.rig.devices === rig.devices &&
    hit.rig.leads === rig.leads &&
    hit.rig.controls === rig.controls
  )
    return hit;
  const scenes = rig.sounds.map((s) => sceneOf(rig, s));
  const made = { rig, stage: setStage(rig, scenes), scenes: new Map(scenes.map((s) => [s.id, s])) };
  stages.set(rig.sounds, made);
  return made;
}

/**
 * Devices (and the blocks inside them) that calling the second sound sets as it wants them, by the
 * sender on which it is called.
 */
function calledBy(rig: Rig, from: Sound, to: Sound): Map<string, string> {
  const { stage, scenes } = stageOfSounds(rig);
  const [a, b] = [scenes.get(from.id), scenes.get(to.id)];
  const found = new Map<string, string>();
  if (!a || !b) return found;
  const roots = stage.orders.roots(b);
  if (!roots.length) return found;
  const change = runChange(stage, a, b, { quiet: true });
  const wrong = new Set(change.mismatches.map((m) => m.device));
  const rootOf = (id: string, seen: string[] = []): string | undefined => {
    if (roots.includes(id)) return id;
    const by = stage.orders.commanderOf.get(id);
    return by === undefined || seen.includes(by) ? undefined : rootOf(by, [...seen, id]);
  };
  for (const id of underMidi(stage, b)) {
    const m = sure(stage.orders.graph.devices.get(id));
    const root = rootOf(id);
    const set =
      m.commands ||
      addressIn(b, id) !== undefined ||
      change.landings.some(
        (l) => l.device === id && l.effect.what !== 'unknown' && l.effect.what !== 'bank',
      );
    if (root !== undefined && set && !wrong.has(id)) found.set(id, root);
  }
  return found;
}

/**
 * Whether a message can set this on a device that a sender calls: everything in a program, else
 * what its control changes move.
 */
function setsIt(
  { stage, scenes }: { stage: Stage; scenes: Map<string, Scene> },
  to: string,
  d: Difference,
  at: string,
): boolean {
  if (d.device.id === at && d.turned && d.setting === 'pedal') return false;
  const m = sure(stage.orders.graph.devices.get(at));
  if (addressIn(sure(scenes.get(to)), at)) return true;
  return m.mapped.some((c) => c.device === d.device.id && c.setting === d.setting);
}

/**
 * Presses and turns from one sound to another, as the rig stands. A switch that was set up and
 * stands otherwise in the two sounds is one press for all that it moves; a sender that calls the
 * sound is one press for every device that the simulated bus then leaves as the sound wants it;
 * each other device with a switch is one press, a device with programs one for all that changes in
 * it.
 */
export function pressesBetween(rig: Rig, from: Sound, to: Sound): Presses {
  const presses = new Map<string, Press>();
  const turns = new Map<string, Press>();
  const note = (
    where: Map<string, Press>,
    key: string,
    words: string,
    rest: Omit<Press, 'changes'>,
  ) => {
    const known = where.get(key);
    if (known) known.changes.push(words);
    else where.set(key, { changes: [words], ...rest });
  };
  const named = (d: Difference, at: string) =>
    d.device.id === at ? d.words : `${d.device.name} ${d.words}`;
  const moved = (rig.controls ?? []).filter(
    (c) =>
      c.type !== 'pedal' &&
      from.controls?.[c.id] !== undefined &&
      to.controls?.[c.id] !== undefined &&
      from.controls[c.id] !== to.controls[c.id],
  );
  const byControl = (d: Difference): Control | undefined =>
    moved.find((c) =>
      c.assigns.some(
        (a) =>
          a.device === d.device.id &&
          a.setting === d.setting &&
          holdsIn(a, to.id) &&
          agrees(rig, c, a, to, d),
      ),
    );
  const under = calledBy(rig, from, to);
  const stage = under.size ? stageOfSounds(rig) : undefined;
  for (const d of differences(rig, from, to)) {
    const control = byControl(d);
    if (control) {
      note(presses, `control ${control.id}`, `${d.device.name} ${d.words}`, {
        device: control.device ?? d.device.id,
        control: control.id,
      });
      continue;
    }
    const at = d.program?.id ?? d.device.id;
    const root = under.get(at);
    if (root !== undefined && stage && setsIt(stage, to.id, d, at))
      note(presses, root, named(d, root), { device: root, calls: true });
    else if (d.turned) note(turns, at, named(d, at), { device: at });
    else note(presses, at, named(d, at), { device: at });
  }
  return { presses: [...presses.values()], turns: [...turns.values()] };
}

/** Whether an assignment sets a setting to what the sound has. */
function agrees(
  rig: Rig,
  c: Control,
  a: Control['assigns'][number],
  to: Sound,
  d: Difference,
): boolean {
  const kind = kindOf(d.device.kind);
  const state = stateIn(effectiveSound(rig, to), d.device.id);
  const wanted =
    d.setting === 'engaged'
      ? isEngaged(kind, d.device, state)
      : settingOf(kind, d.device, state, d.setting);
  return valueAt(rig, c, a, to.controls![c.id]!) === wanted;
}
