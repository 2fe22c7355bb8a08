import { sectionScene } from '../control/scene';
import type { Rig, Song } from '../rig/schema';
import { alwaysThere } from './always-there';
import { fitLabels } from './labels';
import { changesOf, fewestChanges } from './switch-pages';

/** One switch of a page: what it calls or does, and its label. */
export interface Pad {
  label: string;
  scene?: string | undefined;
  does?: string;
}

/**
 * Pages of switches for a song: its different sounds, laid out so that the song changes pages as
 * rarely as can be, and what is always there at the end of every page. Without a song, the sounds of
 * the rig in their order.
 */
export function pagesFor(rig: Rig, songId: string, switches: number, letters = 12): Pad[][] {
  const song = rig.songs?.find((s) => s.id === songId);
  const always = alwaysThere(rig).slice(0, Math.max(0, switches - 1));
  const scenes = song
    ? song.sections.map((s) => sectionScene(rig, song, s.id)).filter((s) => s !== undefined)
    : rig.sounds.map((s) => ({ id: s.id, name: s.name, sound: s }));
  const different = [...new Map(scenes.map((s) => [s.id, s])).values()];
  const room = Math.max(1, switches - always.length);
  const names = different.map((s) => rig.sounds.find((x) => x.id === s.sound.id)?.name ?? s.name);
  // Two sounds never read the same on a display, whichever page they are on.
  const labels = fitLabels(names, letters);
  const way = scenes.map((s) => different.findIndex((d) => d.id === s.id));
  const { pages } = song ? fewestChanges(way, room) : { pages: inOrder(different.length, room) };
  return (pages.length ? pages : [[]]).map((page) => [
    ...page.map((k): Pad => ({ label: labels[k] ?? '', scene: different[k]?.id })),
    ...always.map((does): Pad => ({ label: does, does })),
  ]);
}

/** How often the pages of a song have to be changed while it is played. */
export function pageChanges(rig: Rig, song: Song, pages: readonly (readonly Pad[])[]): number {
  const way = song.sections.flatMap((s) => sectionScene(rig, song, s.id)?.id ?? []);
  const ids = [...new Set(way)];
  const numbered = pages.map((page) =>
    page.flatMap((p) => (p.scene ? [ids.indexOf(p.scene)] : [])),
  );
  return changesOf(
    way.map((id) => ids.indexOf(id)),
    numbered,
  );
}

const inOrder = (count: number, room: number): number[][] =>
  Array.from({ length: Math.ceil(count / room) }, (_, p) =>
    Array.from({ length: Math.min(room, count - p * room) }, (_, k) => p * room + k),
  );
