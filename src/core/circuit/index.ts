export { AIR_MS_PER_METRE, buildCircuit, isMetal, passesOf, pluggedJacks } from './build';
export * from './circuit';
export { solveSection } from './passive';
