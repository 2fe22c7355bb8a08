import { DEMO_RIGS } from '../demo';
import type { Sound } from '../rig';
import { allControls, heardIn, levelsNear, sweepOf } from '.';
import { withControlAt } from './effective';

const figuresOf = (list: ReturnType<typeof heardIn>) =>
  list.map((d) => ({
    device: d.device,
    levels: [d.levelDbu, ...d.sides.map((s) => s.levelDbu)].map((l) => l?.normal ?? null),
  }));

describe.each(DEMO_RIGS.map((r) => [r.name, r] as const))('%s', (_, rig) => {
  test('levels near a sound are those of hearing it afresh: other sounds, controls anywhere', () => {
    for (const from of rig.sounds.slice(0, 3)) {
      const levels = levelsNear(rig, from);
      const others: Sound[] = [
        ...rig.sounds,
        ...allControls(rig).flatMap((c) =>
          [0, 40, 100].map((x) => withControlAt(rig, from, c, c.type === 'pedal' ? x : x >= 50)),
        ),
      ];
      for (const s of others) expect(figuresOf(levels(s))).toEqual(figuresOf(heardIn(rig, s)));
    }
  });
  test('a sweep ends where the control at its ends is heard', () => {
    const sound = rig.sounds[0]!;
    for (const c of allControls(rig)
      .filter((x) => x.type === 'pedal')
      .slice(0, 3)) {
      const { at, destinations } = sweepOf(rig, sound, c, 5);
      expect(at).toEqual([0, 25, 50, 75, 100]);
      const ends = [0, 100].map((x) => heardIn(rig, withControlAt(rig, sound, c, x)));
      destinations.forEach((d, i) => {
        const whole = ends.map((e) => e[i]!.levelDbu?.normal ?? null);
        const sides = ends[0]![i]!.sides.map((__, k) =>
          ends.map((e) => e[i]!.sides[k]!.levelDbu?.normal ?? null),
        );
        expect([whole, ...sides]).toContainEqual([d.levels[0], d.levels.at(-1)]);
      });
    }
  });
});
