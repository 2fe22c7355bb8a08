export { compareRigs, compareSounds, walkOrder } from './compare';
export { soundDifferences } from './sound-differences';
