import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import { buildCircuit, pluggedJacks, solveSection } from '.';

test('nets, sections and stages are what they were, and so is their solution', () => {
  const now: Record<string, string[]> = {};
  for (const { name, rig } of variants(2, 5))
    now[name] = rig.sounds.map((sound) => {
      const { netAt: _netAt, ...circuit } = buildCircuit(rig, sound, pluggedJacks(rig));
      const solved = circuit.sections.map((s) =>
        s.drivers.length
          ? [100, 1000, 5000].map((hz) =>
              solveSection({ ...circuit, netAt: () => undefined }, s, hz),
            )
          : null,
      );
      return digest([circuit, solved]);
    });
  expect(now).toMatchSnapshot();
}, 120_000);
