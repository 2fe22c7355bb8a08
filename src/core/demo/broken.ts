import { at } from '../outcome';
import type { Rig } from '../rig/schema';
import { device, lead, sound } from './compose';
import { brokenBuilt } from './places';

/**
 * The delay keeps the sounds at 0 to 3; the pads were told 1 to 4, as its screen counts them in the
 * manual. The pitch shifter knows only flips.
 */
const offByOne = (sounds: Rig['sounds']): Rig['sounds'] =>
  sounds.map((s, i) => ({
    ...s,
    states: { ...s.states, lag: { ...s.states.lag, program: { number: i } } },
    sends: [
      { from: 'pads', to: 'lag', message: { type: 'program', channel: 1, number: i + 1 } },
      ...(s.states.climb?.engaged
        ? [
            {
              from: 'pads',
              to: 'climb',
              message: { type: 'control' as const, channel: 1, cc: 80, value: 127 },
            },
          ]
        : []),
    ],
  }));

/** A rig for practice: the mandolin board as it came out of the van, with mistakes to find. */
export const brokenRig: Rig = brokenBuilt({
  format: 'yantrel-rig',
  version: 1,
  id: 'observatory-practice',
  name: 'Practice: what is wrong here?',
  notes:
    'For training. Every mistake in it has been made on a real stage. Find them before you look at the findings.',
  devices: [
    device('mando', 'electric-mandolin', 'Mandolin', { place: 'player' }),
    device('pan', 'wah', 'Weathervane Wah', { place: 'floor' }),
    device('foot', 'volume-passive', 'Foot volume', { place: 'floor', settings: { pedal: 8 } }),
    device('tuner', 'tuner-buffered', 'Tuner', { place: 'floor' }),
    device('moth', 'fuzz-low-impedance', 'Moth Fuzz', { place: 'floor' }),
    device('lag', 'delay', 'Lantern Delay', { place: 'floor' }),
    device('gale', 'drive-high', 'Gale Drive', { place: 'floor' }),
    device('ember', 'drive-low', 'Ember Drive', { place: 'floor' }),
    device('lift', 'boost', 'Lift Boost', { place: 'floor', settings: { gain: 10 } }),
    device('climb', 'pitch-shifter', 'Climb Shifter', { place: 'floor', settings: { mix: 5 } }),
    device('swirl', 'chorus', 'Swirl Chorus', { place: 'floor' }),
    device('hall', 'reverb', 'Hall Reverb', { place: 'floor' }),
    device('tee', 'splitter-buffered', 'Tee box', { place: 'floor' }),
    device('side', 'splitter-passive', 'Side tap', { place: 'floor' }),
    device('late', 'looper', 'Ferry Looper', { place: 'floor', engaged: true }),
    device('sum', 'mixer-line', 'Summing box', { place: 'floor' }),
    device('frit', 'treble-booster', 'Frit Booster', {
      place: 'floor',
      engaged: true,
      settings: { level: 3 },
    }),
    device('left', 'combo-tube', 'Left combo', { place: 'amps', settings: { gain: 2 } }),
    device('right', 'combo-tube', 'Right combo', { place: 'amps', settings: { gain: 2 } }),
    device('spare', 'head-tube', 'Spare head', {
      place: 'amps',
      notes: 'Switched on to keep it warm. Nothing on its speaker output.',
    }),
    device('head', 'head-tube', 'Bass-side head', { place: 'amps', settings: { gain: 3 } }),
    device('box', 'cabinet', 'Bass-side cabinet', { place: 'amps' }),
    device('mic', 'microphone', 'Room mic', { place: 'amps' }),
    device('desk', 'console-input', 'House, room mic', {
      place: 'house',
      settings: { input: 'line' },
    }),
    device('tape', 'recorder', 'Recorder', { place: 'house' }),
    device('steel', 'lap-steel', 'Lap steel', { place: 'player' }),
    device('stack', 'mixer-line', 'Stack mixer', { place: 'floor' }),
    device('push', 'boost', 'Push Boost', { place: 'floor', engaged: true, settings: { gain: 6 } }),
    device('fork', 'splitter-passive', 'Stack fork', { place: 'floor' }),
    device('porch', 'insert-point', 'Porch insert', {
      place: 'floor',
      notes: 'Somebody borrowed the pedal and left its lead in the send.',
    }),
    device('orphan', 'phaser', 'Borrowed phaser', { place: 'floor' }),
    device('direct', 'console-input', 'House, steel direct', {
      place: 'house',
      settings: { input: 'line' },
    }),
    device('box2', 'cabinet', 'Second bass-side cabinet', {
      place: 'amps',
      figures: { ohms: { value: 4, from: 'sheet' } },
    }),
    device('small', 'modeler-compact', 'Pocket modeler', {
      place: 'floor',
      figures: { slots: { value: 2, from: 'sheet' } },
    }),
    ...(['amp-block', 'cab-block', 'delay'] as const).map((kind, i) =>
      device(`pocket${i + 1}`, kind, at(['Pocket amp', 'Pocket cab', 'Pocket delay'], i), {
        host: 'small',
      }),
    ),
    device('pocketdesk', 'console-input', 'House, pocket', {
      place: 'house',
      settings: { input: 'line' },
    }),
    device('chain', 'supply-shared', 'Daisy chain', { place: 'floor' }),
    device('pads', 'foot-controller', 'Deck pads', { place: 'floor' }),
    device('part', 'midi-thru-box', 'Parting box', { place: 'floor' }),
    device('gull', 'synth-pedal', 'Gull synth', { place: 'floor', midi: { channel: 5 } }),
    device('chop', 'slicer', 'Chop slicer', { place: 'floor', midi: { channel: 6 } }),
    device('book', 'set-list-app', 'Ferry tablet', { place: 'floor' }),
    device('bridge', 'usb-midi-host', 'Bridge', { place: 'floor' }),
    device('heel', 'expression-pedal', 'Borrowed treadle', {
      place: 'floor',
      settings: { wiper: 'ring' },
    }),
    device('stamp', 'foot-switch', 'Stamp switch', {
      place: 'floor',
      settings: { action: 'latching' },
    }),
  ],
  leads: [
    lead('k01', 'mando.out', 'pan.in', 9, 'instrument', 160),
    lead('k02', 'pan.out', 'foot.in', 0.5),
    lead('k03', 'foot.out', 'tuner.in', 6, 'instrument', 160),
    lead('k04', 'tuner.out', 'moth.in', 0.2),
    lead('k05', 'moth.out', 'lag.in', 0.2),
    lead('k06', 'lag.out', 'gale.in', 0.2),
    lead('k07', 'gale.out', 'ember.in', 0.2),
    lead('k08', 'ember.out', 'climb.in', 0.2),
    lead('k09', 'climb.out', 'side.in', 0.2),
    lead('k10', 'side.a', 'late.in', 0.2),
    lead('k11', 'side.b', 'sum.b', 0.4),
    lead('k12', 'late.out', 'sum.a', 0.2),
    lead('k13', 'sum.out', 'swirl.in', 0.2),
    lead('k14', 'swirl.out', 'hall.in', 0.2),
    lead('k15', 'hall.out', 'lift.in', 0.2),
    lead('k16', 'lift.out', 'tee.in', 0.2),
    lead('k17', 'tee.a', 'left.in', 3),
    lead('k18', 'tee.b', 'frit.in', 3),
    lead('k19', 'frit.out', 'right.in', 1),
    lead('k20', 'head.speaker', 'box.in', 1, 'instrument'),
    lead('k21', 'left.air', 'mic.air', 2, 'air'),
    lead('k22', 'mic.out', 'desk.in', 20, 'balanced', 60),
    lead('k23', 'steel.out', 'porch.in', 3),
    lead('k24', 'stack.out', 'push.in', 0.3),
    lead('k25', 'push.out', 'fork.in', 0.3),
    lead('k26', 'fork.a', 'direct.in', 10),
    lead('k27', 'fork.b', 'stack.b', 0.3),
    lead('k28', 'porch.out', 'stack.a', 0.3),
    lead('k29', 'porch.send', 'orphan.in', 1),
    lead('k30', 'box.link', 'box2.in', 1, 'speaker'),
    lead('k31', 'lag.outR', 'small.in', 2),
    lead('k32', 'small.out', 'pocketdesk.in', 10, 'balanced'),
    lead('k33', 'small.fromIn', 'pocket1.in', 0, 'inside'),
    lead('k34', 'pocket1.out', 'pocket2.in', 0, 'inside'),
    lead('k35', 'pocket2.out', 'pocket3.in', 0, 'inside'),
    lead('k36', 'pocket3.out', 'small.toOut', 0, 'inside'),
    lead('k37', 'pads.midiOut', 'part.midiIn', 18, 'midi'),
    lead('k38', 'part.thru1', 'gull.midiIn', 1, 'midi'),
    lead('k39', 'gull.midiOut', 'chop.midiIn', 1, 'midi'),
    lead('k40', 'part.thru2', 'lag.midiIn', 1, 'midi'),
    lead('k41', 'lag.midiThru', 'hall.midiIn', 1, 'midi'),
    lead('k42', 'part.thru3', 'climb.midiIn', 1, 'midi'),
    lead('k43', 'book.usb', 'bridge.usb1', 1, 'usb'),
    lead('k44', 'heel.out', 'small.exp1', 1, 'control'),
    lead('k45', 'stamp.out', 'lag.tap', 1, 'control'),
  ],
  sounds: offByOne([
    sound('dry', 'Bare', []),
    sound('chop', 'Chop', ['ember', 'hall']),
    sound('storm', 'Storm', ['moth', 'gale', 'ember', 'lag', 'climb', 'hall', 'lift']),
    sound('drone', 'Ferry drone', ['pan', 'lag', 'gale', 'swirl', 'hall', 'lift']),
  ]),
  promises: [
    { id: 'left-hears', type: 'hears', destination: 'left', source: 'mando' },
    { id: 'tape-hears', type: 'hears', destination: 'tape', source: 'mando' },
    { id: 'loads', type: 'no-tube-unloaded' },
    { id: 'one', type: 'one-press', from: 'dry', to: 'storm' },
  ],
});
