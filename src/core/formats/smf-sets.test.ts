import fc from 'fast-check';
import { touringRig } from '../demo';
import type { Song, SongSet } from '../rig';
import { runningOrder, timelineOf } from '../songs';
import { cases } from '../testing/cases';
import { valueOf } from '../testing/value-of';
import { setToSmf, songsFromSmf, songToSmf } from '.';
import { between } from '../testing/between';

const sound = touringRig.sounds[0]!.id;
const bpm = fc.constantFrom(55, 60, 97.5, 120, 133.33, 300);
const meter = fc.record({
  beats: fc.constantFrom(2, 3, 4, 5, 7, 12),
  unit: fc.constantFrom(4 as const, 8 as const, 16 as const),
});
const section = fc
  .record(
    {
      name: fc.constantFrom('Verse', 'Ré – “haut”', 'رقص', 'A, B', 'x;y'),
      bars: fc.integer({ min: 1, max: 12 }),
      meter,
      changes: fc.uniqueArray(fc.record({ share: between(0, 0.99), bpm }), {
        maxLength: 3,
      }),
    },
    { requiredKeys: ['name', 'bars', 'changes'] },
  )
  .map(({ changes, ...s }) => {
    const tempos = new Map(changes.map((c) => [1 + Math.floor(c.share * s.bars), c.bpm]));
    const list = [...tempos].sort((a, b) => a[0] - b[0]).map(([bar, at]) => ({ bar, bpm: at }));
    return { ...s, sound, ...(list.length && { tempos: list }) };
  });
const one = fc.record(
  {
    title: fc.constantFrom('Tide', 'Ēka 夜', 'Long "one"'),
    bpm,
    meter,
    sections: fc.array(section, { minLength: 1, maxLength: 4 }),
    gap: fc.integer({ min: 0, max: 90 }),
  },
  { requiredKeys: ['title', 'bpm', 'sections'] },
);

const drawn = fc.array(one, { minLength: 1, maxLength: 4 });
type Drawn = typeof one extends fc.Arbitrary<infer T> ? T : never;

/** A rig with those songs, in a set that plays them one after the other. */
function rigOf(all: readonly Drawn[]) {
  const songs = all.map(({ gap: _, sections, ...s }, i): Song => ({
    ...s,
    id: `s${i}`,
    sections: sections.map((x, k) => ({ ...x, id: `x${k}` })),
  }));
  const entries = all.map(({ gap }, i) => ({
    id: `e${i}`,
    song: `s${i}`,
    ...(gap !== undefined && { gap }),
  }));
  const set: SongSet = { id: 'set', name: 'Low water', entries };
  return { rig: { ...touringRig, songs, sets: [set] }, songs, set };
}

/** All of a song that a file tells: its title, its sections, and every bar. */
const told = (s: Song) => ({
  title: s.title,
  sections: s.sections.map((x) => `${x.name} ${x.bars}`),
  bars: timelineOf(s).bars.map((b) => [b.bpm.toFixed(2), b.quarters]),
});

it('whatever the songs and the gaps, be it one song: the file of a set comes back as the same set', () => {
  fc.assert(
    fc.property(drawn, (all) => {
      const { rig, songs, set } = rigOf(all);
      const back = valueOf(
        songsFromSmf({ ...rig, songs: [], sets: [] }, setToSmf(rig, set), 'a file'),
      );
      const entries = back.set?.entries ?? [];
      expect(back.set?.name).toBe(set.name);
      expect(entries.map((e) => told(back.songs.find((s) => s.id === e.song)!))).toEqual(
        songs.map(told),
      );
      expect(entries.map((e) => e.gap ?? 0)).toEqual(
        runningOrder(rig, set).lines.map((l) => Math.round(l.changeover.seconds)),
      );
    }),
    { numRuns: cases(25, 500) },
  );
});

it('a song with the same title and sections but another tempo inside is another song', () => {
  fc.assert(
    fc.property(drawn, (all) => {
      const { rig, songs } = rigOf(all);
      const other = { ...songs[0]!, bpm: songs[0]!.bpm + 7 };
      const isHeard = JSON.stringify(told(other)) !== JSON.stringify(told(songs[0]!));
      const read = valueOf(songsFromSmf(rig, songToSmf(rig, other), 'a file'));
      const known = songs.some((s) => s.id === read.songs[0]!.id);
      expect(known).toBe(
        !isHeard || songs.some((s) => JSON.stringify(told(s)) === JSON.stringify(told(other))),
      );
    }),
    { numRuns: cases(25, 500) },
  );
});
