import { createSpotlight } from '@mantine/spotlight';

/** Whether the palette is open: the keys of the page ask it, so it stands apart from the palette. */
export const [paletteStore, palette] = createSpotlight();
