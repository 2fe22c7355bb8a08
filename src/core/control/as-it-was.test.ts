import { DEMO_RIGS } from '../demo';
import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import { allControls, controlWiringRemarks, reachOfControl, sweepOf } from '.';
import { allScenes } from './scene';

test('what controls reach, how they sweep, and what is wrong with their leads is what it was', () => {
  const now: Record<string, unknown> = {};
  for (const rig of DEMO_RIGS) {
    const [sound] = rig.sounds;
    now[rig.id] = digest(allScenes(rig).map((s) => [s.id, s.name, s.sound]));
    for (const control of allControls(rig))
      if (sound && control.type !== 'tap' && control.type !== 'tempo')
        now[`${rig.id} ${control.id}`] = digest([
          reachOfControl(rig, sound, control),
          sweepOf(rig, sound, control),
        ]);
  }
  for (const { name, rig } of variants(1, 4))
    now[`${name}, leads`] = digest(controlWiringRemarks(rig));
  expect(now).toMatchSnapshot();
}, 120_000);
