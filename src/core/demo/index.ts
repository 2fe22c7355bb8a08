import type { Rig } from '../rig/schema';
import { brokenRig } from './broken';
import { touringRig } from './touring';

export { brokenRig, touringRig };

/** The rigs that an empty database is filled with. */
export const DEMO_RIGS: readonly Rig[] = [touringRig, brokenRig];
