import { kindOf, settingWith } from '../kinds';
import { fixed } from '../units';
import { type Fix, fixes } from '../findings/finding';
import { arrivingFigures, type StationFigures } from '../signal';
import type { SoundContext } from '../signal/sound-context';
import type { Remarker } from './evidence';
import { gainFixes, roomFixes, setBackFixes } from './headroom';

/** What the gain of an input makes good, in dB. */
const A_TURN_DB = 10;

/**
 * Whether a destination gets the level that its input, as set, is made for; offers the other
 * setting where there is one that fits better.
 */
export const inputLevelRemarks: Remarker = ({ ctx, stations, destinations, wantsFixes }) =>
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
          ...(wantsFixes ? turns(ctx, stations, d.device, { low, high, level }) : []),
        ]),
      },
    ];
  });

/** Knobs on the way that bring the level into the window: turned down on a copy, or set back from an end. */
function turns(
  ctx: SoundContext,
  stations: readonly StationFigures[],
  destination: string,
  { low, high, level }: { low: number; high: number; level: number },
): Fix[] {
  const station = stations.find((s) => s.device === destination);
  if (!station) return [];
  if (level < low) return setBackFixes(ctx, station);
  const fits = (tried: SoundContext) => {
    const there = arrivingFigures(tried).find((d) => d.device === destination)?.levelDbu?.normal;
    return there !== undefined && there <= high;
  };
  return gainFixes(ctx, station, undefined, fits);
}

/** Pads of what plugs into a destination, where they are off. */
const padsInto = ({ rig, sound, device }: SoundContext, destination: string): Fix[] =>
  rig.leads
    .filter((l) => l.to.device === destination)
    .flatMap((l) => roomFixes(sound, device(l.from.device)));
