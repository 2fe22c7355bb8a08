import { byKey } from '../graph';
import { passesOf, pluggedJacks } from '../circuit';
import type { Fix } from '../findings/finding';
import { settingOf, stateIn } from '../rig/device-state';
import { type Knob, kindOf, type SettingRole, settingWith } from '../kinds';
import type { Edit } from '../rig/edits';
import type { Device, Sound } from '../rig/schema';
import { settingWords } from '../rig/words';
import { pointFigures, roomAt, type StationFigures } from '../signal';
import { listenedTo, type SoundContext } from '../signal/sound-context';
import { withSetting } from '../control/reach';
import { fixed, showLevel } from '../units';
import { routeTo } from '../walk';
import type { Remarker } from './evidence';

/** Under this much room, in dB, loud notes may clip. */
export const TIGHT_DB = 3;

/**
 * What is meant to clip and is driven so much further over its ceiling than what stands ahead of it
 * hides how that clips, in dB.
 */
const DROWNED_DB = 12;

/**
 * Room between the peak at normal picking and the clip point: under 3 dB a caution, under 0 a
 * fault, unless clipping is meant, or all of it goes straight into something that clips far harder.
 */
export const headroomRemarks: Remarker = ({ ctx, stations, wantsFixes }) => {
  const steps = byKey(ctx.steps, (step) => step.from);
  const byId = new Map(stations.map((s) => [s.id, s]));
  const onward: Onward = ({ id }) => (steps.get(id) ?? []).flatMap((s) => byId.get(s.to) ?? []);
  return stations.flatMap((s) => {
    if (s.headroomDb === null || s.headroomDb >= TIGHT_DB) return [];
    if (isDrowned(onward, s, DROWNED_DB - s.headroomDb)) return [];
    const name = ctx.device(s.device).name;
    const over = s.headroomDb < 0;
    const peak = loudestPeak(ctx, s);
    return [
      {
        rule: 'headroom',
        severity: over ? ('fault' as const) : ('caution' as const),
        subjects: [s.device],
        what: over ? `${name} clips, and it is not meant to.` : `${name} has little headroom.`,
        why:
          `Peaks reach ${showLevel(peak)} at its input when playing normally; that ` +
          `is ${roomWords(s.headroomDb)}. Loud notes want ${TIGHT_DB} dB of room, ` +
          `${fixed(TIGHT_DB - s.headroomDb)} dB more than there are.`,
        ...firstOf([
          ...roomFixes(ctx.sound, ctx.device(s.device)),
          ...(wantsFixes ? gainFixes(ctx, s) : []),
        ]),
      },
    ];
  });
};

/** How a peak stands to what an input takes, by the room that is left, in dB. */
export function roomWords(left: number): string {
  const db = fixed(Math.abs(left));
  if (Number(db) === 0) return 'just what it takes';
  return `${db} dB ${left < 0 ? 'over' : 'under'} what it takes`;
}

/** The stations that a station leads on to. */
type Onward = (station: StationFigures) => StationFigures[];

/** The highest peak at any input of a station, in dBu; at its output where signal begins. */
function loudestPeak(ctx: SoundContext, s: StationFigures): number | null {
  const peaks = s.ins.flatMap((jack) => pointFigures(ctx, s.device, jack).peakDbu ?? []);
  return peaks.length ? Math.max(...peaks) : (s.input ?? s.output).peakDbu;
}

/** Whether all ways on from a station lead straight into something meant to clip, driven over by so many dB. */
function isDrowned(
  onward: Onward,
  station: StationFigures,
  over: number,
  seen: ReadonlySet<string> = new Set(),
): boolean {
  const on = onward(station);
  return (
    on.length > 0 &&
    on.every((s) => {
      const { input, gainDb, clipDbu } = s;
      if (seen.has(s.id)) return false;
      if (s.state === 'through') return isDrowned(onward, s, over, new Set([...seen, s.id]));
      // Where clipping is meant there is no room to speak of.
      return (
        s.state === 'engaged' &&
        s.headroomDb === null &&
        gainDb !== null &&
        clipDbu !== null &&
        (input?.peakDbu ?? -Infinity) + gainDb - clipDbu >= over
      );
    })
  );
}

/** Settings that give an input more room, where a device has one and it is not set so. */
const ROOM: readonly [role: SettingRole, value: string][] = [
  ['pad', 'low'],
  ['input level', 'line'],
  ['microphone or line', 'line'],
];

/** Those settings made; what this sound sets is set in this sound. */
export function roomFixes(sound: Sound, device: Device): Fix[] {
  const state = stateIn(sound, device.id);
  const kind = kindOf(device.kind);
  return ROOM.flatMap(([role, value]): Fix[] => {
    const setting = settingWith(kind, role)?.id;
    if (setting === undefined || settingOf(kind, device, state, setting) === value) return [];
    return [
      {
        words: `Set ${device.name}, ${settingWords(kind.id, setting, value)}`,
        edits: [
          {
            edit: 'setSetting',
            device: device.id,
            sound: setBy(sound, device.id, setting),
            setting,
            value,
          },
        ],
      },
    ];
  });
}

export const firstOf = ([fix, ...others]: readonly Fix[]) => (fix ? { fix, others } : {});

/** So many knobs are tried: those nearest in front of what clips that make anything softer. */
const TRIED = 4;
/** So many knobs are offered. */
const OFFERED = 2;

/** Whether a station has room enough in a sound that is only listened to. */
export type HasRoom = (tried: SoundContext, station: StationFigures) => boolean;

/**
 * Knobs that give the room when they are turned down, each tried on a copy; the nearest first.
 *
 * @param knobsOf those of a device that are worth a try
 */
export function gainFixes(
  ctx: SoundContext,
  clipping: StationFigures,
  knobsOf: (device: Device) => Knob[] = (device) => softeningKnobs(ctx, device),
  hasRoom: HasRoom = hasRoomAtMiddle,
): Fix[] {
  return devicesBefore(ctx, clipping)
    .flatMap((device) => {
      const state = stateIn(ctx.sound, device.id);
      // Of one device first what was turned up furthest from where it usually stands.
      const up = ({ id, min, max, initial }: Knob) =>
        (Number(settingOf(kindOf(device.kind), device, state, id)) - initial) / (max - min);
      return knobsOf(device)
        .toSorted((a, b) => up(b) - up(a))
        .map((knob) => ({ device, knob }));
    })
    .slice(0, TRIED)
    .flatMap(({ device, knob }) =>
      turnedDown(ctx, device, knob, (tried) => hasRoom(tried, clipping)),
    )
    .slice(0, OFFERED);
}

/** Room at 1 kHz, at which levels are stated. */
const hasRoomAtMiddle: HasRoom = (tried, station) => {
  const { headroomDb } = roomAt(tried, station);
  return headroomDb !== null && headroomDb >= TIGHT_DB;
};

/** Devices on the way to a station and itself, the nearest first. */
export const devicesBefore = (ctx: SoundContext, { id }: StationFigures): Device[] => {
  const before = routeTo(ctx.stations, ctx.steps, (s) => s.id === id);
  return [...new Set(before.toReversed().map((s) => s.device))].map((d) => ctx.device(d));
};

/** The sound that sets a knob or a switch itself; nothing where that stands alike in all of them. */
const setBy = (sound: Sound, device: string, setting: string): string | undefined =>
  Object.hasOwn(stateIn(sound, device)?.settings ?? {}, setting) ? sound.id : undefined;

/** Places of a knob that a hand can set. */
const STEPS = 20;

/** One knob turned down as little as leaves room enough, if any place of it does. */
function turnedDown(
  ctx: SoundContext,
  device: Device,
  { id: setting, min, max }: Knob,
  hasRoom: (tried: SoundContext) => boolean,
): Fix[] {
  const kind = kindOf(device.kind);
  const state = stateIn(ctx.sound, device.id);
  const now = Number(settingOf(kind, device, state, setting));
  const sound = setBy(ctx.sound, device.id, setting);
  const edits = (value: number): Edit[] => [
    { edit: 'setSetting', device: device.id, sound, setting, value },
  ];
  const givesRoom = (value: number) =>
    hasRoom(listenedTo(ctx, ctx.rig, withSetting(ctx.sound, device.id, setting, value)));
  // The highest place that gives room, in steps that a hand can set. All the way down a level is silent.
  const step = (max - min) / STEPS;
  const place = (n: number) => Number((min + n * step).toFixed(6));
  const lowest = [0, 1].find((n) => givesRoom(place(n)));
  if (lowest === undefined || place(lowest) >= now) return [];
  let [low, high] = [lowest, Math.ceil((now - min) / step)];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (givesRoom(place(middle))) low = middle;
    else high = middle;
  }
  const value = place(low);
  return [
    {
      words: `Turn ${device.name} down: ${settingWords(kind.id, setting, value)}`,
      edits: edits(value),
    },
  ];
}

/** So many knobs that stand at their lower end are offered to be set back. */
const SET_BACK = 4;

/**
 * Knobs on the way to a station that stand at their lower end, each set to where it usually stands; the nearest
 * first.
 */
export const setBackFixes = (ctx: SoundContext, station: StationFigures): Fix[] =>
  devicesBefore(ctx, station)
    .flatMap((device): Fix[] => {
      const kind = kindOf(device.kind);
      const state = stateIn(ctx.sound, device.id);
      return kind.parameters.flatMap((p): Fix[] =>
        p.type === 'knob' && p.initial > p.min && settingOf(kind, device, state, p.id) === p.min
          ? [
              {
                words: `Set ${device.name} back: ${settingWords(kind.id, p.id, p.initial)}`,
                edits: [
                  {
                    edit: 'setSetting',
                    device: device.id,
                    setting: p.id,
                    value: p.initial,
                    sound: setBy(ctx.sound, device.id, p.id),
                  },
                ],
              },
            ]
          : [],
      );
    })
    .slice(0, SET_BACK);

/** Knobs of a device with which its own stages have less gain when they are down: no other is worth a try. */
export function softeningKnobs(ctx: SoundContext, device: Device): Knob[] {
  const kind = kindOf(device.kind);
  const state = stateIn(ctx.sound, device.id);
  const gains = (sound: Sound) =>
    passesOf(device, sound, pluggedJacks(ctx.rig)).flatMap((p) =>
      p.is === 'stage' ? [p.gainDb, p.outputDb] : [],
    );
  const before = gains(ctx.sound);
  return kind.parameters.filter(
    (p): p is Knob =>
      p.type === 'knob' &&
      Number(settingOf(kind, device, state, p.id)) > p.min &&
      gains(withSetting(ctx.sound, device.id, p.id, p.min)).some(
        (db, i) => db < (before[i] ?? -Infinity),
      ),
  );
}
