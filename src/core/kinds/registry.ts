import QuickLRU from 'quick-lru';
import { headTubeMasters } from './head-tube-masters';
import { splitterMicrophone } from './splitter-microphone';
import { supplyBattery } from './supply-battery';
import { supplyAdapter } from './supply-adapter';
import { modulationDigital } from './modulation-digital';
import { directBoxActive } from './direct-box-active';
import { microphoneCondenser } from './microphone-condenser';
import { fuzz } from './fuzz';
import { ampCabSimulatorTrs } from './amp-cab-simulator-trs';
import { mixFeed } from './mix-feed';
import { headTubeDigital } from './head-tube-digital';
import { pickupSimulator } from './pickup-simulator';
import type { Kind } from './kind';
import { slicer } from './slicer';
import { clockBox } from './clock-box';
import { footSwitch } from './foot-switch';
import { expressionPedal } from './expression-pedal';
import { usbIsolator } from './usb-isolator';
import { usbMidiHost } from './usb-midi-host';
import { midiMerge } from './midi-merge';
import { midiThruBox } from './midi-thru-box';
import { setListApp } from './set-list-app';
import { footController } from './foot-controller';
import { ampBlock } from './amp-block';
import { ampCabSimulator } from './amp-cab-simulator';
import { ampSwitcher } from './amp-switcher';
import { attenuator } from './attenuator';
import { blendLoop } from './blend-loop';
import { boost } from './boost';
import { buffer } from './buffer';
import { cabBlock } from './cab-block';
import { cabinet } from './cabinet';
import { chorus } from './chorus';
import { combinerPassive } from './combiner-passive';
import { comboModeling } from './combo-modeling';
import { comboTube } from './combo-tube';
import { comboTubeLoop } from './combo-tube-loop';
import { compressor } from './compressor';
import { consoleInput } from './console-input';
import { consoleInputStereo } from './console-input-stereo';
import { delay } from './delay';
import { delayDual } from './delay-dual';
import { delayAnalog } from './delay-analog';
import { directBox } from './direct-box';
import { driveHigh } from './drive-high';
import { driveLow } from './drive-low';
import { driveMid } from './drive-mid';
import { electricMandolin } from './electric-mandolin';
import { envelopeFilter } from './envelope-filter';
import { eq } from './eq';
import { feedback } from './feedback';
import { fuzzLowImpedance } from './fuzz-low-impedance';
import { gate } from './gate';
import { gateLoop } from './gate-loop';
import { guitarActive } from './guitar-active';
import { guitarBaritone } from './guitar-baritone';
import { guitarHumbucker } from './guitar-humbucker';
import { guitarSingleCoil } from './guitar-single-coil';
import { headTube } from './head-tube';
import { headTubeTwo } from './head-tube-two';
import { humIsolator } from './hum-isolator';
import { inEarMix } from './in-ear-mix';
import { inputSelector } from './input-selector';
import { insertJack } from './insert-jack';
import { insertPoint } from './insert-point';
import { insertPowered } from './insert-powered';
import { mainsInlet } from './mains-inlet';
import { footSwitchDouble } from './foot-switch-double';
import { instrumentDigital } from './instrument-digital';
import { instrumentDual } from './instrument-dual';
import { instrumentPiezo } from './instrument-piezo';
import { lapSteel } from './lap-steel';
import { lineInstrument } from './line-instrument';
import { lineSelector } from './line-selector';
import { loopSwitcher } from './loop-switcher';
import { loopSwitcherFixed } from './loop-switcher-fixed';
import { looper } from './looper';
import { microphone } from './microphone';
import { microphoneVoice } from './microphone-voice';
import { mixerLine } from './mixer-line';
import { mixerStereo } from './mixer-stereo';
import { modelerCompact } from './modeler-compact';
import { modelerFloor } from './modeler-floor';
import { modelerRack } from './modeler-rack';
import { octave } from './octave';
import { octaveDual } from './octave-dual';
import { pan } from './pan';
import { panel } from './panel';
import { phaser } from './phaser';
import { pitchShifter } from './pitch-shifter';
import { playback } from './playback';
import { powerAmp } from './power-amp';
import { poweredSpeaker } from './powered-speaker';
import { recorder } from './recorder';
import { reverb } from './reverb';
import { rotary } from './rotary';
import { speakerSeries } from './speaker-series';
import { splitterBuffered } from './splitter-buffered';
import { splitterIsolated } from './splitter-isolated';
import { splitterPassive } from './splitter-passive';
import { splitterTuner } from './splitter-tuner';
import { powerConditioner } from './power-conditioner';
import { supplyIsolated } from './supply-isolated';
import { supplyLarge } from './supply-large';
import { supplyShared } from './supply-shared';
import { synthPedal } from './synth-pedal';
import { trebleBooster } from './treble-booster';
import { tremolo } from './tremolo';
import { tunerBuffered } from './tuner-buffered';
import { tunerRack } from './tuner-rack';
import { tunerTrueBypass } from './tuner-true-bypass';
import { volumeActive } from './volume-active';
import { volumePassive } from './volume-passive';
import { volumeTwoChannel } from './volume-two-channel';
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
  instrumentDual,
  instrumentDigital,
  lapSteel,
  lineInstrument,
  microphoneVoice,
  playback,
  mixFeed,
  buffer,
  pickupSimulator,
  tunerBuffered,
  tunerTrueBypass,
  wireless,
  compressor,
  envelopeFilter,
  eq,
  gate,
  gateLoop,
  wah,
  octave,
  octaveDual,
  pitchShifter,
  feedback,
  synthPedal,
  boost,
  driveHigh,
  driveLow,
  driveMid,
  fuzzLowImpedance,
  fuzz,
  trebleBooster,
  volumeActive,
  volumePassive,
  volumeTwoChannel,
  chorus,
  phaser,
  rotary,
  slicer,
  tremolo,
  modulationDigital,
  delay,
  delayDual,
  delayAnalog,
  looper,
  reverb,
  mixerLine,
  mixerStereo,
  splitterBuffered,
  splitterPassive,
  splitterIsolated,
  splitterMicrophone,
  splitterTuner,
  combinerPassive,
  lineSelector,
  loopSwitcher,
  loopSwitcherFixed,
  ampSwitcher,
  blendLoop,
  insertPoint,
  insertPowered,
  mainsInlet,
  footSwitchDouble,
  insertJack,
  inputSelector,
  pan,
  humIsolator,
  panel,
  ampCabSimulator,
  ampCabSimulatorTrs,
  modelerCompact,
  modelerFloor,
  modelerRack,
  comboModeling,
  ampBlock,
  cabBlock,
  cabinet,
  comboTube,
  comboTubeLoop,
  headTube,
  headTubeTwo,
  headTubeMasters,
  headTubeDigital,
  powerAmp,
  attenuator,
  speakerSeries,
  microphone,
  microphoneCondenser,
  poweredSpeaker,
  consoleInput,
  consoleInputStereo,
  directBox,
  directBoxActive,
  inEarMix,
  recorder,
  tunerRack,
  footController,
  setListApp,
  midiThruBox,
  midiMerge,
  usbMidiHost,
  usbIsolator,
  expressionPedal,
  footSwitch,
  clockBox,
  powerConditioner,
  supplyIsolated,
  supplyLarge,
  supplyShared,
  supplyAdapter,
  supplyBattery,
];

const BY_ID = new Map(KINDS.map((k) => [k.id, k]));

/** How many kinds of one's own are kept, up to twice as many; a rig that is looked at brings its own with it again. */
const MOST_OWN = 10_000;
const own = new QuickLRU<string, Kind>({ maxSize: MOST_OWN });

/**
 * Makes a kind known that a rig brings with it. Its id must be a mark of all that it says: the same
 * id is always the same kind, so that nothing hangs on what was known before.
 */
export function learnKind(id: string, make: (id: string) => Kind): Kind {
  let kind = own.get(id);
  if (!kind) own.set(id, (kind = make(id)));
  return kind;
}

/** The kind with this id, or nothing. */
export const findKind = (id: string): Kind | undefined => BY_ID.get(id) ?? own.get(id);

/** The kind with this id; a document that was read has only kinds that exist, so anything else is a bug. */
export function kindOf(id: string): Kind {
  const kind = findKind(id);
  if (!kind) throw new Error(`No device kind is called "${id}"`);
  return kind;
}
