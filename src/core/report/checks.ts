import {
  balancedLineRemarks,
  deadControlRemarks,
  directFeedRemarks,
  groundRemarks,
  headroomRemarks,
  noteRoomRemarks,
  hostInputRemarks,
  hostRemarks,
  howlRemarks,
  inputLevelRemarks,
  latencyRemarks,
  loadingRemarks,
  loomRemarks,
  loopRemarks,
  noiseRemarks,
  parallelRemarks,
  phantomRemarks,
  airRemarks,
  openEndRemarks,
  unheardEffectRemarks,
  polarityRemarks,
  priorityRemarks,
  reachRemarks,
  type Remarker,
  speakerRemarks,
  stereoRemarks,
  swappedRemarks,
  sweepRemarks,
  toneRemarks,
  tracedSideRemarks,
  halfHostRemarks,
  twinDirtRemarks,
  twoPreampsRemarks,
  wrongWayRemarks,
} from '../analysis';
import { BUILD_REMARKS, powerRemarks } from '../build';
import { controlWiringRemarks, sameWayRemarks } from '../control';
import type { Remark } from '../findings/finding';
import {
  brokenAssignments,
  changeRemarks,
  rangeRemarks,
  deadLeadRemarks,
  listenerRemarks,
  messageReachRemarks,
  type SceneRemark,
  setStage,
  type Stage,
  unheardRemarks,
  unreachedAssignments,
  wireRemarks,
} from '../midi';
import { orderRemarks } from '../order';
import type { Rig } from '../rig/schema';
import { songRemarks } from '../songs';

/**
 * Looks at the whole rig. `reads` names the parts that its answer depends on, so that it is kept
 * while they stay.
 */
export interface RigCheck {
  reads: readonly (keyof Rig)[];
  look: (rig: Rig) => SceneRemark[];
}

/** Every check, by what it looks at: one sound by its figures, or the rig whatever the sound. */
export interface Checks {
  sound: Record<string, Remarker>;
  control: Record<string, RigCheck>;
  build: Record<string, RigCheck>;
}

const MESSAGES = ['devices', 'leads', 'sounds', 'controls', 'songs', 'sets'] as const;
const BUILT = [
  'devices',
  'leads',
  'boards',
  'racks',
  'stage',
  'tour',
  'making',
  'limits',
  'cases',
] as const;

/** Remarks that hold in every sound. */
const everywhere = (rig: Rig, remarks: readonly Remark[]): SceneRemark[] => {
  const sounds = rig.sounds.map((s) => s.id);
  return remarks.map((remark) => ({ sounds, remark }));
};

const onRig = (look: (rig: Rig) => Remark[], reads: RigCheck['reads'] = MESSAGES): RigCheck => ({
  reads,
  look: (rig) => everywhere(rig, look(rig)),
});

/** The stage of a rig is set once for all checks that simulate on it. */
const stages = new WeakMap<Rig, Stage>();
function stageOf(rig: Rig): Stage {
  let stage = stages.get(rig);
  if (!stage) stages.set(rig, (stage = setStage(rig)));
  return stage;
}

/** A check of what messages do. Without devices that know MIDI there is nothing to simulate. */
const onStage = (look: (stage: Stage, rig: Rig) => SceneRemark[]): RigCheck => ({
  reads: MESSAGES,
  look: (rig) => (stageOf(rig).orders.graph.devices.size ? look(stageOf(rig), rig) : []),
});

/**
 * Every check there is, by what it looks at. A check that fails is told by this name, and the
 * others stand. Adding one is adding its file and its line here.
 */
export const CHECKS: Checks = {
  sound: {
    'speaker lines': speakerRemarks,
    'leads the wrong way round': wrongWayRemarks,
    loops: loopRemarks,
    // What is the cause of a silence or a circle comes before those.
    'exchanged plugs': swappedRemarks,
    'open ends': openEndRemarks,
    'effects that nobody hears': unheardEffectRemarks,
    'traced sides': tracedSideRemarks,
    'sides of hosts': halfHostRemarks,
    'plugs that take priority': priorityRemarks,
    'what arrives': reachRemarks,
    circles: howlRemarks,
    loading: loadingRemarks,
    tone: toneRemarks,
    latency: latencyRemarks,
    polarity: polarityRemarks,
    air: airRemarks,
    'parallel ways': parallelRemarks,
    'distortions side by side': twinDirtRemarks,
    'two preamplifiers': twoPreampsRemarks,
    stereo: stereoRemarks,
    'direct feeds': directFeedRemarks,
    hosts: hostRemarks,
    'inputs of hosts': hostInputRemarks,
    'dead controls': deadControlRemarks,
    sweeps: sweepRemarks,
    ground: groundRemarks,
    order: orderRemarks,
    looms: loomRemarks,
    'balanced lines': balancedLineRemarks,
    'phantom power': phantomRemarks,
    // What may follow from any of those comes behind them.
    headroom: headroomRemarks,
    'room for the note': noteRoomRemarks,
    'input levels': inputLevelRemarks,
    noise: noiseRemarks,
  },
  control: {
    'MIDI leads': onRig(wireRemarks),
    'leads of controls': onRig(controlWiringRemarks),
    assignments: onRig(brokenAssignments),
    'what controls reach': onRig(unreachedAssignments),
    'opposite ranges': onRig(sameWayRemarks),
    'who reaches whom by MIDI': onStage(({ orders }, rig) => {
      const reached = messageReachRemarks(orders);
      return everywhere(rig, [...reached, ...deadLeadRemarks(orders, reached)]);
    }),
    'who listens': onStage(({ orders }, rig) => everywhere(rig, listenerRemarks(orders))),
    'programs that there are': onStage(rangeRemarks),
    'changes of sound': onStage(changeRemarks),
    'messages that nobody hears': onStage(unheardRemarks),
    songs: { reads: MESSAGES, look: songRemarks },
  },
  build: {
    power: onRig(powerRemarks, BUILT),
    mains: onRig(BUILD_REMARKS.mains, BUILT),
    // Where a foot goes follows from what the sounds and their messages need.
    boards: onRig(BUILD_REMARKS.boards, [...BUILT, 'sounds', 'controls']),
    racks: onRig(BUILD_REMARKS.racks, BUILT),
    'lengths of leads': onRig(BUILD_REMARKS.leads, BUILT),
    limits: onRig(BUILD_REMARKS.limits, BUILT),
  },
};

/** What is wrong with control, messages and songs, whatever the sound or in which. */
export const controlRemarks = (rig: Rig): SceneRemark[] =>
  Object.values(CHECKS.control).flatMap((check) => check.look(rig));
