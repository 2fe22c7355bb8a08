import type { Rig, SettingValue } from '../rig/schema';
import { kindOfSheet, type Sheet } from '../rig/sheets';
import { soundContext } from '../signal';
import { pointFigures } from '../signal/station-figures';

/** What comes out of a jack of a box: level in dBu, saturation in percent, both also when played hard. */
export interface TriedJack {
  jack: string;
  label: string;
  levelDbu: number | null;
  hardDbu: number | null;
  hardPercent: number | null;
  noiseDbu: number | null;
  latencyMs: number | null;
}

const SOURCE = 'try-source';
const BOX = 'try-box';
/** How much louder hard picking is, in dB. */
const HARD_DB = 6;

/**
 * Feeds a box on its bench: an instrument of `dbu` at its first input, a usual input at each of its outputs,
 * its loops empty, its controls as given. Hard picking is 6 dB more.
 *
 *     trySheet(sheet, -18)[0]?.levelDbu
 */
export function trySheet(
  sheet: Sheet,
  dbu: number,
  settings: Record<string, SettingValue> = {},
  engaged = true,
): TriedJack[] {
  const kind = kindOfSheet(sheet);
  const input = kind.through?.in ?? kind.jacks.find((j) => j.direction === 'in')?.id;
  const sends = (kind.loops ?? []).flatMap((l) => l.send);
  const outputs = kind.jacks.filter(
    (j) => j.direction === 'out' && j.signal === 'audio' && !sends.includes(j.id),
  );
  const rig: Rig = {
    format: 'yantrel-rig',
    version: 1,
    id: 'try',
    name: 'Bench',
    sheets: [sheet],
    devices: [
      {
        id: SOURCE,
        kind: 'guitar-active',
        name: 'Bench',
        figures: {
          nominalDbu: { value: dbu, from: 'measured' as const },
          peakDbu: { value: dbu + HARD_DB, from: 'measured' as const },
        },
      },
      { id: BOX, kind: kind.id, name: sheet.name, engaged, settings },
      ...outputs.map((_, i) => ({ id: `in-${i}`, kind: 'recorder', name: `Input ${i + 1}` })),
    ],
    leads: [
      ...(input === undefined
        ? []
        : [lead('in', { device: SOURCE, jack: 'out' }, { device: BOX, jack: input })]),
      ...outputs.map((j, i) =>
        lead(`out-${i}`, { device: BOX, jack: j.id }, { device: `in-${i}`, jack: 'in' }),
      ),
    ],
    sounds: [{ id: 'as-set', name: 'As set', states: {} }],
  };
  const [sound] = rig.sounds;
  if (!sound) return [];
  const ctx = soundContext(rig, sound);
  return outputs.map((j) => {
    const at = pointFigures(ctx, BOX, j.id);
    return {
      jack: j.id,
      label: j.label,
      levelDbu: at.levelDbu?.normal ?? null,
      hardDbu: at.levelDbu?.hard ?? null,
      hardPercent: at.thdPercent?.hard ?? null,
      noiseDbu: at.noiseDbu,
      latencyMs: at.latencyMs,
    };
  });
}

const lead = (id: string, from: Rig['leads'][number]['from'], to: Rig['leads'][number]['to']) => ({
  id,
  from,
  to,
  metres: 0,
  type: 'instrument' as const,
});
