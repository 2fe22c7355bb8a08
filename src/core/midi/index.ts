export { clockJitter, type Jitter, runBus, type Sent, type Traffic } from './bus';
export { type Change, runChange } from './change';
export { type Landing } from './landing';
export { type Mismatch } from './mismatch';
export { setStage, type Stage, underMidi } from './stage';
export { freeAddress } from './free-address';
export { keyName, keyWords } from './key-words';
export { addressIn, type Command, ordersOf, type Orders } from './commands';
export { type Lost, oneLost } from './lost';
export { type LandingLevels, landingLevels } from './landing-levels';
export {
  begin,
  call,
  isOn,
  type Recovery,
  recovery,
  type Rehearsal,
  soundNow,
  stepAll,
  stepOn,
  steppable,
  whatIsOff,
} from './rehearsal';
export { type Arrived, midiGraph, outJacks, reachIn, type Way } from './graph';
export { hex, type Message, type MessageType, programMessages } from './message';
export {
  bytesOf,
  type FileEvent,
  isRealtime,
  MESSAGE_SORTS,
  messageWords,
  sortOf,
} from './message-sorts';
export { BYTE_MS, wireMs } from './wire-time';
export { bothNumbers, numberingWords, shownOn, wireOf } from './numbers';
export { numbersOn, programName, screenOn, withName } from './programs';
export { allPairs, type PairFault, pairRows, type PairReport } from './pairs';
export { midiDevices, type MidiDevice, midiOf, wantsClock } from './setup';
export { type Machine, standingIn, type Standing } from './stand-in';
export { type Press, type Presses, pressesBetween } from './presses';
export { type Sequence, sequenceOf } from './sequence';
export { brokenAssignments, unreachedAssignments } from './assignment-remarks';
export { changeRemarks, unheardRemarks } from './change-remarks';
export type { SceneRemark } from './number-remark';
export { listenerRemarks } from './listeners';
export { deadLeadRemarks, messageReachRemarks, needsOf } from './message-reach';
export { MOST_METRES, MOST_THRUS, wireRemarks } from './wire-remarks';
export { LONG_PRESS_MS, PRESS_MS, timed, WHEN_WORDS } from './commands';
export { addressProblem, rangeRemarks } from './address-range';
export { sameLeadToMessages, sameToMessages } from './unread';
