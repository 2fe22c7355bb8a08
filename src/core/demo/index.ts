import type { Rig } from '../rig/schema';
import { brokenRig } from './broken';
import { flyRig } from './fly';
import { hybridRig } from './hybrid';
import { touringRig } from './touring';

export { brokenRig, flyRig, hybridRig, touringRig };

/** The rigs that an empty database is filled with. */
export const DEMO_RIGS: readonly Rig[] = [touringRig, flyRig, hybridRig, brokenRig];
export { EXAMPLE_SHEETS } from './example-sheets';
