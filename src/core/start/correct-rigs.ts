import { sure } from '../outcome';
import { type Job, kindOf } from '../kinds';
import { applyEdits, type Brief, type Rig, type Way } from '../rig';
import { finished, proposeRig } from '.';

/** What a rig is begun from, in a line each: kinds that are played, who hears, pedals, decisions. */
interface Begun {
  plays: string;
  heard: string;
  pedals: string;
  means?: Brief['means'];
}

const named = (words: string, prefix: string) =>
  words
    .split(' ')
    .filter(Boolean)
    .map((kind, n) => ({ id: `${prefix}${n}`, kind, name: `${kindOf(kind).name} ${n + 1}` }));

const briefOf = ({ plays, heard, pedals, means }: Begun): Brief => ({
  sources: named(plays.replaceAll('~', ''), 's').map((s, n) => ({
    ...s,
    wireless: plays.split(' ')[n]?.startsWith('~') === true,
  })),
  destinations: (heard.split(' ') as Way[]).map((way, n) => ({
    id: `d${n}`,
    way,
    name: `${way} ${n + 1}`,
  })),
  gear: named(pedals, 'g'),
  sounds: [
    { id: 'clean', name: 'Clean', character: 'clean' },
    { id: 'lead', name: 'Lead', character: 'saturated' },
  ],
  ...(means && { means }),
});

const RIGS: Record<string, Begun> = {
  'a board into a combo': {
    plays: 'guitar-humbucker',
    heard: 'combo house',
    pedals: 'octave compressor drive-low drive-high chorus delay reverb tuner-buffered',
  },
  'a fuzz that wants the pickup': {
    plays: 'guitar-humbucker',
    heard: 'head house',
    pedals: 'fuzz-low-impedance wah drive-mid gate delay reverb tuner-true-bypass',
  },
  'real pedals in the loops of a modeler': {
    plays: 'guitar-humbucker',
    heard: 'house',
    pedals: 'drive-mid delay',
    means: { voice: 'modeler', changed: { dirt: 'loop' } },
  },
  'a modeler and a head': {
    plays: 'guitar-humbucker',
    heard: 'head house',
    pedals: 'drive-mid delay',
    means: { voice: 'modeler' },
  },
  'a loop switcher called by a foot controller': {
    plays: 'guitar-humbucker',
    heard: 'combo house',
    pedals: 'compressor drive-low drive-mid boost delay modulation-digital',
    means: { switching: 'loops-free', calls: 'controller' },
  },
  'a stereo board without an amplifier': {
    plays: 'electric-mandolin',
    heard: 'house in-ears',
    pedals: 'octave tremolo drive-low volume-active chorus delay-dual reverb',
    means: { voice: 'simulator', house: 'stereo' },
  },
  'two instruments and two heads': {
    plays: 'guitar-humbucker guitar-baritone',
    heard: 'head head house',
    pedals: 'drive-mid delay',
  },
  'two combos, one of them wet': {
    plays: 'guitar-humbucker',
    heard: 'combo combo',
    pedals: 'boost compressor drive-low chorus reverb',
    means: { changed: { 'amps-fed': 'sides-wet' } },
  },
};

/** Rigs as a start makes them, in which nothing is wrong, by what they are. */
export const CORRECT_RIGS: readonly string[] = Object.keys(RIGS);

/** One of them; every effect that can be switched on is, in the last sound. */
export function correctRig(name: string): Rig {
  const choice = { id: 'right', name: 'Right', otherSchool: [] };
  const { rig } = finished(proposeRig(briefOf(sure(RIGS[name])), choice));
  const last = sure(rig.sounds.at(-1));
  const effects = rig.devices.filter((d) => EFFECTS.includes(kindOf(d.kind).job));
  return effects.reduce((made, d) => {
    const done = applyEdits(made, [
      { edit: 'setEngaged', device: d.id, sound: last.id, engaged: true },
    ]);
    return done.ok ? done.value.rig : made;
  }, rig);
}

const EFFECTS: readonly Job[] = [
  ...(['pitch', 'filter', 'compressor', 'modulation', 'delay', 'reverb'] as const),
];
