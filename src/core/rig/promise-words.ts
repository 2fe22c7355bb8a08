import { findKind } from '../kinds';
import { deviceOf, nameOf, soundOf } from './find';
import type { Rig, RigPromise } from './schema';

const listed = (names: string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** A promise in plain words: "House, cabinet mic never hears Click, in every sound". */
export function promiseWords(rig: Rig, p: RigPromise): string {
  const d = (id: string) => nameOf(rig, id);
  const s = (id: string) => soundOf(rig, id)?.name ?? id;
  const where = (ids: string[] | undefined) =>
    ids?.length ? `in ${listed(ids.map(s))}` : 'in every sound';
  switch (p.type) {
    case 'hears':
      return `${d(p.destination)} always hears ${d(p.source)}, ${where(p.sounds)}`;
    case 'never-hears':
      return `${d(p.destination)} never hears ${d(p.source)}, ${where(p.sounds)}`;
    case 'moves-only': {
      const device = deviceOf(rig, p.device);
      const label =
        device && findKind(device.kind)?.parameters.find((x) => x.id === p.setting)?.label;
      return (
        `${label ?? p.setting} of ${d(p.device)} moves ${listed(p.destinations.map(d))} and ` +
        `nothing else, ${where(p.sounds)}`
      );
    }
    case 'control-moves-only':
      return (
        `${rig.controls?.find((c) => c.id === p.control)?.name ?? p.control} ` +
        `moves ${listed(p.destinations.map(d))} and nothing else, ${where(p.sounds)}`
      );
    case 'stereo':
      return `${d(p.destination)} is stereo, ${where(p.sounds)}`;
    case 'levels-within':
      return (
        `levels at ${d(p.destination)} lie within ${p.db} dB of one ` +
        `another, ${where(p.sounds)}${p.solos?.length ? `; ${listed(p.solos.map(s))} ${p.soloDb ?? 0} dB over them` : ''}`
      );
    case 'tuner-hears':
      return `the tuner always hears ${d(p.source)}, ${where(p.sounds)}`;
    case 'muted-silent':
      return (
        `${listed(p.sounds.map(s))} ${p.sounds.length > 1 ? 'are' : 'is'} silent at every ` +
        'destination but the tuner'
      );
    case 'tails-survive':
      return `tails survive the change from ${s(p.from)} to ${s(p.to)}`;
    case 'one-press':
      return `one press from ${s(p.from)} to ${s(p.to)}`;
    case 'no-tube-unloaded':
      return 'no tube amplifier is ever without a load';
    case 'noise-under':
      return `signal-to-noise at ${d(p.destination)} is over ${p.db} dB, ${where(p.sounds)}`;
    case 'latency-under':
      return `latency to ${d(p.destination)} is under ${p.ms} ms, ${where(p.sounds)}`;
    case 'survives':
      return (
        `if ${d(p.device)} dies, ${d(p.destination)} still hears something ` +
        `within ${p.actions} ${p.actions === 1 ? 'action' : 'actions'}, ${where(p.sounds)}`
      );
  }
}
