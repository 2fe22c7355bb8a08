import { findKind } from '../kinds';
import { deviceOf, nameOf, soundOf } from './find';
import { PROMISE_TYPES, type Say } from './promise-types';
import type { Rig, RigPromise } from './schema';

const list = (names: readonly string[]): string =>
  names.length < 2
    ? (names[0] ?? '')
    : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;

const sayOf = (rig: Rig): Say => {
  const sound = (id: string) => soundOf(rig, id)?.name ?? id;
  return {
    device: (id) => nameOf(rig, id),
    sound,
    control: (id) => rig.controls?.find((c) => c.id === id)?.name ?? id,
    setting: (id, setting) => {
      const device = deviceOf(rig, id);
      const kind = device && findKind(device.kind);
      return kind?.parameters.find((x) => x.id === setting)?.label ?? setting;
    },
    where: (ids) => (ids?.length ? `in ${list(ids.map(sound))}` : 'in every sound'),
    list,
  };
};

/** A promise in plain words: "House, cabinet mic never hears Click, in every sound". */
export function promiseWords(rig: Rig, promise: RigPromise): string {
  const words = PROMISE_TYPES[promise.type].words as (p: RigPromise, say: Say) => string;
  return words(promise, sayOf(rig));
}
