import { brokenRig, flyRig, touringRig } from '../demo';
import { device, lead, rigOf } from '../testing/rigs';
import { connectionOrder } from './connection-order';
import { analyse } from '../report/report';

const order = (rig: typeof touringRig) => connectionOrder(rig, analyse(rig).sounds);

test(
  'loads before loops before lines before the chain, the instrument’s own lead last; ' +
    'amplifiers are switched on last',
  () => {
    const rig = rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('d', 'drive-low', 'D'),
        device('h', 'head-tube', 'H'),
        device('e', 'delay', 'E'),
        device('a', 'attenuator', 'A'),
        device('c', 'cabinet', 'C'),
        device('di', 'direct-box', 'DI'),
        device('desk', 'console-input', 'Desk'),
        device('s', 'splitter-buffered', 'S'),
      ],
      [
        lead('1', 'g.out', 'd.in', 3),
        lead('2', 'd.out', 's.in', 1),
        lead('3', 's.a', 'h.in', 1),
        lead('4', 'h.send', 'e.in', 1),
        lead('5', 'e.out', 'h.return', 1),
        lead('6', 'h.speaker', 'a.in', 1, 'speaker'),
        lead('7', 'a.out', 'c.in', 1, 'speaker'),
        lead('8', 's.b', 'di.in', 1),
        lead('9', 'di.out', 'desk.in', 20, 'balanced'),
      ],
    );
    const steps = order(rig);
    expect(steps.map((s) => s.leads)).toEqual([
      [],
      ['7', '6'],
      expect.arrayContaining(['4', '5']),
      ['9'],
      expect.arrayContaining(['1', '2', '3', '8']),
      [],
      [],
    ]);
    expect(steps[4]!.leads.at(-1)).toBe('1');
    expect(steps[0]!.devices).toEqual(['h']);
    expect(steps.at(-1)).toMatchObject({
      devices: ['h'],
      what: expect.stringContaining('warm up on standby'),
    });
    expect(steps.at(-2)!.devices).not.toContain('h');
  },
);

test('every lead of a rig is connected once, whatever the rig', () => {
  for (const rig of [touringRig, brokenRig, flyRig]) {
    const real = rig.leads.filter((l) => l.type !== 'inside' && l.type !== 'air').map((l) => l.id);
    expect(
      order(rig)
        .flatMap((s) => s.leads)
        .sort(),
    ).toEqual(real.sort());
  }
});

test('without amplifiers there is no talk of speakers', () => {
  const words = order(flyRig)
    .map((s) => s.what)
    .join(' ');
  expect(words).not.toMatch(/Speakers|standby|Amplifiers/);
  expect(order(rigOf([], []))).toEqual([
    { what: 'Everything off, levels down', why: expect.any(String), leads: [], devices: [] },
  ]);
});
