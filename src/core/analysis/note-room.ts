import { type Knob, kindOf } from '../kinds';
import { type Lift, liftsIn, noteLevels } from '../note';
import type { Remark } from '../findings/finding';
import type { Device } from '../rig/schema';
import { settingOf, stateIn } from '../rig/device-state';
import { pointFigures, roomAt, type StationFigures } from '../signal';
import type { SoundContext } from '../signal/sound-context';
import { fixed, showLevel } from '../units';
import type { Remarker } from './evidence';
import {
  devicesBefore,
  firstOf,
  gainFixes,
  type HasRoom,
  roomFixes,
  roomWords,
  TIGHT_DB,
} from './headroom';

/** From here on, in dB over 1 kHz, the note itself is listened to: what is less lies within figures. */
const LIFTS_DB = 6;

/** What stands out of a device's response, and by how much. */
interface Lifting {
  device: Device;
  lift: Lift;
}

/**
 * Room for the note, where levels at 1 kHz tell too little: something in front lifts lows or highs, and a
 * low note, played normally, comes so much higher than its level at 1 kHz that it clips or nearly does. A
 * simplification: its peaks are taken to rise as much as it does.
 */
export const noteRoomRemarks: Remarker = ({ ctx, stations, wantsFixes }) => {
  const lifts = new Map(
    [...liftsIn(ctx.flowing.circuit)].flatMap(([id, lift]): [string, Lifting][] =>
      lift.db >= LIFTS_DB ? [[id, { device: ctx.device(id), lift }]] : [],
    ),
  );
  if (!lifts.size) return [];
  // What clips at 1 kHz already is told by that.
  const concerned = stations.flatMap((s) => {
    const by =
      s.headroomDb !== null && s.headroomDb >= 0 ? liftingBefore(ctx, s, lifts) : undefined;
    return by && s.headroomDb !== null ? [{ s, by, room: s.headroomDb }] : [];
  });
  if (!concerned.length) return [];
  const rise = riseIn(
    ctx,
    concerned.map(({ s }) => s),
  );
  return concerned.flatMap(({ s, by, room }): Remark[] => {
    const higher = rise(s);
    const left = room - higher;
    // What is no worse than at 1 kHz is told by that.
    if (!isTold(left) || (isTold(room) && left >= 0)) return [];
    return [
      {
        ...tooHigh(ctx, s, by, higher),
        ...firstOf([
          ...roomFixes(ctx.sound, ctx.device(s.device)),
          ...(wantsFixes ? gainFixes(ctx, s, (d) => knobsUp(ctx, d, lifts), hasRoomForNote) : []),
        ]),
      },
    ];
  });
};

const isTold = (room: number): boolean => room < TIGHT_DB;

type Place = Pick<StationFigures, 'device' | 'ins'>;

/** How much higher the note comes to each of some stations than its level at 1 kHz, in dB; 0 where it is not higher. */
function riseIn(ctx: SoundContext, places: readonly Place[]): (s: Place) => number {
  const note = noteLevels(
    ctx.flowing.circuit,
    places.flatMap(({ device, ins }) => ins.map((point) => ({ device, point }))),
  );
  return (s) =>
    Math.max(
      0,
      ...s.ins.map((point) => {
        const played = note(s.device, point);
        const stated = pointFigures(ctx, s.device, point).levelDbu?.normal;
        return played === undefined || stated === undefined ? 0 : played - stated;
      }),
    );
}

/** What lifts most on the way to a station; what only the station itself does comes behind its input. */
function liftingBefore(
  ctx: SoundContext,
  s: StationFigures,
  lifts: ReadonlyMap<string, Lifting>,
): Lifting | undefined {
  return devicesBefore(ctx, s)
    .filter((d) => d.id !== s.device)
    .flatMap((d) => lifts.get(d.id) ?? [])
    .sort((a, b) => b.lift.db - a.lift.db)[0];
}

function tooHigh(ctx: SoundContext, s: StationFigures, by: Lifting, higher: number): Remark {
  const { name } = ctx.device(s.device);
  const room = s.headroomDb ?? 0;
  const left = room - higher;
  const what = by.lift.hertz < 1000 ? 'lows' : 'highs';
  const peak = (s.input ?? s.output).peakDbu;
  return {
    rule: 'headroom',
    severity: left < 0 ? 'fault' : 'caution',
    subjects: [s.device, by.device.id],
    what:
      left < 0
        ? `${name} clips on a low note, and it is not meant to: ${by.device.name} lifts ${what}.`
        : `${name} has little headroom for a low note: ${by.device.name} lifts ${what}.`,
    why:
      `At 1 kHz, at which levels are stated, there are ${fixed(room)} dB of room. ` +
      `${by.device.name} lifts ${Math.round(by.lift.hertz)} Hz by ${fixed(by.lift.db)} dB over ` +
      `that, and a low note comes ${fixed(higher)} dB higher to the input` +
      (peak === null
        ? ''
        : `, its peaks, taken to rise as much, at about ${showLevel(peak + higher)}`) +
      `: ${roomWords(left)}. Loud notes want ${TIGHT_DB} dB of room.`,
  };
}

/** Knobs of what lifts that can be turned down. */
function knobsUp(ctx: SoundContext, device: Device, lifts: ReadonlyMap<string, Lifting>): Knob[] {
  if (!lifts.has(device.id)) return [];
  const kind = kindOf(device.kind);
  const state = stateIn(ctx.sound, device.id);
  return kind.parameters.filter(
    (p): p is Knob => p.type === 'knob' && Number(settingOf(kind, device, state, p.id)) > p.min,
  );
}

/** Room for the note, in a sound that is only listened to. */
const hasRoomForNote: HasRoom = (tried, station) => {
  const { headroomDb } = roomAt(tried, station);
  return headroomDb !== null && headroomDb - riseIn(tried, [station])(station) >= TIGHT_DB;
};
