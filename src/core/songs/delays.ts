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

/**
 * Time of one device in a song, for each tempo that the song goes through. `taps` replaces the
 * typical spread by a measured one.
 */
export function delayTimes(rig: Rig, song: Song, device: Device, taps?: Tapped): DelayTime[] {
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
  const figure = (id: string) => resolved.figure(id);
  const [low, high, step] = [figure(table.low), figure(table.high), figure(table.step)];
  const wish =
    (song.divisions && Object.hasOwn(song.divisions, device.id)
      ? song.divisions[device.id]
      : undefined) ?? device.tempo?.division;
  const division: Division = isDivision(wish) ? wish : 'quarter';
  const way = device.tempo?.way ?? 'program';
  const keeps =
    table.repeats === undefined
      ? 0
      : Number(settingOf(kind, device, state, table.repeats) ?? 0) / 10;
  const own = Number(settingOf(kind, device, state, table.setting) ?? 5);
  const standing = valueOf(low, high, own);
  const value = (bpm: number, d: Division) =>
    table.is === 'delay' ? divisionMs(bpm, d) : rateHz(bpm, DIVISIONS[d]);
  return temposOf(song).map(({ bar, bpm }, n): DelayTime => {
    const wanted = value(bpm, division);
    const inRange = wanted >= low - 1e-9 && wanted <= high + 1e-9;
    const instead = inRange
      ? undefined
      : (Object.keys(DIVISIONS) as Division[])
          .filter((d) => value(bpm, d) >= low && value(bpm, d) <= high)
          .sort(
            (a, b) =>
              Math.abs(Math.log(value(bpm, a) / wanted)) -
              Math.abs(Math.log(value(bpm, b) / wanted)),
          )[0];
    const stored = storedKnob(song, device.id, table.setting);
    const round = (x: number) => Math.round(x / step) * step;
    const base = {
      device: device.id,
      is: table.is,
      way,
      division,
      bpm,
      bar,
      wanted,
      inRange,
      ...(instead && { instead }),
      knob: Math.min(10, Math.max(0, knobFor(low, high, wanted))),
      hour: clockHour(Math.min(10, Math.max(0, knobFor(low, high, wanted)))),
    };
    const done = (gets: number, how: string): DelayTime => ({
      ...base,
      gets,
      how,
      slip:
        table.is === 'delay'
          ? slipOf(gets - wanted, keeps)
          : { errorMs: 0, repeat: null, downDb: null, heard: false },
    });
    const reach = (x: number) => Math.min(high, Math.max(low, x));
    const unit = table.is === 'delay' ? 'ms' : 'Hz';
    if (way === 'clock')
      return done(
        reach(wanted),
        inRange
          ? `follows clock, ${division}`
          : `cannot follow: it reaches ${low} to ${high} ${unit}`,
      );
    if (way === 'tap') {
      const off = taps?.errorMs ?? TAP_SPREAD_MS / (TAP_PRESSES - 1);
      const tappedOff = off * DIVISIONS[division];
      return done(
        reach(table.is === 'delay' ? wanted + tappedOff : wanted),
        `tapped; the mean of ${taps?.presses ?? TAP_PRESSES} presses may ` +
          `be ${tappedOff.toFixed(1)} ms off${taps ? '' : ' (typical)'}`,
      );
    }
    // A program holds one time: that of the first tempo, where it was stored for this song.
    const held = stored === undefined ? standing : valueOf(low, high, stored);
    return done(
      reach(round(held)),
      stored === undefined
        ? 'as the sound leaves it: no time is kept for this song'
        : n > 0
          ? 'as stored for the first tempo of the song'
          : `stored for this song, in steps of ${step} ${unit}`,
    );
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
