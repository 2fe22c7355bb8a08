import { kindOf } from '../kinds';
import { midiOf, screenOn } from '../midi';
import { type MipSolver, solveMip, type Term } from '../optimum';
import { nameOf } from '../rig/find';
import { isEngaged, stateIn } from '../rig/device-state';
import type { Rig, SongSet, Sound } from '../rig/schema';
import { sourceDevice } from '../rig/source-id';
import { playedOut } from '../rig/played-out';
import { placeOf } from '../rig/stands-where';
import { Listener } from './effects';
import { leadWords } from './faults/look';
import { usesOf } from './played';
import { howMany } from '../units';

/** One thing to do at line check, with what it makes sure of. */
export interface CheckStep {
  id: string;
  part: CheckPart;
  words: string;
  /** What it covers, in words; a step that only guards against harm covers nothing. */
  covers: string[];
  /** The sound that is on for it. */
  sound?: string;
  /** Ears at which nothing else is heard in this sound: where the step was done, all was fine there. */
  alone?: string[];
  mind?: string;
  seconds: number;
}

/** Parts of a line check, in their order. */
export const CHECK_PARTS = {
  ears: 'Ears first',
  power: 'Power and lamps',
  plays: 'Plays',
  hands: 'Tuner, mute, ends of controls',
  programs: 'Programs of tonight',
  spare: 'Spare ways',
  first: 'Ready',
} as const;
export type CheckPart = keyof typeof CHECK_PARTS;

export interface LineCheck {
  steps: CheckStep[];
  /** Leads and boxes that no play of this set reaches. */
  uncovered: string[];
  /** How many leads, boxes and ways the plays cover. */
  covered: number;
  /** Whether it was proven that fewer plays cover less; else every play is listed. */
  proven: boolean;
}

/** Seconds for a play, with calling the sound and listening everywhere. */
const PLAY_SECONDS = 20;
const SHORT_SECONDS = 10;

/** One play: an instrument in a sound, and the things that signal of it goes through. */
interface Play {
  sound: Sound;
  source: string;
  covers: Set<string>;
}

/**
 * The line check of a rig for a set: the fewest plays of an instrument in a sound that together cover
 * every lead, every box as it is engaged and as it is bypassed, and every instrument at every place
 * where it is heard in the set (a smallest covering, solved exactly); with what comes before and after
 * them. Ears first, the first song's first sound last.
 */
export function lineCheckOf(written: Rig, set: SongSet | undefined, solver: MipSolver): LineCheck {
  const listener = new Listener(written);
  const { rig } = listener.whole;
  const used = new Set(
    usesOf(rig, set)
      .filter((u) => u.seconds > 0)
      .map((u) => u.sound),
  );
  const sounds = listener.sounds.filter((s) => used.has(s.id) || !rig.sounds.length);
  const plays = sounds.flatMap((s) => playsOf(listener, s));
  const found = fewest(plays, solver);
  const chosen = found ?? plays;
  const all = new Set(plays.flatMap((p) => [...p.covers]));
  const first = firstSound(rig, set) ?? sounds[0]?.id;
  const steps = chosen
    .map((p) => ({ ...playStep(rig, p), alone: earsAlone(p, plays) }))
    .sort((a, b) => Number(a.sound === first) - Number(b.sound === first));
  return {
    steps: [
      ...earSteps(rig),
      ...powerSteps(rig),
      ...steps,
      ...handSteps(rig, sounds),
      ...programSteps(rig, sounds, chosen),
      ...spareSteps(rig),
      ...readyStep(rig, first),
    ],
    uncovered: rig.leads
      .filter((l) => !CARRIES_NO_SOUND.includes(l.type) && !all.has(`lead ${l.id}`))
      .map((l) => leadWords(rig, l)),
    covered: all.size,
    proven: found !== undefined,
  };
}

const CARRIES_NO_SOUND: readonly string[] = ['midi', 'usb', 'control', 'inside'];

function firstSound(rig: Rig, set?: SongSet): string | undefined {
  const song = rig.songs?.find((s) => s.id === set?.entries[0]?.song);
  return song?.sections[0]?.sound;
}

/** What each instrument that sounds in a sound goes through, as it is figured. */
function playsOf(listener: Listener, sound: Sound): Play[] {
  const { rig } = listener.whole;
  const { circuit, present } = listener.flowing(sound);
  const at = (device: string, jack: string) => {
    const net = circuit.netAt(device, jack);
    return new Set((net ? present(net.index).flows : []).map((f) => sourceDevice(f.source)));
  };
  const plays = new Map<string, Play>();
  const cover = (sources: ReadonlySet<string>, what: string) => {
    for (const source of sources) {
      const play = plays.get(source) ?? { sound, source, covers: new Set<string>() };
      plays.set(source, play);
      play.covers.add(what);
    }
  };
  for (const lead of rig.leads)
    if (!CARRIES_NO_SOUND.includes(lead.type))
      cover(at(lead.from.device, lead.from.jack), `lead ${lead.id}`);
  for (const device of rig.devices) {
    const kind = kindOf(device.kind);
    const engaged = isEngaged(kind, device, stateIn(sound, device.id));
    for (const jack of kind.jacks)
      if (jack.direction === 'out' && !jack.inside)
        cover(at(device.id, jack.id), `box ${device.id} ${engaged ? 'on' : 'off'}`);
  }
  for (const ear of listener.ears)
    for (const jack of ear.jacks)
      for (const source of at(ear.device, jack))
        cover(new Set([source]), `heard ${source} ${ear.device}`);
  return [...plays.values()];
}

/** The fewest plays that cover all that any play covers; nothing where that was not found. */
function fewest(plays: readonly Play[], solver: MipSolver): Play[] | undefined {
  const all = [...new Set(plays.flatMap((p) => [...p.covers]))];
  if (!all.length) return [];
  // Things that the same plays cover are one thing to the solver.
  const rows = new Map(
    all.map((what) => {
      const by = plays.flatMap((p, i) => (p.covers.has(what) ? [i] : []));
      return [by.join(), by];
    }),
  );
  const answer = solveMip(
    {
      minimise: plays.map((_, i): Term => [1, `p${i}`]),
      rules: [...rows.values()].map((by, r) => ({
        name: `c${r}`,
        terms: by.map((i): Term => [1, `p${i}`]),
        is: '>=' as const,
        value: 1,
      })),
      binaries: plays.map((_, i) => `p${i}`),
      gap: { absolute: 0.5 },
    },
    solver,
  );
  if (!answer.solved) return undefined;
  return plays.filter((_, i) => (answer.values[`p${i}`] ?? 0) > 0.5);
}

/** Ears that a play is heard at; with `heard guitar house` for the covering. */
const earsOf = ({ covers }: Play): string[] =>
  [...covers].flatMap((c) => {
    const [is, , ear] = c.split(' ');
    return is === 'heard' && ear ? [ear] : [];
  });

/** Ears at which no other instrument is heard in the sound of a play. */
const earsAlone = (play: Play, plays: readonly Play[]): string[] =>
  earsOf(play).filter((ear) =>
    plays.every((p) => p === play || p.sound !== play.sound || !earsOf(p).includes(ear)),
  );

function playStep(rig: Rig, play: Play): CheckStep {
  const { sound, source, covers } = play;
  const heard = earsOf(play).map((ear) => nameOf(rig, ear));
  const boxes = [...covers].flatMap((c) => {
    const [is, id, how] = c.split(' ');
    return is === 'box' && id && how === 'on' ? [nameOf(rig, id)] : [];
  });
  const leads = [...covers].filter((c) => c.startsWith('lead ')).length;
  return {
    id: `play ${sound.id} ${source}`,
    part: 'plays',
    words:
      `${sound.name}: play ${nameOf(rig, source)}, softly, then hard. ` +
      `Listen at ${heard.join(', ') || 'nothing yet'}.`,
    covers: [howMany(leads, 'lead'), ...(boxes.length ? [`on: ${boxes.join(', ')}`] : [])],
    sound: sound.id,
    seconds: PLAY_SECONDS,
  };
}

const earSteps = (rig: Rig): CheckStep[] =>
  rig.devices
    .filter((d) => kindOf(d.kind).destination?.hears === 'in-ears')
    .map((d) => ({
      id: `ears ${d.id}`,
      part: 'ears' as const,
      words:
        `${d.name}: turn the level down, ears out of the ears; play something; ` +
        'only then put them in.',
      covers: [],
      mind: 'A first sound at full level can hurt hearing for good.',
      seconds: SHORT_SECONDS,
    }));

/** What has a lamp and feeds others, or takes the mains itself. */
const powerSteps = (rig: Rig): CheckStep[] =>
  rig.devices
    .filter((d) => kindOf(d.kind).mains && d.host === undefined)
    .map((d) => ({
      id: `lamp ${d.id}`,
      part: 'power' as const,
      words:
        kindOf(d.kind).job === 'amp'
          ? `${d.name}: loudspeaker line in, then mains, then standby off; lamps lit.`
          : rig.devices.some((x) => x.supply?.device === d.id)
            ? `${d.name}: lamp lit, and those of all that it feeds.`
            : `${d.name}: lamp lit.`,
      covers: [],
      ...(kindOf(d.kind).job === 'amp' && {
        mind: 'Never run a tube amplifier without its load; let it warm up.',
      }),
      seconds: SHORT_SECONDS / 2,
    }));

/** Tuners that mute, and the ends of everything under a foot or a hand. */
function handSteps(rig: Rig, sounds: readonly Sound[]): CheckStep[] {
  return rig.devices.flatMap((d): CheckStep[] => {
    const kind = kindOf(d.kind);
    const base = { part: 'hands' as const, covers: [], seconds: SHORT_SECONDS };
    const foot = kind.parameters.some((p) => p.type === 'knob' && p.foot);
    if (kind.job === 'tuner' && !kind.destination)
      return [
        {
          ...base,
          id: `tuner ${d.id}`,
          words: `${d.name}: press, all silent, it shows the note; press again, sound is back.`,
        },
      ];
    if (foot && sounds.length)
      return [
        {
          ...base,
          id: `ends ${d.id}`,
          words: `${d.name}: heel, toe, and back; no crackle, the ends as they should be.`,
        },
      ];
    return [];
  });
}

/** Programs of the set that none of the chosen plays calls. */
function programSteps(rig: Rig, sounds: readonly Sound[], chosen: readonly Play[]): CheckStep[] {
  const called = new Set(chosen.map((p) => p.sound.id));
  return sounds
    .filter((s) => !called.has(s.id))
    .flatMap((sound): CheckStep[] => {
      const screens = rig.devices.flatMap((d) => {
        const at = stateIn(sound, d.id)?.program;
        const midi = at && midiOf(d);
        return midi ? [`${d.name} ${screenOn(midi, at)}`] : [];
      });
      return [
        {
          id: `program ${sound.id}`,
          part: 'programs',
          words: `Call ${sound.name}${screens.length ? `: ${screens.join(', ')}` : ''}. A chord is enough.`,
          covers: screens,
          sound: sound.id,
          seconds: SHORT_SECONDS,
        },
      ];
    });
}

/** The emergency way: an instrument straight into the first box that takes one and is heard. */
function spareSteps(rig: Rig): CheckStep[] {
  const box = rig.devices.find(
    (d) => ['amp', 'simulator', 'modeler'].includes(kindOf(d.kind).job) && d.host === undefined,
  );
  const instrument = rig.devices.find((d) => playedOut(d) !== undefined);
  if (!box || !instrument) return [];
  return [
    {
      id: `spare ${box.id}`,
      part: 'spare',
      words:
        `The emergency lead lies coiled within reach of ${box.name} (${placeOf(box)}), ` +
        `tested with ${instrument.name} once this week.`,
      covers: [],
      seconds: SHORT_SECONDS,
    },
  ];
}

function readyStep(rig: Rig, sound: string | undefined): CheckStep[] {
  const found = rig.sounds.find((s) => s.id === sound);
  if (!found) return [];
  return [
    {
      id: `ready ${found.id}`,
      part: 'first',
      words: `Call ${found.name}, the first sound of the first song; tuner muting until they walk on.`,
      covers: [],
      sound: found.id,
      seconds: SHORT_SECONDS,
    },
  ];
}
