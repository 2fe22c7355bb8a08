export { type Brief, type Output, OUTPUTS, proposeRig, START_INSTRUMENTS, START_PEDALS } from './propose';
