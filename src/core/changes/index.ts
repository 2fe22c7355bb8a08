export { type ClashWords, clashWords } from './clash-words';
export { compareRigs, compareSounds, walkOrder } from './compare';
export { soundDifferences } from './sound-differences';
