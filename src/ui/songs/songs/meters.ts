import type { Meter } from '../../../core/rig/schema';

/** Meters that a song is offered. */
export const METERS = ['2/4', '3/4', '4/4', '5/4', '6/8', '7/8', '9/8', '12/8'];
export const meterOf = (text: string): Meter => ({
  beats: Number(text.split('/')[0]),
  unit: Number(text.split('/')[1]) as Meter['unit'],
});
