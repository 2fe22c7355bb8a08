import type { SoundFigures } from '../analysis';
import { kindOf } from '../kinds';
import { sure } from '../outcome';
import { deviceOf, nameOf } from '../rig/find';
import { promiseWords } from '../rig/promise-words';
import { fieldsOf } from '../rig/promise-types';
import { sourceDevice } from '../rig/source-id';
import { sourcesOf } from '../walk';
import { namedIn, type PromiseType, type Rig, type RigPromise, type Sound } from '../rig/schema';
import { PROMISE_CHECKS, type PromiseCheck } from './checks';
import type { SoundContext } from '../signal';
import { untold } from './circles';
import type { Breach, Ground } from './ground';
import { allOf } from '../units';

/** Whether a promise is kept, in how many sounds it was looked at, and what breaks it. */
export interface PromiseResult {
  id: string;
  words: string;
  kept: boolean;
  sounds: number;
  breaches: Breach[];
  /** The check itself failed, so that nothing can be told. */
  failed?: true;
}

/** Told when a check throws: which, and what was thrown. */
type Tell = (check: string, error: unknown) => void;

/** What was found while devices, leads and controls stayed as they were. */
interface Known {
  controls: Rig['controls'];
  devices: Rig['devices'];
  leads: Rig['leads'];
  sounds: Map<string, Map<Sound, Breach[]>>;
  whole: Map<string, { sounds: Rig['sounds']; breaches: Breach[] }>;
}

const nothingKnown = ({ controls, devices, leads }: Rig): Known => ({
  controls,
  devices,
  leads,
  sounds: new Map(),
  whole: new Map(),
});

/**
 * Checks promises, and remembers what it found, so that an edit in one sound checks the costly
 * promises in that sound only. What cannot be judged is not kept.
 */
export class PromiseChecker {
  private known?: Known;

  constructor(private readonly checks: { [T in PromiseType]: PromiseCheck<T> } = PROMISE_CHECKS) {}

  /** Another that begins with what this one knows and keeps what it finds to itself. */
  forCopies(): PromiseChecker {
    const other = new PromiseChecker(this.checks);
    const { known } = this;
    if (!known) return other;
    const sounds = [...known.sounds].map(([key, memory]) => [key, new Map(memory)] as const);
    other.known = { ...known, sounds: new Map(sounds), whole: new Map(known.whole) };
    return other;
  }

  check(
    rig: Rig,
    reports: readonly SoundFigures[],
    tell: Tell = () => undefined,
    contexts?: ReadonlyMap<string, SoundContext>,
  ): PromiseResult[] {
    const promises = rig.promises ?? [];
    if (!promises.length) return [];
    let known = this.known;
    if (
      known?.devices !== rig.devices ||
      known.leads !== rig.leads ||
      known.controls !== rig.controls
    )
      this.known = known = nothingKnown(rig);
    const byId = new Map(reports.map((r) => [r.sound, r]));
    const ground: Ground = {
      rig,
      reports,
      report: (id) => byId.get(id),
      sound: (id) => rig.sounds.find((s) => s.id === id),
      known: (id) => contexts?.get(id),
    };
    return promises.map((p) => {
      try {
        return this.one(p, ground, known);
      } catch (error) {
        tell(`the promise "${promiseWords(rig, p)}"`, error);
        return this.failed(rig, p, error);
      }
    });
  }

  private failed(rig: Rig, promise: RigPromise, error: unknown): PromiseResult {
    const why =
      'It cannot be told, because this check failed ' +
      `(${error instanceof Error ? error.message : String(error)}); the others stand.`;
    return {
      id: promise.id,
      words: promiseWords(rig, promise),
      kept: false,
      sounds: 0,
      breaches: [{ why, subjects: [] }],
      failed: true,
    };
  }

  private one(p: RigPromise, ground: Ground, known: Known): PromiseResult {
    const { rig } = ground;
    const words = promiseWords(rig, p);
    const ids = namedIn(p);
    const gone = [
      ...ids.devices.filter((d) => !rig.devices.some((x) => x.id === d)),
      ...ids.sounds.filter((s) => !ground.sound(s)),
    ];
    if (gone.length) {
      const why =
        `"${gone.join('", "')}" is no longer in this rig. ` + 'Change the promise or take it back.';
      return { id: p.id, words, kept: false, sounds: 0, breaches: [{ why, subjects: [] }] };
    }
    const wrong = misnamed(rig, p, () => sourcesOf(rig));
    if (wrong.length)
      return {
        id: p.id,
        words,
        kept: false,
        sounds: 0,
        breaches: wrong.map((why) => ({ why, subjects: ids.devices })),
      };
    const wanted = 'sounds' in p && Array.isArray(p.sounds) ? (p.sounds as string[]) : [];
    const named = wanted.length ? wanted.flatMap((id) => ground.sound(id) ?? []) : rig.sounds;
    const check = this.checks[p.type] as PromiseCheck<PromiseType>;
    const levels = check.levels?.(p);
    const untoldIn = new Map(
      named.map((sound) => {
        const figures = levels && ground.report(sound.id);
        return [sound, figures ? untold(rig, levels, figures) : []] as const;
      }),
    );
    // What can be told is looked at all the same.
    const told = named.filter((sound) => !untoldIn.get(sound)?.length);
    const breaches = [
      ...[...untoldIn.values()].flat(),
      ...('inSound' in check
        ? told.flatMap((sound) => this.inSound(p, check.inSound, ground, sound, known))
        : this.overAll(p, check.over, ground, told, known)),
    ];
    return { id: p.id, words, kept: breaches.length === 0, sounds: named.length, breaches };
  }

  private inSound(
    p: RigPromise,
    look: (p: never, g: Ground, s: Sound, r: SoundFigures) => Breach[],
    ground: Ground,
    sound: Sound,
    known: Known,
  ): Breach[] {
    const key = JSON.stringify(p);
    const memory = known.sounds.get(key) ?? new Map<Sound, Breach[]>();
    known.sounds.set(key, memory);
    const before = memory.get(sound);
    const report = ground.report(sound.id);
    if (before || !report) return before ?? [];
    const found = look(p as never, ground, sound, report);
    memory.set(sound, found);
    return found;
  }

  private overAll(
    p: RigPromise,
    look: (p: never, g: Ground, sounds: readonly Sound[]) => Breach[],
    ground: Ground,
    named: readonly Sound[],
    known: Known,
  ): Breach[] {
    const key = JSON.stringify(p);
    const before = known.whole.get(key);
    if (before?.sounds === ground.rig.sounds) return before.breaches;
    const breaches = look(p as never, ground, named);
    known.whole.set(key, { sounds: ground.rig.sounds, breaches });
    return breaches;
  }
}

/**
 * What a promise names that is there and is not what it is named as: a destination that hears
 * nothing, a source that sends nothing, a signal that its device does not send. Nothing can be told
 * of those, so the promise is not kept.
 */
function misnamed(rig: Rig, p: RigPromise, signals: () => readonly string[]): string[] {
  const name = (id: string) => nameOf(rig, id);
  return Object.entries(fieldsOf(p.type)).flatMap(([field, { asks }]) => {
    const value = (p as unknown as Record<string, unknown>)[field];
    const ids = (Array.isArray(value) ? value : [value]).filter((id) => typeof id === 'string');
    if (asks === 'destination' || asks === 'destinations')
      return ids
        .filter((id) => !kindOf(sure(deviceOf(rig, id)).kind).destination)
        .map((id) => `${name(id)} is no destination.`);
    if (asks === 'side') {
      const at = (p as { destination?: string }).destination ?? '';
      const { destination } = kindOf(sure(deviceOf(rig, at)).kind);
      return ids.length && destination && destination.jacks.length < 2
        ? [`${name(at)} has one input, and so no ${ids.join()} side.`]
        : [];
    }
    if (asks !== 'source') return [];
    const sent = signals();
    return ids.flatMap((id) => {
      const own = sent.filter((s) => sourceDevice(s) === sourceDevice(id));
      if (!own.length) return [`${name(id)} sends no signal of its own.`];
      if (own.includes(id) || id === sourceDevice(id)) return [];
      return [`${name(sourceDevice(id))} sends no signal of that name: it sends ${allOf(own)}.`];
    });
  });
}
