export { type BriefState, briefOf, briefState } from './brief';
export { proposeRig, START_INSTRUMENTS, START_PEDALS, type StartChoice } from './propose';
