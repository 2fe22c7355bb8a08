/** What a lead is for. */
export const LEAD_TYPES = [
  'instrument',
  'balanced',
  'stereo',
  'insert',
  'speaker',
  'digital',
  'midi',
  'usb',
  'control',
  'air',
  'inside',
] as const;
/** Leads that carry messages or the state of a control, not sound. */
export const CONTROL_LEADS: readonly (typeof LEAD_TYPES)[number][] = ['midi', 'usb', 'control'];
