import fc from 'fast-check';
import { kindOf } from '../kinds';
import type { Device, Rig, Send } from '../rig/schema';
import { RECEPTIONS, type WrittenMessage } from '../rig/midi-schema';
import { leadTypeFor } from '../rig';
import { device, lead, rigOf, sound } from './rigs';

const KINDS = [
  ...['foot-controller', 'loop-switcher', 'midi-thru-box', 'midi-merge', 'clock-box', 'delay'],
  ...['reverb', 'modeler-floor', 'amp-switcher', 'pitch-shifter', 'usb-midi-host', 'set-list-app'],
  ...['delay-dual', 'loop-switcher-fixed', 'modeler-compact', 'slicer'],
];

/** Any message that a person could write, on the first three channels. */
const anyMessage: fc.Arbitrary<WrittenMessage> = fc
  .record({
    sort: fc.nat(11),
    channel: fc.integer({ min: 1, max: 3 }),
    a: fc.nat(127),
    b: fc.nat(127),
  })
  .map(({ sort, channel, a, b }): WrittenMessage => {
    const sorts: WrittenMessage[] = [
      { type: 'program', channel, number: a % 8, ...(b % 3 === 0 && { bank: b % 2 }) },
      { type: 'control', channel, cc: a % 40, value: b },
      { type: 'fine', channel, cc: a % 32, value: a * 128 + b },
      { type: 'nrpn', channel, parameter: a % 4, value: a * 128 + b },
      { type: 'note-on', channel, note: a % 4, velocity: 1 + (b % 127) },
      { type: 'note-off', channel, note: a % 4 },
      { type: 'bend', channel, bend: (a - 64) * 128 + b },
      { type: 'pressure', channel, pressure: a },
      { type: 'start' },
      { type: 'stop' },
      { type: 'position', sixteenths: a * 16 },
      { type: 'control', channel, cc: a % 2 ? 0 : 32, value: b % 3 },
    ];
    return sorts[sort]!;
  });

/**
 * Any rig of devices that speak MIDI: any leads between them (rings too), channels, programs, what moves
 * what, and messages that somebody wrote.
 */
export const anyMidiRig: fc.Arbitrary<Rig> = fc
  .record({
    kinds: fc.array(fc.constantFrom(...KINDS), { minLength: 2, maxLength: 7 }),
    plugs: fc.array(fc.tuple(fc.nat(), fc.nat(), fc.nat(), fc.nat()), {
      minLength: 2,
      maxLength: 10,
    }),
    set: fc.array(fc.tuple(fc.nat(), fc.nat(), fc.nat(), fc.boolean()), {
      minLength: 8,
      maxLength: 8,
    }),
    programs: fc.array(fc.nat(5), { minLength: 24, maxLength: 24 }),
    sends: fc.array(
      fc.record({ from: fc.nat(6), to: fc.nat(6), message: anyMessage, more: fc.nat(5) }),
      { maxLength: 8 },
    ),
  })
  .map(({ kinds, plugs, set, programs, sends }) => {
    const devices = ['foot-controller', ...kinds].map((kind, i): Device => {
      const [channel, clock, as, thru] = set[i % set.length]!;
      const knobs = kindOf(kind).parameters.filter((p) => p.type === 'knob');
      const controls = knobs.slice(0, 2).map((p, k) => ({
        setting: p.id,
        cc: (as + k) % 4,
        way: 'absolute' as const,
        as: RECEPTIONS[(as + k) % RECEPTIONS.length]!,
      }));
      return device(`d${i}`, kind, `D${i}`, {
        midi: {
          channel: channel % 4 || 'all',
          ...(clock % 3 && { clock: (['send', 'follow'] as const)[clock % 2]! }),
          ...(as % 2 && controls.length && { controls }),
          ...(thru && { thru: (['none', 'software', 'merged'] as const)[clock % 3]! }),
        },
      });
    });
    const taken = new Set<string>();
    const leads = plugs.flatMap(([a, b, x, y], n) => {
      const [from, to] = [devices[a % devices.length]!, devices[b % devices.length]!];
      const jacks = (d: Device, not: 'in' | 'out') =>
        kindOf(d.kind).jacks.filter(
          (j) => (j.signal === 'midi' || j.signal === 'usb') && j.direction !== not,
        );
      const [outs, ins] = [jacks(from, 'in'), jacks(to, 'out')];
      const [out, into] = [outs[x % outs.length], ins[y % ins.length]];
      if (from === to || !out || out.signal !== into?.signal) return [];
      const keys = [`${from.id} ${out.id}`, `${to.id} ${into.id}`];
      if (keys.some((k) => taken.has(k))) return [];
      keys.forEach((k) => taken.add(k));
      const ends = [
        { device: from.id, jack: out.id },
        { device: to.id, jack: into.id },
      ] as const;
      const type = leadTypeFor(rigOf(devices, []), ...ends);
      return [lead(`l${n}`, `${from.id}.${out.id}`, `${to.id}.${into.id}`, 1 + (x % 20), type)];
    });
    const states = (at: number) =>
      Object.fromEntries(
        devices.map((d, i) => [
          d.id,
          {
            engaged: (programs[at + i]! + at) % 2 === 0,
            ...(programs[at + i]! < 4 && { program: { number: programs[at + i]! } }),
          },
        ]),
      );
    const written = (at: number): Send[] =>
      sends
        .filter((_, i) => i % 2 === at)
        .map(({ from, to, message, more }) => ({
          from: devices[from % devices.length]!.id,
          ...(more > 2 && { to: devices[to % devices.length]!.id }),
          message,
          ...(more === 4 && { waitMs: 20, times: 2 }),
          ...(more === 5 && { when: 'release' as const }),
        }));
    const sounds = [0, 8].map((at, i) => ({
      ...sound(`s${i}`, `Sound ${i}`, [], states(at)),
      ...(written(i).length && { sends: written(i) }),
    }));
    return rigOf(devices, leads, sounds);
  });
