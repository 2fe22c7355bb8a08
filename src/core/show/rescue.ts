import { pluggedJacks } from '../circuit';
import { type Kind, kindOf } from '../kinds';
import { sure } from '../outcome';
import { analyseSound } from '../report';
import { applyEdits } from '../rig/apply';
import { settingOf, stateIn } from '../rig/device-state';
import type { Device, Lead, Rig, SettingValue, Sound } from '../rig/schema';
import { CONTROL_LEADS } from '../rig/lead-types';
import { playedOut } from '../rig/played-out';
import { placeOf } from '../rig/stands-where';
import { settingWords } from '../rig/words';
import { byKey, reachable } from '../graph';
import type { Listener } from './effects';
import { type Fault, REACH_SECONDS, type Spare, type Whole } from './faults';
import { standing } from './faults/changes';
import { bitOf, noticed } from './symptoms';

/** A way to get sound back at one place, tried on a copy of the rig as it is broken. */
export interface Rescue {
  words: string;
  seconds: number;
  /** What must be in the cases for it. */
  spare?: Spare;
  /** What is still noticed there after it, in the sound that was on; bits of symptoms. */
  left: number;
  /** The sound that is called instead. */
  instead?: string;
}

/** Calling another sound, and hearing that it is right. */
const CALL_SECONDS = 3;
/** Pulling two plugs of a box and joining them, or plugging an instrument in elsewhere. */
const AROUND_SECONDS = 25;
const EMERGENCY_SECONDS = 15;
/** How long the emergency lead is, in m. */
const EMERGENCY_METRES = 6;
/** Boxes into which an instrument can be plugged straight. */
const TAKES_INSTRUMENTS = ['amp', 'simulator', 'modeler', 'direct'];

/** A change that might bring sound back, with what it takes. */
interface Attempt {
  words: string;
  seconds: number;
  spare?: Spare;
  instead?: Sound;
  make: (broken: Whole) => Whole | undefined;
}

/**
 * Ways to get sound back at some ears in a sound while a fault lasts, by ear, the quickest first. Each
 * was tried on a copy of the broken rig, and something is heard there after it: another sound, one
 * switch or choice or press, the box taken out and its leads joined, the instrument plugged in further
 * on, and the mending itself. What would bring a danger with it is none. A way that is slower than one
 * with the same spare, or than one with none, is left out: of what is left nothing is missing. `only`:
 * of the ways of these words, so that what helped in one sound is soon tried in the others.
 */
export function rescues(
  listener: Listener,
  fault: Fault,
  sound: Sound,
  ears: readonly number[],
  only?: ReadonlySet<string>,
): Rescue[][] {
  const broken = fault.change(listener.whole);
  const meant = listener.means(sound);
  const found: Rescue[][] = ears.map(() => []);
  const isSettled = (ways: readonly Rescue[]) => ways.some((w) => !w.spare);
  for (const attempt of attemptsFor(listener, fault, sound, ears)) {
    if (only && !only.has(attempt.words)) continue;
    if (found.every(isSettled)) break;
    const { words, seconds, spare, instead, make } = attempt;
    const made = make(broken);
    if (!made) continue;
    const heard = listener.hears(made, instead ?? sound);
    ears.forEach((ear, i) => {
      const ways = sure(found[i]);
      const now = sure(heard[ear]);
      const left = noticed(sure(meant[ear]), now);
      const known = ways.some((w) => w.spare && spare && spareKey(w.spare) === spareKey(spare));
      if (isSettled(ways) || known || now.dbu === null || (left & bitOf('silent')) !== 0) return;
      if (!isHarmless(listener, attempt, sound)) return;
      ways.push({
        words,
        seconds,
        left,
        ...(spare && { spare }),
        ...(instead && { instead: instead.id }),
      });
    });
  }
  return found;
}

/** A spare by what it is: two that are the same have the same. */
export const spareKey = (s: Spare): string =>
  s.is === 'lead'
    ? `lead ${s.type} ${s.metres}`
    : s.is === 'device'
      ? `device ${s.kind}`
      : `part ${s.words}`;

const harmKnown = new WeakMap<Listener, Map<string, boolean>>();

/**
 * Whether a change brings no danger with it that was not there: it is made on a copy of the rig that is
 * whole, and the sound that is then on is judged as any is. A tube amplifier without its load is one.
 */
function isHarmless(listener: Listener, { words, make, instead }: Attempt, on: Sound): boolean {
  let known = harmKnown.get(listener);
  if (!known) harmKnown.set(listener, (known = new Map<string, boolean>()));
  const sound = instead ?? on;
  const key = `${sound.id} ${words}`;
  let fine = known.get(key);
  if (fine === undefined) {
    const made = make(listener.whole);
    const before = new Set(dangersIn(listener.whole, sound));
    fine = !made || dangersIn(made, sound).every((d) => before.has(d));
    known.set(key, fine);
  }
  return fine;
}

const dangersIn = (whole: Whole, sound: Sound): string[] =>
  analyseSound(whole.rig, whole.sound(sound), { plugged: whole.plugged })
    .remarks.filter((r) => r.severity === 'danger')
    .map((r) => `${r.rule} ${r.subjects.join(' ')}`);

/**
 * What might help, the quickest first. A press on a box can only help where it has several ways to
 * choose from, or is itself what is broken; and only what is broken, or stands beside a broken lead, is
 * gone around.
 */
function attemptsFor(
  listener: Listener,
  fault: Fault,
  sound: Sound,
  ears: readonly number[],
): Attempt[] {
  const { rig } = listener.whole;
  const near = onTheWayTo(
    rig,
    ears.map((e) => sure(listener.ears[e]).device),
  );
  const devices = rig.devices.filter((d) => near.has(d.id));
  const audio = rig.leads.filter((l) => !CONTROL_LEADS.includes(l.type));
  const broken = new Set([
    ...fault.subjects,
    ...fault.dark,
    ...audio
      .filter((l) => fault.subjects.includes(l.id))
      .flatMap((l) => [l.from.device, l.to.device]),
  ]);
  const chooses = (d: Device) =>
    broken.has(d.id) ||
    audio.filter((l) => l.to.device === d.id).length > 1 ||
    audio.filter((l) => l.from.device === d.id).length > 1;
  return [
    ...listener.sounds
      .filter((s) => s !== sound)
      .map((s): Attempt => ({
        words: `call ${s.name}`,
        seconds: CALL_SECONDS,
        instead: s,
        make: (whole) => whole,
      })),
    ...devices.filter(chooses).flatMap((d) => presses(d, sound)),
    ...devices.filter((d) => broken.has(d.id)).flatMap(around),
    ...emergencies(devices),
    {
      words: fault.mend.words,
      seconds: fault.mend.seconds,
      ...(fault.mend.spare && { spare: fault.mend.spare }),
      make: () => listener.whole,
    },
  ].sort((a, b) => a.seconds - b.seconds);
}

/** Devices from which leads lead to an ear, made or not. */
function onTheWayTo(rig: Rig, ears: readonly string[]): Set<string> {
  const into = byKey(
    rig.leads.filter((l) => !CONTROL_LEADS.includes(l.type)),
    (l) => l.to.device,
  );
  return reachable(ears, (at) => (into.get(at) ?? []).map((l) => l.from.device));
}

/** One switch or choice on a device, or a press that bypasses it, as a hand can do it at once. */
function presses(device: Device, sound: Sound): Attempt[] {
  if (device.host !== undefined) return [];
  const kind = kindOf(device.kind);
  const state = stateIn(sound, device.id);
  const seconds = REACH_SECONDS[placeOf(device)] / 2;
  const values = (id: string): SettingValue[] => {
    const p = sure(kind.parameters.find((x) => x.id === id));
    const now = settingOf(kind, device, state, id);
    if (p.type === 'switch') return [now !== true];
    return p.type === 'choice' ? p.options.map((o) => o.value).filter((v) => v !== now) : [];
  };
  return [
    ...kind.parameters.flatMap((p) =>
      values(p.id).map((value): Attempt => ({
        words: `set ${device.name}, ${settingWords(device.kind, p.id, value)}`,
        seconds,
        make: (broken) => standing(broken, device.id, { settings: { [p.id]: value } }),
      })),
    ),
    ...(kind.through && !kind.alwaysOn
      ? [true, false].map((engaged): Attempt => ({
          words: `press ${device.name}: ${stateWord(kind, engaged)}`,
          seconds,
          make: (broken) => standing(broken, device.id, { engaged }),
        }))
      : []),
  ];
}

const stateWord = ({ stateWords }: Kind, engaged: boolean): string =>
  engaged ? (stateWords?.on ?? 'on') : (stateWords?.off ?? 'bypassed');

/** A box taken out, where that joins like to like: never a signal into a loudspeaker. */
function around(device: Device): Attempt[] {
  const kind = kindOf(device.kind);
  const signal = (jack: string | undefined) => kind.jacks.find((j) => j.id === jack)?.signal;
  const can =
    device.host === undefined &&
    kind.through !== undefined &&
    signal(kind.through.in) === 'audio' &&
    signal(kind.through.out) === 'audio';
  if (!can) return [];
  return [
    {
      words: `go around ${device.name}: pull its two plugs and join them`,
      seconds: REACH_SECONDS[placeOf(device)] + AROUND_SECONDS,
      spare: { is: 'part', words: 'coupler' },
      make: (broken) => {
        const out = applyEdits(broken.rig, [{ edit: 'removeDevice', device: device.id }]);
        return out.ok ? rewired(broken, out.value.rig) : undefined;
      },
    },
  ];
}

/** A rig of other leads: what was plugged though its lead is broken stays plugged. */
function rewired(broken: Whole, rig: Rig): Whole {
  const plugged = new Map(pluggedJacks(rig));
  for (const d of rig.devices) {
    const [was, now] = [pluggedJacks(broken.rig).get(d.id), plugged.get(d.id)];
    const dead = [...(broken.plugged.get(d.id) ?? [])].filter((j) => !was?.has(j));
    if (dead.length) plugged.set(d.id, new Set([...(now ?? []), ...dead]));
  }
  return { ...broken, rig, plugged };
}

/** Instruments plugged straight into a box further on, by the emergency lead. */
function emergencies(devices: readonly Device[]): Attempt[] {
  const sources = devices.flatMap((d) => {
    const out = playedOut(d);
    return out ? [{ d, jack: out.id }] : [];
  });
  return devices.flatMap((box) => {
    const kind = kindOf(box.kind);
    if (box.host !== undefined || !TAKES_INSTRUMENTS.includes(kind.job)) return [];
    const input = kind.jacks.find(
      (j) =>
        j.direction === 'in' &&
        j.signal === 'audio' &&
        !j.inside &&
        (j.connector === 'TS' || j.connector === 'TRS' || j.connector === 'combo'),
    );
    if (!input) return [];
    return sources.map(({ d, jack }): Attempt => ({
      words: `plug ${d.name} straight into ${box.name} with the emergency lead`,
      seconds: EMERGENCY_SECONDS + REACH_SECONDS[placeOf(box)],
      spare: { is: 'lead', type: 'instrument', metres: EMERGENCY_METRES },
      make: (broken) => {
        const lead: Lead = {
          id: 'emergency',
          type: 'instrument',
          metres: EMERGENCY_METRES,
          from: { device: d.id, jack },
          to: { device: box.id, jack: input.id },
        };
        const others = broken.rig.leads.filter(
          (l) =>
            !(l.from.device === d.id && l.from.jack === jack) &&
            !(l.to.device === box.id && l.to.jack === input.id),
        );
        return rewired(broken, { ...broken.rig, leads: [...others, lead] });
      },
    }));
  });
}
