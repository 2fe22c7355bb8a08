import type { DeviceState, Pass, Plugged, Stage } from './kind';
import { mixed, pedalFigures, sides, stage } from './parts';
import { midiFigures } from './midi-parts';

/** What each side of a digital effect does when engaged, besides being late; and what rings on in bypass. */
interface Digital {
  wet: Stage['wet'];
  /** Over what the sum of two sides into one output takes, in dB. */
  outputDb?: number;
  rings?: boolean;
  ringsBypassed?: boolean;
}

/** The passes of a digital effect in stereo: late and wet when engaged, a quiet buffer in bypass. */
export const digitalEffect = (
  s: DeviceState,
  plugged: Plugged,
  { wet, outputDb = 0, rings, ringsBypassed }: Digital,
): Pass[] =>
  sides(plugged, (from, to, side, gainDb) => {
    const way = { id: side ?? from, from, to };
    return [
      stage(
        s,
        s.engaged
          ? {
              side,
              wet,
              latencyMs: s.figure('latencyMs'),
              outputDb: gainDb + outputDb,
              ...way,
              ...(rings && { rings }),
            }
          : {
              outputDb: gainDb,
              noiseDbu: -105,
              ...way,
              ...(ringsBypassed && { rings: ringsBypassed }),
            },
      ),
    ];
  });

/** One whose wet sound is mixed to the dry by its knob *mix*. */
export const mixedEffect = (
  s: DeviceState,
  plugged: Plugged,
  rest: Omit<Digital, 'wet' | 'outputDb'> = {},
): Pass[] => digitalEffect(s, plugged, { wet: mixed(s.knob('mix')), ...rest });

/** Figures of a digital pedal: converters on both ends. */
export const digitalFigures = () => pedalFigures(1e6, -95, 'converters on both ends');

/** How long a digital pedal with presets takes to answer. */
export const presetFigures = () =>
  midiFigures({ programMs: 25, controlMs: 4, why: 'a digital pedal that loads a preset' });

/** Programs of a digital pedal with presets, and what switches it on and off. */
export const PRESETS = { count: 128, bank: 'none', shows: { from: 0 } } as const;
export const ENGAGED_BY_CC = {
  setting: 'engaged',
  cc: 102,
  ways: ['absolute', 'toggle'],
} as const;
