import { DEMO_RIGS } from '../demo';
import { evidenceOf, figuresIn } from '../analysis';
import { effectiveRig } from '../control/effective';
import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import * as draw from '.';

test('strips, boxes and lines stand where they stood', () => {
  const now: Record<string, string> = {};
  for (const { name, rig: written } of variants(1, 5)) {
    const rig = effectiveRig(written);
    const [sound] = rig.sounds;
    if (!sound) continue;
    const figures = figuresIn(evidenceOf(rig, sound));
    const views = [
      draw.walkView(rig, figures, { folded: new Set(), follow: null, quiet: true }),
      draw.walkView(rig, figures, {
        folded: new Set(rig.devices.map((d) => d.id)),
        follow: null,
        quiet: false,
      }),
      draw.walkView(rig, figures, {
        folded: new Set(),
        follow: figures.destinations[0]?.device ?? null,
        quiet: false,
      }),
    ];
    now[name] = digest([
      views,
      views.map((v) => draw.placeWalk(v, rig.leads, 4)),
      draw.placeWiring(rig, 1200),
    ]);
  }
  expect(now).toMatchSnapshot();
}, 120_000);

test('the map of MIDI is laid out as it was', () => {
  expect(DEMO_RIGS.map((rig) => digest(draw.midiMap(rig)))).toMatchSnapshot();
});
