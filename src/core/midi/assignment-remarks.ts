import type { Remark } from '../findings/finding';
import { kindOf } from '../kinds';
import { midiGraph, reachIn } from './graph';
import { deviceOf, nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';

/**
 * What a pedal or switch moves over MIDI has to be reached by the device that reads it, and to take
 * the control change that carries it.
 */
export function unreachedAssignments(rig: Rig): Remark[] {
  const graph = midiGraph(rig);
  const outer = (id: string): string => {
    const host = deviceOf(rig, id)?.host;
    return host === undefined || host === id ? id : outer(host);
  };
  return (rig.controls ?? []).flatMap((c) => {
    const readers = rig.leads
      .filter((l) => l.type === 'control' && l.from.device === c.device)
      .map((l) => l.to.device);
    const reader = readers[0] ?? c.device;
    if (reader === undefined || !graph.devices.has(reader)) return [];
    return c.assigns.flatMap((a): Remark[] => {
      if (!deviceOf(rig, a.device)) return [];
      const at = outer(a.device);
      if (readers.includes(at) || at === reader || at === c.device) return [];
      const [from, to] = [nameOf(rig, reader), nameOf(rig, at)];
      const base = { severity: 'fault' as const, subjects: [at, reader], about: `${c.id} ${a.id}` };
      const m = graph.devices.get(at);
      if (!m)
        return [
          {
            ...base,
            rule: 'control-cut',
            what: `${c.name} cannot move ${nameOf(rig, a.device)}.`,
            why: `${from} reads the control, and ${to} takes no messages: nothing carries it there.`,
          },
        ];
      if (!reachIn(graph, reader).has(at))
        return [
          {
            ...base,
            rule: 'control-cut',
            what: `${c.name} does not get to ${to}.`,
            why: `${from} reads it and would send a control change, but no message of ${from} reaches ${to}.`,
          },
        ];
      const mapped = m.device.midi?.controls ?? (m.mapped.length ? m.mapped : undefined);
      if (
        a.cc !== undefined &&
        mapped &&
        !mapped.some(
          (x) => (x.as ?? 'control') === 'control' && x.cc === a.cc && x.setting === a.setting,
        )
      ) {
        const listens = m.mapped.find(
          (x) => x.as === 'control' && x.setting === a.setting && x.device === a.device,
        );
        return [
          {
            ...base,
            rule: 'control-cc',
            what: `${c.name} sends control ${a.cc}, which does not move ${nameOf(rig, a.device)}.`,
            why: listens
              ? `${to} takes control ${listens.cc} for that.`
              : `${to} takes no control change for that.`,
            ...(listens && {
              fix: {
                words: `Send control ${listens.cc}`,
                edits: [
                  {
                    edit: 'setControl',
                    control: {
                      ...c,
                      assigns: c.assigns.map((x) => (x === a ? { ...a, cc: listens.cc } : x)),
                    },
                  },
                ],
              },
            }),
          },
        ];
      }
      return [];
    });
  });
}

/**
 * Controls that move nothing, or something that is not there; two that move the same setting in the
 * same sound.
 */
export function brokenAssignments(rig: Rig): Remark[] {
  const found: Remark[] = [];
  const moved = new Map<
    string,
    { control: string; name: string; sounds: readonly string[] | undefined }[]
  >();
  for (const c of rig.controls ?? []) {
    for (const a of c.assigns) {
      const device = deviceOf(rig, a.device);
      const knows =
        device &&
        (a.setting === 'engaged'
          ? !kindOf(device.kind).alwaysOn
          : kindOf(device.kind).parameters.some((p) => p.id === a.setting));
      if (!knows)
        found.push({
          rule: 'control-nothing',
          severity: 'fault',
          subjects: device ? [device.id] : [],
          about: `${c.id} ${a.id}`,
          what: `${c.name} moves something that is not there.`,
          why: device
            ? `${device.name} has no setting "${a.setting}".`
            : `There is no device "${a.device}" any more.`,
          fix: {
            words: `Take that out of ${c.name}`,
            edits: [
              { edit: 'setControl', control: { ...c, assigns: c.assigns.filter((x) => x !== a) } },
            ],
          },
        });
      const key = `${a.device} ${a.setting}`;
      const others = moved.get(key) ?? [];
      moved.set(key, others);
      const clash = others.find(
        (o) =>
          o.control !== c.id &&
          (!o.sounds?.length || !a.sounds?.length || o.sounds.some((s) => a.sounds!.includes(s))),
      );
      if (clash && device)
        found.push({
          rule: 'control-twice',
          severity: 'caution',
          subjects: [device.id],
          about: `${key} ${[c.id, clash.control].sort().join('+')}`,
          what: `${c.name} and ${clash.name} both move ${device.name}, ${a.setting}.`,
          why: 'Whichever was moved last holds, so what is heard depends on the order.',
        });
      others.push({ control: c.id, name: c.name, sounds: a.sounds });
    }
  }
  return found;
}
