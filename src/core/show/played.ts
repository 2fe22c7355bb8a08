import { runningOrder, timelineOf } from '../songs';
import type { Rig, SongSet } from '../rig/schema';

/** How long each sound is on in a set, in seconds, and in which songs; in order of the rig's sounds. */
export interface SoundUse {
  sound: string;
  seconds: number;
  songs: string[];
}

/** Seconds that a sound counts for where there is no set to play: as if each were on as long. */
const WITHOUT_SET_SECONDS = 600;

/** What of a set each sound is on; without a set, every sound for as long as any other. */
export function usesOf(rig: Rig, set?: SongSet): SoundUse[] {
  const uses = new Map<string, SoundUse>(
    rig.sounds.map((s) => [s.id, { sound: s.id, seconds: 0, songs: [] }]),
  );
  if (!set) return [...uses.values()].map((u) => ({ ...u, seconds: WITHOUT_SET_SECONDS }));
  for (const { song } of runningOrder(rig, set).lines) {
    if (!song) continue;
    for (const { section, startMs, endMs } of timelineOf(song).sections) {
      const use = uses.get(section.sound);
      if (!use) continue;
      use.seconds += (endMs - startMs) / 1000;
      if (!use.songs.includes(song.title)) use.songs.push(song.title);
    }
  }
  return [...uses.values()];
}
