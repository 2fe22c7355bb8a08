import { arrivingFigures, soundContext } from '../signal';
import { KINDS, type Kind, kindOf } from '../kinds';
import { applyEdits } from '../rig/apply';
import { nameOf } from '../rig/find';
import type { Device, Rig, Sound } from '../rig/schema';
import { showChange, showLevel } from '../units';

/**
 * A kind that could stand in for a device, with what is lost and what it does to each destination,
 * in one sound.
 */
export interface Substitute {
  kind: string;
  name: string;
  lost: string[];
  gained: string[];
  changes: { destination: string; words: string; db: number }[];
}

const words = (k: Kind): Map<string, string> =>
  new Map([
    ...k.parameters.map((p): [string, string] => [
      `setting ${p.id} ${p.type}`,
      p.label.toLowerCase(),
    ]),
    ...(k.jacks.some((j) => j.pair && j.direction === 'out')
      ? [['stereo', 'stereo outputs'] as [string, string]]
      : []),
    ...(k.midi?.programs ? [['programs', 'programs over MIDI'] as [string, string]] : []),
    ...(k.midi?.controls?.length ? [['controls', 'control changes'] as [string, string]] : []),
    ...(k.midi?.clock ? [['clock', 'following clock'] as [string, string]] : []),
    ...(k.tempo ? [['tempo', 'a time that can be set to a tempo'] as [string, string]] : []),
    ...(k.jacks.some((j) => j.reads)
      ? [['pedal', 'a jack for a pedal or switch'] as [string, string]]
      : []),
  ]);

/** Kinds of the same family that do the same job as a device; as a block, only those with a block form. */
export function standInsFor(device: Device): Kind[] {
  const was = kindOf(device.kind);
  return was.through
    ? KINDS.filter(
        (k) =>
          k.id !== was.id &&
          k.through &&
          k.family === was.family &&
          k.job === was.job &&
          (device.host === undefined || k.block),
      )
    : [];
}

/**
 * Kinds of the same family and job that could stand in for a device, with what each loses; the
 * nearest in level first.
 */
export function substitutesFor(rig: Rig, device: string, sound: Sound): Substitute[] {
  const own = rig.devices.find((d) => d.id === device);
  if (!own) return [];
  const was = kindOf(own.kind);
  const before = arrivingFigures(soundContext(rig, sound));
  const [a, wasTime] = [words(was), was.tempo];
  return standInsFor(own)
    .flatMap((k): Substitute[] => {
      const done = applyEdits(rig, [{ edit: 'replaceDevice', device, kind: k.id }]);
      if (!done.ok) return [];
      const after = arrivingFigures(soundContext(done.value.rig, sound));
      const b = words(k);
      const missing = (x: Map<string, string>, y: Map<string, string>) =>
        [...x].filter(([key]) => !y.has(key)).map(([, text]) => text);
      const typical = (kind: Kind, id: string) => kind.figures.find((f) => f.id === id)?.typical;
      const shorter =
        wasTime &&
        k.tempo &&
        (typical(k, k.tempo.high) ?? 0) < (typical(was, wasTime.high) ?? 0) &&
        wasTime.is === 'delay'
          ? [`times over ${typical(k, k.tempo.high)} ms`]
          : [];
      const unplugged = rig.leads.filter(
        (l) =>
          (l.from.device === device || l.to.device === device) &&
          !done.value.rig.leads.some((x) => x.id === l.id),
      ).length;
      return [
        {
          kind: k.id,
          name: k.name,
          gained: missing(b, a),
          lost: [
            ...missing(a, b),
            ...shorter,
            ...(unplugged
              ? [`${unplugged} ${unplugged === 1 ? 'lead' : 'leads'} that no jack takes`]
              : []),
          ],
          changes: before.flatMap((d) => {
            const e = after.find((x) => x.device === d.device);
            if (!d.levelDbu || !e) return [];
            if (!e.levelDbu)
              return [{ destination: nameOf(rig, d.device), words: 'silent', db: -200 }];
            const db = e.levelDbu.normal - d.levelDbu.normal;
            return Math.abs(db) < 0.1 && d.channels === e.channels
              ? []
              : [
                  {
                    destination: nameOf(rig, d.device),
                    db,
                    words:
                      `${showChange(db)} (${showLevel(e.levelDbu.normal)})` +
                      (d.channels === e.channels ? '' : `, ${e.channels} instead of ${d.channels}`),
                  },
                ];
          }),
        },
      ];
    })
    .sort(
      (x, y) =>
        Math.max(0, ...x.changes.map((c) => Math.abs(c.db))) -
          Math.max(0, ...y.changes.map((c) => Math.abs(c.db))) || x.lost.length - y.lost.length,
    );
}
