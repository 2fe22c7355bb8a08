import type { Remark } from '../findings/finding';
import { resolveState, settingOf, stateIn } from '../rig/device-state';
import { kindOf, settingWith } from '../kinds';
import { settingWords } from '../rig/words';
import { fixed } from '../units';
import type { Remarker } from './evidence';
import { pickupInto } from './tone-loss';

/** Treble, in dB at 5 kHz, that an input impedance must take before it is worth a word. */
const WORTH_SAYING_DB = 1;
/** Peaks this far under the clip point leave so much unused that the other setting is better, in dB. */
const UNUSED_DB = 14;

/**
 * How a host's input is set: its impedance, with what it does to the tone of a bare pickup, and its
 * level.
 */
export const hostInputRemarks: Remarker = ({ ctx, stations, tones }) => {
  const inputs = new Map(
    stations.toReversed().flatMap((s) => (s.ins.includes('in') ? [[s.device, s] as const] : [])),
  );
  return ctx.rig.devices.flatMap((device): Remark[] => {
    const kind = kindOf(device.kind);
    const remarks: Remark[] = [];
    const state = stateIn(ctx.sound, device.id);
    const now = (setting: string) => settingOf(kind, device, state, setting);
    const set = (setting: string, value: string) => ({
      words: `Set ${device.name}, ${settingWords(kind.id, setting, value)}`,
      edits: [{ edit: 'setSetting' as const, device: device.id, setting, value }],
    });
    const load = settingWith(kind, 'input load')?.id;
    const inputLevel = settingWith(kind, 'input level')?.id;
    if (load !== undefined && now(load) !== 'full') {
      const tone = tones.find((t) => t.bare && t.listener === device.id);
      const full =
        tone &&
        pickupInto(
          ctx,
          tone.driver,
          tone.leadPf,
          resolveState(kind, device, state).figure('inputOhms'),
        );
      if (tone && full && full.at5kHzDb - tone.at5kHzDb >= WORTH_SAYING_DB) {
        remarks.push({
          rule: 'host-input',
          severity: 'advice',
          subjects: [device.id, tone.driver],
          about: `${device.id}+load`,
          what:
            `${device.name} loads ${ctx.device(tone.driver).name}: ` +
            settingWords(kind.id, load, String(now(load))) +
            '.',
          why:
            `That takes ${fixed(full.at5kHzDb - tone.at5kHzDb)} dB at 5 kHz ` +
            `and ${fixed(full.at1kHzDb - tone.at1kHzDb)} dB at 1 kHz against the highest ` +
            'setting. It is right only where a block wants to be loaded like a pedal.',
          fix: set(load, 'full'),
        });
      }
    }
    const station = inputs.get(device.id);
    if (
      inputLevel !== undefined &&
      now(inputLevel) === 'line' &&
      (station?.headroomDb ?? 0) > UNUSED_DB
    ) {
      remarks.push({
        rule: 'host-input',
        severity: 'advice',
        subjects: [device.id],
        about: `${device.id}+level`,
        what: `${device.name} is set to line level and gets far less.`,
        why:
          `Peaks stay ${fixed(station!.headroomDb!)} dB under its clip point; at line level its input ` +
          'takes more than ever comes, and adds more noise for it.',
        fix: set(inputLevel, 'instrument'),
      });
    }
    return remarks;
  });
};
