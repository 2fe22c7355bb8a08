import type { Severity } from './severity';

/** A rule: what it is about, in a few words, and how bad its findings can be. */
export interface Rule {
  words: string;
  severities: readonly Severity[];
}

const rule = (words: string, ...severities: Severity[]): Rule => ({ words, severities });

/** What boards, racks, the lengths of leads and the limits of a brief come to. */
const BUILDING = {
  limit: rule('a limit of the brief', 'caution'),
  'lead-short': rule('a lead that is too short', 'fault'),
  'lead-tight': rule('a lead that only just reaches', 'caution'),
  'board-overlap': rule('two things in one place on a board', 'caution', 'fault'),
  'board-outside': rule('a thing that hangs over the edge of a board', 'caution', 'fault'),
  'board-too-high': rule('room under a board', 'caution', 'fault'),
  'board-half': rule('a thing that stands half on a level', 'caution', 'fault'),
  'board-plug': rule('room for a plug on a board', 'caution', 'fault'),
  'board-plugs': rule('two plugs in one place', 'caution', 'fault'),
  'board-switches': rule('switches close together', 'caution', 'fault'),
  'board-reach': rule('a switch out of reach', 'caution', 'fault'),
  'board-radio': rule('a wireless close to what takes it in', 'advice', 'caution'),
  'rack-overlap': rule('two things in one place in a rack', 'fault'),
  'rack-too-high': rule('units of a rack', 'fault'),
  'rack-too-deep': rule('depth of a rack', 'fault'),
  'rack-too-wide': rule('width of a rack', 'fault'),
  'rack-heat': rule('heat in a rack', 'caution'),
  'rack-access': rule('what is touched in a rack', 'caution', 'advice'),
  'rack-pulled': rule('leads that are pulled at the rack', 'advice'),
  'rack-top-heavy': rule('a rack that is top-heavy', 'advice'),
  'rack-lift': rule('a rack that one person cannot lift', 'advice'),
};

/**
 * Every rule that can become a finding. A finding of a rule that is not here does not compile. One
 * more is its line here and the file that looks for it.
 */
export const RULES = {
  // What a sound’s figures show.
  'no-route': rule('nothing reaches a destination', 'fault'),
  silent: rule('a destination is silent', 'fault'),
  'dead-end': rule('an instrument is not heard anywhere', 'caution'),
  'open-end': rule('an effect whose output is open', 'fault'),
  priority: rule('a plug in a jack that takes priority', 'fault'),
  unplugged: rule('what is there and not plugged in', 'advice'),
  swapped: rule('exchanged plugs', 'fault'),
  'wrong-way': rule('a lead the wrong way round', 'fault'),
  'half-loop': rule(
    'a loop of which only one side is plugged',
    'advice',
    'caution',
    'fault',
    'danger',
  ),
  'empty-loop': rule('a loop that is in use and empty', 'advice', 'fault'),
  howl: rule('a circle that can howl', 'caution', 'fault'),
  headroom: rule('headroom', 'caution', 'fault'),
  'input-level': rule('the level that an input is made for', 'caution'),
  noise: rule('hiss', 'advice', 'caution'),
  loading: rule('a box that loads another', 'caution'),
  'blend-loading': rule('sources that load each other', 'caution'),
  'dull-lead': rule('a lead that dulls', 'caution'),
  latency: rule('latency', 'caution'),
  comb: rule('one source that arrives twice, apart in time', 'caution', 'fault'),
  uneven: rule('loudspeakers of very unlike levels', 'advice'),
  polarity: rule('copies that cancel', 'fault'),
  'parallel-dry': rule('dry signal in a wet return', 'advice', 'caution'),
  'twin-dirt': rule('two distortions side by side that sound alike', 'advice'),
  'two-preamps': rule('a modelled amplifier into a real preamplifier', 'advice'),
  'half-pair': rule('half of a stereo pair', 'advice', 'caution'),
  'sides-exchanged': rule('left and right exchanged', 'caution'),
  'half-wide': rule('one side of a wide signal', 'advice'),
  collapse: rule('width that is lost', 'advice'),
  unfiltered: rule('distortion that no cabinet has shaped', 'caution', 'fault'),
  'two-cabinets': rule('two cabinets, one behind the other', 'caution'),
  'host-input': rule('the input of a modeler', 'advice'),
  'host-budget': rule('what a modeler has room for', 'fault'),
  'send-twice': rule('a send that is fed twice', 'caution'),
  'return-twice': rule('a return that is used twice', 'caution'),
  'pair-conflict': rule('a pair of sends to different devices', 'fault'),
  'empty-path': rule('a path without a block', 'advice'),
  'dead-controls': rule('controls that do nothing', 'advice'),
  'hum-loop': rule('a hum loop', 'advice', 'caution'),
  'hum-pairs': rule('small ground loops', 'advice'),
  'not-fed': rule('what lives on phantom power and gets none', 'fault'),
  'loom-mixed': rule('audio beside mains or data in one sleeve', 'caution'),
  // Speaker lines.
  'no-load': rule('an amplifier without a load', 'danger'),
  'two-amps': rule('two amplifiers on one speaker line', 'danger'),
  impedance: rule('impedance', 'caution', 'danger'),
  'speaker-power': rule('the power that a loudspeaker bears', 'caution', 'fault'),
  'speaker-lead-loss': rule('what a speaker lead takes', 'advice'),
  'speaker-lead': rule('leads of speaker lines', 'caution', 'danger'),
  'speaker-into-signal': rule('a speaker output into a signal input', 'danger'),
  'signal-into-speaker': rule('a signal into a loudspeaker', 'fault'),
  'half-line': rule('half of a line insert', 'danger'),
  // Order.
  'bare-pickup': rule('order: what wants the bare pickup', 'advice', 'caution'),
  'pitch-early': rule('order: pitch tracking', 'advice', 'caution'),
  'filter-before-dirt': rule('order: wah and envelope filter', 'advice', 'caution'),
  'compressor-early': rule('order: compressor', 'advice', 'caution'),
  'gain-low-to-high': rule('order: gain stages', 'advice', 'caution'),
  'boost-place': rule('order: boost', 'advice', 'caution'),
  'gate-place': rule('order: noise gate', 'advice', 'caution'),
  'volume-place': rule('order: volume pedal', 'advice', 'caution'),
  'modulation-after-dirt': rule('order: modulation', 'advice', 'caution'),
  'time-after-dirt': rule('order: delay and reverb', 'advice', 'caution'),
  'looper-last': rule('order: looper', 'advice', 'caution'),
  'tuner-place': rule('order: tuner', 'advice', 'caution'),
  'buffer-place': rule('order: buffer', 'advice', 'caution'),
  'eq-after-split': rule('order: EQ for one destination', 'advice', 'caution'),
  // Control.
  'control-kind': rule('a pedal where a switch is read, or the reverse', 'fault'),
  'control-wiper': rule('a pedal wired the other way', 'fault'),
  'control-ohms': rule('the resistance of a pedal', 'caution'),
  'control-action': rule('a switch of the other sort', 'fault'),
  'control-contact': rule('a switch that reads as pressed', 'fault'),
  'control-branch': rule('a branching lead of a control', 'fault'),
  'control-branch-ground': rule('grounds that a branching lead joins', 'advice'),
  'control-cut': rule('a control that does not reach what it moves', 'fault'),
  'control-cc': rule('a control change that nothing takes', 'fault'),
  'control-nothing': rule('a control that moves what is not there', 'fault'),
  sweep: rule('a crossfade that dips or swells', 'advice', 'caution'),
  'control-same-way': rule('a range that was meant to be opposite', 'advice'),
  'control-twice': rule('two controls on one setting', 'caution'),
  // Messages.
  'midi-type': rule('a MIDI lead that carries nothing', 'fault'),
  'midi-usb': rule('USB without a host', 'fault'),
  'midi-length': rule('the length of a MIDI lead', 'caution'),
  'midi-thrus': rule('a chain of thrus', 'caution'),
  'midi-loop': rule('messages in a circle', 'fault'),
  'midi-clock': rule('clock', 'advice', 'fault'),
  'midi-cut': rule('a device that messages do not reach', 'caution', 'fault'),
  'midi-commander': rule('a device that is told by nobody', 'fault'),
  'midi-lamps': rule('lamps that go stale', 'advice'),
  'midi-double': rule('two devices on one channel', 'fault'),
  'midi-drift': rule('a change that ends as it is not meant', 'caution', 'fault'),
  'midi-unset': rule('a setting that a message leaves as it was', 'caution', 'fault'),
  'midi-missed': rule('a message that is missed', 'caution', 'fault'),
  'midi-shared': rule('a message meant for another', 'caution', 'fault'),
  'midi-number': rule('a program number', 'caution', 'fault'),
  'midi-nobody': rule('messages that nobody hears', 'caution', 'fault'),
  // Songs and sets.
  'song-sound': rule('a song that calls a sound that is gone', 'fault'),
  'song-instrument': rule('the instrument of a song', 'fault'),
  'song-slip': rule('a delay off the click', 'advice', 'caution'),
  'set-long': rule('the length of a set', 'caution'),
  'set-song': rule('a set that holds songs that are gone', 'fault'),
  // Power and mains.
  'power-ac': rule('AC or DC', 'danger'),
  'power-polarity': rule('polarity of a power lead', 'danger'),
  'power-voltage': rule('too much voltage', 'danger'),
  'power-low': rule('too little voltage', 'fault'),
  'power-current': rule('current of an outlet', 'caution', 'fault'),
  'power-total': rule('current of a supply', 'fault'),
  'power-return': rule('a shared return', 'caution', 'danger'),
  'power-none': rule('devices without power', 'advice', 'fault'),
  'mains-over': rule('mains voltage that is too high', 'danger'),
  'mains-under': rule('mains voltage that is too low', 'fault'),
  'mains-hz': rule('mains frequency', 'fault'),
  'mains-sockets': rule('sockets for the mains', 'fault'),
  'mains-amps': rule('current of mains sockets', 'fault'),
  ...BUILDING,
  // The rig as a whole.
  promise: rule('a broken promise', 'fault'),
  'check-failed': rule('a check that failed', 'fault'),
};

export type RuleId = keyof typeof RULES;

/** Whether a rule is about how things are put together, which a change of the signal's way always moves. */
export const isOfBuilding = (rule: RuleId): boolean => Object.hasOwn(BUILDING, rule);
