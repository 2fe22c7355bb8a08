export { AIR_MS_PER_METRE, buildCircuit, bareSourceOf, isMetal } from './build';
export { passesOf, pluggedJacks } from './plugged';
export * from './circuit';
export { solveSection } from './passive';
export { sectionKey } from './section-key';
