import { effectiveSound } from './effective';
import type { Rig, Song, Sound, State } from '../rig/schema';

/**
 * A sound as it is called: by itself, or in a section of a song, with what differs there. `id`
 * tells it from all others.
 */
export interface Scene {
  id: string;
  name: string;
  sound: Sound;
  song?: Song;
  section?: string;
}

const over = (a: State | undefined, b: State): State => ({
  ...a,
  ...b,
  ...(a?.settings || b.settings ? { settings: { ...a?.settings, ...b.settings } } : {}),
});

/**
 * States of a sound with those of a song and a section laid over them; the last one that says
 * something holds.
 */
export function layered(...layers: (Record<string, State> | undefined)[]): Record<string, State> {
  const states: Record<string, State> = {};
  for (const layer of layers)
    for (const [id, state] of Object.entries(layer ?? {})) states[id] = over(states[id], state);
  return states;
}

/** Whether anything that a song or section says makes it another sound. */
const differs = (...layers: (Record<string, State> | undefined)[]): boolean =>
  layers.some((l) => l && Object.keys(l).length > 0);

/** A sound, called by itself. */
export const sceneOf = (rig: Rig, sound: Sound): Scene => ({
  id: sound.id,
  name: sound.name,
  sound: effectiveSound(rig, sound),
});

/**
 * What a section of a song calls; nothing where its sound is gone. A section that changes nothing
 * calls the sound itself.
 */
export function sectionScene(rig: Rig, song: Song, sectionId: string): Scene | undefined {
  const section = song.sections.find((s) => s.id === sectionId);
  const sound = section && rig.sounds.find((s) => s.id === section.sound);
  if (!section || !sound) return undefined;
  const plain = sceneOf(rig, sound);
  if (!differs(song.states, section.states)) return { song, section: section.id, ...plain };
  // Sections of a song that lay nothing of their own over a sound share one.
  const id = `${song.id}/${differs(section.states) ? section.id : sound.id}`;
  return {
    id,
    name: `${song.title}, ${differs(section.states) ? section.name : sound.name}`,
    sound: { ...plain.sound, states: layered(plain.sound.states, song.states, section.states) },
    song,
    section: section.id,
  };
}

/** Every different scene of a rig: its sounds, and what its songs make of them. */
export function allScenes(rig: Rig): Scene[] {
  const scenes = new Map<string, Scene>();
  for (const s of rig.sounds) scenes.set(s.id, sceneOf(rig, s));
  for (const song of rig.songs ?? []) {
    for (const section of song.sections) {
      const scene = sectionScene(rig, song, section.id);
      if (scene && !scenes.has(scene.id)) scenes.set(scene.id, scene);
    }
  }
  return [...scenes.values()];
}
