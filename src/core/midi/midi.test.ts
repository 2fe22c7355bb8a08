import fc from 'fast-check';
import type { Device, Lead, Rig, Sound } from '../rig';
import { applyEdits } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { controlRemarks } from '../report/checks';
import { circleOf } from './circle';
import { messageReachRemarks } from './message-reach';
import {
  allPairs,
  bothNumbers,
  BYTE_MS,
  bytesOf,
  clockJitter,
  hex,
  type Message,
  midiGraph,
  programMessages,
  reachIn,
  runBus,
  runChange,
  setStage,
  shownOn,
  wireMs,
  wireOf,
} from '.';

const at = (number: number, bank?: number) => ({
  program: { number, ...(bank !== undefined && { bank }) },
});
const program = (channel: number, number: number): Message => ({
  type: 'program',
  channel,
  number,
});
const control = (channel: number, cc: number, value: number): Message => ({
  type: 'control',
  channel,
  cc,
  value,
});

describe('time on the wire', () => {
  test.each([
    ['a byte', BYTE_MS, 0.32],
    ['a program change, 2 bytes', wireMs([program(1, 5)]), 0.64],
    ['a control change, 3 bytes', wireMs([control(1, 7, 100)]), 0.96],
    ['bank select MSB and LSB and program, 8 bytes', wireMs(programMessages(1, 5, 130)), 2.56],
    [
      'two control changes under running status',
      wireMs([control(1, 7, 1), control(1, 8, 1)], true),
      1.6,
    ],
    [
      'another channel ends running status',
      wireMs([control(1, 7, 1), control(2, 8, 1)], true),
      1.92,
    ],
  ])('%s', (_, ms, expected) => expect(ms).toBeCloseTo(expected, 9));
  test('bytes: bank 130 is MSB 1 and LSB 2, then the program; channel 16 is 0xF', () => {
    expect(programMessages(16, 5, 130).map((m) => hex(bytesOf(m)))).toEqual([
      'BF 00 01',
      'BF 20 02',
      'CF 05',
    ]);
    expect(programMessages(1, 5, 3, 'lsb').map((m) => hex(bytesOf(m)))).toEqual([
      'B0 20 03',
      'C0 05',
    ]);
    expect(programMessages(1, 5, 3, 'none').map((m) => hex(bytesOf(m)))).toEqual(['C0 05']);
  });
});

describe('numbers', () => {
  test('wire 21, screen 22', () =>
    expect(bothNumbers({ from: 1 }, { number: 21 })).toBe('wire 21, screen 22'));
  test('bank is n div size, slot is n mod size', () => {
    expect(shownOn({ from: 1, size: 4, slots: 'letters' }, { number: 21 })).toBe('6B');
    expect(shownOn({ from: 0, size: 4, slots: 'letters', banksFrom: 0 }, { number: 21 })).toBe(
      '5B',
    );
    expect(shownOn({ from: 1, size: 4, banksFrom: 1 }, { number: 2, bank: 7 })).toBe('8-3');
  });
  test('what is shown is read back, for every numbering and number', () => {
    fc.assert(
      fc.property(
        fc.nat({ max: 127 }),
        fc.constantFrom<0 | 1>(0, 1),
        fc.constantFrom<0 | 1>(0, 1),
        fc.option(fc.integer({ min: 1, max: 26 }), { nil: undefined }),
        fc.constantFrom<'letters' | 'numbers'>('letters', 'numbers'),
        (number, from, banksFrom, size, slots) => {
          const n = { from, banksFrom, slots, ...(size && { size }) };
          return wireOf(n, shownOn(n, { number })) === number;
        },
      ),
    );
    expect(wireOf({ from: 1 }, '0')).toBeUndefined();
  });
});

/** A foot controller in front of devices, each behind the one before. */
const chain = (
  devices: Device[],
  sounds: Sound[] = [sound('a', 'A', []), sound('b', 'B', [])],
  leads?: Lead[],
): Rig => {
  const all = [device('pads', 'foot-controller', 'Pads'), ...devices];
  const out = (d: Device) =>
    d.kind === 'foot-controller' ||
    d.kind === 'loop-switcher' ||
    d.kind === 'synth-pedal' ||
    d.kind.startsWith('modeler') ||
    d.kind === 'midi-merge'
      ? 'midiOut'
      : 'midiThru';
  return rigOf(
    all,
    leads ??
      devices.map((d, i) =>
        lead(`m${i}`, `${all[i]!.id}.${out(all[i]!)}`, `${d.id}.midiIn`, 1, 'midi'),
      ),
    sounds,
  );
};
const rules = (rig: Rig) => controlRemarks(rig).map((r) => r.remark.rule);
const remark = (rig: Rig, rule: string) =>
  controlRemarks(rig).find((r) => r.remark.rule === rule)!.remark;
const cured = (rig: Rig, rule: string) => {
  const { fix } = remark(rig, rule);
  const done = applyEdits(rig, fix!.edits);
  if (!done.ok) throw new Error(done.problems[0]!.what);
  return done.value.rig;
};

describe('a change on the bus', () => {
  const rig = chain(
    [
      device('echo', 'delay', 'Echo', { midi: { channel: 1 } }),
      device('dome', 'reverb', 'Dome', { midi: { channel: 2 } }),
    ],
    [
      sound('a', 'A', [], { echo: at(0), dome: at(0) }),
      sound('b', 'B', [], { echo: { engaged: true, ...at(4) }, dome: { engaged: true, ...at(9) } }),
    ],
  );
  const stage = setStage(rig);
  const change = runChange(stage, stage.scene('a')!, stage.scene('b')!);
  test('each program takes 0.64 ms, one after the other; a thru copies as it goes', () => {
    const sent = change.traffic.sent.map(
      (s) => [s.from, s.to, hex(s.bytes), s.start, s.end] as const,
    );
    expect(sent.map(([from, to, bytes]) => `${from}>${to} ${bytes}`)).toEqual([
      'pads>echo C0 04',
      'echo>dome C0 04',
      'pads>echo C1 09',
      'echo>dome C1 09',
    ]);
    expect(sent[0]![3]).toBe(0);
    expect(sent[0]![4]).toBeCloseTo(0.64, 9);
    expect(sent[2]![4]).toBeCloseTo(1.28, 9);
    expect(sent[3]![4]).toBeCloseTo(1.282, 9);
  });
  test('a device is in place when its last byte has come and its own time has passed', () => {
    expect(change.order.map((o) => o.device)).toEqual(['echo', 'dome']);
    expect(change.order[0]!.at).toBeCloseTo(0.64 + 25, 9);
    expect(change.doneMs).toBeCloseTo(1.282 + 25, 9);
    expect(change.mismatches).toEqual([]);
  });
  test(
    'software passes a message on when it has read it, after its own delay, and the ' +
      'next byte waits for the wire',
    () => {
      const behind = chain(
        [
          device('yard', 'loop-switcher', 'Yard', { midi: { channel: 3 } }),
          device('echo', 'delay', 'Echo', { midi: { channel: 1, commander: 'pads' } }),
        ],
        [
          sound('a', 'A', [], { echo: at(0) }),
          sound('b', 'B', [], { echo: { engaged: true, ...at(4) } }),
        ],
      );
      const s = setStage(behind);
      const sent = runChange(s, s.scene('a')!, s.scene('b')!).traffic.sent;
      expect(sent.map((x) => [x.to, Number(x.start.toFixed(3)), Number(x.end.toFixed(3))])).toEqual(
        [
          ['yard', 0, 0.64],
          ['echo', 1.64, 2.28],
        ],
      );
    },
  );
  test('clock at 120 bpm comes every 20.83 ms and goes between bytes, so it is late by less than one', () => {
    const busy = Array.from({ length: 30 }, (_, i) => ({
      device: 'pads',
      at: 0,
      message: control(1, 20, i),
    }));
    const clocked = chain([device('echo', 'delay', 'Echo', { midi: { channel: 1 } })]);
    const traffic = runBus(midiGraph(clocked), busy, {
      bpm: 120,
      clockSenders: ['pads'],
      clockFrom: 0.1,
      clockUntil: 200,
    });
    const ticks = traffic.received.filter((r) => r.message.type === 'clock');
    expect(ticks[9]!.at - ticks[8]!.at).toBeCloseTo(60_000 / 120 / 24, 6);
    const jitter = clockJitter(traffic, 120, 0.1)[0]!;
    expect(jitter.worstMs).toBeGreaterThan(0);
    expect(jitter.worstMs).toBeLessThan(BYTE_MS);
    expect(jitter.typicalMs).toBeLessThan(jitter.worstMs);
    // 30 control changes are 90 bytes; each tick among them takes one byte's time from them.
    const last = traffic.sent.filter((s) => s.message.type === 'control').at(-1)!;
    expect(last.end).toBeCloseTo(
      (90 + traffic.sent.filter((s) => s.message.type === 'clock' && s.start < last.end).length) *
        BYTE_MS,
      6,
    );
  });
  test('on one lead bytes never overlap, in whatever order messages come', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat({ max: 30 }), fc.boolean()), { maxLength: 40 }),
        fc.constantFrom(60, 133, 240),
        (list, bpm) => {
          const own = list.map(([ms, isProgram]) => ({
            device: 'pads',
            at: ms / 3,
            message: isProgram ? program(1, ms) : control(2, ms, 1),
          }));
          const { sent } = runBus(midiGraph(rig), own, {
            bpm,
            clockSenders: ['pads'],
            clockFrom: 0,
            clockUntil: 40,
          });
          const mine = sent.filter((s) => s.lead === 'm0');
          const whole = mine
            .filter((s) => s.message.type !== 'clock')
            .sort((a, b) => a.start - b.start);
          const bytes = mine.reduce((n, s) => n + s.bytes.length, 0);
          const ends = Math.max(0, ...mine.map((s) => s.end));
          return (
            whole.every((s, i) => i === 0 || s.start >= whole[i - 1]!.end - 1e-9) &&
            bytes * BYTE_MS <= ends + 1e-6 &&
            mine.filter((s) => s.message.type !== 'clock').length === list.length
          );
        },
      ),
    );
  });
  test('a device on the way that is called sends its own list when it is there', () => {
    const rig2 = chain(
      [
        device('yard', 'loop-switcher', 'Yard', { midi: { channel: 1 } }),
        device('echo', 'delay', 'Echo', { midi: { channel: 2 } }),
      ],
      [
        sound('a', 'A', [], { yard: at(0, 0), echo: at(0) }),
        sound('b', 'B', [], {
          yard: { settings: { order: '1' }, ...at(1, 1) },
          echo: { engaged: true, ...at(3) },
        }),
      ],
    );
    const s = setStage(rig2);
    const c = runChange(s, s.scene('a')!, s.scene('b')!);
    // 3 + 2 bytes to the switcher, 8 ms until it is there, then 2 bytes to the delay, 25 ms.
    expect(c.order).toEqual([
      { device: 'yard', at: expect.closeTo(1.6 + 8, 6) as number },
      { device: 'echo', at: expect.closeTo(9.6 + 0.64 + 25, 6) as number },
    ]);
  });
});

describe('all pairs', () => {
  const sounds = (toggled: boolean) =>
    Array.from({ length: 4 }, (_, i) => sound(`s${i}`, `S${i}`, i % 2 ? ['x'] : [], {})).map(
      (s) => ({ ...s, ...(toggled ? {} : {}) }),
    );
  test('absolute values end as meant whatever was on before', () => {
    const report = allPairs(setStage(chain([device('x', 'reverb', 'Dome')], sounds(false))));
    expect(report).toMatchObject({ pairs: 12, good: 12, faults: [] });
  });
  test(
    'flips drift: half of the changes, named with device and pair, and a device that ' +
      'can take values is cured by one edit',
    () => {
      const rig = chain([device('x', 'looper', 'Loop')], sounds(true));
      const report = allPairs(setStage(rig));
      // From on to on it is flipped off, from on to off nothing is sent: 2 + 4 of 12.
      expect(report).toMatchObject({ pairs: 12, good: 6 });
      expect(report.faults).toEqual([
        expect.objectContaining({ device: 'x', because: 'toggled', count: 6 }),
      ]);
      expect(remark(rig, 'midi-drift').fix!.words).toBe('Let Loop take on and off as values');
      expect(allPairs(setStage(cured(rig, 'midi-drift'))).good).toBe(12);
    },
  );
  test('a program that holds another sound is a fault with both numbers, and off by one is said', () => {
    const rig = chain(
      [device('e', 'delay', 'Echo')],
      [0, 1, 2].map((i) => ({
        ...sound(`s${i}`, `S${i}`, [], {
          e: { engaged: i > 0, settings: { mix: i + 1 }, ...at(i) },
        }),
        sends: [
          {
            from: 'pads',
            to: 'e',
            message: { type: 'program' as const, channel: 1, number: i + 1 },
          },
        ],
      })),
    );
    const { why, what, fix } = remark(rig, 'midi-number');
    expect(what).toBe('Echo is called at the wrong number.');
    expect(why).toContain(
      'S0 is at wire 0, screen 0; what is sent calls wire 1, screen 1, which holds S1',
    );
    expect(why).toContain('which holds nothing');
    expect(why).toContain('All are off by one');
    expect(fix!.words).toBe('Send the numbers at which it keeps these sounds');
    expect(rules(cured(rig, 'midi-number'))).not.toContain('midi-number');
  });
  test('a bank counted from 0 on one side and from 1 on the other is told as a bank', () => {
    const rig = rigOf(
      [device('app', 'set-list-app', 'Tablet'), device('yard', 'loop-switcher', 'Yard')],
      [lead('u', 'app.usb', 'yard.usb', 1, 'usb')],
      [0, 1, 2].map((i) => ({
        ...sound(`s${i}`, `S${i}`, [], {
          yard: { settings: { order: String(i + 1) }, ...at(0, i) },
        }),
        sends: [
          {
            from: 'app',
            to: 'yard',
            message: { type: 'program' as const, channel: 1, number: 0, bank: i + 1 },
          },
        ],
      })),
    );
    expect(remark(rig, 'midi-number')).toMatchObject({ what: 'Yard is called at the wrong bank.' });
    expect(remark(rig, 'midi-number').why).toContain('one bank off');
    expect(rules(cured(rig, 'midi-number'))).not.toContain('midi-number');
  });
  test('what a device tells others after it was called wrongly is no second mistake', () => {
    const rig = rigOf(
      [
        device('app', 'set-list-app', 'Tablet'),
        device('yard', 'loop-switcher', 'Yard'),
        device('e', 'delay', 'Echo', { midi: { channel: 2 } }),
      ],
      [
        lead('u', 'app.usb', 'yard.usb', 1, 'usb'),
        lead('m', 'yard.midiOut', 'e.midiIn', 1, 'midi'),
      ],
      [0, 1, 2].map((i) => ({
        ...sound(`s${i}`, `S${i}`, i === 1 ? ['e'] : [], {
          yard: { settings: { order: String(i + 1) }, ...at(0, i) },
          e: at(i),
        }),
        sends: [
          {
            from: 'app',
            to: 'yard',
            message: { type: 'program' as const, channel: 1, number: 0, bank: i + 1 },
          },
        ],
      })),
    );
    expect(
      controlRemarks(rig)
        .filter((r) => r.remark.rule.startsWith('midi-') && r.remark.severity === 'fault')
        .map((r) => r.remark.subjects[0]),
    ).toEqual(['yard']);
    expect(rules(cured(rig, 'midi-number')).filter((r) => r !== 'midi-lamps')).toEqual([]);
  });
  test('two sounds at one program, one that has none, one that a written list forgets', () => {
    const shared = chain(
      [device('e', 'delay', 'Echo')],
      [
        sound('a', 'A', [], { e: { settings: { mix: 1 }, ...at(0) } }),
        sound('b', 'B', [], { e: { settings: { mix: 9 }, ...at(0) } }),
      ],
    );
    expect(remark(shared, 'midi-shared').why).toContain('wire 0, screen 0 is to hold both A and B');
    expect(
      rules(cured(shared, 'midi-shared')).filter(
        (r) => r.startsWith('midi-') && r !== 'midi-lamps',
      ),
    ).toEqual([]);
    const unset = chain(
      [device('e', 'delay', 'Echo')],
      [sound('a', 'A', [], { e: at(0) }), sound('b', 'B', ['e'])],
    );
    expect(remark(unset, 'midi-unset').what).toBe('Echo keeps B nowhere.');
    expect(
      rules(cured(unset, 'midi-unset')).filter((r) => r.startsWith('midi-') && r !== 'midi-lamps'),
    ).toEqual([]);
    const forgotten = chain(
      [device('x', 'reverb', 'Dome')],
      [
        sound('a', 'A', ['x']),
        {
          ...sound('b', 'B', []),
          sends: [{ from: 'pads', message: { type: 'control', channel: 1, cc: 15, value: 3 } }],
        },
      ],
    );
    expect(remark(forgotten, 'midi-missed').what).toBe('Dome is not told what B needs.');
    expect(rules(cured(forgotten, 'midi-missed'))).not.toContain('midi-missed');
  });
  test('playing a recording again gives what a full run gives, for any banks, flips and programs', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            engaged: fc.boolean(),
            number: fc.nat({ max: 3 }),
            bank: fc.nat({ max: 2 }),
            order: fc.integer({ min: 1, max: 3 }),
            send: fc.boolean(),
          }),
          { minLength: 2, maxLength: 6 },
        ),
        fc.boolean(),
        (list, omitsBank) => {
          const sounds = list.map((s, i): Sound => ({
            ...sound(`s${i}`, `S${i}`, s.engaged ? ['x'] : [], {
              yard: { settings: { order: String(s.order) }, ...at(s.number, s.bank) },
              echo: at(s.order),
            }),
            ...(s.send && {
              sends: [
                {
                  from: 'pads',
                  to: 'yard',
                  message: {
                    type: 'program',
                    channel: 1,
                    number: s.number,
                    ...(!omitsBank && { bank: s.bank }),
                  },
                },
              ],
            }),
          }));
          const rig = chain(
            [
              device('yard', 'loop-switcher', 'Yard'),
              device('echo', 'delay', 'Echo', { midi: { channel: 2 } }),
              device('x', 'looper', 'Loop', { midi: { channel: 3 } }),
            ],
            sounds,
          );
          const stage = setStage(rig);
          const quick = allPairs(stage);
          let good = 0;
          for (const a of stage.orders.scenes)
            for (const b of stage.orders.scenes)
              if (a !== b && runChange(stage, a, b).mismatches.length === 0) good++;
          return quick.good === good;
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('wiring', () => {
  const slicer = device('slice', 'slicer', 'Slicer', { midi: { channel: 9 } });
  test('no thru in the middle cuts off all behind: clock never gets there, and each fix brings it', () => {
    const rig = chain([device('synth', 'synth-pedal', 'Synth', { midi: { channel: 8 } }), slicer]);
    rig.devices[0] = { ...rig.devices[0]!, midi: { clock: 'send' } };
    const found = remark(rig, 'midi-clock');
    expect(found.what).toBe('Slicer never gets clock.');
    expect(found.why).toContain('Synth, in front of it, passes nothing on');
    const fixes = [found.fix!, ...(found.others ?? [])];
    expect(fixes.map((f) => f.words)).toEqual([
      'Put a thru box in front of Synth',
      'Put Slicer in front of Synth',
      'Put a thru box in front of Synth and a merge box behind it',
    ]);
    for (const f of fixes) {
      const done = applyEdits(rig, f.edits);
      expect(done.ok && reachIn(midiGraph(done.value.rig), 'pads').has('slice')).toBe(true);
      expect(done.ok && rules(done.value.rig)).not.toContain('midi-clock');
    }
  });
  test('clock: nobody leads, or two do', () => {
    const rig = chain([slicer]);
    expect(remark(rig, 'midi-clock').what).toBe('Slicer follows clock, and nothing sends any.');
    expect(rules(cured(rig, 'midi-clock'))).not.toContain('midi-clock');
    const two = rigOf(
      [
        device('a', 'clock-box', 'Box'),
        device('b', 'foot-controller', 'Pads', { midi: { clock: 'send' } }),
        slicer,
      ],
      [
        lead('1', 'b.midiOut', 'a.midiIn', 1, 'midi'),
        lead('2', 'a.midiOut', 'slice.midiIn', 1, 'midi'),
      ],
      [sound('a', 'A', [])],
    );
    expect(remark(two, 'midi-clock').what).toMatch(/both lead with clock/);
    expect(rules(cured(two, 'midi-clock'))).not.toContain('midi-clock');
  });
  test('two devices on one channel that both take what is meant for one; one of them moves', () => {
    const rig = chain(
      [device('e', 'delay', 'Echo'), device('d', 'reverb', 'Dome')],
      [sound('a', 'A', [], { e: at(0), d: at(5) }), sound('b', 'B', [], { e: at(1), d: at(6) })],
    );
    expect(remark(rig, 'midi-double').what).toBe('Echo and Dome both listen on channel 1.');
    expect(rules(cured(rig, 'midi-double'))).not.toContain('midi-double');
    const shared = chain(
      [device('e', 'delay', 'Echo'), device('d', 'reverb', 'Dome')],
      [sound('a', 'A', [], { e: at(0), d: at(0) }), sound('b', 'B', [], { e: at(1), d: at(1) })],
    );
    expect(rules(shared)).not.toContain('midi-double');
  });
  test('more than three hardware thrus in a row, a lead over 15 m, TRS of two types, USB without a host', () => {
    const long = chain(
      [1, 2, 3, 4, 5].map((n) => device(`d${n}`, 'reverb', `Dome ${n}`, { midi: { channel: n } })),
    );
    expect(remark(long, 'midi-thrus').what).toBe('Dome 5 hangs behind 4 hardware thrus.');
    expect(rules(cured(long, 'midi-thrus'))).not.toContain('midi-thrus');
    expect(
      rules(
        chain(
          [1, 2, 3, 4].map((n) => device(`d${n}`, 'reverb', `Dome ${n}`, { midi: { channel: n } })),
        ),
      ),
    ).not.toContain('midi-thrus');
    const far = chain([device('e', 'reverb', 'Dome')]);
    expect(rules({ ...far, leads: far.leads.map((l) => ({ ...l, metres: 16 })) })).toContain(
      'midi-length',
    );
    const trs = rigOf(
      [device('l', 'looper', 'Loop'), device('s', 'slicer', 'Slicer')],
      [lead('t', 'l.midiThru', 's.midiIn', 1, 'midi')],
      [sound('a', 'A', [])],
    );
    expect(remark(trs, 'midi-type')).toMatchObject({
      what: 'The lead from Loop, MIDI thru to Slicer, MIDI in carries no messages.',
      fix: { words: 'Use a crossed lead' },
    });
    expect(rules(cured(trs, 'midi-type'))).not.toContain('midi-type');
    const same = applyEdits(trs, [{ edit: 'setMidi', device: 's', midi: { socket: 'TRS-A' } }]);
    expect(same.ok && rules(same.value.rig)).not.toContain('midi-type');
    const usb = rigOf(
      [device('a', 'loop-switcher', 'Yard'), device('b', 'synth-pedal', 'Synth')],
      [lead('u', 'a.usb', 'b.usb', 1, 'usb')],
      [sound('a', 'A', [])],
    );
    expect(remark(usb, 'midi-usb').what).toBe('Yard and Synth cannot talk over USB.');
    expect(reachIn(midiGraph(usb), 'a').size).toBe(0);
    expect(reachIn(midiGraph(cured(usb, 'midi-usb')), 'a').has('b')).toBe(true);
    const hosts = rigOf(
      [device('a', 'set-list-app', 'Tablet'), device('b', 'usb-midi-host', 'Host')],
      [lead('u', 'a.usb', 'b.usb1', 1, 'usb')],
      [sound('a', 'A', [])],
    );
    expect(remark(hosts, 'midi-usb').why).toContain('hosts');
  });
  test('messages that go round are found, and ended by either fix; the bus itself stops', () => {
    const rig = rigOf(
      [device('a', 'loop-switcher', 'Yard'), device('b', 'modeler-floor', 'Lode')],
      [
        lead('1', 'a.midiOut', 'b.midiIn', 1, 'midi'),
        lead('2', 'b.midiOut', 'a.midiIn', 1, 'midi'),
      ],
      [sound('a', 'A', [])],
    );
    expect(remark(rig, 'midi-loop').why).toMatch(/Yard, Lode, Yard|Lode, Yard, Lode/);
    expect(runBus(midiGraph(rig), [{ device: 'a', at: 0, message: program(1, 0) }]).endless).toBe(
      true,
    );
    for (const f of [remark(rig, 'midi-loop').fix!, ...remark(rig, 'midi-loop').others!]) {
      const done = applyEdits(rig, f.edits);
      expect(done.ok && rules(done.value.rig)).not.toContain('midi-loop');
    }
  });
  test('where the output is taken, a lead from the host that has its messages does', () => {
    const sounds = [sound('s', 'S', [], { e: at(0) }), sound('t', 'T', ['e'], { e: at(1) })];
    const rig = rigOf(
      [
        device('a', 'foot-controller', 'Pads'),
        device('h', 'usb-midi-host', 'Host'),
        device('e', 'delay', 'Echo'),
      ],
      [lead('1', 'a.midiOut', 'h.midiIn', 1, 'midi')],
      sounds,
    );
    expect(remark(rig, 'midi-cut').fix!.words).toBe('Run a MIDI lead from Host to Echo');
    expect(reachIn(midiGraph(cured(rig, 'midi-cut')), 'a').has('e')).toBe(true);
  });
  test('no fix closes a circle', () => {
    const names = ['a', 'b', 'c'];
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat({ max: 3 }), fc.nat({ max: 3 })), { maxLength: 5 }),
        (pairs) => {
          const devices = [
            device('p', 'foot-controller', 'Pads', { midi: { thru: 'merged' } }),
            ...names.map((n) => device(n, 'delay', n.toUpperCase())),
          ];
          const taken = new Set<string>();
          const leads = pairs.flatMap(([from, to], i) => {
            const [a, b] = [devices[from]!, devices[to]!];
            const out = a.id === 'p' ? 'p.midiOut' : `${a.id}.midiThru`;
            const into = `${b.id}.midiIn`;
            if (a === b || taken.has(out) || taken.has(into)) return [];
            taken.add(out).add(into);
            return [lead(`l${i}`, out, into, 1, 'midi')];
          });
          const rig = rigOf(devices, leads, [
            sound('s', 'S', [], Object.fromEntries(names.map((n) => [n, at(0)]))),
            sound('t', 'T', [], Object.fromEntries(names.map((n) => [n, at(1)]))),
          ]);
          if (circleOf(midiGraph(rig))) return true;
          return messageReachRemarks(setStage(rig).orders).every((r) =>
            [r.fix, ...(r.others ?? [])].every((f) => {
              const done = f && applyEdits(rig, f.edits);
              return !done || (done.ok && !circleOf(midiGraph(done.value.rig)));
            }),
          );
        },
      ),
      { numRuns: 60 },
    );
  });
  test('a merge box lets two senders reach one device; without it the second is refused with what to do', () => {
    const senders = [
      device('a', 'foot-controller', 'Pads'),
      device('b', 'clock-box', 'Clock'),
      device('e', 'delay', 'Echo'),
    ];
    const rig = rigOf(
      [...senders, device('m', 'midi-merge', 'Merge')],
      [
        lead('1', 'a.midiOut', 'm.in1', 1, 'midi'),
        lead('2', 'b.midiOut', 'm.in2', 1, 'midi'),
        lead('3', 'm.midiOut', 'e.midiIn', 1, 'midi'),
      ],
      [sound('s', 'S', [])],
    );
    for (const s of ['a', 'b']) expect(reachIn(midiGraph(rig), s).has('e')).toBe(true);
    const both = applyEdits(
      rigOf(senders, [lead('1', 'a.midiOut', 'e.midiIn', 1, 'midi')], [sound('s', 'S', [])]),
      [{ edit: 'connect', lead: lead('2', 'b.midiOut', 'e.midiIn', 1, 'midi') }],
    );
    expect(both.ok ? '' : both.problems[0]!.what).toContain(
      'put a merge box where two senders meet',
    );
  });
  test(
    'two senders of one device: the fix joins them with a merge box, and a thru box ' +
      'where an output is taken; nobody loses anything',
    () => {
      const echo = device('e', 'delay', 'Echo', { tempo: { way: 'clock', division: 'quarter' } });
      const sounds = [sound('s', 'S', [], { e: at(0) }), sound('t', 'T', ['e'], { e: at(1) })];
      const apart = rigOf(
        [
          device('a', 'foot-controller', 'Pads'),
          device('b', 'clock-box', 'Clock'),
          echo,
          device('r', 'reverb', 'Dome', { midi: { channel: 2 } }),
        ],
        [
          lead('1', 'b.midiOut', 'e.midiIn', 1, 'midi'),
          lead('2', 'a.midiOut', 'r.midiIn', 1, 'midi'),
        ],
        sounds,
      );
      expect(remark(apart, 'midi-cut')).toMatchObject({
        what: 'Echo never gets programs.',
        fix: { words: 'Run a MIDI lead from Dome to Echo, with a merge box before it' },
      });
      expect(remark(apart, 'midi-cut').why).toContain(
        'where two senders meet, a merge box joins them',
      );
      // Where nothing passes it on, a thru box does.
      const bare = {
        ...apart,
        devices: apart.devices.map((d) =>
          d.id === 'r' ? { ...d, kind: 'fuzz-low-impedance' } : d,
        ),
        leads: apart.leads.filter((l) => l.id !== '2'),
      };
      expect(remark(bare, 'midi-cut').fix!.words).toBe('Join Pads and Echo with a merge box');
      const joined = cured(apart, 'midi-cut');
      for (const [s, d] of [
        ['a', 'e'],
        ['b', 'e'],
        ['a', 'r'],
      ] as const)
        expect(reachIn(midiGraph(joined), s).has(d)).toBe(true);
      const between = rigOf(
        [
          device('a', 'foot-controller', 'Pads', { midi: { thru: 'none' } }),
          device('b', 'clock-box', 'Clock'),
          echo,
        ],
        [
          lead('1', 'b.midiOut', 'a.midiIn', 1, 'midi'),
          lead('2', 'a.midiOut', 'e.midiIn', 1, 'midi'),
        ],
        sounds,
      );
      const { fix, others } = remark(between, 'midi-clock');
      // Putting the echo in front of the pads, or a thru box alone, would take their programs away.
      expect([fix!, ...others!].map((f) => f.words)).toEqual([
        'Set Pads to pass on what comes in (merged)',
        'Put a thru box in front of Pads and a merge box behind it',
      ]);
      for (const f of [fix!, ...others!]) {
        const done = applyEdits(between, f.edits);
        for (const s of ['a', 'b'])
          expect(done.ok && reachIn(midiGraph(done.value.rig), s).has('e')).toBe(true);
      }
    },
  );
  test('a digital link carries control where both ends say so', () => {
    const rig = rigOf(
      [device('l', 'modeler-floor', 'Lode'), device('h', 'head-tube-digital', 'Head')],
      [lead('d', 'l.digitalOut', 'h.digital', 8, 'digital')],
      [sound('s', 'S', [])],
    );
    expect(reachIn(midiGraph(rig), 'l').has('h')).toBe(true);
  });
  test('what is written for a channel that nobody listens on is said, and who it was meant for', () => {
    const rig = chain(
      [device('e', 'delay', 'Echo', { midi: { channel: 4 } })],
      [
        {
          ...sound('a', 'A', [], { e: at(0) }),
          sends: [{ from: 'pads', to: 'e', message: { type: 'program', channel: 3, number: 0 } }],
        },
        sound('b', 'B', ['e'], { e: at(1) }),
      ],
    );
    expect(remark(rig, 'midi-nobody').what).toBe('Nobody hears what Pads sends on channel 3.');
    expect(rules(cured(rig, 'midi-nobody'))).not.toContain('midi-nobody');
  });
  test(
    'a list written for what sends nothing, a teller that does not get there, a slicer ' +
      'that hangs on no lead',
    () => {
      const ghost = chain(
        [device('e', 'delay', 'Echo')],
        [
          {
            ...sound('a', 'A', [], { e: at(0) }),
            sends: [{ from: 'gone', message: { type: 'program', channel: 1, number: 0 } }],
          },
          sound('b', 'B', ['e'], { e: at(1) }),
        ],
      );
      expect(remark(ghost, 'midi-nobody')).toMatchObject({
        what: 'Messages are written for gone, which sends nothing.',
        why: expect.stringContaining('not in this rig') as string,
      });
      expect(rules(cured(ghost, 'midi-nobody'))).not.toContain('midi-nobody');
      const told = chain([device('e', 'delay', 'Echo', { midi: { commander: 'nobody' } })]);
      expect(remark(told, 'midi-commander').why).toContain('Pads tells it instead');
      expect(rules(cured(told, 'midi-commander'))).not.toContain('midi-commander');
      // What hangs on no lead runs free, unless somebody has set it to follow.
      const alone = (midi?: Device['midi']) =>
        rules(rigOf([{ ...slicer, midi }], [], [sound('a', 'A', [])]));
      expect(alone()).not.toContain('midi-clock');
      expect(alone({ channel: 9, clock: 'follow' })).toContain('midi-clock');
    },
  );
  test('a removed device in the middle of a chain lets messages go on', () => {
    const rig = chain([device('e', 'delay', 'Echo'), device('d', 'reverb', 'Dome')]);
    const done = applyEdits(rig, [{ edit: 'removeDevice', device: 'e' }]);
    expect(done.ok && reachIn(midiGraph(done.value.rig), 'pads').has('d')).toBe(true);
  });
});
