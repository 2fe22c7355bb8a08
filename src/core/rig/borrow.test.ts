import fc from 'fast-check';
import { DEMO_RIGS, hybridRig, touringRig } from '../demo';
import { device, rigOf } from '../testing/rigs';
import { applyEdits, borrow, integrityProblems, type Rig, type Wanted } from '.';

const all = (rig: Rig): Required<Wanted> => ({
  sounds: rig.sounds.map((s) => s.id),
  songs: (rig.songs ?? []).map((s) => s.id),
  sets: (rig.sets ?? []).map((s) => s.id),
  controls: (rig.controls ?? []).map((c) => c.id),
  boards: (rig.boards ?? []).map((b) => b.id),
});
const taken = (here: Rig, from: Rig, wanted: Wanted) => {
  const { edits, lost } = borrow(here, from, wanted);
  const made = applyEdits(here, edits);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return { rig: made.value.rig, lost };
};
const rigs = fc.constantFrom(...DEMO_RIGS);

test('anything of any rig goes into any rig: it is whole, and what was there stays', () => {
  fc.assert(
    fc.property(rigs, rigs, fc.infiniteStream(fc.boolean()), (here, from, coins) => {
      const some = (ids: readonly string[]) => ids.filter(() => coins.next().value);
      const wanted = Object.fromEntries(
        Object.entries(all(from)).map(([what, ids]) => [what, some(ids)]),
      );
      const { rig } = taken(here, from, wanted);
      expect(integrityProblems(rig)).toEqual([]);
      for (const part of ['devices', 'leads', 'promises'] as const)
        expect(rig[part]).toEqual(here[part]);
      expect(rig.sounds.slice(0, here.sounds.length)).toEqual(here.sounds);
      expect((rig.songs ?? []).slice(0, here.songs?.length ?? 0)).toEqual(here.songs ?? []);
      // Names tell what came from what was there.
      const before = here.sounds.length - new Set(here.sounds.map((s) => s.name)).size;
      expect(rig.sounds.length - new Set(rig.sounds.map((s) => s.name)).size).toBe(before);
    }),
    { numRuns: 60 },
  );
});

test.each([touringRig, hybridRig])(
  'into a copy of itself without sounds, songs and controls, everything of $name comes as it was, but for programs',
  (from) => {
    const bare: Rig = { ...from, id: 'bare', sounds: [], songs: [], sets: [], controls: [] };
    const { rig, lost } = taken(bare, from, { ...all(from), boards: [] });
    expect(lost).toEqual([]);
    const withoutPrograms = (x: unknown): unknown =>
      JSON.parse(JSON.stringify(x, (key, v: unknown) => (key === 'program' ? undefined : v)));
    for (const part of ['sounds', 'songs', 'sets', 'controls'] as const)
      expect(rig[part] ?? []).toEqual(withoutPrograms(from[part] ?? []));
  },
);

test('what is said of a box that is not here is left out, and told; one of its name and kind takes it up', () => {
  const here = rigOf(
    [device('a', 'drive-mid', 'Kiln Drive'), device('b', 'delay', 'Flare Boost')],
    [],
  );
  const sound = touringRig.sounds.find((s) => s.states.kiln && s.states.flare)!;
  const { rig, lost } = taken(here, touringRig, { sounds: [sound.id] });
  const came = rig.sounds.at(-1)!;
  expect(came.name).toBe(sound.name);
  expect(came.states.a).toMatchObject({ engaged: sound.states.kiln!.engaged });
  // A delay that has the name of a boost is no boost.
  expect(came.states).not.toHaveProperty('b');
  expect(lost.join()).toContain('Flare Boost');
});

test('a song brings the sounds that it calls, a set its songs, each once', () => {
  const here = rigOf([device('a', 'drive-mid', 'Kiln Drive')], []);
  const [set] = touringRig.sets!;
  const { rig } = taken(here, touringRig, { sets: [set!.id] });
  const songs = new Set(set!.entries.map((e) => e.song));
  expect(rig.songs).toHaveLength(songs.size);
  const called = new Set(
    touringRig.songs!.filter((s) => songs.has(s.id)).flatMap((s) => s.sections.map((x) => x.sound)),
  );
  expect(rig.sounds.length).toBe(here.sounds.length + called.size);
  for (const song of rig.songs!)
    expect(song.sections.length).toBe(
      touringRig.songs!.find((s) => s.title === song.title)!.sections.length,
    );
});
