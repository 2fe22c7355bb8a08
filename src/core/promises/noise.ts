import { kindOf } from '../kinds';
import { noiseIn, overNoise, playNote } from '../note';
import { sure } from '../outcome';
import { deviceOf, nameOf } from '../rig/find';
import type { PromiseOf, Rig, Sound } from '../rig/schema';
import { fixed, withPrefix } from '../units';
import type { Breach, InSound } from './ground';

/** Signal-to-noise at a destination stays over a figure, on each side that hears anything. */
export const noiseUnder: InSound<'noise-under'> = (p, { rig }, sound, report) => {
  const d = report.destinations.find((x) => x.device === p.destination);
  if (!d) return [];
  if (p.by === 'loudness') return weightedUnder(p, rig, sound);
  const sides = d.sides.flatMap(({ levelDbu, noiseDbu }, i) =>
    levelDbu && noiseDbu !== null
      ? [{ side: i ? ('right' as const) : ('left' as const), db: levelDbu.normal - noiseDbu }]
      : [],
  );
  const whole = d.signalToNoiseDb === null ? [] : [{ side: null, db: d.signalToNoiseDb }];
  const worst = (sides.length ? sides.filter((x) => !p.side || x.side === p.side) : whole)
    .filter((x) => x.db <= p.db)
    .sort((a, b) => a.db - b.db)[0];
  if (!worst) return [];
  const isOne = d.channels === 'mono' || sides.length < 2;
  return [
    {
      sound: report.sound,
      why:
        `${worst.side && !isOne ? `The ${worst.side} side` : 'It'} is ${fixed(worst.db)} dB; most of the noise comes ` +
        `from ${d.noisiest ? nameOf(rig, d.noisiest) : 'the input itself'}.`,
      subjects: [p.destination, ...(d.noisiest ? [d.noisiest] : [])],
    },
  ];
};

/** The same with note and noise weighted as it counts for loudness, at each jack that hears a note. */
function weightedUnder(p: PromiseOf<'noise-under'>, rig: Rig, sound: Sound): Breach[] {
  const jacks = kindOf(sure(deviceOf(rig, p.destination)).kind).destination?.jacks ?? [];
  const [note, noise] = [playNote(rig, sound), noiseIn(rig, sound)];
  const heard = jacks.flatMap((jack, i) => {
    const there = noise(p.destination, jack);
    const db = overNoise(note.at(p.destination, jack) ?? null, there);
    const side = i ? ('right' as const) : ('left' as const);
    return db === null || !there.playing ? [] : [{ side, db, from: there.playing }];
  });
  const worst = heard
    .filter((x) => x.db <= p.db && (!p.side || x.side === p.side))
    .sort((a, b) => a.db - b.db)[0];
  if (!worst) return [];
  return [
    {
      sound: sound.id,
      why:
        `${heard.length > 1 ? `The ${worst.side} side` : 'It'} is ${fixed(worst.db)} dB, weighted; ` +
        `most of the noise comes from ${nameOf(rig, worst.from.device)}, about ` +
        `${withPrefix(worst.from.band, 'Hz')}.`,
      subjects: [...new Set([p.destination, worst.from.device])],
    },
  ];
}
