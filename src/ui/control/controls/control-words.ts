import type { Curve } from '../../../core/units';
import { deviceOf } from '../../../core/rig/find';
import type { Assignment, Control, Rig, SettingValue } from '../../../core/rig/schema';
import { settingWords } from '../../../core/rig/words';

export const TYPES: { value: Control['type']; label: string }[] = [
  { value: 'switch', label: 'switch' },
  { value: 'pedal', label: 'pedal' },
  { value: 'tap', label: 'tap' },
  { value: 'message', label: 'MIDI message' },
  { value: 'tempo', label: 'tempo' },
];
export const CURVE_NAMES: Record<Curve, string> = {
  linear: 'linear',
  'equal-power': 'equal power',
  audio: 'audio',
  'reverse-audio': 'reverse audio',
};

/** A value that an assignment gives, in words. */
export const valueWords = (rig: Rig, a: Assignment, value: SettingValue): string =>
  a.setting === 'engaged'
    ? value
      ? 'engaged'
      : 'bypassed'
    : settingWords(
        deviceOf(rig, a.device)?.kind,
        a.setting,
        typeof value === 'number' ? Number(value.toFixed(1)) : value,
      );
