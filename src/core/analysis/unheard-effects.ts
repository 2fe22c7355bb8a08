import type { Remark } from '../findings/finding';
import { fixes } from '../findings/finding';
import { byKey, reachable } from '../graph';
import { type Jack, kindOf } from '../kinds';
import { endWords, leadFrom } from '../rig/find';
import type { End } from '../rig/schema';
import type { SoundContext } from '../signal/sound-context';
import type { Remarker } from './evidence';
import { joinFix } from './missing-leads';
import { PLAYED_THROUGH, waysOn } from './open-ends';
import { allOf } from '../units';

/**
 * Effects that a sound switches on, that signal goes into, and from which no way leads to anybody who
 * hears: all their ways end in outputs of another box that hold no lead, such as those of a modeler
 * that was put into an amplifier's loop and does not come back. A box whose own output is open is told as
 * that.
 */
export const unheardEffectRemarks: Remarker = ({ ctx, stations, wantsFixes }) => {
  const destinations = new Set(ctx.destinations.map((d) => d.device.id));
  const byId = new Map(stations.map((s) => [s.id, s]));
  const from = byKey(
    ctx.steps.filter((s) => !s.open),
    (s) => s.from,
  );
  const into = byKey(
    ctx.steps.filter((s) => !s.open),
    (s) => s.to,
  );
  const heard = reachable(
    stations.filter((s) => destinations.has(s.device)).map((s) => s.id),
    (id) => (into.get(id) ?? []).map((x) => x.from),
  );
  const told = new Map<string, { end: End; effects: Set<string> }>();
  for (const s of stations) {
    const isEffect = PLAYED_THROUGH.has(kindOf(ctx.device(s.device).kind).job);
    if (!isEffect || heard.has(s.id) || s.state !== 'engaged' || !s.input?.levelDbu) continue;
    const behind = [...reachable([s.id], (id) => (from.get(id) ?? []).map((x) => x.to))];
    const reached = behind.flatMap((id) => byId.get(id) ?? []);
    const open = [...new Set(reached.map((x) => x.device))]
      .filter((id) => id !== s.device)
      .flatMap((id) => openOutputs(ctx, id));
    for (const end of open) {
      const key = `${end.device}+${end.jack}`;
      const known = told.get(key) ?? { end, effects: new Set<string>() };
      told.set(key, { end, effects: known.effects.add(s.device) });
    }
  }
  const first = new Set<string>();
  return [...told].sort(byEnd).flatMap(([, { end, effects }]): Remark[] => {
    const key = [...effects].sort().join('+');
    // Effects whose ways end in two jacks are told once, of the first.
    if (first.has(key)) return [];
    first.add(key);
    const names = allOf([...effects].sort().map((id) => ctx.device(id).name));
    const isOne = effects.size === 1;
    const ways = wantsFixes
      ? waysOn(ctx.rig, ctx.device(end.device)).map((to) => joinFix(ctx, end, to))
      : [];
    return [
      {
        rule: 'unheard-effect',
        severity: 'caution',
        subjects: [end.device, ...[...effects].sort()],
        about: `${end.device}+${end.jack}`,
        what: `${names} ${isOne ? 'is' : 'are'} switched on, and nothing is plugged into ${endWords(ctx.rig, end)}.`,
        why: `What goes into ${isOne ? 'it' : 'them'} is heard nowhere.`,
        ...fixes(ways),
      },
    ];
  });
};

const byEnd = ([a]: [string, unknown], [b]: [string, unknown]): number =>
  a < b ? -1 : Number(a > b);

/**
 * Outputs of a box, no sends, that signal comes as far as and no lead is in; of a box that is no modeler
 * only where none of them holds one: a tuner’s leg that is free is no way, and a tuner at its end none.
 */
function openOutputs({ rig, device, at }: SoundContext, id: string): End[] {
  const { jacks, loops, hosts, job } = kindOf(device(id).kind);
  const sends = new Set(loops?.flatMap((l) => l.send));
  const innerTo = (jack: Jack) =>
    jacks.find((j) => j.direction === 'in' && j.faces?.jack === jack.id)?.id;
  const outs = jacks.filter(
    (j) => j.direction === 'out' && j.signal === 'audio' && !j.inside && !sends.has(j.id),
  );
  const isOpen = (j: Jack) => !leadFrom(rig, id, j.id);
  if (job === 'tuner' || (!hosts && !outs.every(isOpen))) return [];
  return outs
    .filter((j) => isOpen(j) && at(id, innerTo(j) ?? j.id).flows.length > 0)
    .map((j) => ({ device: id, jack: j.id }));
}
