import { device, lead, rigOf, sound } from '../testing/rigs';
import { analyse } from '../report/report';

const AMPS = ['1', '2', '3'];
const CABS = ['1', '2'];
const states = [...AMPS, 'none'].flatMap((amp) => [...CABS, 'none'].map((cab) => ({ amp, cab })));

/** Three heads, the last without its loop plugged, two cabinets, one delay in the shared loop. */
const matrix = (unselected: string) =>
  rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('sw', 'amp-switcher', 'Switcher', { settings: { unselected } }),
      ...AMPS.map((n) => device(`h${n}`, 'head-tube', `Head ${n}`)),
      ...CABS.map((n) => device(`c${n}`, 'cabinet', `Cab ${n}`)),
      device('d', 'delay', 'Delay', { engaged: true }),
      device('t', 'tuner-rack', 'Tuner'),
    ],
    [
      lead('g', 'g.out', 'sw.inRear', 6),
      lead('t', 'sw.tuner', 't.in', 2),
      lead('ls', 'sw.loopSend', 'd.in', 2),
      lead('lr', 'd.out', 'sw.loopReturn', 2),
      ...AMPS.flatMap((n) => [
        lead(`a${n}`, `sw.amp${n}`, `h${n}.in`, 2),
        lead(`s${n}`, `h${n}.speaker`, `sw.speaker${n}`, 2, 'speaker'),
      ]),
      ...['1', '2'].flatMap((n) => [
        lead(`x${n}`, `h${n}.send`, `sw.send${n}`, 2),
        lead(`y${n}`, `sw.return${n}`, `h${n}.return`, 2),
      ]),
      ...CABS.map((n) => lead(`c${n}`, `sw.cab${n}`, `c${n}.in`, 3, 'speaker')),
    ],
    states.map(({ amp, cab }) =>
      sound(`${amp}-${cab}`, `Amp ${amp}, cab ${cab}`, [], { sw: { settings: { amp, cab } } }),
    ),
  );
const safe = analyse(matrix('load'));
const open = analyse(matrix('open'));
const of = (report: typeof safe, amp: string, cab: string) =>
  report.sounds.find((s) => s.sound === `${amp}-${cab}`)!;

describe.each(states)('amplifier $amp, cabinet $cab', ({ amp, cab }) => {
  test('only the chosen cabinet is heard, and only with an amplifier; the tuner always is', () => {
    const heard = of(safe, amp, cab)
      .destinations.filter((d) => d.levelDbu)
      .map((d) => d.device)
      .sort();
    expect(heard).toEqual([...(amp !== 'none' && cab !== 'none' ? [`c${cab}`] : []), 't']);
  });
  test('the shared loop is passed by the amplifiers that are plugged into it, by no other', () => {
    if (amp === 'none' || cab === 'none') return;
    const at = of(safe, amp, cab).destinations.find((d) => d.device === `c${cab}`)!;
    expect(at.route.some((id) => id.split(':')[0] === 'd')).toBe(amp !== '3');
    expect(
      at.route.filter((id) => id.startsWith('h')).every((id) => id.startsWith(`h${amp}`)),
    ).toBe(true);
  });
  test('with loads inside no head is ever without; without them every one that is not on a cabinet is', () => {
    expect(of(safe, amp, cab).speakers.filter((s) => s.tube && s.loadOhms === null)).toEqual([]);
    const bare = of(open, amp, cab)
      .speakers.filter((s) => s.tube && s.loadOhms === null)
      .map((s) => s.amp)
      .sort();
    expect(bare).toEqual(AMPS.filter((n) => n !== amp || cab === 'none').map((n) => `h${n}`));
  });
  test('no cabinet is ever driven by two', () => {
    for (const report of [safe, open])
      expect(of(report, amp, cab).speakers.filter((s) => s.others.length > 0)).toEqual([]);
  });
});

test('the danger is told once, since one switch cures it, with each head and the sounds in which any stands', () => {
  const told = open.findings.filter((f) => f.rule === 'no-load');
  expect(told).toHaveLength(1);
  expect(told[0]?.subjects.filter((id) => id.startsWith('h')).sort()).toEqual(['h1', 'h2', 'h3']);
  expect(told[0]?.what.match(/has no load/g)).toHaveLength(3);
  expect(told[0]?.sounds).toHaveLength(states.length);
  expect(safe.findings.filter((f) => f.rule === 'no-load')).toEqual([]);
});
