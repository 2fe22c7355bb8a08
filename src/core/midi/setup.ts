import { at } from '../outcome';
import { type BankSelect, type Kind, kindOf, type Numbering, type Thru } from '../kinds';
import type { RECEPTIONS } from '../rig/midi-schema';
import type { Device, MidiSetup, Rig } from '../rig/schema';

/** What a setting is moved by. */
export type Reception = (typeof RECEPTIONS)[number];

/** A control change that moves a setting of a device or of a block inside it. */
export interface Mapped {
  device: string;
  setting: string;
  /** Which control, parameter or note, by what moves it. */
  cc: number;
  as: Reception;
  way: 'absolute' | 'toggle';
  canBeAbsolute: boolean;
}

/** A device as it is set up for MIDI: its kind's table with what was changed on it. Times in ms. */
export interface MidiDevice {
  device: Device;
  kind: Kind;
  channel: number | 'all';
  programs: boolean;
  bank: BankSelect;
  shows: Numbering;
  /** What programs are called on it, by bank and number: see `programName`. */
  names: ReadonlyMap<string, string>;
  mapped: Mapped[];
  clock: 'send' | 'follow' | 'ignore';
  sends: readonly string[];
  commands: boolean;
  recalls: boolean;
  reports: boolean;
  lamps: boolean;
  thru: Thru;
  thruMs: number;
  programMs: number;
  controlMs: number;
  gapMs: number;
  runningStatus: boolean;
}

const known = new WeakMap<Device, MidiDevice>();

/** How a device is set up for MIDI; nothing for one without. */
export function midiOf(device: Device): MidiDevice | undefined {
  const kind = kindOf(device.kind);
  if (!kind.midi || device.host !== undefined) return undefined;
  let found = known.get(device);
  if (!found) known.set(device, (found = resolve(device, kind, device.midi ?? {})));
  return found;
}

function resolve(device: Device, kind: Kind, own: MidiSetup): MidiDevice {
  const table = kind.midi!;
  const figure = (id: string) =>
    device.figures && Object.hasOwn(device.figures, id)
      ? device.figures[id]!.value
      : (kind.figures.find((f) => f.id === id)?.typical ?? 0);
  const mapped = own.controls
    ? own.controls.map((c): Mapped => ({
        device: c.device ?? device.id,
        setting: c.setting,
        cc: c.cc,
        as: c.as ?? 'control',
        way: c.way,
        canBeAbsolute:
          table.controls?.find((k) => k.setting === c.setting)?.ways.includes('absolute') ?? true,
      }))
    : (table.controls ?? []).map((c): Mapped => ({
        device: device.id,
        setting: c.setting,
        cc: c.cc,
        as: 'control',
        way: at(c.ways, 0),
        canBeAbsolute: c.ways.includes('absolute'),
      }));
  return {
    device,
    kind,
    mapped,
    channel: own.channel ?? 1,
    programs: table.programs !== undefined && own.programs !== false,
    bank: own.bankSelect ?? table.programs?.bank ?? 'none',
    shows: { ...table.programs?.shows, from: 0, ...(own.shows ?? table.programs?.shows) },
    names: new Map(
      [...(kind.programNames ?? []), ...(own.names ?? [])].map((n) => [
        `${n.bank ?? 0} ${n.number}`,
        n.name,
      ]),
    ),
    clock: own.clock ?? (table.clock === 'leads' ? 'send' : table.clock ? 'follow' : 'ignore'),
    sends: table.sends ?? [],
    commands: table.commands ?? false,
    recalls: table.recalls ?? false,
    reports: own.reports ?? table.reports ?? false,
    lamps: table.lamps ?? false,
    thru: own.thru ?? table.thrus[0] ?? 'none',
    thruMs: figure('thruMs'),
    programMs: figure('programMs'),
    controlMs: figure('controlMs'),
    gapMs: figure('gapMs'),
    runningStatus: own.runningStatus ?? false,
  };
}

const lists = new WeakMap<Rig['devices'], Map<string, MidiDevice>>();

/** Every device of a rig that knows MIDI, by id. */
export function midiDevices(rig: Rig): Map<string, MidiDevice> {
  let found = lists.get(rig.devices);
  if (!found)
    lists.set(
      rig.devices,
      (found = new Map(
        rig.devices.flatMap((d) => {
          const m = midiOf(d);
          return m ? [[d.id, m] as const] : [];
        }),
      )),
    );
  return found;
}

/**
 * Whether a device goes by clock that reaches it: it can follow, and its time is not said to come otherwise,
 * tapped or stored.
 */
export const goesByClock = (m: MidiDevice): boolean =>
  m.clock === 'follow' && (m.device.tempo?.way ?? 'clock') === 'clock';

/** Whether a device wants clock: it is made to follow it, was set to follow it, or its time is to come from clock. */
export const wantsClock = (m: MidiDevice): boolean =>
  goesByClock(m) &&
  (m.device.tempo !== undefined ||
    m.kind.midi!.clock === 'wants' ||
    m.device.midi?.clock === 'follow');
