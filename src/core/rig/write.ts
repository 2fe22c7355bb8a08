import type { Rig } from './schema';

/** The text of a rig file: the document, indented, ending with a line feed. */
export const writeRig = (rig: Rig): string => `${JSON.stringify(rig, null, 2)}\n`;
