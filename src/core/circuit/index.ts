export { AIR_MS_PER_METRE, buildCircuit, bareSourceOf, hopOf, isHop, isMetal } from './build';
export { conductorsOf, passesOf, pluggedJacks } from './plugged';
export * from './circuit';
export { solveSection } from './passive';
export { sectionKey } from './section-key';
