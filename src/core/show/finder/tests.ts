import { kindOf } from '../../kinds';
import { nameOf } from '../../rig/find';
import { placeOf, type Place } from '../../rig/stands-where';
import type { Rig } from '../../rig/schema';
import { sure } from '../../outcome';
import { type FaultFacts, REACH_SECONDS } from '../faults';
import { needsPower } from '../faults/device-faults';
import { leadWords, placeOfLead } from '../faults/look';
import { freeOutletFor } from '../faults/power-faults';
import { atEar, atLead, type Effects } from '../effects';
import { roughly } from '../symptoms';

/**
 * Something that a tech can do to learn more: what to do, how long it takes, what it needs and risks,
 * and what it would show under each fault.
 */
export interface Test {
  id: string;
  words: string;
  seconds: number;
  where: Place;
  needs: readonly string[];
  /** What to mind; never a reason to open a speaker line with the amplifier on, or to lift an earth. */
  mind?: string;
  /** What can be seen or heard, in the order in which it is offered. */
  answer: (fault: number) => string;
}

/** What makes tests of one sort. */
interface TestSort {
  id: string;
  make: (ground: Ground) => Test[];
}

/** The rig with what its faults would do, and the sound in which something was noticed. */
export interface Ground {
  rig: Rig;
  effects: Effects;
  sound: number;
}

const faultAt = ({ effects }: Ground, i: number): FaultFacts => sure(effects.faults[i]);

/** Listening takes a bar or two and somebody who plays. */
const LISTEN_SECONDS = 8;
const CALL_SECONDS = 6;

const listening: TestSort = {
  id: 'listen',
  make: (ground) =>
    ground.effects.ears.map((ear, k) => {
      const device = sure(ground.rig.devices.find((d) => d.id === ear.device));
      const where = placeOf(device);
      return {
        id: `listen ${ear.device}`,
        words: `Play, and listen at ${ear.name}.`,
        seconds: LISTEN_SECONDS + (where === 'house' ? 10 : 0),
        where,
        needs: ['somebody who plays'],
        ...(kindOf(device.kind).destination?.hears === 'in-ears' && {
          mind: 'in-ears out of the ears until the level is known',
        }),
        answer: (f) => roughly(atEar(ground.effects, f, ground.sound, k)),
      };
    }),
};

const otherSound: TestSort = {
  id: 'sound',
  make: (ground) =>
    ground.effects.sounds.flatMap((sound, s) =>
      s === ground.sound
        ? []
        : ground.effects.ears.map((ear, k) => ({
            id: `sound ${sound.id} ${ear.device}`,
            words: `Call ${sound.name}, play, and listen at ${ear.name}.`,
            seconds: LISTEN_SECONDS + CALL_SECONDS,
            where: 'floor' as const,
            needs: ['somebody who plays'],
            answer: (f: number) => roughly(atEar(ground.effects, f, s, k)),
          })),
    ),
};

/** One play, heard at every place: longer, and it tells more. */
const everywhere: TestSort = {
  id: 'everywhere',
  make: (ground) => {
    const { ears, sounds } = ground.effects;
    if (ears.length < 2) return [];
    return sounds.map((sound, s) => ({
      id: `everywhere ${sound.id}`,
      words:
        s === ground.sound
          ? 'Play, and listen everywhere.'
          : `Call ${sound.name}, play, and listen everywhere.`,
      seconds: LISTEN_SECONDS * Math.min(ears.length, MOST_EARS) + CALL_SECONDS,
      where: 'floor' as const,
      needs: ['somebody who plays', 'somebody at each place'],
      answer: (f: number) => {
        const at = new Map<string, string[]>();
        ears.forEach((ear, k) => {
          const heard = roughly(atEar(ground.effects, f, s, k));
          if (heard !== 'all fine') at.set(heard, [...(at.get(heard) ?? []), ear.name]);
        });
        return at.size
          ? [...at].map(([heard, where]) => `${heard} at ${where.join(', ')}`).join('; ')
          : 'all fine';
      },
    }));
  },
};
/** With people at every place, listening at more takes no longer. */
const MOST_EARS = 3;

const lamps: TestSort = {
  id: 'lamp',
  make: (ground) =>
    ground.rig.devices
      .filter((d) => d.host === undefined && (needsPower(d) || kindOf(d.kind).job === 'supply'))
      .map((d) => ({
        id: `lamp ${d.id}`,
        words: `Is a lamp or the screen of ${d.name} lit?`,
        seconds: 2 + REACH_SECONDS[placeOf(d)] / 5,
        where: placeOf(d),
        needs: [],
        answer: (f) => (faultAt(ground, f).dark.includes(d.id) ? 'dark' : 'lit'),
      })),
};

const looks: TestSort = {
  id: 'look',
  make: (ground) =>
    seen(ground, (f) => f.seenAt).map((id) => ({
      id: `look ${id}`,
      words: `Look over ${nameOf(ground.rig, id)}: knobs at their marks, switches, standby, inputs.`,
      seconds: 4 + REACH_SECONDS[placeAt(ground.rig, id)] / 3,
      where: placeAt(ground.rig, id),
      needs: ['a torch'],
      answer: (f) => (faultAt(ground, f).seenAt === id ? 'something stands wrong' : 'as it should'),
    })),
};

const screens: TestSort = {
  id: 'screen',
  make: (ground) =>
    seen(ground, (f) => f.screenAt).map((id) => ({
      id: `screen ${id}`,
      words: `Read ${nameOf(ground.rig, id)}: is it the program, channel and sound that the book says?`,
      seconds: 5 + REACH_SECONDS[placeAt(ground.rig, id)] / 4,
      where: placeAt(ground.rig, id),
      needs: ['the rig book'],
      answer: (f) => (faultAt(ground, f).screenAt === id ? 'another one' : 'the right one'),
    })),
};

const probes: TestSort = {
  id: 'probe',
  make: (ground) =>
    ground.effects.leads.map((lead, k) => {
      const found = sure(ground.rig.leads.find((l) => l.id === lead.id));
      const where = placeOfLead(ground.rig, found);
      return {
        id: `probe ${lead.id}`,
        words:
          `Pull ${leadWords(ground.rig, found)}, where it begins, and listen there ` +
          'with a small amplifier or headphones.',
        seconds: 25 + REACH_SECONDS[where],
        where,
        needs: ['a small amplifier or headphones', 'two hands', 'somebody who plays'],
        mind: 'turn down what is behind it before the plug is pulled',
        answer: (f) => roughly(atLead(ground.effects, f, ground.sound, k)),
      };
    }),
};

const swaps: TestSort = {
  id: 'swap',
  make: (ground) =>
    ground.rig.leads
      .filter((l) =>
        ground.effects.faults.some((f) => f.sort === 'lead' && f.subjects.includes(l.id)),
      )
      .map((lead) => {
        const where = placeOfLead(ground.rig, lead);
        const speaker = lead.type === 'speaker';
        return {
          id: `swap ${lead.id}`,
          words:
            `${speaker ? 'Amplifier off; then put' : 'Put'} a known good ${lead.type} lead ` +
            `in place of ${leadWords(ground.rig, lead)}.`,
          seconds: 15 + REACH_SECONDS[where] + (speaker ? 60 : 0),
          where,
          needs: [`a spare ${lead.type} lead`, 'two hands'],
          ...(speaker && {
            mind: 'never open a speaker line with a tube amplifier on; a speaker lead, not an instrument lead',
          }),
          answer: (f: number) =>
            faultAt(ground, f).swap === lead.id ? 'it is good again' : 'no change',
        };
      }),
};

const wiggles: TestSort = {
  id: 'move',
  make: (ground) =>
    ground.rig.leads
      .filter((l) => ground.effects.faults.some((f) => f.moves === l.id))
      .map((lead) => {
        const where = placeOfLead(ground.rig, lead);
        return {
          id: `move ${lead.id}`,
          words: `Move both plugs of ${leadWords(ground.rig, lead)}, while somebody listens.`,
          seconds: 5 + REACH_SECONDS[where] / 2,
          where,
          needs: ['somebody who listens'],
          answer: (f: number) =>
            faultAt(ground, f).moves === lead.id ? 'it changes' : 'no change',
        };
      }),
};

const outletsTried: TestSort = {
  id: 'outlet',
  make: (ground) =>
    ground.rig.devices
      .filter((d) => d.supply && needsPower(d) && freeOutletFor(ground.rig, [d]) !== undefined)
      .map((d) => ({
        id: `outlet ${d.id}`,
        words: `Plug ${d.name} into ${freeOutletFor(ground.rig, [d])} for a moment.`,
        seconds: 15 + REACH_SECONDS[placeOf(d)],
        where: placeOf(d),
        needs: ['a power lead that reaches'],
        answer: (f) =>
          faultAt(ground, f).otherOutlet?.includes(d.id) ? 'it is good again' : 'no change',
      })),
};

/** Every sort of test. */
const TEST_SORTS: readonly TestSort[] = [
  listening,
  everywhere,
  otherSound,
  looks,
  lamps,
  screens,
  wiggles,
  swaps,
  outletsTried,
  probes,
];

const placeAt = (rig: Rig, id: string): Place =>
  placeOf(sure(rig.devices.find((d) => d.id === id)));

/** Devices at which some fault can be seen, each once. */
const seen = (ground: Ground, at: (fault: FaultFacts) => string | undefined): string[] => [
  ...new Set(ground.effects.faults.flatMap((f) => at(f) ?? [])),
];

/** Everything that can be tried on a rig while one sound is on. */
export const testsOf = (ground: Ground): Test[] => TEST_SORTS.flatMap((s) => s.make(ground));
