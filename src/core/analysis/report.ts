import { powerRemarks } from '../build/power-remarks';
import { buildRemarks } from '../build/build-remarks';
import { loomRemarks } from './looms';
import { pluggedJacks } from '../circuit';
import { effectiveRig } from '../control/effective';
import { controlRemarks } from '../midi/remarks';
import type { Finding, Remark } from '../findings/finding';
import { gatherFindings } from '../findings/gather';
import { orderRemarks } from '../order';
import { DEFAULT_REFERENCE, type Rig, type Sound } from '../rig/schema';
import { PromiseChecker, promiseRemarks, type PromiseResult } from '../promises';
import type { Step } from '../walk';
import { type Cycle, cyclesOf, howlRemarks } from './cycles';
import { deadControlRemarks } from './dead-controls';
import { type DestinationFigures, destinationFigures } from './destinations';
import { directFeedRemarks } from './direct-feed';
import { groundLoops, groundRemarks, type HumLoop } from './ground';
import { headroomRemarks } from './headroom';
import { hostInputRemarks } from './host-input';
import { type HostUse, hostRemarks, hostUses } from './hosts';
import { inputLevelRemarks } from './input-level';
import { latencyRemarks } from './latency';
import { loadingRemarks } from './loading';
import { loopRemarks } from './loops';
import { noiseRemarks } from './noise';
import { parallelRemarks } from './parallel';
import { polarityRemarks } from './polarity';
import { reachRemarks } from './reach';
import type { Evidence, Remarker } from './remarks';
import { type SectionTone, sectionTones, type ToneMemory } from './sections';
import { soundContext } from './sound-context';
import { swappedRemarks } from './swapped';
import { wrongWayRemarks } from './wrong-way';
import { type SpeakerLine, speakerLines, speakerRemarks } from './speakers';
import { type StationFigures, stationFigures } from './stations';

export type { StationFigures };
import { stereoRemarks } from './stereo';
import { toneRemarks } from './tone-loss';

/** All figures of one sound. */
export interface SoundReport {
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
  remarks: Remark[];
}

/** Figures per sound, which promises are kept, and the findings over all of them. */
export interface Report {
  sounds: SoundReport[];
  promises: PromiseResult[];
  findings: Finding[];
}

const REMARKERS: readonly Remarker[] = [
  speakerRemarks,
  wrongWayRemarks,
  loopRemarks,
  reachRemarks,
  howlRemarks,
  swappedRemarks,
  headroomRemarks,
  inputLevelRemarks,
  noiseRemarks,
  loadingRemarks,
  toneRemarks,
  latencyRemarks,
  polarityRemarks,
  parallelRemarks,
  stereoRemarks,
  directFeedRemarks,
  hostRemarks,
  hostInputRemarks,
  deadControlRemarks,
  groundRemarks,
  orderRemarks,
  loomRemarks,
];

/** A sound for rigs that have none: every device as it stands. */
const AS_IT_STANDS: Sound = { id: 'as-it-stands', name: 'As it stands', states: {} };

/** Figures and remarks of one sound. */
export function analyseSound(
  rig: Rig,
  sound: Sound,
  memory?: ToneMemory,
  plugged = pluggedJacks(rig),
): SoundReport {
  const ctx = soundContext(rig, sound, plugged);
  const stations = stationFigures(ctx);
  const destinations = destinationFigures(ctx, stations);
  const tones = sectionTones(ctx, memory);
  const cycles = cyclesOf(ctx);
  const hosts = hostUses(ctx);
  const speakers = speakerLines(ctx);
  const humLoops = groundLoops(rig, sound);
  const evidence: Evidence = {
    ctx,
    cycles,
    hosts,
    humLoops,
    speakers,
    stations,
    destinations,
    tones,
    reference: rig.reference ?? DEFAULT_REFERENCE,
  };
  return {
    sound: sound.id,
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
    remarks: REMARKERS.flatMap((look) => look(evidence)),
  };
}

/**
 * Remembers what it computed: an edit that leaves a sound's inputs the same object leaves its
 * report the same object.
 */
export class Analyser {
  private readonly tones: ToneMemory = new Map();
  private readonly promises = new PromiseChecker();
  private built?: { rig: Rig; remarks: Remark[] };
  private last?: { rig: Rig; sounds: Map<Sound, SoundReport> };

  analyse(written: Rig): Report {
    const rig = effectiveRig(written);
    const sounds = rig.sounds.length ? rig.sounds : [AS_IT_STANDS];
    const kept =
      this.last && sameInputs(this.last.rig, rig)
        ? this.last.sounds
        : new Map<Sound, SoundReport>();
    if (this.tones.size > 4000) this.tones.clear();
    const plugged = pluggedJacks(rig);
    const reports = new Map(
      sounds.map((s) => [s, kept.get(s) ?? analyseSound(rig, s, this.tones, plugged)]),
    );
    this.last = { rig, sounds: reports };
    const list = [...reports.values()];
    const promises = this.promises.check(rig, list);
    const broken = promiseRemarks(promises);
    const built =
      this.built && BUILT_FROM.every((part) => this.built!.rig[part] === written[part])
        ? this.built.remarks
        : [...powerRemarks(written), ...buildRemarks(written)];
    this.built = { rig: written, remarks: built };
    const remarks = [
      ...controlRemarks(written).flatMap(({ sounds: named, remark }) =>
        (named.length ? named : [list[0]!.sound]).map((sound) => ({ sound, remarks: [remark] })),
      ),
      ...list.map((r) => ({ sound: r.sound, remarks: [...r.remarks, ...built] })),
      ...broken.map(({ sound, remark }) => ({ sound: sound ?? list[0]!.sound, remarks: [remark] })),
    ];
    return { sounds: list, promises, findings: gatherFindings(rig, remarks) };
  }
}

/** What the remarks on power, board, rack, leads and mains are made from. */
const BUILT_FROM = [
  'devices',
  'leads',
  'sounds',
  'controls',
  'boards',
  'racks',
  'stage',
  'tour',
  'making',
  'limits',
  'cases',
] as const;

/** Whether everything that all sounds share is unchanged. */
const sameInputs = (a: Rig, b: Rig): boolean =>
  a.devices === b.devices &&
  a.leads === b.leads &&
  a.order === b.order &&
  a.reference === b.reference &&
  a.looms === b.looms;

/**
 * Figures per sound and findings over all sounds.
 *
 *     const { findings } = analyse(rig);
 */
export const analyse = (rig: Rig): Report => new Analyser().analyse(rig);
