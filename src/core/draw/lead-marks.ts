import type { Lead } from '../rig/schema';

/** Two letters for a lead type. */
export const LEAD_TAGS: Record<Lead['type'], string> = {
  instrument: 'TS',
  balanced: 'BL',
  stereo: 'ST',
  insert: 'IN',
  speaker: 'SP',
  digital: 'DG',
  midi: 'MI',
  usb: 'US',
  control: 'CT',
  air: 'AR',
  inside: 'LK',
};
/** Line pattern of a lead type. */
export const LEAD_DASH: Record<Lead['type'], string | undefined> = {
  instrument: undefined,
  balanced: '9 3',
  stereo: '12 3 3 3',
  insert: '6 2 2 2',
  speaker: '16 4',
  digital: '3 3',
  midi: '2 4',
  usb: '2 2',
  control: '7 2 1 2',
  air: '1 5',
  inside: '1 3',
};
export const LEAD_NAMES: Record<Lead['type'], string> = {
  instrument: 'instrument (TS)',
  balanced: 'balanced',
  stereo: 'stereo (TRS)',
  insert: 'insert',
  speaker: 'speaker',
  digital: 'digital',
  midi: 'MIDI',
  usb: 'USB',
  control: 'control',
  air: 'air',
  inside: 'link inside a host',
};
