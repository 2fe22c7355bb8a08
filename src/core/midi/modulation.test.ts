import { analyse } from '../report';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { pressesBetween } from '.';

/** A controller that calls digital modulation: two depths, each kept in a preset of its own. */
const rig = rigOf(
  [
    device('k', 'foot-controller', 'Controller'),
    device('m', 'modulation-digital', 'Swirl', { midi: { channel: 3 } }),
  ],
  [lead('1', 'k.midiOut', 'm.midiIn', 2, 'midi')],
  [
    {
      ...sound('a', 'Calm', ['m']),
      states: { m: { engaged: true, program: { number: 7 }, settings: { depth: 2 } } },
    },
    {
      ...sound('b', 'Wide', ['m']),
      states: { m: { engaged: true, program: { number: 8 }, settings: { depth: 9 } } },
    },
  ],
);

test('digital modulation changes its preset with one press of the controller, and nothing is told against it', () => {
  const [a, b] = rig.sounds;
  const { presses, turns } = pressesBetween(rig, a!, b!);
  expect(presses.map((p) => p.device)).toEqual(['k']);
  expect(turns).toEqual([]);
  expect(
    analyse(rig).findings.filter((f) => f.rule.startsWith('midi') && f.severity !== 'advice'),
  ).toEqual([]);
});

test('without its lead it is not reached, and that is told', () => {
  const deaf = { ...rig, leads: [] };
  const { presses } = pressesBetween(deaf, deaf.sounds[0]!, deaf.sounds[1]!);
  expect(presses.map((p) => p.device)).not.toEqual(['k']);
  expect(analyse(deaf).findings.filter((f) => f.rule.startsWith('midi'))).not.toEqual([]);
});
