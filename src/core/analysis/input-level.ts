import { kindOf, settingWith } from '../kinds';
import { fixed } from '../units';
import { type Fix, fixes } from '../findings/finding';
import type { SoundContext } from '../signal/sound-context';
import type { Remarker } from './evidence';
import { roomFixes } from './headroom';

/** What the gain of an input makes good, in dB. */
const A_TURN_DB = 10;

/**
 * Whether a destination gets the level that its input, as set, is made for; offers the other
 * setting where there is one that fits better.
 */
export const inputLevelRemarks: Remarker = ({ ctx, destinations }) =>
  destinations.flatMap((d) => {
    const arrive = ctx.flowing.circuit.arrivals.find((a) => a.device === d.device)?.arrive;
    if (!arrive?.wantsDbu || !d.levelDbu) return [];
    const [low, high] = arrive.wantsDbu;
    const level = d.levelDbu.normal;
    if (level >= low && level <= high) return [];
    const input = settingWith(kindOf(ctx.device(d.device).kind), 'microphone or line');
    // Softer by less than this costs a turn of the input's gain, and no more than its noise.
    const tooSoft = level < low && level > low - A_TURN_DB;
    const better = level > high ? 'line' : 'mic';
    const isMic = high < 0;
    const option =
      input?.type === 'choice' && isMic === (better === 'line')
        ? input.options.find((o) => o.value === better)
        : undefined;
    return [
      {
        rule: 'input-level',
        severity: tooSoft ? ('advice' as const) : ('caution' as const),
        subjects: [d.device],
        what: `${d.name} gets ${level > high ? 'more' : 'less'} level than its input is made for.`,
        why: `${fixed(level)} dBu arrives; the input as set wants ${fixed(low, 0)} to ${fixed(high, 0)} dBu.`,
        ...fixes([
          ...(level > high ? padsInto(ctx, d.device) : []),
          ...(input && option
            ? [
                {
                  words: `Set the input to ${option.label}`,
                  edits: [
                    {
                      edit: 'setSetting' as const,
                      device: d.device,
                      setting: input.id,
                      value: better,
                    },
                  ],
                },
              ]
            : []),
        ]),
      },
    ];
  });

/** Pads of what plugs into a destination, where they are off. */
const padsInto = ({ rig, sound, device }: SoundContext, destination: string): Fix[] =>
  rig.leads
    .filter((l) => l.to.device === destination)
    .flatMap((l) => roomFixes(sound, device(l.from.device)));
