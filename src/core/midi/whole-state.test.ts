import fc from 'fast-check';
import { parseMidi } from 'midi-file';
import { songToSmf } from '../formats';
import { analyse, FixTrial } from '../report';
import type { Device, Rig, Sound } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { allPairs, runChange, setStage } from '.';
import { begin, call, whatIsOff } from './rehearsal';

/** A controller with devices one behind the other on its MIDI out. */
const rig = (devices: Device[], sounds: Sound[], rest: Partial<Rig> = {}): Rig => {
  const all = [device('pads', 'foot-controller', 'Pads'), ...devices];
  const wired = devices.filter((d) => d.kind !== 'boost');
  return rigOf(
    all,
    wired.map((d, i) =>
      lead(
        `m${i}`,
        i ? `${wired[i - 1]!.id}.midiThru` : 'pads.midiOut',
        `${d.id}.midiIn`,
        1,
        'midi',
      ),
    ),
    sounds,
    rest,
  );
};
const NAMES = ['a', 'b', 'c'];
const sounds = (states: (i: number) => Sound['states'], sends?: (i: number) => Sound['sends']) =>
  NAMES.map((id, i) => ({
    ...sound(id, id.toUpperCase(), [], states(i)),
    ...(sends && { sends: sends(i) }),
  }));
const called = (to: string, number: number, channel = 1) => ({
  from: 'pads',
  to,
  message: { type: 'program' as const, channel, number },
});
const withBank = (address: { bank: number; number: number }) => ({
  message: { type: 'program' as const, channel: 1, ...address },
});
const faultsOf = (r: Rig) =>
  allPairs(setStage(r)).faults.map((f) => `${f.device} ${f.because}: ${f.cure}`);
const echo = (rest: Partial<Device> = {}) => device('echo', 'delay', 'Echo', rest);

/** Rigs in which something that a sound speaks of is not as meant, and what is to be told of it. */
const PLANTED: [string, Rig, string[]][] = [
  [
    'every call off by one, though what the programs hold was never said',
    rig(
      [echo()],
      sounds(
        (i) => ({ echo: { program: { number: i } } }),
        (i) => [called('echo', i + 1)],
      ),
    ),
    ['echo wrong program: a message', 'echo unknown program: a message'],
  ],
  [
    'a program that is never sent',
    rig(
      [echo(), device('dome', 'reverb', 'Dome', { midi: { channel: 2 } })],
      sounds(
        (i) => ({ echo: { program: { number: i } }, dome: { program: { number: i } } }),
        (i) => [called('dome', i, 2)],
      ),
    ),
    ['echo missed: a message'],
  ],
  [
    'a setting that must change and that no message moves',
    rig(
      [echo({ midi: { controls: [] } })],
      sounds((i) => ({ echo: { engaged: true, settings: { repeats: i } } })),
    ),
    ['echo not sent: a message'],
  ],
  [
    'a program that no sound holds',
    rig(
      [echo()],
      sounds(
        (i) => ({ echo: { program: { number: i }, engaged: i > 0 } }),
        () => [called('echo', 99)],
      ),
    ),
    ['echo unknown program: a message'],
  ],
  [
    'a device behind one that hands nothing on',
    {
      ...rig(
        [echo(), device('dome', 'reverb', 'Dome', { midi: { channel: 2 } })],
        sounds((i) => ({ dome: { engaged: i === 1 } })),
      ),
      leads: [lead('m', 'pads.midiOut', 'echo.midiIn', 1, 'midi')],
    },
    ['dome by hand: a lead'],
  ],
  [
    'a device that is switched by what is meant for another',
    rig(
      [echo(), device('dome', 'reverb', 'Dome')],
      sounds((i) => ({ echo: { engaged: i === 1 } })),
    ),
    ['dome meant for another: a message'],
  ],
  [
    'a pedal that only a foot can switch',
    rig(
      [device('lift', 'boost', 'Lift')],
      sounds((i) => ({ lift: { engaged: i === 1 } })),
    ),
    ['lift by hand: a hand'],
  ],
];

test.each(PLANTED)('%s is told, with who could put it right', (_, planted, told) => {
  expect(faultsOf(planted)).toEqual(told);
  const { good, byHand, pairs } = allPairs(setStage(planted));
  expect(good).toBeLessThan(pairs);
  expect(byHand > 0).toBe(told.every((t) => /not sent|by hand/.test(t)));
});

test.each(PLANTED)('%s: Rehearse says the same of every change', (_, planted) => {
  const stage = setStage(planted);
  const { scenes } = stage.orders;
  let good = 0;
  for (const from of scenes)
    for (const to of scenes) {
      if (from === to) continue;
      const { now } = call(stage, begin(planted, stage, from), to);
      const off = whatIsOff(planted, stage, now, to);
      const { mismatches } = runChange(stage, from, to);
      for (const m of mismatches)
        expect(off.some((o) => o.device === m.device && o.key === m.key)).toBe(true);
      if (!off.length) good++;
    }
  expect(allPairs(stage).good).toBe(good);
});

test('what is called right and holds what it should ends as meant, banks too', () => {
  const right = rig(
    [echo()],
    sounds(
      (i) => ({ echo: { program: { number: i }, settings: { mix: i } } }),
      (i) => [called('echo', i)],
    ),
  );
  expect(allPairs(setStage(right))).toMatchObject({ pairs: 6, good: 6, byHand: 0, faults: [] });
  expect(analyse(right).findings.map((f) => f.rule)).not.toContain('midi-number');
});

test('a call that is off by one is a finding where only the numbers say so', () => {
  const finding = analyse(PLANTED[0]![1]).findings.find((f) => f.rule === 'midi-number')!;
  expect(finding.what).toBe('Echo is called at the wrong number.');
  expect(finding.why).toContain('All are off by one');
});

test('a bank that was told stays told: the next program without one is looked for there', () => {
  const kept = [
    { bank: 1, number: 0 },
    { bank: 1, number: 1 },
    { bank: 0, number: 1 },
  ];
  const yard = rigOf(
    [device('pads', 'foot-controller', 'Pads'), device('yard', 'loop-switcher', 'Yard')],
    [lead('m', 'pads.midiOut', 'yard.midiIn', 1, 'midi')],
    sounds(
      (i) => ({ yard: { program: kept[i] } }),
      // Only the first says its bank.
      (i) => [{ ...called('yard', kept[i]!.number), ...(i === 0 && withBank(kept[0]!)) }],
    ),
  );
  const stage = setStage(yard);
  const [a, b] = [stage.scene('a')!, stage.scene('b')!];
  const there = call(stage, begin(yard, stage, stage.scene('c')!), a).now;
  expect(there.machine.get('yard')).toMatchObject({ bank: 1, program: kept[0] });
  const next = call(stage, there, b);
  expect(next.now.machine.get('yard')!.program).toEqual(kept[1]);
  expect(next.change.mismatches).toEqual([]);
});

describe('messages in a circle', () => {
  const round = (closes: boolean) =>
    rigOf(
      [
        device('pads', 'foot-controller', 'Pads'),
        device('join', 'midi-merge', 'Join'),
        device('yard', 'loop-switcher', 'Yard'),
        device('lode', 'modeler-floor', 'Lode', { midi: { channel: 2 } }),
      ],
      [
        lead('1', 'pads.midiOut', 'join.in1', 1, 'midi'),
        lead('2', 'join.midiOut', 'yard.midiIn', 1, 'midi'),
        lead('3', 'yard.midiOut', 'lode.midiIn', 1, 'midi'),
        ...(closes ? [lead('4', 'lode.midiOut', 'join.in2', 1, 'midi')] : []),
      ],
      sounds((i) => ({ yard: { program: { number: i } }, lode: { program: { number: i } } })),
    );
  test('leave nothing as meant, and the simulation stops as soon as one comes back', () => {
    const stage = setStage(round(true));
    const report = allPairs(stage);
    expect(report).toMatchObject({ pairs: 6, good: 0, byHand: 0 });
    expect(report.faults).toEqual([
      expect.objectContaining({ because: 'endless', cure: 'a lead', count: 6 }),
    ]);
    const [from, to] = stage.orders.scenes;
    const change = runChange(stage, from!, to!);
    expect(change.traffic.endless).toBe(true);
    // No message is handed on more often than there are devices, and one more.
    expect(change.traffic.received.length).toBeLessThan(4 * 5 * 3);
  });
  test('one way only is no circle', () => {
    const report = allPairs(setStage(round(false)));
    expect(report.faults.map((f) => f.because)).not.toContain('endless');
  });
});

describe('what lands later goes over what landed before', () => {
  const mix = (value: number, waitMs?: number) => ({
    from: 'pads',
    to: 'echo',
    message: { type: 'control' as const, channel: 1, cc: 15, value },
    ...(waitMs !== undefined && { waitMs }),
  });
  /** All sounds on one program that holds another mix; a control change sets each its own. */
  const set = (order: 'before' | 'behind', waitMs?: number) =>
    rig(
      [echo(), device('dome', 'reverb', 'Dome', { midi: { channel: 2 } })],
      sounds(
        (i) => ({ echo: { program: { number: i }, engaged: true, settings: { mix: i * 5 } } }),
        (i) => {
          // The second sound is to differ from what its program holds by what the list sets.
          const list = [
            called('echo', i),
            mix(i === 1 ? 127 : Math.round((127 * i * 5) / 10), waitMs),
          ];
          return order === 'before' ? list.toReversed() : list;
        },
      ),
    );
  const mixAfter = (r: Rig) => {
    const stage = setStage(r);
    const change = runChange(stage, stage.scene('a')!, stage.scene('b')!);
    return change.end.get('echo')!.values.get('echo mix');
  };
  test('a control change of 4 ms is lost to the program of 25 ms that was sent with it, in either order', () => {
    expect(mixAfter(set('before'))).toBe(5);
    expect(mixAfter(set('behind'))).toBe(5);
  });
  test('25 ms behind it stays', () => expect(mixAfter(set('behind', 25))).toBe(10));
  test('it is told, and the wait that is offered cures it', () => {
    const planted = rig(
      [echo()],
      sounds(
        (i) => ({ echo: { engaged: true, settings: { mix: i * 5 }, program: { number: i } } }),
        (i) => [mix(Math.round((127 * i * 5) / 10)), called('echo', (i + 1) % 3)],
      ),
    );
    const trial = new FixTrial(planted);
    const finding = trial.report.findings.find((f) => f.rule === 'midi-overwritten')!;
    expect(finding.what).toBe('Echo loads a program over what it is told.');
    expect(finding.fix!.words).toBe('Send it 25 ms behind the program');
    expect(trial.try(finding, finding.fix!).cures).toBe(true);
  });
  test('a file for a player has the wait, at the tempo of its section', () => {
    const song = {
      id: 'x',
      title: 'X',
      bpm: 120,
      sections: NAMES.map((id) => ({ id, name: id, bars: 2, sound: id })),
    };
    const events = parseMidi(songToSmf({ ...set('behind', 50), songs: [song] }, song)).tracks[1]!;
    const gaps = events.flatMap((e, i) =>
      e.type === 'controller' && events[i - 1]?.type === 'programChange' ? [e.deltaTime] : [],
    );
    // 50 ms of a quarter of 500 ms are a tenth of 480 ticks.
    expect(gaps).toEqual([48, 48, 48]);
  });
});

test('clock jitter is the worst over all phases of the press, and no one phase tells it', () => {
  const right = rig(
    [echo({ midi: { channel: 1 } })],
    sounds((i) => ({ echo: { program: { number: i } } })),
    {},
  );
  const clocked: Rig = {
    ...right,
    devices: right.devices.map((d) => (d.id === 'pads' ? { ...d, midi: { clock: 'send' } } : d)),
  };
  const stage = setStage(clocked);
  const [a, b] = [stage.scene('a')!, stage.scene('b')!];
  const worst = (phase?: number) =>
    runChange(stage, a, b, { bpm: 120, ...(phase !== undefined && { phase }) }).jitter[0]!;
  const each = Array.from({ length: 8 }, (_, k) => worst(k / 8));
  expect(worst().worstMs).toBe(Math.max(...each.map((j) => j.worstMs)));
  expect(worst().typicalMs).toBeCloseTo(each.reduce((s, j) => s + j.typicalMs, 0) / each.length, 9);
  // A tick waits for the byte that is on its way, never longer.
  expect(worst().worstMs).toBeLessThanOrEqual(0.32 + 1e-9);
  expect(new Set(each.map((j) => j.worstMs.toFixed(4))).size).toBeGreaterThan(1);
});

/** Numbers that are sent and kept in any way, right or wrong, and what the programs hold. */
const anyNumbers = fc.array(
  fc.record({ kept: fc.nat({ max: 3 }), sent: fc.nat({ max: 3 }), mix: fc.nat({ max: 10 }) }),
  { minLength: 3, maxLength: 3 },
);
test('whatever is sent and kept, a change is as meant where Rehearse finds nothing off, and nowhere else', () => {
  fc.assert(
    fc.property(anyNumbers, fc.boolean(), (numbers, isOn) => {
      const any = rig(
        [echo(), device('lift', 'boost', 'Lift')],
        sounds(
          (i) => ({
            echo: { program: { number: numbers[i]!.kept }, settings: { mix: numbers[i]!.mix } },
            lift: { engaged: isOn && i === 1 },
          }),
          (i) => [called('echo', numbers[i]!.sent)],
        ),
      );
      const stage = setStage(any);
      const { scenes } = stage.orders;
      const right = scenes.flatMap((from) =>
        scenes.filter((to) => {
          if (from === to) return false;
          const { now } = call(stage, begin(any, stage, from), to);
          return !whatIsOff(any, stage, now, to).length;
        }),
      );
      const report = allPairs(stage);
      expect(report.good).toBe(right.length);
      // What a foot alone can do is never said to be a message's or a lead's.
      for (const f of report.faults.filter((x) => x.device === 'lift'))
        expect(f.cure).toBe('a hand');
    }),
    { numRuns: 40 },
  );
});
