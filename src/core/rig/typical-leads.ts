import type { Reference } from './schema';

/** The lead that tone is compared with when the rig names none: 3 m of 100 pF/m into 1 MΩ. */
export const DEFAULT_REFERENCE: Reference = { metres: 3, pfPerMetre: 100, ohms: 1e6 };

/** Capacitance of a lead where none is stated, in pF per metre (typical; 60 to 160 are found). */
export const DEFAULT_PF_PER_METRE = 100;
