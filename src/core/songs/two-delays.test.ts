import fc from 'fast-check';
import { analyse } from '../report';
import { applyEdits, type Rig, type Song } from '../rig';
import { chainOf } from '../testing/rigs';
import { DIVISIONS, type Division, divisionMs } from './tempo';
import { delayTimes, withTimesKept } from './delays';

/** A box with two delays in a song, with a note value for each side. */
const rigWith = (left: Division, right: Division, bpm: number): { rig: Rig; song: Song } => {
  const chain = chainOf(['guitar-active', 'delay-dual', 'console-input']);
  const sound = { ...chain.sounds[0]!, states: { d1: { engaged: true } } };
  const song: Song = {
    id: 'song',
    title: 'Song',
    bpm,
    sections: [{ id: 'a', name: 'A', bars: 8, sound: sound.id }],
  };
  const tempo = { way: 'program' as const, division: left, more: { timeRight: right } };
  const devices = chain.devices.map((d) => (d.id === 'd1' ? { ...d, tempo } : d));
  return { rig: { ...chain, devices, sounds: [sound], songs: [song] }, song };
};
const box = (rig: Rig) => rig.devices.find((d) => d.id === 'd1')!;

test('each side has its own note value, is judged by it, and keeps its own time', () => {
  const { rig, song } = rigWith('dotted eighth', 'quarter', 120);
  const times = delayTimes(rig, song, box(rig));
  expect(times.map((t) => [t.setting, t.division, t.wanted])).toEqual([
    ['time', 'dotted eighth', 375],
    ['timeRight', 'quarter', 500],
  ]);
  // As it comes both stand where nobody set them, and the finding keeps both.
  expect(times.every((t) => Math.abs(t.gets - t.wanted) > 20)).toBe(true);
  const told = analyse(rig).findings.find((f) => f.rule === 'song-slip')!;
  const done = applyEdits(rig, told.fix!.edits);
  if (!done.ok) throw new Error(done.problems[0]!.what);
  const after = done.value.rig;
  expect(delayTimes(after, after.songs![0]!, box(after)).map((t) => t.gets)).toEqual([375, 500]);
  expect(analyse(after).findings.some((f) => f.rule === 'song-slip')).toBe(false);
});

test('whatever the tempo and the note values, times that are kept are right to half a step', () => {
  const division = fc.constantFrom(...(Object.keys(DIVISIONS) as Division[]));
  fc.assert(
    fc.property(division, division, fc.integer({ min: 40, max: 200 }), (left, right, bpm) => {
      const { rig, song } = rigWith(left, right, bpm);
      const kept = withTimesKept(song, box(rig), delayTimes(rig, song, box(rig)))!;
      return delayTimes({ ...rig, songs: [kept] }, kept, box(rig)).every((t, i) => {
        const wanted = divisionMs(bpm, [left, right][i]!);
        const reached = Math.min(2000, Math.max(20, wanted));
        return Math.abs(t.wanted - wanted) < 1e-9 && Math.abs(t.gets - reached) <= 0.5 + 1e-6;
      });
    }),
  );
});
