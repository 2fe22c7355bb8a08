import type { NoteAt } from './figures';
import type { NoiseAt } from './noise';

/** How far a note is over the noise while it is played, both weighted, in dB. */
export const overNoise = (note: NoteAt | null, { playing }: NoiseAt): number | null =>
  note && playing ? note.touches[1].loudnessDbu - playing.weightedDbu : null;
