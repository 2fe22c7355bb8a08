import type { DeviceState, Stage } from './kind';
import {
  figure,
  highestGain,
  inputOhms,
  outputOhms,
  noise,
  ceiling,
  knob,
  between,
  stage,
  lowCut,
  tilt,
  readsDb,
} from './parts';

/** Gain and level ranges of a drive, with the ceiling of its clipping parts. */
export const driveFigures = (p: {
  low: number;
  high: number;
  clip: number;
  why: string;
  inOhms?: number;
  noiseDbu?: number;
  /** A line output behind its level control; else the control is what comes out. */
  lineOhms?: number;
}) => [
  inputOhms(p.inOhms ?? 500_000, 'the bias resistor of the first transistor or op-amp'),
  p.lineOhms === undefined
    ? outputOhms(5000, 'a level pot part of the way up')
    : outputOhms(p.lineOhms, 'a line output'),
  noise(p.noiseDbu ?? -100, 'op-amp and transistor drives, before their own gain'),
  ceiling(p.clip, p.why),
  figure('gainLowDb', 'Gain with the drive knob down', 'dB', p.low, [-20, 80], p.why),
  highestGain('Gain with the drive knob full', p.high, [-20, 100], p.why),
  figure(
    'levelLowDb',
    'Output with the level knob down',
    'dB',
    -30,
    [-120, 40],
    'the level pot turned to the end that still passes a little',
  ),
  figure(
    'levelHighDb',
    'Output with the level knob full',
    'dB',
    12,
    [-60, 60],
    'what drives add behind the clipping at most',
  ),
];

export const driveKnobs = (drive: number, level: number) => [
  knob('drive', 'Drive', drive, readsDb('gainLowDb', 'gainHighDb')),
  knob('tone', 'Tone', 5),
  knob('level', 'Level', level, readsDb('levelLowDb', 'levelHighDb')),
];

/** A clipping stage set by drive, tone and level knobs. */
export const driveStage = (s: DeviceState, tiltRange: number, part: Partial<Stage> = {}): Stage =>
  stage(s, {
    gainDb: between(s.figure('gainLowDb'), s.figure('gainHighDb'), s.knob('drive')),
    ceiling: { dbu: s.figure('ceilingDbu'), shape: 'soft', meant: true },
    outputDb: between(s.figure('levelLowDb'), s.figure('levelHighDb'), s.knob('level')),
    tiltDb: tilt(s.knob('tone'), tiltRange),
    filters: lowCut(120),
    ...part,
  });
