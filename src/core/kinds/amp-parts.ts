import { dbuOfVolts } from '../units';
import type { DeviceState, Figure, Jack, Parameter, Stage } from './kind';
import { between, ceiling, choice, figure, inputOhms, knob, noise, outputOhms, readsDb, stage, tilt } from './parts';

export const ampFigures = (p: { low: number; high: number; watts: number; ohms: number; why: string }): Figure[] => [
  inputOhms(1e6, 'the grid-leak resistor of the first tube'),
  outputOhms(0.5, 'an output transformer at its tap, taken as a stiff source'),
  noise(-100, 'a tube input stage'),
  ceiling(6, 'the preamplifier’s last tube, at the send'),
  figure('gainLowDb', 'Preamplifier gain with the knob down', 'dB', p.low, [-40, 80], p.why),
  figure('gainHighDb', 'Preamplifier gain with the knob full', 'dB', p.high, [-20, 100], p.why),
  figure('sendOhms', 'Send output impedance', 'Ω', 1000, [0, 1e6], 'a buffered send'),
  figure('returnOhms', 'Return input impedance', 'Ω', 47_000, [1000, 1e7], 'a buffered return'),
  figure('powerGainDb', 'Power stage gain', 'dB', 32, [0, 60], 'from loop level to the speaker'),
  figure('powerNoiseDbu', 'Power stage input noise', 'dBu', -95, [-140, -40], 'a phase inverter at loop level'),
  figure('watts', 'Rated power', 'W', p.watts, [0.1, 2000], p.why),
  figure('tapOhms', 'Speaker tap', 'Ω', p.ohms, [2, 32], 'the tap in use'),
];

export const ampKnobs: Parameter[] = [
  knob('gain', 'Gain', 4, readsDb('gainLowDb', 'gainHighDb')),
  knob('tone', 'Tone', 5),
  knob('master', 'Master', 5, (v) => `${between(-40, 0, v).toFixed(1).replace('-', '−')} dB`),
];

export const ampWords = { on: 'on', off: 'standby' };

export const loopJacks: Jack[] = [
  { id: 'send', label: 'loop send', direction: 'out', signal: 'audio', connector: 'TS' },
  { id: 'return', label: 'loop return', direction: 'in', signal: 'audio', connector: 'TS' },
];

export const airJack: Jack = { id: 'air', label: 'in front of the speaker', direction: 'out', signal: 'air', connector: 'air', many: true };

/** First stages, tone and master: from the input to the loop. They clip softly and are meant to. */
export const preamp = (s: DeviceState, to: string): Stage =>
  stage(s, {
    id: 'preamp', to, outOhms: s.figure('sendOhms'), inverts: true, muted: !s.engaged,
    gainDb: between(s.figure('gainLowDb'), s.figure('gainHighDb'), s.knob('gain')),
    ceiling: { dbu: s.figure('ceilingDbu'), shape: 'soft', meant: true },
    outputDb: between(-40, 0, s.knob('master')),
    tiltDb: tilt(s.knob('tone'), 6),
  });

/** From the loop to the speaker: rated power into the tap is the ceiling, `V = √(P·Z)`. */
export const powerStage = (s: DeviceState, from: string, to: string): Stage =>
  stage(s, {
    id: 'power', from, to, inOhms: s.figure('returnOhms'), noiseDbu: s.figure('powerNoiseDbu'), inverts: true, muted: !s.engaged,
    gainDb: s.figure('powerGainDb'),
    ceiling: { dbu: dbuOfVolts(Math.sqrt(s.figure('watts') * s.figure('tapOhms'))), shape: 'soft', meant: true },
  });

/** A speaker as a microphone meets it: what its terminals get, brought down to what a close microphone gives. */
export const inFrontOf = (s: DeviceState, from: string): Stage => ({
  is: 'stage', id: 'air', from, to: 'air', inOhms: Infinity, outOhms: 0, gainDb: s.figure('airDb'), outputDb: 0, noiseDbu: -Infinity,
  ceiling: { dbu: 60, shape: 'hard', meant: false }, latencyMs: 0, inverts: false, tiltDb: -6, groundThrough: false,
});

export const airFigure = figure('airDb', 'Speaker terminals to a close microphone', 'dB', -58, [-120, 0], 'a cabinet of usual sensitivity and a dynamic microphone at the cloth');

export const inputSelect = choice('input', 'Input', ['mic', 'microphone'], ['line', 'line']);
