import { defineKind } from './define';
import { figure, small, stage, stereoJacks, through, transformer } from './parts';

export const humIsolator = defineKind({
  id: 'hum-isolator',
  name: 'Hum isolator',
  family: 'Routing',
  job: 'direct',
  about:
    'A transformer in each of two lines: signal crosses, ground does not. Meant for ' +
    'line level, behind an active output.',
  jacks: stereoJacks,
  figures: [
    figure(
      'inputOhms',
      'Input impedance',
      'Ω',
      10_000,
      [600, 1e6],
      'a line transformer loaded as it is made to be',
    ),
    figure('outputOhms', 'Output impedance', 'Ω', 600, [10, 1e5], 'the winding of the transformer'),
    figure('ceilingDbu', 'Core saturates at', 'dBu', 18, [-10, 30], 'at low frequencies'),
  ],
  parameters: [],
  through,
  alwaysOn: true,
  size: small,
  passes: (s, plugged) =>
    [{ from: 'in', to: 'out' } as const, { from: 'inR', to: 'outR' } as const]
      .filter(({ from, to }) => plugged(from) || plugged(to))
      .map(({ from, to }) =>
        stage(s, {
          id: from,
          from,
          to,
          noiseDbu: -140,
          groundThrough: false,
          filters: transformer,
        }),
      ),
});
