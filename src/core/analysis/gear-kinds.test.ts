import { inputList } from '../build';
import { analyse, FixTrial } from '../report';
import { allOn, chainOf, device, lead } from '../testing/rigs';
import { kindOf, KINDS } from '../kinds';
import type { Rig } from '../rig';

const on = (rig: Rig): Rig => allOn(rig.devices, rig.leads);
const rules = (rig: Rig) => analyse(rig).findings.map((f) => f.rule);
const level = (rig: Rig) => analyse(rig).sounds[0]!.destinations[0]!.levelDbu!.normal;

describe('fuzzes', () => {
  const behindBuffer = (fuzz: string) =>
    on(chainOf(['guitar-single-coil', 'buffer', fuzz, 'console-input']));
  test('one that wants the bare pickup is told of a buffer before it, an ordinary one is not', () => {
    expect(rules(behindBuffer('fuzz-low-impedance'))).toContain('bare-pickup');
    expect(rules(behindBuffer('fuzz'))).not.toContain('bare-pickup');
  });
  test('both are dirt: amplified and clipped, loud whatever comes in', () => {
    const thd = (fuzz: string) =>
      analyse(behindBuffer(fuzz)).sounds[0]!.destinations[0]!.thdPercent!.normal;
    expect(thd('fuzz')).toBeGreaterThan(20);
    expect(thd('fuzz-low-impedance')).toBeGreaterThan(20);
  });
});

describe('microphones', () => {
  const miked = (microphone: string): Rig =>
    allOn(
      [
        device('g', 'guitar-active', 'Guitar'),
        device('a', 'combo-tube', 'Combo'),
        device('m', microphone, 'Mic'),
        device('c', 'console-input', 'Desk', { settings: { input: 'mic' } }),
      ],
      [
        lead('1', 'g.out', 'a.in', 3),
        lead('2', 'a.air', 'm.air', 0.05, 'air'),
        lead('3', 'm.out', 'c.in', 10, 'balanced'),
      ],
    );
  test('distance costs nothing in front of the cone, and 6 dB a doubling beyond the cabinet’s size', () => {
    const at = (metres: number) => {
      const rig = miked('microphone');
      const moved = rig.leads.map((l) => (l.type === 'air' ? { ...l, metres } : l));
      const { destinations } = analyse({ ...rig, leads: moved }).sounds[0]!;
      return destinations.find((d) => d.device === 'c')!;
    };
    const level = (metres: number) => at(metres).levelDbu!.normal;
    const { width, height } = kindOf('combo-tube').size!;
    const size = Math.max(width, height) / 1000;
    expect(level(0.15)).toBeCloseTo(level(0.03), 9);
    expect(level(size)).toBeCloseTo(level(0.03), 9);
    expect(level(2 * size) - level(size)).toBeCloseTo(-6.02, 2);
    expect(level(4) - level(2)).toBeCloseTo(-6.02, 2);
    expect(at(4).latencyMs! - at(2).latencyMs!).toBeCloseTo(5.8, 9);
  });
  test('a condenser gives 17 dB more than a dynamic one at the same place', () => {
    const of = (kind: string) =>
      analyse(miked(kind)).sounds[0]!.destinations.find((d) => d.device === 'c')!.levelDbu!.normal;
    // Their 100 and 200 Ω into the 2 kΩ of a microphone input count besides.
    const apart = 17 + 20 * Math.log10(2200 / 2100);
    expect(of('microphone-condenser') - of('microphone')).toBeCloseTo(apart, 2);
  });
});

describe('phantom power', () => {
  const into = (kind: string, jack: string, input: string): Rig =>
    allOn(
      [
        device('g', 'guitar-active', 'Guitar'),
        device('a', 'combo-tube', 'Combo'),
        device('m', 'microphone-condenser', 'Mic'),
        device('c', kind, 'Desk', { settings: { input } }),
      ],
      [
        lead('1', 'g.out', 'a.in', 3),
        lead('2', 'a.air', 'm.air', 0.05, 'air'),
        lead('3', 'm.out', `c.${jack}`, 10, 'balanced'),
      ],
    );
  test('a condenser at a line input gets none; the fix cures that and breaks nothing', () => {
    const trial = new FixTrial(into('console-input', 'in', 'line'));
    const told = trial.report.findings.filter((f) => f.rule === 'not-fed');
    expect(told.map((f) => [f.severity, f.what])).toEqual([['fault', 'Nothing feeds Mic.']]);
    expect(trial.try(told[0]!, told[0]!.fix!)).toMatchObject({ cures: true });
  });
  test('at a microphone input nothing is told, and the input list says on; a dynamic one needs none', () => {
    const condenser = into('console-input', 'in', 'mic');
    expect(rules(condenser)).not.toContain('not-fed');
    const list = (rig: Rig) => inputList(rig, analyse(rig).sounds).map((l) => l.phantom);
    expect(list(condenser)).toEqual(['on']);
    const dynamic = {
      ...condenser,
      devices: condenser.devices.map((d) => (d.id === 'm' ? { ...d, kind: 'microphone' } : d)),
    };
    expect(list(dynamic)).toEqual(['off']);
    expect(rules(dynamic)).not.toContain('not-fed');
  });
});

describe('phantom power over more than one lead', () => {
  const rig = (panelled: boolean): Rig =>
    allOn(
      [
        device('g', 'guitar-active', 'Guitar'),
        device('a', 'combo-tube', 'Combo'),
        device('m', 'microphone-condenser', 'Mic'),
        ...(panelled ? [device('p', 'panel', 'Panel')] : []),
        device('c', 'console-input', 'Desk', { settings: { input: 'mic' } }),
        device('d', 'console-input', 'Monitors', { settings: { input: 'mic' } }),
      ],
      [
        lead('1', 'g.out', 'a.in', 3),
        lead('2', 'a.air', 'm.air', 0.05, 'air'),
        ...(panelled
          ? [
              lead('3', 'm.out', 'p.front1', 5, 'balanced'),
              lead('4', 'p.rear1', 'c.in', 10, 'balanced'),
            ]
          : [lead('3', 'm.out', 'c.in', 10, 'balanced')]),
        lead('5', 'm.out', 'd.in', 10, 'balanced'),
      ],
    );
  test.each([false, true])(
    'one of two inputs feeds it, a panel between or not (%s)',
    (panelled) => {
      const r = rig(panelled);
      expect(rules(r)).not.toContain('not-fed');
      expect(inputList(r, analyse(r).sounds).map((l) => [l.phantom, l.phantomFor])).toEqual([
        ['on', 'for Mic'],
        ['off', 'Desk feeds Mic'],
      ]);
    },
  );
  test('a buffer lets none through', () => {
    const r = rig(true);
    const buffered = {
      ...r,
      devices: r.devices.map((d) => (d.id === 'p' ? { ...d, kind: 'buffer' } : d)),
      leads: r.leads.flatMap((l) =>
        l.id === '5'
          ? []
          : [l.id === '3' ? { ...l, to: { device: 'p', jack: 'in' } } : l].map((x) =>
              x.id === '4' ? { ...x, from: { device: 'p', jack: 'out' } } : x,
            ),
      ),
    };
    expect(rules(buffered)).toContain('not-fed');
  });
});

describe('direct boxes', () => {
  const direct = (kind: string) =>
    allOn(
      [
        device('g', 'guitar-single-coil', 'Guitar'),
        device('d', kind, 'Box'),
        device('c', 'console-input', 'Desk', { settings: { input: 'mic' } }),
      ],
      [lead('1', 'g.out', 'd.in', 3), lead('2', 'd.out', 'c.in', 20, 'balanced')],
    );
  const tone = (kind: string) =>
    analyse(direct(kind)).sounds[0]!.tones.find((t) => t.leads.includes('1'))!.at5kHzDb;
  test('a passive one dulls a bare pickup, an active one hardly', () => {
    expect(tone('direct-box-active')).toBeGreaterThan(tone('direct-box') + 3);
  });
  test('a transformer parts the grounds, an active box joins them', () => {
    const through = (kind: string) =>
      kindOf(kind)
        .passes({ figure: () => 0 } as never, () => true)
        .some((p) => p.is === 'stage' && p.groundThrough);
    expect(through('direct-box')).toBe(false);
    expect(through('direct-box-active')).toBe(true);
  });
});

describe('a head with a master for each channel', () => {
  const head = (settings: Record<string, number | string>) =>
    allOn(
      [
        device('g', 'guitar-active', 'Guitar'),
        device('h', 'head-tube-masters', 'Head', { settings }),
        device('s', 'cabinet', 'Cabinet'),
        device('m', 'microphone', 'Mic'),
        device('c', 'console-input', 'Desk', { settings: { input: 'mic' } }),
      ],
      [
        lead('1', 'g.out', 'h.in', 3),
        lead('2', 'h.speaker', 's.in', 1, 'speaker'),
        lead('3', 's.air', 'm.air', 0.05, 'air'),
        lead('4', 'm.out', 'c.in', 10, 'balanced'),
      ],
    );
  const at = (settings: Record<string, number | string>) => level(head(settings));
  test.each([
    ['clean', 'master', 'dirtyMaster'],
    ['dirty', 'dirtyMaster', 'master'],
  ])('in the %s channel %s turns the level, and %s nothing', (channel, own, other) => {
    const base = { channel, gain: 0, dirtyGain: 0, master: 2, dirtyMaster: 2 };
    expect(at({ ...base, [own]: 4 })).toBeGreaterThan(at(base) + 4);
    expect(at({ ...base, [other]: 9 })).toBeCloseTo(at(base), 9);
  });
  test('without a load it is a danger, as with any tube head', () => {
    const unloaded = head({});
    const bare = { ...unloaded, leads: unloaded.leads.filter((l) => l.id !== '2') };
    expect(analyse(bare).findings.find((f) => f.rule === 'no-load')).toMatchObject({
      severity: 'danger',
      subjects: expect.arrayContaining(['h']) as string[],
    });
  });
});

describe('one pedal, one supply', () => {
  const fed = (supply: string, pedal: string): Rig =>
    allOn(
      [
        device('g', 'guitar-active', 'Guitar'),
        device('p', pedal, 'Pedal', {
          supply: { device: 's', outlet: kindOf(supply).outlets![0]!.id },
        }),
        device('c', 'console-input', 'Desk'),
        device('s', supply, 'Supply'),
      ],
      [lead('1', 'g.out', 'p.in', 3), lead('2', 'p.out', 'c.in', 5)],
    );
  const power = (rig: Rig) =>
    analyse(rig).findings.filter((f) => f.subjects.includes('s') && f.severity !== 'advice');
  test.each(['supply-adapter', 'supply-battery'])(
    '%s feeds an analog drive and nothing is told',
    (supply) => {
      expect(power(fed(supply, 'drive-mid'))).toEqual([]);
    },
  );
  test('a digital echo asks more than a battery gives, not more than an adapter', () => {
    expect(power(fed('supply-battery', 'delay'))[0]!.rule).toBe('power-current');
    expect(power(fed('supply-adapter', 'delay'))).toEqual([]);
  });
});

test('no kind is there twice by name', () =>
  expect(new Set(KINDS.map((k) => k.name)).size).toBe(KINDS.length));
