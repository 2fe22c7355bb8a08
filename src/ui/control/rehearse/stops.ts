import type { Scene } from '../../../core/control/scene';
import type { Change } from '../../../core/midi';
import type { Rig, Song } from '../../../core/rig/schema';
import { runningOrder, sectionScene } from '../../../core/songs';

export interface Stop {
  song: Song;
  section: string;
  name: string;
  scene: Scene;
}

/**
 * The stops of a rehearsal: every section of every song of a set, or of one song; without songs,
 * the sounds.
 */
export function stopsOf(rig: Rig, setId: string | null): Stop[] {
  const set = rig.sets?.find((s) => s.id === setId);
  const songs = set
    ? runningOrder(rig, set).lines.flatMap((l) => (l.song ? [l.song] : []))
    : (rig.songs ?? []);
  return songs.flatMap((song) =>
    song.sections.flatMap((s) => {
      const scene = sectionScene(rig, song, s.id);
      return scene ? [{ song, section: s.id, name: s.name, scene }] : [];
    }),
  );
}

/** What was done last, in words, with the messages of it. */
export interface Log {
  words: string;
  change: Change | null;
}
