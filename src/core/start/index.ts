export { type Brief, type Output, OUTPUTS, proposeRig } from './propose';
