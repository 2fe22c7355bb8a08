import { packingOf } from '../../build';
import type { Rig } from '../../rig/schema';
import type { Show } from './records';
import { howMany } from '../../units';

/** One stretch of a show day, in minutes after midnight; those before midnight are less than 0. */
export interface Stretch {
  id: string;
  words: string;
  why: string;
  from: number;
  to: number;
  minutes: number;
  /** Whether somebody set its length by hand. */
  set: boolean;
}

/** Typical minutes of the parts of a show day. */
const USUAL = {
  case: 4,
  unpack: 20,
  power: 10,
  check: 15,
  sound: 45,
  change: 15,
  spare: 20,
};

const minutesOf = (time: string): number | undefined => {
  const m = /^(\d\d):(\d\d)$/.exec(time);
  return m ? Number(m[1]) * 60 + Number(m[2]) : undefined;
};

/** Minutes after midnight as a time of day: 1110 is "18:30". */
export const timeOfDay = (minutes: number): string => {
  const day = 24 * 60;
  const m = ((Math.round(minutes) % day) + day) % day;
  return `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`;
};

/**
 * A show day worked back from doors: everything must be done when the audience comes in, so the parts
 * are laid one before another from there, the last first. Lengths follow from the rig (cases, leads to
 * plug, steps of the line check, typical while those are not known) until somebody sets them; typical
 * times a case and a plug.
 */
export function scheduleOf(rig: Rig, show: Show, checkSeconds: number | null): Stretch[] {
  const doors = minutesOf(show.doors) ?? 19 * 60;
  const curtain = minutesOf(show.curtain);
  const { pieces } = packingOf(rig);
  const cases = (rig.cases ?? []).length || 1;
  const plugs = rig.leads.filter((l) => l.type !== 'air' && l.type !== 'inside').length;
  const parts = [
    {
      id: 'load',
      words: 'Load in',
      why: `${howMany(cases, 'case')} and ${howMany(pieces.length, 'piece')}; two people on every case over 23 kg`,
      minutes: USUAL.case * cases,
    },
    {
      id: 'build',
      words: 'Set up and plug',
      why: `${howMany(plugs, 'lead')}, half of them stay plugged`,
      minutes: USUAL.unpack + Math.round(plugs / 2),
    },
    {
      id: 'power',
      words: 'Power, lamps, voltage of the house',
      why: 'by the house electrician or whoever is licensed here',
      minutes: USUAL.power,
    },
    {
      id: 'check',
      words: 'Line check',
      why:
        checkSeconds === null
          ? 'typical, until the line check is worked out'
          : 'from the steps of the line check',
      minutes: checkSeconds === null ? USUAL.check : Math.max(5, Math.ceil(checkSeconds / 60)),
    },
    { id: 'sound', words: 'Sound check', why: 'with the band', minutes: USUAL.sound },
    {
      id: 'spare',
      words: 'Spare time',
      why: 'what goes wrong goes wrong here',
      minutes: USUAL.spare,
    },
  ];
  let to = doors;
  const before = parts
    .map((p) => ({ ...p, minutes: show.minutes[p.id] ?? p.minutes, set: p.id in show.minutes }))
    .reverse()
    .map((p): Stretch => {
      const from = to - p.minutes;
      const stretch = { ...p, from, to };
      to = from;
      return stretch;
    })
    .reverse();
  const last: Stretch[] =
    curtain === undefined
      ? []
      : [
          {
            id: 'wait',
            words: 'Doors to curtain',
            why: 'tuner muting, first sound called, torch in the pocket',
            from: doors,
            to: curtain < doors ? curtain + 24 * 60 : curtain,
            minutes: (curtain < doors ? curtain + 24 * 60 : curtain) - doors,
            set: false,
          },
        ];
  return [...before, ...last];
}
