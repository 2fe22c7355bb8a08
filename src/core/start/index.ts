export { chainInto } from './chain-into';
export { type BriefState, briefOf, briefState } from './brief';
export { builtUp } from './built';
export { type Choice } from './choices';
export { isPedal, START_INSTRUMENTS, START_PEDALS } from './pedal-order';
export { finished } from './finish';
export { type Proposal, proposeRig, type StartChoice, voiceOf } from './propose';
export { type ReadChain, type ReadItem, rigOfChain } from './chain-rig';
export { joinsOf, lineOfRig } from './line-of-rig';
