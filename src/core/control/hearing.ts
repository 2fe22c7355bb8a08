import { passesOf, pluggedJacks } from '../circuit';
import { kindOf, type Pass } from '../kinds';
import { BANDS, noteIn } from '../note';
import { at as entryAt } from '../outcome';
import { isEngaged, settingOf, stateIn } from '../rig/device-state';
import { nameOf } from '../rig/find';
import type { Rig, Sound } from '../rig/schema';
import { sourceDevice } from '../rig/source-id';
import { type Apart, type Arriving, arrivingFigures } from '../signal/destinations';
import type { Flowing } from '../signal/flow';
import { soundContext } from '../signal/sound-context';
import { fixed, showChange, showLevel } from '../units';

/**
 * Changes smaller than these are not heard: level in dB, a third-octave band in dB, hiss in dB,
 * distortion in percent, latency in ms, share of wet signal in percent.
 */
const HEARD = {
  levelDb: 0.1,
  bandDb: 0.5,
  noiseDb: 1,
  thdPercent: 0.5,
  latencyMs: 0.05,
  wetPercent: 1,
};
/** A band this far under the loudest is not listened to, in dB. */
const FAINT_DB = 40;

/** All that is heard in a sound: what arrives everywhere, and what can be asked of it further. */
export interface Hearing {
  rig: Rig;
  sound: Sound;
  flowing: Flowing;
  arriving: Arriving[];
  /** The note of each source in third-octave bands, in dBu, at each jack of a destination. */
  bands: (i: number) => Map<string, (number | null)[]>;
}

/**
 * Everything that arrives in a sound; a note is played only when it is asked for. What does not differ
 * from a run that it is `like` is taken over.
 */
export function hearingOf(rig: Rig, sound: Sound, like?: Flowing): Hearing {
  const ctx = soundContext(rig, sound, undefined, { like });
  const arriving = arrivingFigures(ctx);
  let note: ReturnType<typeof noteIn> | undefined;
  const pointsOf = (i: number) => entryAt(ctx.destinations, i);
  return {
    rig,
    sound,
    flowing: ctx.flowing,
    arriving,
    bands: (i) => {
      note ??= noteIn(ctx.flowing.circuit);
      const { device, points } = pointsOf(i);
      const played = note;
      return new Map(
        points.flatMap((p) =>
          [...played(device.id, p)].map(([source, bands]) => [`${p} ${source}`, bands]),
        ),
      );
    },
  };
}

/**
 * Everything that is heard to differ at the destination `i` between two hearings of one rig, in
 * words: level of the whole, of one side, of one source; tone; hiss; saturation; share of wet
 * signal; width; latency; polarity; what sounds; and effects that are set otherwise.
 */
export function differences(a: Hearing, b: Hearing, i: number): string[] {
  const said = figuresApart(a, b, i);
  const [one, other] = [entryAt(a.arriving, i), entryAt(b.arriving, i)];
  if (!one.levelDbu || !other.levelDbu) return said;
  const tells = (what: string) => said.some((s) => s.startsWith(`${what} `));
  if (!tells('level')) said.push(...partsApart(a, b, i, 'level'));
  if (!tells('latency')) said.push(...partsApart(a, b, i, 'latency'));
  said.push(...sidesApart(one, other));
  if (!said.length && mayDifferInTone(a, b)) said.push(...toneApart(a, b, i));
  return [...said, ...effectsApart(a, b, i)];
}

/** What the figures of an arrival say. */
function figuresApart(x: Hearing, y: Hearing, i: number): string[] {
  const [a, b] = [entryAt(x.arriving, i), entryAt(y.arriving, i)];
  const [la, lb] = [a.levelDbu?.normal ?? null, b.levelDbu?.normal ?? null];
  if (la === null && lb === null) return [];
  if (la === null || lb === null)
    return [la === null ? 'heard only at the far end' : 'silent at the far end'];
  const apart = (
    p: number | null,
    q: number | null,
    least: number,
  ): [number, number] | undefined =>
    p !== null && q !== null && Math.abs(p - q) > least ? [p, q] : undefined;
  const thd = apart(a.thdPercent?.normal ?? null, b.thdPercent?.normal ?? null, HEARD.thdPercent);
  const wet = apart(a.wetPercent, b.wetPercent, HEARD.wetPercent);
  const late = apart(a.latencyMs, b.latencyMs, HEARD.latencyMs);
  const hiss = apart(a.noiseDbu, b.noiseDbu, HEARD.noiseDb);
  const idle = apart(a.idleNoiseDbu, b.idleNoiseDbu, HEARD.noiseDb);
  return [
    ...(Math.abs(la - lb) > HEARD.levelDb ? [`level ${showChange(lb - la)}`] : []),
    ...(thd ? [`saturation ${fixed(thd[0])} to ${fixed(thd[1])} %`] : []),
    ...(wet ? [`wet ${fixed(wet[0], 0)} to ${fixed(wet[1], 0)} %`] : []),
    ...(a.channels !== b.channels ? [`${a.channels} to ${b.channels}`] : []),
    ...(late ? [`latency ${fixed(late[0])} to ${fixed(late[1])} ms`] : []),
    ...(a.polarity !== b.polarity ? ['polarity'] : []),
    ...(sameWords(a.sources, b.sources) ? [] : ['what is heard']),
    ...(hiss ? [`hiss ${showLevel(hiss[0])} to ${showLevel(hiss[1])}`] : []),
    ...(idle && !hiss ? ['hiss between notes'] : []),
  ];
}

const sameWords = (a: readonly string[], b: readonly string[]): boolean =>
  [...a].sort().join() === [...b].sort().join();

const PART = {
  level: { of: (x: Apart) => x.levelDbu, least: HEARD.levelDb, none: -200 },
  latency: { of: (x: Apart) => x.latencyMs, least: HEARD.latencyMs, none: 0 },
};

/** One side or one source whose level or latency moves while that of the loudest, which hides it, does not. */
function partsApart(a: Hearing, b: Hearing, i: number, what: keyof typeof PART): string[] {
  const { of, least, none } = PART[what];
  const [one, other] = [a, b].map((h) => entryAt(h.arriving, i).each);
  const all = [...one!, ...other!];
  const value = (list: readonly Apart[], x: Apart) => {
    const found = list.find((y) => y.jack === x.jack && y.source === x.source);
    return found ? of(found) : none;
  };
  const moved = all.filter((x) => Math.abs(value(one!, x) - value(other!, x)) > least);
  if (!moved.length) return [];
  const count = (list: readonly Apart[], key: 'jack' | 'source') =>
    new Set(list.map((x) => x[key])).size;
  if (count(moved, 'source') === 1 && count(all, 'source') > 1)
    return [`${what} of ${nameOf(a.rig, sourceDevice(moved[0]!.source))}`];
  return [`${what} of ${count(moved, 'jack') === 1 ? 'one side' : 'the sides'}`];
}

/** Saturation and hiss of one side, where the louder one's are not told already. */
function sidesApart(a: Arriving, b: Arriving): string[] {
  const apart = (x: number | null | undefined, y: number | null | undefined, least: number) =>
    Math.abs((x ?? 0) - (y ?? 0)) > least;
  const side = (test: (x: Side, y: Side) => boolean) =>
    a.sides.some((x, k) => b.sides[k] !== undefined && test(x, b.sides[k]));
  const loud = (x: Arriving) => x.thdPercent?.normal;
  return [
    ...(!apart(loud(a), loud(b), HEARD.thdPercent) &&
    side((x, y) => apart(x.thdPercent?.normal, y.thdPercent?.normal, HEARD.thdPercent))
      ? ['saturation of one side']
      : []),
    ...(!apart(a.noiseDbu, b.noiseDbu, HEARD.noiseDb) &&
    side((x, y) => apart(x.noiseDbu, y.noiseDbu, HEARD.noiseDb))
      ? ['hiss of one side']
      : []),
  ];
}
type Side = Arriving['sides'][number];

const asked = new WeakMap<Hearing, WeakMap<Hearing, boolean>>();

/**
 * Whether the way from one hearing to the other changes more of any device than its levels, which
 * the figures show: then it is worth playing a note. Remembered for a pair.
 */
function mayDifferInTone(a: Hearing, b: Hearing): boolean {
  const known = asked.get(a) ?? new WeakMap<Hearing, boolean>();
  asked.set(a, known);
  const before = known.get(b);
  if (before !== undefined) return before;
  const plugged = pluggedJacks(a.rig);
  const differs = a.rig.devices.some((device) => {
    if (stateIn(a.sound, device.id) === stateIn(b.sound, device.id)) return false;
    const [one, other] = [a, b].map((h) =>
      JSON.stringify(passesOf(device, h.sound, plugged).map(toneOf)),
    );
    return one !== other;
  });
  known.set(b, differs);
  return differs;
}

/** What of a pass can change the tone: all of it but the levels of a stage. */
function toneOf(pass: Pass): unknown {
  if (pass.is !== 'stage') return pass;
  const { gainDb: _g, outputDb: _o, noiseDbu: _n, ceiling: _c, gate: _k, wet: _w, ...tone } = pass;
  return tone;
}

/** The band of a played note that moves most, where any does. */
function toneApart(a: Hearing, b: Hearing, i: number): string[] {
  const [one, other] = [a.bands(i), b.bands(i)];
  let most = { by: 0, at: 0 };
  for (const [key, bands] of one) {
    const far = other.get(key);
    if (!far) continue;
    const loud = Math.max(...[...bands, ...far].map((x) => x ?? -200));
    bands.forEach((dbu, n) => {
      const [p, q] = [dbu ?? -200, far[n] ?? -200];
      if (Math.max(p, q) > loud - FAINT_DB && Math.abs(q - p) > Math.abs(most.by))
        most = { by: q - p, at: BANDS[n]! };
    });
  }
  return Math.abs(most.by) > HEARD.bandDb
    ? [
        `tone: ${showChange(most.by)} about ${most.at < 1000 ? `${most.at} Hz` : `${most.at / 1000} kHz`}`,
      ]
    : [];
}

/** Settings that change an effect itself, or a level of a device's own, and are heard here. */
function effectsApart(a: Hearing, b: Hearing, i: number): string[] {
  return a.rig.devices.flatMap((device) => {
    const kind = kindOf(device.kind);
    return kind.parameters.flatMap((p) => {
      if (p.type !== 'knob' || !p.heardAs) return [];
      const [from, to] = [a, b].map((h) =>
        Number(settingOf(kind, device, stateIn(h.sound, device.id), p.id)),
      );
      if (Math.abs(from! - to!) < 1e-9) return [];
      const isHere =
        p.heardAs === 'own level'
          ? hasDeviceInIt(a, device.id, i)
          : isEngaged(kind, device, stateIn(a.sound, device.id)) && hasEffectOf(a, device.id, i);
      return isHere ? [`${p.label.toLowerCase()} of ${device.name}`] : [];
    });
  });
}

const bypassed = new WeakMap<Hearing, Map<string, Hearing>>();

/** The same without a device: bypassed, or with what leaves it unplugged. Remembered. */
function without(a: Hearing, key: string, make: () => Hearing): Hearing {
  const known = bypassed.get(a) ?? new Map<string, Hearing>();
  bypassed.set(a, known);
  const made = known.get(key) ?? make();
  known.set(key, made);
  return made;
}

/** Whether an effect is heard at a destination: bypassed on a copy, it is missed there. */
function hasEffectOf(a: Hearing, device: string, i: number): boolean {
  const off = without(a, `off ${device}`, () => {
    const state = stateIn(a.sound, device);
    const states = { ...a.sound.states, [device]: { ...state, engaged: false } };
    return hearingOf(a.rig, { ...a.sound, states });
  });
  return figuresApart(a, off, i).some((s) => !/^(latency|hiss) /.test(s));
}

/**
 * Whether what leaves a device is heard at a destination: unplugged on a copy, it is missed; or the
 * destination is the device itself.
 */
function hasDeviceInIt(a: Hearing, device: string, i: number): boolean {
  if (entryAt(a.arriving, i).device === device) return true;
  const cut = without(a, `cut ${device}`, () => {
    const leads = a.rig.leads.filter((l) => l.from.device !== device);
    return hearingOf({ ...a.rig, leads }, a.sound);
  });
  return figuresApart(a, cut, i).length > 0;
}
