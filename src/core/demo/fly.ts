import type { Device, Rig } from '../rig/schema';
import { device, lead, sound } from './compose';
import { flyBuilt } from './places';

const fed = (outlet: number): Partial<Device> => ({
  place: 'floor',
  supply: { device: 'supply', outlet: String(outlet) },
});

/**
 * The fly rig: no amplifier. Mandolin or baritone into a board that ends in a simulator, wide
 * effects and two direct boxes; an insert takes a guest pedal.
 */
export const flyRig: Rig = flyBuilt({
  format: 'yantrel-rig',
  version: 1,
  id: 'ferry-fly-board',
  name: 'Fly board, no amplifier',
  notes:
    'For the car ferry and for flights: everything in one case. Dry effects before the ' +
    'simulator, wet ones behind it.',
  devices: [
    device('mando', 'electric-mandolin', 'Mandolin', {
      maker: 'Tolvanen Workshop',
      place: 'player',
    }),
    device('tap', 'splitter-tuner', 'Gull Tap', fed(1)),
    device('needle', 'tuner-rack', 'Needle tuner', {
      place: 'floor',
      size: { width: 90, depth: 60, height: 40 },
      gear: { grams: 220 },
      mains: { watts: 2 },
    }),
    device('buf', 'buffer', 'Clinker Buffer', {
      ...fed(2),
      engaged: true,
      notes: 'One of the three conditions for quiet: buffer, soldered leads, isolated supply.',
    }),
    device('oct', 'octave', 'Keel Octave', { ...fed(3), settings: { mix: 4 } }),
    device('trem', 'tremolo', 'Swell Tremolo', fed(4)),
    device('rust', 'drive-low', 'Rust Drive', { ...fed(5), settings: { drive: 3.5, level: 5.5 } }),
    device('tar', 'drive-mid', 'Tar Drive', {
      ...fed(6),
      settings: { drive: 5, tone: 6, level: 5 },
    }),
    device('foot', 'volume-active', 'Foot volume', fed(1)),
    device('guest', 'insert-point', 'Guest insert', {
      place: 'floor',
      notes: 'Nothing plugged in: the signal goes on.',
    }),
    device('mist', 'chorus', 'Mist Chorus', { ...fed(7), settings: { rate: 3, depth: 4 } }),
    device('hull', 'amp-cab-simulator-trs', 'Hull Simulator', {
      ...fed(8),
      engaged: true,
      settings: { gain: 2, master: 9 },
    }),
    device('buoy', 'delay', 'Buoy Delay', {
      ...fed(7),
      settings: { mix: 3, repeats: 3, tails: true },
    }),
    device('hold', 'reverb', 'Hold Reverb', {
      ...fed(7),
      settings: { decay: 5, mix: 3, tails: true },
    }),
    device('di1', 'direct-box', 'Direct box, left', { place: 'floor' }),
    device('di2', 'direct-box', 'Direct box, right', { place: 'floor' }),
    device('house', 'console-input-stereo', 'House, stereo', { place: 'house' }),
    device('supply', 'supply-isolated', 'Board supply', { place: 'floor' }),
  ],
  leads: [
    lead('f01', 'mando.out', 'tap.in', 4),
    lead('f02', 'tap.tuner', 'needle.in', 0.4),
    lead('f03', 'tap.out', 'buf.in', 0.2),
    lead('f04', 'buf.out', 'oct.in', 0.2),
    lead('f05', 'oct.out', 'trem.in', 0.2),
    lead('f06', 'trem.out', 'rust.in', 0.2),
    lead('f07', 'rust.out', 'tar.in', 0.2),
    lead('f08', 'tar.out', 'foot.in', 1.2),
    lead('f09', 'foot.out', 'guest.in', 0.4),
    lead('f10', 'guest.out', 'mist.in', 0.2),
    { ...lead('f11', 'mist.out', 'hull.in', 0.3, 'insert'), conductor: 'tip' },
    { ...lead('f12', 'mist.outR', 'hull.in', 0.3, 'insert'), conductor: 'ring' },
    lead('f13', 'hull.out', 'buoy.in', 0.2),
    lead('f14', 'hull.outR', 'buoy.inR', 0.2),
    lead('f15', 'buoy.out', 'hold.in', 0.2),
    lead('f16', 'buoy.outR', 'hold.inR', 0.2),
    lead('f17', 'hold.out', 'di1.in', 1.6),
    lead('f18', 'hold.outR', 'di2.in', 1.6),
    lead('f19', 'di1.out', 'house.in', 25, 'balanced', 60),
    lead('f20', 'di2.out', 'house.inR', 25, 'balanced', 60),
  ],
  sounds: [
    sound('glass', 'Glass', ['mist', 'hold']),
    sound('chop', 'Chop', ['rust', 'hold']),
    sound('grit', 'Grit', ['rust', 'tar', 'hold']),
    sound('drift', 'Drift', ['oct', 'trem', 'mist', 'buoy', 'hold'], {
      hold: { engaged: true, settings: { mix: 5 } },
    }),
    sound('solo', 'Solo', ['rust', 'tar', 'buoy', 'hold'], {
      rust: { engaged: true, settings: { level: 7 } },
    }),
    sound('tune', 'Silent tuning', ['tap']),
  ],
  promises: [
    { id: 'wide', type: 'stereo', destination: 'house', sounds: ['glass', 'drift', 'solo'] },
    { id: 'tuner', type: 'tuner-hears', source: 'mando' },
    { id: 'silent', type: 'muted-silent', sounds: ['tune'] },
    { id: 'tails', type: 'tails-survive', from: 'drift', to: 'glass' },
    { id: 'noise', type: 'noise-under', destination: 'house', db: 30 },
  ],
});
