export { type ClashWords, clashWords } from './clash-words';
export { compareRigs } from './compare';
export { soundDifferences } from './sound-differences';
export { compareSounds } from './sound-changes';
export { sheetDifferences } from './sheet-changes';
