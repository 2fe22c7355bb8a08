import type { Fix } from '../findings/finding';
import { settingOf, stateIn } from '../rig/device-state';
import { kindOf, type SettingRole, settingWith } from '../kinds';
import type { Device, State } from '../rig/schema';
import { settingWords } from '../rig/words';
import { fixed, showLevel } from '../units';
import type { Remarker } from './evidence';

/** Under this much room, in dB, loud notes may clip. */
export const TIGHT_DB = 3;

/**
 * Room between the peak at normal picking and the clip point: under 3 dB a caution, under 0 a
 * fault, unless clipping is meant.
 */
export const headroomRemarks: Remarker = ({ ctx, stations }) =>
  stations.flatMap((s) => {
    if (s.headroomDb === null || s.headroomDb >= TIGHT_DB) return [];
    const name = ctx.device(s.device).name;
    const over = s.headroomDb < 0;
    const peak = (s.input ?? s.output).peakDbu;
    return [
      {
        rule: 'headroom',
        severity: over ? ('fault' as const) : ('caution' as const),
        subjects: [s.device],
        what: over ? `${name} clips, and it is not meant to.` : `${name} has little headroom.`,
        why:
          `Peaks reach ${showLevel(peak)} at its input when playing normally; that ` +
          `is ${over ? `${fixed(-s.headroomDb)} dB over` : `${fixed(s.headroomDb)} dB under`} ` +
          'what it takes. Bring what comes before it down ' +
          `by ${fixed(TIGHT_DB - s.headroomDb)} dB.`,
        fix: roomFix(ctx.device(s.device), stateIn(ctx.sound, s.device)),
      },
    ];
  });

/** Settings that give an input more room, where a device has one and it is not set so. */
const ROOM: readonly [role: SettingRole, value: string][] = [
  ['pad', 'low'],
  ['input level', 'line'],
];

function roomFix(device: Device, state: State | undefined): Fix | undefined {
  const kind = kindOf(device.kind);
  for (const [role, value] of ROOM) {
    const setting = settingWith(kind, role)?.id;
    if (setting === undefined || settingOf(kind, device, state, setting) === value) continue;
    return {
      words: `Set ${device.name}, ${settingWords(kind.id, setting, value)}`,
      edits: [{ edit: 'setSetting', device: device.id, setting, value }],
    };
  }
  return undefined;
}
