import fc from 'fast-check';
import type { Numbering } from '../kinds';
import { chainOf, device, rigOf } from '../testing/rigs';
import { fromCarried, asCarried } from './commands';
import { bytesOf, isRealtime, messageWords } from './message-sorts';
import { BYTE_MS, wireMs } from './wire-time';
import { hex, type Message, programMessages, wireMessages } from './message';
import { numberingWords, shownOn, wireOf } from './numbers';
import type { Mapped } from './setup';
import { between } from '../testing/between';

/** Type, channel, number or control, value, and the bytes as they stand in any table of MIDI. */
const BYTES: [
  type: 'program' | 'control',
  channel: number,
  number: number,
  value: number,
  bytes: string,
][] = [
  ['program', 1, 0, 0, 'C0 00'],
  ['program', 1, 127, 0, 'C0 7F'],
  ['program', 2, 5, 0, 'C1 05'],
  ['program', 10, 64, 0, 'C9 40'],
  ['program', 16, 99, 0, 'CF 63'],
  ['control', 1, 0, 0, 'B0 00 00'],
  ['control', 1, 7, 127, 'B0 07 7F'],
  ['control', 4, 11, 64, 'B3 0B 40'],
  ['control', 9, 32, 3, 'B8 20 03'],
  ['control', 16, 119, 1, 'BF 77 01'],
];

const message = (
  type: 'program' | 'control',
  channel: number,
  number: number,
  value: number,
): Message =>
  type === 'program' ? { type, channel, number } : { type, channel, cc: number, value };

test.each(BYTES)('%s on channel %d, %d %d, is %s', (type, channel, number, value, bytes) =>
  expect(hex(bytesOf(message(type, channel, number, value)))).toBe(bytes),
);

test.each([
  ['clock', 'F8'],
  ['start', 'FA'],
  ['continue', 'FB'],
  ['stop', 'FC'],
] as const)('%s is one byte, %s', (type, bytes) => {
  expect(hex(bytesOf({ type }))).toBe(bytes);
  expect(isRealtime({ type })).toBe(true);
});

const anyMessage: fc.Arbitrary<Message> = fc.oneof(
  fc.record({
    type: fc.constant('program' as const),
    channel: fc.integer({ min: 1, max: 16 }),
    number: fc.integer({ min: 0, max: 127 }),
  }),
  fc.record({
    type: fc.constant('control' as const),
    channel: fc.integer({ min: 1, max: 16 }),
    cc: fc.integer({ min: 0, max: 119 }),
    value: fc.integer({ min: 0, max: 127 }),
  }),
  fc.record({
    type: fc.constantFrom('clock' as const, 'start' as const, 'stop' as const, 'continue' as const),
  }),
);

describe('laws of the wire', () => {
  test('only the first byte of a message has its top bit set', () => {
    fc.assert(
      fc.property(anyMessage, (m) =>
        bytesOf(m).every((b, i) => b >= 128 === (i === 0) && b <= 255),
      ),
    );
  });
  test('two messages with the same bytes are the same message', () => {
    fc.assert(
      fc.property(
        anyMessage,
        anyMessage,
        (a, b) =>
          (hex(bytesOf(a)) === hex(bytesOf(b))) === (JSON.stringify(a) === JSON.stringify(b)),
      ),
    );
  });
  test('without running status time is 0.32 ms a byte; with it, never more, and never under half', () => {
    fc.assert(
      fc.property(fc.array(anyMessage, { minLength: 1, maxLength: 20 }), (list) => {
        const plain = wireMs(list);
        const saved = wireMs(list, true);
        const bytes = list.reduce((n, m) => n + bytesOf(m).length, 0);
        return (
          Math.abs(plain - bytes * BYTE_MS) < 1e-9 &&
          saved <= plain + 1e-9 &&
          saved >= plain / 2 - 1e-9
        );
      }),
    );
  });
  test('clock between two messages of one status leaves the status running', () => {
    const cc = (value: number): Message => ({ type: 'control', channel: 1, cc: 7, value });
    expect(wireMs([cc(1), { type: 'clock' }, cc(2)], true)).toBeCloseTo(6 * BYTE_MS, 9);
    expect(wireMs([cc(1), { type: 'program', channel: 1, number: 3 }, cc(2)], true)).toBeCloseTo(
      8 * BYTE_MS,
      9,
    );
  });
  test('every message has words, and the words tell messages apart', () => {
    fc.assert(
      fc.property(
        anyMessage,
        anyMessage,
        (a, b) => JSON.stringify(a) === JSON.stringify(b) || messageWords(a) !== messageWords(b),
      ),
    );
  });
});

test.each<[bank: number, select: 'both' | 'msb' | 'lsb' | 'none', bytes: string[]]>([
  [0, 'both', ['B2 00 00', 'B2 20 00', 'C2 07']],
  [1, 'both', ['B2 00 00', 'B2 20 01', 'C2 07']],
  [127, 'both', ['B2 00 00', 'B2 20 7F', 'C2 07']],
  [128, 'both', ['B2 00 01', 'B2 20 00', 'C2 07']],
  [300, 'both', ['B2 00 02', 'B2 20 2C', 'C2 07']],
  [3, 'msb', ['B2 00 03', 'C2 07']],
  [3, 'lsb', ['B2 20 03', 'C2 07']],
  [3, 'none', ['C2 07']],
])('bank %d by %s before program 7 on channel 3', (bank, select, bytes) =>
  expect(programMessages(3, 7, bank, select).map((m) => hex(bytesOf(m)))).toEqual(bytes),
);

test.each([
  [
    'what the receiver takes',
    { type: 'program', channel: 1, number: 5, bank: 2 },
    'lsb',
    ['B0 20 02', 'C0 05'],
  ],
  [
    'what the message says itself',
    { type: 'program', channel: 1, number: 5, bank: 2, bankSelect: 'msb' },
    'lsb',
    ['B0 00 02', 'C0 05'],
  ],
  [
    'both, where the receiver is not known to take any',
    { type: 'program', channel: 1, number: 5, bank: 2 },
    'none',
    ['B0 00 00', 'B0 20 02', 'C0 05'],
  ],
  ['no bank at all', { type: 'program', channel: 1, number: 5 }, 'both', ['C0 05']],
  ['a control change', { type: 'control', channel: 2, cc: 80, value: 127 }, 'both', ['B1 50 7F']],
] as const)('a written message goes out as %s', (_, written, select, bytes) =>
  expect(wireMessages(written, select).map((m) => hex(bytesOf(m)))).toEqual(bytes),
);

/** A way of counting, a number of the wire, and what the screen shows; worked out apart from the program. */
const SHOWN: [numbering: Numbering, wire: number, screen: string][] = [
  [{ from: 0 }, 0, '0'],
  [{ from: 1 }, 0, '1'],
  [{ from: 1, size: 4, slots: 'letters' }, 0, '1A'],
  [{ from: 0, size: 8, slots: 'numbers' }, 0, '0-0'],
  [{ from: 1, size: 5, slots: 'letters', banksFrom: 0 }, 0, '0A'],
  [{ from: 1, size: 3, slots: 'numbers', banksFrom: 0 }, 0, '0-1'],
  [{ from: 0 }, 1, '1'],
  [{ from: 1 }, 1, '2'],
  [{ from: 1, size: 4, slots: 'letters' }, 1, '1B'],
  [{ from: 0, size: 8, slots: 'numbers' }, 1, '0-1'],
  [{ from: 1, size: 5, slots: 'letters', banksFrom: 0 }, 1, '0B'],
  [{ from: 1, size: 3, slots: 'numbers', banksFrom: 0 }, 1, '0-2'],
  [{ from: 0 }, 4, '4'],
  [{ from: 1 }, 4, '5'],
  [{ from: 1, size: 4, slots: 'letters' }, 4, '2A'],
  [{ from: 0, size: 8, slots: 'numbers' }, 4, '0-4'],
  [{ from: 1, size: 5, slots: 'letters', banksFrom: 0 }, 4, '0E'],
  [{ from: 1, size: 3, slots: 'numbers', banksFrom: 0 }, 4, '1-2'],
  [{ from: 0 }, 21, '21'],
  [{ from: 1 }, 21, '22'],
  [{ from: 1, size: 4, slots: 'letters' }, 21, '6B'],
  [{ from: 0, size: 8, slots: 'numbers' }, 21, '2-5'],
  [{ from: 1, size: 5, slots: 'letters', banksFrom: 0 }, 21, '4B'],
  [{ from: 1, size: 3, slots: 'numbers', banksFrom: 0 }, 21, '7-1'],
  [{ from: 0 }, 63, '63'],
  [{ from: 1 }, 63, '64'],
  [{ from: 1, size: 4, slots: 'letters' }, 63, '16D'],
  [{ from: 0, size: 8, slots: 'numbers' }, 63, '7-7'],
  [{ from: 1, size: 5, slots: 'letters', banksFrom: 0 }, 63, '12D'],
  [{ from: 1, size: 3, slots: 'numbers', banksFrom: 0 }, 63, '21-1'],
  [{ from: 0 }, 127, '127'],
  [{ from: 1 }, 127, '128'],
  [{ from: 1, size: 4, slots: 'letters' }, 127, '32D'],
  [{ from: 0, size: 8, slots: 'numbers' }, 127, '15-7'],
  [{ from: 1, size: 5, slots: 'letters', banksFrom: 0 }, 127, '25C'],
  [{ from: 1, size: 3, slots: 'numbers', banksFrom: 0 }, 127, '42-2'],
];

describe('wire and screen', () => {
  test.each(SHOWN)('%j: %d shows as %s, and back', (numbering, wire, screen) => {
    expect(shownOn(numbering, { number: wire })).toBe(screen);
    expect(wireOf(numbering, screen)).toBe(wire);
    expect(wireOf(numbering, ` ${screen.toLowerCase()} `)).toBe(wire);
  });
  test('what no number shows is none', () => {
    for (const nothing of ['', '0', '129', '33A', 'A1', '1Z'])
      expect(wireOf({ from: 1, size: 4, slots: 'letters' }, nothing)).toBeUndefined();
  });
  test('every way of counting shows 128 numbers in 128 ways', () => {
    for (const [numbering] of SHOWN)
      expect(
        new Set(Array.from({ length: 128 }, (_, number) => shownOn(numbering, { number }))).size,
      ).toBe(128);
  });
  test.each([
    [{ from: 0 }, 'counts from 0'],
    [{ from: 1 }, 'counts from 1'],
    [{ from: 1, size: 4, slots: 'letters' }, 'banks of 4 from 1, slots A to D'],
    [{ from: 0, size: 8, slots: 'numbers' }, 'banks of 8 from 0, slots 0 to 7'],
    [{ from: 1, size: 5, slots: 'numbers', banksFrom: 0 }, 'banks of 5 from 0, slots 1 to 5'],
  ] as [Numbering, string][])('%j is said as "%s"', (numbering, words) =>
    expect(numberingWords(numbering)).toBe(words),
  );
});

describe('settings in seven bits', () => {
  const rig = rigOf([device('d', 'delay', 'D'), device('s', 'splitter-buffered', 'S')], []);
  const mapped = (setting: string, on = 'd'): Mapped =>
    ({ device: on, setting, cc: 15, as: 'control', way: 'absolute' }) as unknown as Mapped;
  test.each([
    [0, 0],
    [5, 64],
    [10, 127],
    [2.5, 32],
  ])('a knob at %d is sent as %d', (value, bits) =>
    expect(asCarried(rig, mapped('mix'), value)).toBe(bits),
  );
  test('a knob comes back within half a step', () => {
    fc.assert(
      fc.property(
        between(0, 10),
        (value) =>
          Math.abs(
            Number(fromCarried(rig, mapped('mix'), asCarried(rig, mapped('mix'), value))) - value,
          ) <=
          10 / 254 + 1e-9,
      ),
    );
  });
  test('every one of 128 values comes back as itself', () => {
    for (let v = 0; v < 128; v++)
      expect(asCarried(rig, mapped('mix'), fromCarried(rig, mapped('mix'), v))).toBe(v);
  });
  test('on and off: 127 and 0 out, 64 and more is on', () => {
    expect([true, false].map((v) => asCarried(rig, mapped('engaged'), v))).toEqual([127, 0]);
    expect([0, 63, 64, 127].map((v) => fromCarried(rig, mapped('engaged'), v))).toEqual([
      false,
      false,
      true,
      true,
    ]);
  });
  test('a choice goes by its place, and past the last one it is the last', () => {
    expect(
      ['a', 'b', 'both']
        .map((v) => asCarried(rig, mapped('select', 's'), v))
        .every((v, _, all) => new Set(all).size === all.length && v >= 0),
    ).toBe(true);
    expect(asCarried(chainOf(['boost']), mapped('mix', 'gone'), 5)).toBe(0);
  });
});
