import { DEMO_RIGS } from '../demo';
import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import { Analyser, analyse, gainLadder, previewEdits } from '.';

test('findings of rigs as they stand and with a change are what they were', () => {
  const now: Record<string, string> = {};
  const analyser = Analyser.withWaysOut();
  for (const { name, rig } of variants(1, 9)) {
    const { findings } = analyser.analyse(rig);
    now[name] = `${findings.length} findings ${digest(findings)}`;
  }
  expect(now).toMatchSnapshot();
}, 120_000);

test('ladders and previews are what they were', () => {
  const now = DEMO_RIGS.map((rig) => {
    const report = analyse(rig);
    const [sound] = report.sounds;
    const [device] = rig.devices.filter((d) => rig.leads.some((l) => l.from.device === d.id));
    return {
      ladders: digest(
        report.sounds[0]!.destinations.map((d) =>
          gainLadder(
            rig,
            report,
            rig.sounds.map((s) => s.id),
            d.device,
          ),
        ),
      ),
      preview:
        sound &&
        device &&
        digest(
          previewEdits(rig, [{ edit: 'removeDevice', device: device.id }], sound.sound, report),
        ),
    };
  });
  expect(now).toMatchSnapshot();
}, 120_000);
