import { freshId } from '../rig/fresh-id';
import type { Brief, Character, Device, Sound } from '../rig/schema';
import { jobOf } from './making';
import type { AmpTurns } from './ways/amp-parts';

/** How much of the dirt a character asks for, as a share of all. */
const DIRTY: Record<Character, number> = {
  clean: 0,
  edge: 1 / 3,
  crunch: 2 / 3,
  saturated: 1,
  special: 0,
};

/** How dirty a sound is, from 0 to 1: as its character says, else the more the later it comes. */
const dirtOf = (line: Brief['sounds'][number], n: number, all: number): number =>
  line.character ? DIRTY[line.character] : all > 1 ? n / (all - 1) : 0;

/**
 * First guesses: as many drives as the character asks for, else one more with each sound; the last
 * sound also boost and delay.
 */
export function startSounds(lines: Brief['sounds'], pedals: readonly Device[]): Sound[] {
  const ids: string[] = [];
  return lines.map((line, n) => {
    const id = freshId(line.name, ids);
    ids.push(id);
    const drives = pedals.filter((d) => jobOf(d) === 'drive' || jobOf(d) === 'fuzz');
    const isLast = n === lines.length - 1 && lines.length > 1;
    const steps = Math.ceil(drives.length * dirtOf(line, n, lines.length) - 1e-9);
    const on = pedals.filter(
      (d) =>
        jobOf(d) === 'compressor' ||
        jobOf(d) === 'reverb' ||
        drives.slice(0, steps).includes(d) ||
        (isLast && (jobOf(d) === 'boost' || jobOf(d) === 'delay')),
    );
    return {
      id,
      name: line.name,
      ...(line.notes && { notes: line.notes }),
      states: Object.fromEntries(on.map((d) => [d.id, { engaged: true }])),
    };
  });
}

/** Which of several amplifiers sounds in a sound, from 0: the dirtier, the later. */
export function ampIn(lines: Brief['sounds'], n: number, amps: number): number {
  const line = lines[n];
  return Math.round((line ? dirtOf(line, n, lines.length) : 0) * (amps - 1));
}

/** Sounds that say which of the amplifiers sounds. */
export const soundsByAmps = (
  sounds: readonly Sound[],
  lines: Brief['sounds'],
  { states }: AmpTurns,
): Sound[] =>
  sounds.map((s, n) => ({
    ...s,
    states: { ...s.states, ...states[ampIn(lines, n, states.length)] },
  }));

/**
 * A modelled amplifier is driven as far as the character of the sound asks; where pedals drive, it
 * stays as clean as it is.
 */
export function soundsByModel(
  sounds: readonly Sound[],
  lines: Brief['sounds'],
  amps: readonly string[],
  pedals: readonly Device[],
): Sound[] {
  const isDriven = pedals.some((d) => ['drive', 'fuzz'].includes(jobOf(d)));
  return sounds.map((s, n) => {
    const line = lines[n];
    const dirt = line && !isDriven ? dirtOf(line, n, lines.length) : 0;
    const gain = 2 + Math.round(2 * 4 * dirt) / 2;
    const driven = Object.fromEntries(amps.map((id) => [id, { settings: { gain } }]));
    return { ...s, states: { ...s.states, ...driven } };
  });
}
