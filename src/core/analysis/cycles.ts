import { at as entryAt, sure } from '../outcome';
import { buildCircuit, type Circuit, type CircuitStage } from '../circuit';
import { byKey, loopsThrough, nearestFirst, orderNodes, reachable } from '../graph';
import type { Fix, Remark } from '../findings/finding';
import { isEngaged, resolveState, stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import type { Edit } from '../rig/edits';
import { settingWords } from '../rig/words';
import type { Device, SettingValue, Sound } from '../rig/schema';
import { decibels, fixed, ratio } from '../units';
import type { Remarker } from './evidence';
import { type Loop, rests, stageGainDb } from '../signal/flow';
import type { SoundContext } from '../signal/sound-context';

/**
 * What becomes of signal in a circle: it comes to rest and the levels count it; it howls by itself, or
 * only together with other ways round; or it would rest, but shares its way with what howls. All but
 * the first have no level, and the levels leave the way back out.
 */
export type Fate = 'rests' | 'howls' | 'howls together' | 'beside a howl';

/** A circle that signal can run in: each device in the order it is met, and what once round gains. */
export interface Cycle {
  devices: string[];
  /** Small-signal gain once round at 1 kHz, in dB, the passive ways between counted. */
  gainDb: number;
  /** The same of all ways round that hang together, where all arrive in phase, in dB. */
  togetherDb: number;
  fate: Fate;
  /** Destinations whose levels hang on what goes round. */
  reaches: string[];
  /** What one press would open it; nothing where only a lead can. */
  opens?: Fix;
}

/** A way with less gain than this carries nothing. */
const SHUT_DB = -100;
/** Circles in one tangle of ways are named up to this many. */
const MOST = 60;

/** Stages that carry signal, as edges between passive sections. */
function edgesOf(circuit: Circuit): Map<number, { stage: CircuitStage; to: number }[]> {
  const edges = new Map<number, { stage: CircuitStage; to: number }[]>();
  for (const stage of circuit.stages) {
    if (stageGainDb(stage) < SHUT_DB) continue;
    const from = entryAt(circuit.nets, stage.from).section;
    const list = edges.get(from) ?? [];
    list.push({
      stage,
      to: entryAt(circuit.nets, entryAt(circuit.drivers, stage.driver).net).section,
    });
    edges.set(from, list);
  }
  return edges;
}

/**
 * Every elementary circle of stages: depth first from each section, visiting only later ones, so
 * that each circle is met once.
 */
function circles(circuit: Circuit): CircuitStage[][] {
  const edges = edgesOf(circuit);
  const next = circuit.sections.map((s) => (edges.get(s.index) ?? []).map((e) => e.to));
  const loops = loopsThrough(orderNodes(next).back, next);
  const found: CircuitStage[][] = [];
  for (const loop of loops) {
    const inside = new Set(loop);
    for (const start of [...loop].sort((a, b) => a - b)) {
      const way: CircuitStage[] = [];
      const on = new Set<number>();
      const walk = (at: number): void => {
        if (found.length >= MOST) return;
        on.add(at);
        for (const { stage, to } of edges.get(at) ?? []) {
          if (to < start || !inside.has(to)) continue;
          way.push(stage);
          if (to === start) found.push([...way]);
          else if (!on.has(to)) walk(to);
          way.pop();
        }
        on.delete(at);
      };
      walk(start);
    }
  }
  return found;
}

/** Devices of metal only that lie between a stage and the next one of a circle, by the steps of the walk. */
function metalBetween(ctx: SoundContext, from: CircuitStage, to: CircuitStage): string[] {
  if (from.device === to.device) return [];
  const { circuit } = ctx.flowing;
  const nets = new Set(entryAt(circuit.sections, entryAt(circuit.nets, to.from).section).nets);
  const touches = (id: string, jacks: readonly string[]) =>
    jacks.some((j) => nets.has(circuit.netAt(id, j)?.index ?? -1));
  const station = new Map(ctx.stations.map((s) => [s.id, s]));
  const onward = byKey(
    ctx.steps.filter((s) => !s.open),
    (s) => s.from,
  );
  const starts = ctx.stations
    .filter((s) => s.device === from.device && touches(s.device, s.outs))
    .map((s) => ({ id: s.id, way: [] as string[] }));
  const next = ({ id, way }: { id: string; way: string[] }) => {
    const here = station.get(id);
    const isStart = way.length === 0;
    if (!here || !(isStart || touches(here.device, [...here.ins, ...here.outs]))) return [];
    return (onward.get(id) ?? []).map((step) => ({ id: step.to, way: [...way, here.device] }));
  };
  for (const { id, way } of nearestFirst(starts, next, (x) => x.id))
    if (way.length && station.get(id)?.device === to.device) return way.slice(1);
  return [];
}

/**
 * Every circle of a sound, named by the devices it runs through. Parallel ways through the same
 * devices count once, with the louder one's gain.
 */
export function cyclesOf(ctx: SoundContext): Cycle[] {
  if (!ctx.flowing.loops.length) return [];
  const { circuit, solution, loops } = ctx.flowing;
  const named = new Map<string, Pick<Cycle, 'devices' | 'gainDb'> & { loop: Loop }>();
  for (const circle of circles(circuit)) {
    const gainDb = circle.reduce((sum, s, i) => {
      const next = entryAt(circle, (i + 1) % circle.length);
      const driver = entryAt(circuit.drivers, s.driver);
      const section = entryAt(circuit.sections, entryAt(circuit.nets, driver.net).section);
      return (
        sum +
        stageGainDb(s) +
        decibels(
          solution(section, 1000).transfer(
            section.drivers.indexOf(driver),
            section.nets.indexOf(next.from),
          ),
        )
      );
    }, 0);
    const devices = [
      ...new Set(
        circle.flatMap((s, i) => [
          s.device,
          ...metalBetween(ctx, s, entryAt(circle, (i + 1) % circle.length)),
        ]),
      ),
    ];
    const start = devices.indexOf(entryAt([...devices].sort(), 0));
    const turned = [...devices.slice(start), ...devices.slice(0, start)];
    const known = named.get(turned.join(' '));
    const loop = sure(loops.find((l) => circle.every((s) => l.stages.includes(s))));
    if (!known || gainDb > known.gainDb)
      named.set(turned.join(' '), { devices: turned, gainDb, loop });
  }
  const found = [...named.values()];
  const howling = new Set(found.filter((c) => !rests(ratio(c.gainDb))).map((c) => c.loop));
  const fateOf = ({ gainDb, loop }: (typeof found)[number]): Fate => {
    if (!rests(ratio(gainDb))) return 'howls';
    if (rests(loop.gainRound)) return 'rests';
    return howling.has(loop) ? 'beside a howl' : 'howls together';
  };
  const behind = new Map(loops.map((l) => [l, destinationsBehind(circuit, l)]));
  return found.map((c) => ({
    devices: c.devices,
    gainDb: c.gainDb,
    togetherDb: decibels(c.loop.gainRound),
    fate: fateOf(c),
    reaches: behind.get(c.loop) ?? [],
    opens: pressThatOpens(ctx, c.devices),
  }));
}

/** Destinations that signal reaches from some stages, by ways that carry it. */
function destinationsBehind(circuit: Circuit, { stages }: Loop): string[] {
  const edges = edgesOf(circuit);
  const sectionOf = (net: number) => entryAt(circuit.nets, net).section;
  const reached = reachable(
    stages.map((s) => sectionOf(s.from)),
    (at) => (edges.get(at) ?? []).map((e) => e.to),
  );
  const heard = circuit.arrivals.filter((a) => reached.has(sectionOf(a.net)));
  return [...new Set(heard.map((a) => a.device))];
}

/** Looks for one press on one of the circle's devices that opens it: bypass, a switch, another choice. */
function pressThatOpens(ctx: SoundContext, devices: readonly string[]): Fix | undefined {
  const all = devices.flatMap((id) =>
    presses(ctx.device(id), ctx.sound).map((press) => ({ id, press })),
  );
  // A pedal's own switch first, then another setting; an amplifier or a whole host last, for it
  // silences more than the circle.
  const price = ({ id, press }: (typeof all)[number]) =>
    (['amp', 'modeler'].includes(kindOf(ctx.device(id).kind).job) ? 2 : 0) +
    (press.edit.edit === 'setEngaged' ? 0 : 1);
  for (const { id, press } of all.sort((a, b) => price(a) - price(b))) {
    const state = { ...stateIn(ctx.sound, id) };
    const next =
      press.edit.edit === 'setEngaged'
        ? { ...state, engaged: press.edit.engaged }
        : { ...state, settings: { ...state.settings, [press.edit.setting]: press.edit.value } };
    const sound: Sound = { ...ctx.sound, states: { ...ctx.sound.states, [id]: next } };
    const circuit = buildCircuit(ctx.rig, sound);
    // A device that is only metal is not among the stages, though the circle may go on through it.
    const active = new Set(ctx.flowing.circuit.stages.map((s) => s.device));
    const others = devices.filter((d) => d !== id && active.has(d));
    const still = circles(circuit).some(
      (c) =>
        c.every((s) => devices.includes(s.device)) &&
        (others.length ? others : [id]).every((d) => c.some((s) => s.device === d)),
    );
    if (!still)
      return {
        words: press.words,
        edits: [
          { ...press.edit, ...(ctx.rig.sounds.includes(ctx.sound) && { sound: ctx.sound.id }) },
        ],
      };
  }
  return undefined;
}

type Press = { words: string; edit: Extract<Edit, { edit: 'setEngaged' | 'setSetting' }> };

function presses(device: Device, sound: Sound): Press[] {
  const kind = kindOf(device.kind);
  const state = stateIn(sound, device.id);
  const now = resolveState(kind, device, state);
  const set = (setting: string, value: SettingValue): Press => ({
    words: `Set ${device.name}, ${settingWords(kind.id, setting, value)}`,
    edit: { edit: 'setSetting', device: device.id, setting, value },
  });
  const found: Press[] = [];
  if (!kind.alwaysOn && kind.job !== 'instrument') {
    const engaged = isEngaged(kind, device, state);
    const words = kind.stateWords ?? { on: 'engaged', off: 'bypassed' };
    found.push({
      words: `Set ${device.name} to ${engaged ? words.off : words.on}`,
      edit: { edit: 'setEngaged', device: device.id, engaged: !engaged },
    });
  }
  for (const p of kind.parameters) {
    if (p.type === 'choice')
      for (const o of p.options) if (o.value !== now.choice(p.id)) found.push(set(p.id, o.value));
    if (p.type === 'switch') found.push(set(p.id, !now.on(p.id)));
    if (p.role === 'loop order' && now.text(p.id)) found.push(set(p.id, ''));
  }
  return found.slice(0, 16);
}

/** Signal that can run in a circle: with gain it howls, without it rings. */
export const howlRemarks: Remarker = ({ ctx, cycles }) =>
  cycles.map((c): Remark => ({
    rule: 'howl',
    severity: c.fate === 'howls' || c.fate === 'howls together' ? 'fault' : 'caution',
    subjects: c.devices,
    what: `Signal can run in a circle through ${c.devices.map((d) => ctx.device(d).name).join(', ')}.`,
    why:
      `Once round it ${gainWords(c.gainDb)}${FATES[c.fate](c)} ` +
      (c.fate === 'rests'
        ? 'Levels at 1 kHz count what comes round; the note, its bands and the weighted noise leave it out.'
        : 'The figures leave the way back out.') +
      // What opens it is made on a copy first, and told by what came of it.
      (c.opens ? '' : ' No press opens it; the lead that closes the circle does.'),
    fix: c.opens,
  }));

/** What a gain is, in words: "gains 3.0 dB". */
function gainWords(db: number): string {
  const size = fixed(Math.abs(db));
  if (Number(size) === 0) return 'comes back as strong as it left';
  return `${db > 0 ? 'gains' : 'loses'} ${size} dB`;
}

const FATES: Record<Fate, (c: Cycle) => string> = {
  howls: () => ', so it will howl.',
  'howls together': ({ togetherDb }) =>
    `, but with the other ways round, where all arrive in phase, it ${gainWords(togetherDb)}, so it can howl.`,
  rests: () => '; it will ring and colour the sound.',
  'beside a howl': () => '; it will ring and colour the sound.',
};
