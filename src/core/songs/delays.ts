import { isEngaged, resolveState, settingOf, stateIn } from '../rig/device-state';
import { kindOf, type TempoTable } from '../kinds';
import { sure } from '../outcome';
import type { Device, Rig, Song, State } from '../rig/schema';
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
import { temposOf, timelineOf } from './timeline';

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
  /** The knob of this time; a box may hold two delays. */
  setting: string;
  is: TempoTable['is'];
  way: 'program' | 'clock' | 'tap';
  division: Division;
  bpm: number;
  /** Bar from which this tempo, or this standing of the device, holds; and the sections in which it does. */
  bar: number;
  sections: string[];
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
export const storedKnob = (
  song: Pick<Song, 'states'>,
  device: string,
  setting: string,
): number | undefined => {
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

/** A part of a song in which a device is heard at one tempo and stands one way. */
interface Span {
  bar: number;
  bpm: number;
  sections: string[];
  state: State | undefined;
  /** Who keeps its time: a section, the whole song, or nobody. */
  keptBy: 'section' | 'song' | undefined;
}

/**
 * The parts of a song by tempo and by how a device stands, where it is heard; of one that is heard
 * nowhere, every tempo as its first section leaves it.
 */
function spansOf(rig: Rig, song: Song, device: Device, { setting }: TempoTable): Span[] {
  const kind = kindOf(device.kind);
  const scenes = new Map(
    song.sections.map((s) => [s.id, sectionScene(rig, song, s.id)?.sound] as const),
  );
  const stateOf = (section: string) => {
    const sound = scenes.get(section);
    return sound && stateIn(sound, device.id);
  };
  const kept = storedKnob(song, device.id, setting) === undefined ? undefined : 'song';
  const spans: Span[] = [];
  for (const { number: bar, bpm, section } of timelineOf(song).bars) {
    const state = stateOf(section.id);
    if (!scenes.get(section.id) || !isEngaged(kind, device, state)) continue;
    const last = spans.at(-1);
    const stands = (x: State | undefined) => settingOf(kind, device, x, setting);
    if (last && last.bpm === bpm && stands(last.state) === stands(state)) {
      if (!last.sections.includes(section.id)) last.sections.push(section.id);
      continue;
    }
    const own = storedKnob(section, device.id, setting) !== undefined;
    const keptBy = own ? 'section' : kept;
    spans.push({ bar, bpm, sections: [section.id], state, keptBy });
  }
  if (spans.length) return spans;
  const state = stateOf(song.sections[0]?.id ?? '');
  return temposOf(song).map((t) => ({ ...t, sections: [], state, keptBy: kept }));
}

/** What a time device does in a part of a song: what it can reach, what is wished of it, and where its knob stands. */
function timeDevice(song: Song, device: Device, table: TempoTable, { state, keptBy }: Span) {
  const kind = kindOf(device.kind);
  const resolved = resolveState(kind, device, state);
  const setting = (id: string, otherwise: number) =>
    Number(settingOf(kind, device, state, id) ?? otherwise);
  const isFirst = table === kind.tempo;
  // What a song says of a box is said of its first time; a further one has a note value of its own.
  const inSong =
    isFirst && song.divisions && Object.hasOwn(song.divisions, device.id)
      ? song.divisions[device.id]
      : undefined;
  const wish =
    inSong ?? (isFirst ? undefined : device.tempo?.more?.[table.setting]) ?? device.tempo?.division;
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
    keptBy,
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
  const { low, high, step, keptBy, division, table } = of;
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
    const presses = taps?.presses ?? TAP_PRESSES;
    const measured = taps?.errorMs ?? null;
    const tappedOff = (measured ?? TAP_SPREAD_MS / (presses - 1)) * DIVISIONS[division];
    return {
      gets: reach(table.is === 'delay' ? wanted + tappedOff : wanted),
      how:
        `tapped; the mean of ${presses} presses may ` +
        `be ${tappedOff.toFixed(1)} ms off${measured === null ? ' (typical)' : ''}`,
    };
  }
  // A program holds one time, whatever the tempo does while it is on.
  const held = valueOf(low, high, of.standing);
  const steps = `in steps of ${step} ${unit}`;
  return {
    gets: reach(Math.round(held / step) * step),
    how:
      keptBy === undefined
        ? 'as the sound leaves it: no time is kept for this song'
        : keptBy === 'section'
          ? `stored for this section, ${steps}`
          : isFirst
            ? `stored for this song, ${steps}`
            : 'as stored for the first tempo of the song',
  };
}

/**
 * Time of one device in a song, for each part of it at one tempo in which the device stands one way
 * and is heard: a section, a tempo within one, several alike. `taps` replaces the
 * typical spread by a measured one.
 */
export const delayTimes = (rig: Rig, song: Song, device: Device, taps?: Tapped): DelayTime[] =>
  tablesOf(device).flatMap((table) => timesBy(rig, song, device, table, taps));

/** The times of a box, the first one first. */
export const tablesOf = ({ kind }: Pick<Device, 'kind'>): TempoTable[] => {
  const { tempo, moreTempos = [] } = kindOf(kind);
  return tempo ? [tempo, ...moreTempos] : [];
};

/** One time of a device in a song. */
function timesBy(
  rig: Rig,
  song: Song,
  device: Device,
  table: TempoTable,
  taps: Tapped | undefined,
): DelayTime[] {
  const spans = spansOf(rig, song, device, table);
  return spans.map((span): DelayTime => {
    const { bar, bpm, sections } = span;
    const of = timeDevice(song, device, table, span);
    const { low, high, way, division } = of;
    const wanted = valueAt(of, bpm, division);
    const inRange = wanted >= low - 1e-9 && wanted <= high + 1e-9;
    const instead = inRange ? undefined : insteadOf(of, bpm, wanted);
    const knob = Math.min(10, Math.max(0, knobFor(low, high, wanted)));
    const { gets, how } = gotBy(of, wanted, inRange, bpm === spans[0]?.bpm, taps);
    return {
      device: device.id,
      setting: table.setting,
      is: table.is,
      way,
      division,
      bpm,
      bar,
      sections,
      wanted,
      inRange,
      ...(instead && { instead }),
      knob,
      hour: clockHour(knob),
      gets,
      how,
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

/**
 * A song that keeps a time of a device: in some of its sections, or, where those are all in which it
 * is heard, in the song as a whole.
 */
export function withStoredTime(
  song: Song,
  device: Device,
  knob: number,
  sections?: readonly string[],
  setting = sure(kindOf(device.kind).tempo).setting,
): Song {
  const keep = <T extends Pick<Song, 'states'>>(of: T, value: number | undefined): T => {
    const state =
      of.states && Object.hasOwn(of.states, device.id) ? of.states[device.id] : undefined;
    if (value === undefined && state?.settings?.[setting] === undefined) return of;
    const { [setting]: _old, ...rest } = state?.settings ?? {};
    const settings = value === undefined ? rest : { ...rest, [setting]: value };
    return { ...of, states: { ...of.states, [device.id]: { ...state, settings } } };
  };
  if (!sections || song.sections.every((s) => sections.includes(s.id)))
    return keep({ ...song, sections: song.sections.map((s) => keep(s, undefined)) }, knob);
  return {
    ...song,
    sections: song.sections.map((s) => (sections.includes(s.id) ? keep(s, knob) : s)),
  };
}

/**
 * A song in which each part keeps its own right time; undefined where a tempo changes within a
 * section, since a program holds one time.
 */
export function withTimesKept(
  song: Song,
  device: Device,
  times: readonly DelayTime[],
): Song | undefined {
  const settings = [...new Set(times.map((t) => t.setting))];
  return settings.reduce<Song | undefined>((kept, setting) => {
    if (!kept) return undefined;
    const mine = times.filter((t) => t.setting === setting);
    const all = mine.flatMap((t) => t.sections);
    if (new Set(all).size < all.length) return undefined;
    const [first] = mine;
    if (first && new Set(mine.map((t) => t.knob.toFixed(6))).size === 1)
      return withStoredTime(kept, device, first.knob, undefined, setting);
    return mine.reduce((s, t) => withStoredTime(s, device, t.knob, t.sections, setting), kept);
  }, song);
}
