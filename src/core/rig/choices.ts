/*
 * Words that a document may choose from, and how much it may hold: by themselves, since lists on
 * screen and readers of files need them where no document is checked.
 */

/** Ways in which a rig can be heard; `stage` is a loudspeaker there that is no amplifier. */
export const WAYS = ['head', 'combo', 'stage', 'house', 'in-ears', 'recorder'] as const;

/** What makes the sound of an amplifier. */
export const VOICES = ['amplifiers', 'modeler', 'simulator', 'none'] as const;
/** What switches pedals: each by its own foot switch, or loops in a fixed or a free order. */
export const SWITCHINGS = ['foot', 'loops-fixed', 'loops-free'] as const;
/** What calls sounds by MIDI: nothing, whatever switches or models, a foot controller, a tablet. */
export const CALLERS = ['none', 'own', 'controller', 'tablet'] as const;

/** What a sound should be like, from the cleanest. */
export const CHARACTERS = ['clean', 'edge', 'crunch', 'saturated', 'special'] as const;

/** Letters of a chart. */
export const MOST_CHART = 20_000;

/** How a plug leaves its jack: how far it stands out differs. */
export const PLUG_SHAPES = ['straight', 'right-angle', 'flat'] as const;

export type PlugShape = (typeof PLUG_SHAPES)[number];

/** Edges of a device, seen from above with the front towards the player. */
export const EDGES = ['left', 'right', 'front', 'rear'] as const;
export type Edge = (typeof EDGES)[number];
