export { chainInto } from './chain-into';
export { type BriefState, briefOf, briefState } from './brief';
export { proposeRig, START_INSTRUMENTS, START_PEDALS, type StartChoice } from './propose';
export { type ReadChain, type ReadItem, rigOfChain } from './chain-rig';
export { joinsOf, lineOfRig } from './line-of-rig';
