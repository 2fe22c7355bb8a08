import { bareSourceOf, pluggedJacks } from '../circuit';
import type { Rig, Sound } from '../rig/schema';
import { DEFAULT_REFERENCE } from '../rig/typical-leads';
import {
  type DestinationFigures,
  type SoundContext,
  type Heard,
  heardOf,
  type StationFigures,
} from '../signal';
import type { Step } from '../walk';
import { type Cycle, cyclesOf } from './cycles';
import type { Evidence } from './evidence';
import { groundLoops, waysIn, type HumLoop } from './ground';
import { type HostUse, hostUses } from './hosts';
import { type SectionTone, sectionTones, type ToneMemory } from './sections';
import { type SpeakerLine, speakerLines } from './speaker-lines';

/** All figures of one sound. */
export interface SoundFigures {
  sound: string;
  stations: StationFigures[];
  steps: Step[];
  columns: number;
  lanes: number;
  destinations: DestinationFigures[];
  tones: SectionTone[];
  /** Circles that signal can run in, with what closes them. */
  cycles: Cycle[];
  speakers: SpeakerLine[];
  humLoops: HumLoop[];
  hosts: HostUse[];
}

/** How a sound is figured. */
export interface Figuring {
  /** Keeps the tones of sections. */
  memory?: ToneMemory;
  plugged?: Map<string, Set<string>>;
  wantsFixes?: boolean;
  /** Each sound as it was worked out last, by its id: what is as it was is taken over; renewed. */
  known?: Map<string, SoundContext>;
}

/** Everything that is figured for one sound, as remarks read it. */
export function evidenceOf(
  rig: Rig,
  sound: Sound,
  { memory, plugged = pluggedJacks(rig), wantsFixes = false, known }: Figuring = {},
): Evidence {
  const before = known?.get(sound.id);
  const heard: Heard = heardOf(rig, sound, plugged, { before, like: before?.flowing });
  const { ctx } = heard;
  known?.set(sound.id, ctx);
  return {
    tones: sectionTones(ctx, memory),
    cycles: cyclesOf(ctx),
    hosts: hostUses(ctx),
    speakers: speakerLines(ctx),
    humLoops: groundLoops(
      rig,
      sound,
      (lead) => bareSourceOf(ctx.flowing.circuit, lead),
      waysIn(ctx),
    ),
    reference: rig.reference ?? DEFAULT_REFERENCE,
    wantsFixes,
    ...heard,
  };
}

/** The figures alone, as they are kept and sent on: plain data. */
export function figuresIn(evidence: Evidence): SoundFigures {
  const { ctx, stations, destinations, tones, cycles, hosts, humLoops, speakers } = evidence;
  return {
    sound: ctx.sound.id,
    stations,
    steps: ctx.steps,
    columns: ctx.columns,
    lanes: ctx.lanes,
    destinations,
    tones,
    cycles,
    hosts,
    humLoops,
    speakers,
  };
}
