import { analyse, FixTrial } from '../report';
import type { Rig } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';

/** Two guitars at one box, each played in a sound of its own while the other rests beside it. */
const twoGuitars = (box: string, settings: Record<string, string> = {}): Rig =>
  rigOf(
    [
      device('g', 'guitar-single-coil', 'First'),
      device('r', 'guitar-humbucker', 'Second'),
      device('x', box, 'Box', { settings }),
      device('b', 'buffer', 'Buffer'),
      device('a', 'combo-tube', 'Combo'),
    ],
    [
      lead('1', 'g.out', 'x.a', 3),
      lead('2', 'r.out', 'x.b', 3),
      lead('3', 'x.out', 'b.in', 1),
      lead('4', 'b.out', 'a.in', 3),
    ],
    (['g', 'r'] as const).map((plays) => ({
      ...sound(plays, plays === 'g' ? 'One' : 'Two', []),
      states: {
        a: { engaged: true },
        b: { engaged: true },
        g: { engaged: plays === 'g' },
        r: { engaged: plays === 'r' },
      },
    })),
  );
const LOADS = ['loading', 'blend-loading'];
const told = (rig: Rig) => analyse(rig).findings.filter((f) => LOADS.includes(f.rule));

test('a guitar at rest on a passive box is named as what loads the other, in each sound', () => {
  const findings = told(twoGuitars('combiner-passive', { select: 'both' }));
  expect(findings.map((f) => [f.what, f.sounds])).toEqual([
    ['Second, at rest, loads First at Box.', ['g']],
    ['First, at rest, loads Second at Box.', ['r']],
  ]);
  // Worked out apart: 6 kΩ and 2.5 H into the other's 8 kΩ and 4.5 H, the pots, leads and 1 MΩ.
  expect(findings[0]!.why).toContain('First loses 3.8 dB');
  expect(findings[1]!.why).toContain('Second loses 8.5 dB');
});

test('its fix is tried, and leaves neither guitar loaded', () => {
  const trial = new FixTrial(twoGuitars('combiner-passive', { select: 'both' }));
  const finding = trial.report.findings.find((f) => f.rule === 'blend-loading')!;
  expect(finding.fix!.words).toBe('Replace Box by an active mixer');
  expect(trial.try(finding, finding.fix!)).toMatchObject({ cures: true, breaks: [] });
});

test('where the box selects one, or is active, nothing is told', () => {
  const selected = twoGuitars('combiner-passive');
  const each: Rig = {
    ...selected,
    sounds: selected.sounds.map((s) => ({
      ...s,
      states: { ...s.states, x: { settings: { select: s.id === 'g' ? 'a' : 'b' } } },
    })),
  };
  expect(told(each)).toEqual([]);
  expect(told(twoGuitars('mixer-line'))).toEqual([]);
});

test('it loads with its volume as that stands: turned down it is nearly a short', () => {
  const lost = (volume: number) => {
    const rig = twoGuitars('combiner-passive', { select: 'both' });
    const turned: Rig = {
      ...rig,
      devices: rig.devices.map((d) => (d.id === 'r' ? { ...d, settings: { volume } } : d)),
    };
    return analyse(turned).sounds[0]!.tones.find((t) => t.driver === 'g')!.at1kHzDb;
  };
  expect(lost(0)).toBeLessThan(lost(5) - 20);
  // Half way up, the pot stands between the coil and the lead, and takes most of its load away.
  expect(lost(5)).toBeGreaterThan(lost(10) + 1);
});
