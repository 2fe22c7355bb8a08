import fc from 'fast-check';
import { parseMidi } from 'midi-file';
import { songToSmf } from '../formats';
import { analyse } from '../report';
import type { Device, Rig, Send, SettingValue, Sound } from '../rig';
import { messageSchema, RECEPTIONS, type WrittenMessage } from '../rig/midi-schema';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { allPairs, LONG_PRESS_MS, PRESS_MS, runChange, setStage } from '.';
import { asCarried, fromCarried, mostOf } from './commands';
import { hex, wireMessages } from './message';
import { bytesOf, messageWords, noteName } from './message-sorts';
import { type Mapped, type MidiDevice, midiOf } from './setup';
import { take } from './stand-in';
import { BYTE_MS, wireMs } from './wire-time';
import { between } from '../testing/between';

/** What a person writes, and the bytes as they stand in any table of MIDI. */
const BYTES: [WrittenMessage, string][] = [
  [{ type: 'start' }, 'FA'],
  [{ type: 'continue' }, 'FB'],
  [{ type: 'stop' }, 'FC'],
  [{ type: 'position', sixteenths: 100 }, 'F2 64 00'],
  [{ type: 'position', sixteenths: 300 }, 'F2 2C 02'],
  [{ type: 'note-on', channel: 1, note: 60, velocity: 100 }, '90 3C 64'],
  [{ type: 'note-off', channel: 10, note: 36 }, '89 24 00'],
  [{ type: 'bend', channel: 1, bend: 0 }, 'E0 00 40'],
  [{ type: 'bend', channel: 16, bend: -8192 }, 'EF 00 00'],
  [{ type: 'bend', channel: 1, bend: 8191 }, 'E0 7F 7F'],
  [{ type: 'pressure', channel: 3, pressure: 64 }, 'D2 40'],
  [{ type: 'fine', channel: 1, cc: 7, value: 8197 }, 'B0 07 40 B0 27 05'],
  [{ type: 'nrpn', channel: 1, parameter: 130, value: 300 }, 'B0 63 01 B0 62 02 B0 06 02 B0 26 2C'],
  [{ type: 'exclusive', data: '7d 10  01' }, 'F0 7D 10 01 F7'],
  [
    { type: 'timecode', hours: 1, minutes: 37, seconds: 52, frames: 16, rate: 30 },
    'F1 00 F1 11 F1 24 F1 33 F1 45 F1 52 F1 61 F1 76',
  ],
];

test.each(BYTES)('%j goes out as %s', (written, bytes) => {
  expect(messageSchema.safeParse(written).success).toBe(true);
  const sent = wireMessages(written, 'none');
  expect(hex(sent.flatMap(bytesOf))).toBe(bytes);
  for (const m of sent) expect(messageWords(m)).not.toMatch(/undefined|NaN/);
});

test('what is none is refused in words: bytes over 7F, halves, the F0 itself', () => {
  for (const data of ['F0 7D F7', '80', '7', '', '7D 1G', '7D,10']) {
    const read = messageSchema.safeParse({ type: 'exclusive', data });
    expect(read.success ? '' : read.error.issues[0]?.message).toMatch(/bytes of 00 to 7F/);
  }
});

test('notes go by name, middle C is C4', () =>
  expect([60, 61, 0, 127].map(noteName)).toEqual(['C4', 'C♯4', 'C-1', 'G9']));

test('a message for everybody ends a running status', () => {
  const control = wireMessages({ type: 'control', channel: 1, cc: 7, value: 1 }, 'none');
  const between = wireMessages({ type: 'position', sixteenths: 0 }, 'none');
  const clock = wireMessages({ type: 'start' }, 'none');
  expect(wireMs([...control, ...control], true)).toBeCloseTo(5 * BYTE_MS);
  expect(wireMs([...control, ...between, ...control], true)).toBeCloseTo(9 * BYTE_MS);
  expect(wireMs([...control, ...clock, ...control], true)).toBeCloseTo(6 * BYTE_MS);
});

const NUMBERS: Record<(typeof RECEPTIONS)[number], number> = {
  control: 20,
  fine: 16,
  nrpn: 1234,
  note: 60,
  bend: 0,
  pressure: 0,
};

/** A controller and an echo whose mix is moved by one sort of message, without programs. */
const rig = (
  as: (typeof RECEPTIONS)[number],
  setting: string,
  values: readonly SettingValue[],
  rest: Partial<Rig> = {},
): Rig => {
  const controls = [{ setting, cc: NUMBERS[as], way: 'absolute' as const, as }];
  const echo: Device = device('echo', 'delay', 'Echo', { midi: { programs: false, controls } });
  const states = (v: SettingValue): Sound['states'] => ({
    echo: typeof v === 'boolean' ? { engaged: v } : { engaged: true, settings: { [setting]: v } },
  });
  return rigOf(
    [device('pads', 'foot-controller', 'Pads'), echo],
    [lead('m', 'pads.midiOut', 'echo.midiIn', 1, 'midi')],
    values.map((v, i) => sound(`s${i}`, `Sound ${i}`, [], states(v))),
    rest,
  );
};

describe.each(RECEPTIONS)('a setting that is moved by %s', (as) => {
  const values: SettingValue[] = as === 'note' ? [true, false] : [0, 10];
  const setting = as === 'note' ? 'engaged' : 'mix';
  test('is set by what follows from the sounds, and every change ends as meant', () => {
    const r = rig(as, setting, values);
    const stage = setStage(r);
    expect(allPairs(stage).faults).toEqual([]);
    const [a, b] = [stage.scene('s0')!, stage.scene('s1')!];
    const { landings } = runChange(stage, a, b);
    const effect = landings.filter((l) => l.effect.what === 'control').at(-1)?.effect;
    expect(effect).toMatchObject({ setting: `echo ${setting}`, value: values[1] });
    const told = analyse(r).findings.filter((f) => f.severity !== 'advice');
    expect(told.filter((f) => f.rule.startsWith('midi'))).toEqual([]);
  });
  test('is off where the message is for another number or another channel', () => {
    const m = midiOf(rig(as, setting, values).devices[1]!)!;
    const [mapped] = m.mapped;
    const off: WrittenMessage[] = [
      { type: 'control', channel: 1, cc: 90, value: 9 },
      { type: 'note-on', channel: 1, note: 61, velocity: 9 },
      { type: 'nrpn', channel: 1, parameter: 1235, value: 9 },
      { type: 'bend', channel: 2, bend: 0 },
      { type: 'pressure', channel: 2, pressure: 9 },
      { type: 'fine', channel: 1, cc: 17, value: 9 },
      { type: 'exclusive', data: '7D 00' },
      { type: 'start' },
    ];
    const stage = setStage(rig(as, setting, values));
    for (const written of off)
      for (const sent of wireMessages(written, 'none'))
        expect(take(stage.orders, stage.memory, m, { values: new Map(), bank: 0 }, sent).what).toBe(
          'nothing',
        );
    expect(mapped?.as).toBe(as);
  });
  test('comes out within half a step of what was sent, in as many steps as the message has', () => {
    const r = rig(as, 'mix', [0, 10]);
    const mapped = midiOf(r.devices[1]!)!.mapped[0] as Mapped;
    const step = 10 / mostOf(mapped);
    fc.assert(
      fc.property(between(0, 10), (value) => {
        const back = Number(fromCarried(r, mapped, asCarried(r, mapped, value)));
        expect(Math.abs(back - value)).toBeLessThanOrEqual(step / 2 + 1e-9);
      }),
    );
  });
});

test('transport and position stand where they were put, on whoever follows clock', () => {
  const r = rig('control', 'mix', [0, 10]);
  const stage = setStage(r);
  const follows: MidiDevice = { ...midiOf(r.devices[1]!)!, clock: 'follow' };
  const standing = { values: new Map(), bank: 0, sixteenths: 7 };
  const say = (written: WrittenMessage, m = follows) =>
    wireMessages(written, 'none').map((sent) =>
      take(stage.orders, stage.memory, m, standing, sent),
    );
  say({ type: 'position', sixteenths: 64 });
  say({ type: 'continue' });
  expect(standing).toMatchObject({ sixteenths: 64, isRunning: true });
  say({ type: 'stop' });
  expect(standing).toMatchObject({ sixteenths: 64, isRunning: false });
  say({ type: 'start' });
  expect(standing).toMatchObject({ sixteenths: 0, isRunning: true });
  say({ type: 'stop' }, { ...follows, clock: 'ignore' });
  expect(standing).toMatchObject({ isRunning: true });
});

test('a file for a player holds what a file can hold, each on its beat', () => {
  const written: WrittenMessage[] = BYTES.map(([m]) => m);
  const r = rig('control', 'mix', [0, 10], {
    songs: [
      {
        id: 'k',
        title: 'Kelp',
        bpm: 120,
        sections: [{ id: 'v', name: 'Verse', bars: 4, sound: 's0' }],
      },
    ],
  });
  const sends: Send[] = written.map((message) => ({ from: 'pads', message }));
  const told = { ...r, sounds: r.sounds.map((s, i) => (i ? s : { ...s, sends })) };
  const events = parseMidi(songToSmf(told, told.songs![0]!)).tracks.flat();
  const of = (type: string) => events.filter((e) => e.type === type) as unknown as object[];
  expect(of('noteOn')).toMatchObject([{ channel: 0, noteNumber: 60, velocity: 100 }]);
  expect(of('noteOff')).toMatchObject([{ channel: 9, noteNumber: 36 }]);
  expect(of('pitchBend')).toMatchObject([{ value: 0 }, { value: -8192 }, { value: 8191 }]);
  expect(of('channelAftertouch')).toMatchObject([{ channel: 2, amount: 64 }]);
  expect(of('controller')).toHaveLength(6);
  expect(of('sysEx').map((e) => [...(e as { data: Uint8Array }).data])).toEqual([
    [0x7d, 0x10, 0x01, 0xf7],
  ]);
});

describe('what the foot does', () => {
  const control = (value: number, rest: Partial<Send> = {}): Send => ({
    from: 'pads',
    to: 'echo',
    message: { type: 'control', channel: 1, cc: 20, value },
    ...rest,
  });
  const called = (sends: Send[], held = false) => {
    const made = rig('control', 'mix', [0, 10]);
    const sounds = made.sounds.map((s, i) => (i === 1 ? { ...s, sends } : s));
    const stage = setStage({ ...made, sounds });
    const [from, to] = stage.orders.scenes;
    const change = runChange(stage, from!, to!, { held });
    const sent = change.traffic.sent.map((s) => ({
      value: bytesOf(s.message)[2],
      at: Math.round(s.start),
    }));
    return { sent, mix: change.end.get('echo')!.values.get('echo mix') };
  };
  test('a momentary switch sends one message on press, and one when it is let up', () => {
    const { sent, mix } = called([control(127), control(0, { when: 'release' })]);
    expect(sent).toEqual([
      { value: 127, at: 0 },
      { value: 0, at: PRESS_MS },
    ]);
    expect(mix).toBe(0);
  });
  test('what a long press does is sent only where the foot stays, before it lets go', () => {
    const sends = [control(10), control(0, { when: 'release' }), control(127, { when: 'long' })];
    expect(called(sends).sent.map((s) => s.value)).toEqual([10, 0]);
    expect(called(sends, true).sent).toEqual([
      { value: 10, at: 0 },
      { value: 127, at: LONG_PRESS_MS },
      { value: 0, at: LONG_PRESS_MS + PRESS_MS },
    ]);
  });
  test('a message goes out as often as it says, each time after its wait', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 2, max: 50 }),
        (times, waitMs) => {
          const { sent } = called([control(1), control(64, { times, waitMs })]);
          return (
            sent.length === 1 + times && sent.every((s, i) => Math.abs(s.at - i * waitMs) <= 1)
          );
        },
      ),
      { numRuns: 20 },
    );
  });
  test('a file for a player sends neither release nor long press: nobody stands on anything', () => {
    const { rig: r, song } = withSong([control(127), control(0, { when: 'release' })]);
    const read = parseMidi(songToSmf(r, song));
    const values = read.tracks
      .flat()
      .flatMap((e) => (e.type === 'controller' && e.controllerType === 20 ? [e.value] : []));
    expect(values).toEqual([127]);
  });
  const withSong = (sends: Send[]) => {
    const made = rig('control', 'mix', [0, 10]);
    const song = {
      id: 'song',
      title: 'Song',
      bpm: 120,
      meter: { beats: 4, unit: 4 as const },
      sections: [{ id: 'a', name: 'A', bars: 4, sound: made.sounds[1]!.id }],
    };
    const sounds = made.sounds.map((s, i) => (i === 1 ? { ...s, sends } : s));
    return { rig: { ...made, sounds, songs: [song] }, song };
  };
});
