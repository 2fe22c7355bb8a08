import type { Kind } from './kind';
import { ampCabSimulator } from './amp-cab-simulator';
import { boost } from './boost';
import { buffer } from './buffer';
import { cabinet } from './cabinet';
import { chorus } from './chorus';
import { comboTubeLoop } from './combo-tube-loop';
import { comboTube } from './combo-tube';
import { compressor } from './compressor';
import { consoleInputStereo } from './console-input-stereo';
import { consoleInput } from './console-input';
import { delayAnalog } from './delay-analog';
import { delay } from './delay';
import { directBox } from './direct-box';
import { driveHigh } from './drive-high';
import { driveLow } from './drive-low';
import { driveMid } from './drive-mid';
import { electricMandolin } from './electric-mandolin';
import { envelopeFilter } from './envelope-filter';
import { eq } from './eq';
import { fuzzLowImpedance } from './fuzz-low-impedance';
import { gate } from './gate';
import { guitarActive } from './guitar-active';
import { guitarBaritone } from './guitar-baritone';
import { guitarHumbucker } from './guitar-humbucker';
import { guitarSingleCoil } from './guitar-single-coil';
import { headTube } from './head-tube';
import { inEarMix } from './in-ear-mix';
import { instrumentPiezo } from './instrument-piezo';
import { lapSteel } from './lap-steel';
import { lineInstrument } from './line-instrument';
import { looper } from './looper';
import { microphone } from './microphone';
import { mixerLine } from './mixer-line';
import { octave } from './octave';
import { phaser } from './phaser';
import { pitchShifter } from './pitch-shifter';
import { poweredSpeaker } from './powered-speaker';
import { recorder } from './recorder';
import { reverb } from './reverb';
import { rotary } from './rotary';
import { splitterBuffered } from './splitter-buffered';
import { splitterPassive } from './splitter-passive';
import { trebleBooster } from './treble-booster';
import { tremolo } from './tremolo';
import { tunerBuffered } from './tuner-buffered';
import { tunerRack } from './tuner-rack';
import { tunerTrueBypass } from './tuner-true-bypass';
import { volumeActive } from './volume-active';
import { volumePassive } from './volume-passive';
import { wah } from './wah';
import { wireless } from './wireless';

/** Every kind, in the order a person picks from. Adding a kind is adding its file and its line here. */
export const KINDS: readonly Kind[] = [
  electricMandolin,
  guitarActive,
  guitarBaritone,
  guitarHumbucker,
  guitarSingleCoil,
  instrumentPiezo,
  lapSteel,
  lineInstrument,
  buffer,
  tunerBuffered,
  tunerTrueBypass,
  wireless,
  compressor,
  envelopeFilter,
  eq,
  gate,
  wah,
  octave,
  pitchShifter,
  boost,
  driveHigh,
  driveLow,
  driveMid,
  fuzzLowImpedance,
  trebleBooster,
  volumeActive,
  volumePassive,
  chorus,
  phaser,
  rotary,
  tremolo,
  delay,
  delayAnalog,
  looper,
  reverb,
  mixerLine,
  splitterBuffered,
  splitterPassive,
  ampCabSimulator,
  cabinet,
  comboTube,
  comboTubeLoop,
  headTube,
  microphone,
  poweredSpeaker,
  consoleInput,
  consoleInputStereo,
  directBox,
  inEarMix,
  recorder,
  tunerRack,
];

const BY_ID = new Map(KINDS.map((k) => [k.id, k]));

/** The kind with this id, or nothing. */
export const findKind = (id: string): Kind | undefined => BY_ID.get(id);

/** The kind with this id; a document that was read has only kinds that exist, so anything else is a bug. */
export function kindOf(id: string): Kind {
  const kind = BY_ID.get(id);
  if (!kind) throw new Error(`No device kind is called "${id}"`);
  return kind;
}
