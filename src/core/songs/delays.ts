import { isEngaged, resolveState, settingOf, stateIn } from '../rig/device-state';
import { kindOf, type TempoTable } from '../kinds';
import type { Device, Rig, Song } from '../rig/schema';
import { clockHour } from '../units';
import { sectionScene } from '../control/scene';
import {
  type Division,
  DIVISIONS,
  divisionMs,
  isDivision,
  rateHz,
  type Slip,
  slipOf,
  type Tapped,
} from './tempo';
import { temposOf } from './timeline';

/** Knob position, 0 to 10, of a time or rate between its ends, which lie in equal ratios. */
export const knobFor = (low: number, high: number, value: number): number =>
  (10 * Math.log(value / low)) / Math.log(high / low);
const valueOf = (low: number, high: number, knob: number): number =>
  low * (high / low) ** (knob / 10);

/** How steady a foot taps, in ms of spread between presses: typical. */
export const TAP_SPREAD_MS = 12;
/** Presses that a tap is made of where nothing was measured. */
export const TAP_PRESSES = 4;

/**
 * A device's time in a song, the way it is set: what it should be, what it will be, and how that
 * runs against the click.
 */
export interface DelayTime {
  device: string;
  is: TempoTable['is'];
  way: 'program' | 'clock' | 'tap';
  division: Division;
  bpm: number;
  /** Bar from which this tempo holds. */
  bar: number;
  /** Wanted, in ms for a delay and in Hz for a rate. */
  wanted: number;
  /** What it will be: rounded to its steps, or as it stands where nothing sets it. */
  gets: number;
  /** Whether the device can do this time at all; and the note value that it could, where it cannot. */
  inRange: boolean;
  instead?: Division;
  /** Position of its knob for the wanted value. */
  knob: number;
  hour: string;
  slip: Slip;
  /** Where the time comes from, in words. */
  how: string;
}

/** A time of a device for one song is stored in the song's own state. */
export const storedKnob = (song: Song, device: string, setting: string): number | undefined => {
  const value =
    song.states && Object.hasOwn(song.states, device)
      ? song.states[device]!.settings?.[setting]
      : undefined;
  return typeof value === 'number' ? value : undefined;
};

/** Devices whose time can follow a tempo; blocks inside hosts too. */
export const tempoDevices = (rig: Rig): Device[] => rig.devices.filter((d) => kindOf(d.kind).tempo);

/** Whether a device sounds in any section of a song. */
export const soundsIn = (rig: Rig, song: Song, device: Device): boolean =>
  song.sections.some((s) => {
    const scene = sectionScene(rig, song, s.id);
    return (
      scene !== undefined && isEngaged(kindOf(device.kind), device, stateIn(scene.sound, device.id))
    );
  });

/** What a time device does in a song: what it can reach, what is wished of it, and where its knob stands. */
function timeDevice(rig: Rig, song: Song, device: Device) {
  const kind = kindOf(device.kind);
  const table = kind.tempo!;
  const first = song.sections[0] && sectionScene(rig, song, song.sections[0].id);
  // Knobs are read as they stand where the device is heard first.
  const heard =
    song.sections
      .map((s) => sectionScene(rig, song, s.id))
      .find((s) => s && isEngaged(kind, device, stateIn(s.sound, device.id))) ?? first;
  const state = heard && stateIn(heard.sound, device.id);
  const resolved = resolveState(kind, device, state);
  const setting = (id: string, otherwise: number) =>
    Number(settingOf(kind, device, state, id) ?? otherwise);
  const wish =
    (song.divisions && Object.hasOwn(song.divisions, device.id)
      ? song.divisions[device.id]
      : undefined) ?? device.tempo?.division;
  const division: Division = isDivision(wish) ? wish : 'quarter';
  return {
    table,
    low: resolved.figure(table.low),
    high: resolved.figure(table.high),
    step: resolved.figure(table.step),
    division,
    way: device.tempo?.way ?? ('program' as const),
    /** What comes round of each repeat, 0 to 1. */
    keeps: table.repeats === undefined ? 0 : setting(table.repeats, 0) / 10,
    standing: setting(table.setting, 5),
    stored: storedKnob(song, device.id, table.setting),
  };
}
type TimeDevice = ReturnType<typeof timeDevice>;

/** A note value at a tempo, in what the device counts in: ms of a delay, Hz of a rate. */
const valueAt = ({ table }: TimeDevice, bpm: number, division: Division): number =>
  table.is === 'delay' ? divisionMs(bpm, division) : rateHz(bpm, DIVISIONS[division]);

/** The note value nearest to one out of reach that the device does reach. */
function insteadOf(of: TimeDevice, bpm: number, wanted: number): Division | undefined {
  const far = (d: Division) => Math.abs(Math.log(valueAt(of, bpm, d) / wanted));
  return (Object.keys(DIVISIONS) as Division[])
    .filter((d) => valueAt(of, bpm, d) >= of.low && valueAt(of, bpm, d) <= of.high)
    .sort((a, b) => far(a) - far(b))[0];
}

/** What a device gets by the way its time is set, and how, in words. */
function gotBy(
  of: TimeDevice,
  wanted: number,
  inRange: boolean,
  isFirst: boolean,
  taps: Tapped | undefined,
): { gets: number; how: string } {
  const { low, high, step, stored, division, table } = of;
  const reach = (x: number) => Math.min(high, Math.max(low, x));
  const unit = table.is === 'delay' ? 'ms' : 'Hz';
  if (of.way === 'clock')
    return {
      gets: reach(wanted),
      how: inRange
        ? `follows clock, ${division}`
        : `cannot follow: it reaches ${low} to ${high} ${unit}`,
    };
  if (of.way === 'tap') {
    const tappedOff = (taps?.errorMs ?? TAP_SPREAD_MS / (TAP_PRESSES - 1)) * DIVISIONS[division];
    return {
      gets: reach(table.is === 'delay' ? wanted + tappedOff : wanted),
      how:
        `tapped; the mean of ${taps?.presses ?? TAP_PRESSES} presses may ` +
        `be ${tappedOff.toFixed(1)} ms off${taps ? '' : ' (typical)'}`,
    };
  }
  // A program holds one time: that of the first tempo, where it was stored for this song.
  const held = valueOf(low, high, stored ?? of.standing);
  return {
    gets: reach(Math.round(held / step) * step),
    how:
      stored === undefined
        ? 'as the sound leaves it: no time is kept for this song'
        : isFirst
          ? `stored for this song, in steps of ${step} ${unit}`
          : 'as stored for the first tempo of the song',
  };
}

/**
 * Time of one device in a song, for each tempo that the song goes through. `taps` replaces the
 * typical spread by a measured one.
 */
export function delayTimes(rig: Rig, song: Song, device: Device, taps?: Tapped): DelayTime[] {
  const of = timeDevice(rig, song, device);
  const { table, low, high, way, division } = of;
  return temposOf(song).map(({ bar, bpm }, n): DelayTime => {
    const wanted = valueAt(of, bpm, division);
    const inRange = wanted >= low - 1e-9 && wanted <= high + 1e-9;
    const instead = inRange ? undefined : insteadOf(of, bpm, wanted);
    const knob = Math.min(10, Math.max(0, knobFor(low, high, wanted)));
    const { gets, how } = gotBy(of, wanted, inRange, n === 0, taps);
    return {
      ...{ device: device.id, is: table.is, way, division, bpm, bar, wanted, inRange },
      ...(instead && { instead }),
      ...{ knob, hour: clockHour(knob), gets, how },
      slip:
        table.is === 'delay'
          ? slipOf(gets - wanted, of.keeps)
          : { errorMs: 0, repeat: null, downDb: null, heard: false },
    };
  });
}

/** Every note value at a tempo: for a delay its time in ms, for a rate its Hz. */
export const divisionTable = (bpm: number): { division: Division; ms: number; hz: number }[] =>
  (Object.keys(DIVISIONS) as Division[]).map((division) => ({
    division,
    ms: divisionMs(bpm, division),
    hz: rateHz(bpm, DIVISIONS[division]),
  }));

/** The state that keeps a device's right time for a song. */
export function withStoredTime(song: Song, device: Device, knob: number): Song {
  const { setting } = kindOf(device.kind).tempo!;
  const state =
    song.states && Object.hasOwn(song.states, device.id) ? song.states[device.id] : undefined;
  return {
    ...song,
    states: {
      ...song.states,
      [device.id]: { ...state, settings: { ...state?.settings, [setting]: knob } },
    },
  };
}
