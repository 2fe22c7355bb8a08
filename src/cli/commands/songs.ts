import { soundOf } from '../../core/rig';
import { clockTime } from '../../core/songs';
import { command } from '../command';
import { songsJson } from '../midi-json';
import { anyOf, howMany } from '../../core/units';

export const songs = command({
  name: 'songs',
  about: 'songs and sets in time, delay times, program map, unused sounds',
  options: [],
  run: (rig) => {
    const json = songsJson(rig);
    const unused = json.unusedSounds;
    return {
      json,
      lines: [
        ...json.songs.map((s) => {
          const sections = s.sections.map((x) => `${x.bar} ${x.name}`).join(', ');
          return (
            `${s.title}: ${s.bpm} bpm, ${howMany(s.bars, 'bar')}, ` +
            `${clockTime(s.lengthMs ?? 0)}; ${sections}`
          );
        }),
        ...json.sets.map(
          (s) =>
            `${s.name}: ${howMany(s.songs.length, 'song')}, ${clockTime((s.seconds ?? 0) * 1000)}`,
        ),
        ...(unused.length
          ? [`No song calls ${anyOf(unused.map((id) => soundOf(rig, id)?.name ?? id))}.`]
          : []),
      ],
    };
  },
});
