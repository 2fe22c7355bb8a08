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
import { BUILD_REMARKS, powerRemarks, pressedDevices } from '../build';
import { controlWiringRemarks, sameWayRemarks } from '../control';
import type { Remark } from '../findings/finding';
import {
  brokenAssignments,
  changeRemarks,
  rangeRemarks,
  sameLeadToMessages,
  sameToMessages,
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
import { at } from '../outcome';
import { sameJson } from '../rig/same-json';
import type { Rig } from '../rig/schema';
import { sameButLength, sameButSpot } from '../rig/to-the-ear';
import { songRemarks, tempoDevices } from '../songs';

/**
 * Looks at the whole rig. `reads` names the parts that its answer depends on, so that it is kept
 * while they stay.
 */
export interface RigCheck {
  reads: readonly (keyof Rig)[];
  /** Of a part that is another: whether it is the same in all that the check reads of it. */
  isSame?: Partial<Record<keyof Rig, (was: Rig, now: Rig) => boolean>>;
  /** What it reads by way of others. */
  through?: (rig: Rig) => unknown;
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

/** Messages do not ask how long a lead of sound is. */
const sameLeads = (was: Rig, now: Rig): boolean =>
  was.leads.length === now.leads.length &&
  now.leads.every((l, i) => sameLeadToMessages(now, at(was.leads, i), l));
/** Nor where a knob stands that only a hand turns. */
const sameSounds = (was: Rig, now: Rig): boolean =>
  was.sounds.length === now.sounds.length &&
  now.sounds.every((s, i) => sameToMessages(now, at(was.sounds, i), s));
/** Songs ask for the times of echoes besides. */
const sameForSongs = (was: Rig, now: Rig): boolean =>
  sameSounds(was, now) &&
  tempoDevices(now).every(({ id }) =>
    now.sounds.every((s, i) => sameJson(at(was.sounds, i).states[id], s.states[id])),
  );
const OF_MESSAGES: RigCheck['isSame'] = { leads: sameLeads, sounds: sameSounds };
/** Where on its board a thing stands is the board's matter alone. */
const BESIDE_SPOTS: RigCheck['isSame'] = {
  devices: (was, now) => sameButSpot(was.devices, now.devices),
};

/** How long a lead is, is a matter for lists of leads and for sound. */
const BESIDE_LENGTHS: RigCheck['isSame'] = {
  leads: (was, now) => sameButLength(was.leads, now.leads),
};
const BESIDE_SPOTS_AND_LENGTHS: RigCheck['isSame'] = { ...BESIDE_SPOTS, ...BESIDE_LENGTHS };

/**
 * Where no limit is set none is broken. Else every length counts, and every place: leads weigh, and
 * how long one has to be hangs on where its ends are.
 */
const hasNoLimit = (was: Rig, now: Rig): boolean => !was.limits && !now.limits;
const WHERE_NONE_IS_SET: RigCheck['isSame'] = { devices: hasNoLimit, leads: hasNoLimit };

/** Remarks that hold in every sound. */
const everywhere = (rig: Rig, remarks: readonly Remark[]): SceneRemark[] => {
  const sounds = rig.sounds.map((s) => s.id);
  return remarks.map((remark) => ({ sounds, remark }));
};

const onMessages = (look: (rig: Rig) => Remark[]): RigCheck => ({
  reads: MESSAGES,
  isSame: OF_MESSAGES,
  look: (rig) => everywhere(rig, look(rig)),
});
const onBuilt = (
  look: (rig: Rig) => Remark[],
  more: Pick<RigCheck, 'isSame' | 'through'> = {},
): RigCheck => ({
  reads: BUILT,
  ...more,
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
  isSame: OF_MESSAGES,
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
    'MIDI leads': onMessages(wireRemarks),
    'leads of controls': onMessages(controlWiringRemarks),
    assignments: onMessages(brokenAssignments),
    'what controls reach': onMessages(unreachedAssignments),
    'opposite ranges': onMessages(sameWayRemarks),
    'who reaches whom by MIDI': onStage(({ orders }, rig) => {
      const reached = messageReachRemarks(orders);
      return everywhere(rig, [...reached, ...deadLeadRemarks(orders, reached)]);
    }),
    'who listens': onStage(({ orders }, rig) => everywhere(rig, listenerRemarks(orders))),
    'programs that there are': onStage(rangeRemarks),
    'changes of sound': onStage(changeRemarks),
    'messages that nobody hears': onStage(unheardRemarks),
    songs: {
      reads: MESSAGES,
      isSame: { leads: sameLeads, sounds: sameForSongs },
      look: songRemarks,
    },
  },
  build: {
    power: onBuilt(powerRemarks, { isSame: BESIDE_SPOTS_AND_LENGTHS }),
    mains: onBuilt(BUILD_REMARKS.mains, { isSame: BESIDE_SPOTS_AND_LENGTHS }),
    // Where a foot goes follows from what the sounds and their messages need.
    boards: onBuilt(BUILD_REMARKS.boards, {
      isSame: BESIDE_LENGTHS,
      through: (rig) => [...pressedDevices(rig)],
    }),
    racks: onBuilt(BUILD_REMARKS.racks, { isSame: BESIDE_SPOTS_AND_LENGTHS }),
    'lengths of leads': onBuilt(BUILD_REMARKS.leads),
    limits: onBuilt(BUILD_REMARKS.limits, { isSame: WHERE_NONE_IS_SET }),
  },
};

/** What is wrong with control, messages and songs, whatever the sound or in which. */
export const controlRemarks = (rig: Rig): SceneRemark[] =>
  Object.values(CHECKS.control).flatMap((check) => check.look(rig));
