import type { DeviceState, Pass } from './kind';
import { figure } from './parts';

/** Figures of a console's input, as a microphone and as a line input. */
export const deskFigures = [
  figure('micOhms', 'Microphone input impedance', 'Ω', 2000, [200, 1e6], 'ten times a microphone'),
  figure('lineOhms', 'Line input impedance', 'Ω', 10_000, [600, 1e6], 'ten times a line output'),
  figure(
    'micMaxDbu',
    'Microphone input clips at',
    'dBu',
    -4,
    [-60, 30],
    'with the gain set for a close microphone',
  ),
  figure('lineMaxDbu', 'Line input clips at', 'dBu', 20, [-20, 30], 'a professional line input'),
  figure(
    'micNoiseDbu',
    'Equivalent input noise, microphone',
    'dBu',
    -125,
    [-140, -40],
    'a good microphone amplifier',
  ),
  figure(
    'lineNoiseDbu',
    'Equivalent input noise, line',
    'dBu',
    -100,
    [-140, -40],
    'a line input with its pad',
  ),
];

/**
 * What a console's input does with what arrives: a microphone input wants −40 to −20 dBu, here with
 * 5 dB of tolerance, a line input −25 to +10.
 */
export const deskInput = (s: DeviceState, at: string): Pass =>
  s.choice('input') === 'mic'
    ? {
        is: 'arrive',
        at,
        ohms: s.figure('micOhms'),
        maxDbu: s.figure('micMaxDbu'),
        noiseDbu: s.figure('micNoiseDbu'),
        wantsDbu: [-45, -15],
        fullRange: true,
      }
    : {
        is: 'arrive',
        at,
        ohms: s.figure('lineOhms'),
        maxDbu: s.figure('lineMaxDbu'),
        noiseDbu: s.figure('lineNoiseDbu'),
        wantsDbu: [-25, 10],
        fullRange: true,
      };
