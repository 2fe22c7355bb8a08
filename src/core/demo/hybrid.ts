import { device, lead, sound } from './compose';
import { hybridBuilt } from './places';
import type { Rig } from '../rig/schema';

const link = (id: string, from: string, to: string) => lead(id, from, to, 0, 'inside');
const inside = { host: 'lode' };

/** Every sound is a preset of the switcher, and a program of the modeler and of the delay in its loop. */
const numbered = (sounds: Rig['sounds']): Rig['sounds'] =>
  sounds.map((s, i) => {
    const program = (id: string, number: number, bank?: number) => ({
      [id]: { ...s.states[id], program: { ...(bank !== undefined && { bank }), number } },
    });
    return {
      ...s,
      states: {
        ...s.states,
        ...program('loops', i % 4, Math.floor(i / 4)),
        ...program('lode', i, 0),
        ...program('comet', 0),
      },
    };
  });

/**
 * The hybrid rig: a switcher with a free order into a modeler, real pedals on its sends and
 * returns, two paths, a tap to a stage head over a digital link.
 */
export const hybridRig: Rig = hybridBuilt({
  format: 'yantrel-rig',
  version: 1,
  id: 'observatory-hybrid',
  name: 'Observatory hybrid, modeler and real pedals',
  notes:
    'A baritone that sends magnetic and piezo at once. The gate listens before the ' +
    'drives and acts between amp and cab, so the echoes ring on.',
  devices: [
    device('bari', 'instrument-dual', 'Baritone, two outputs', {
      maker: 'Tolvanen Workshop',
      place: 'player',
    }),
    device('comp', 'compressor', 'Harbour Comp', {
      place: 'floor',
      engaged: true,
      settings: { sustain: 3, level: 5 },
    }),
    device('tee', 'splitter-buffered', 'Key tee', { place: 'floor' }),
    device('loops', 'loop-switcher', 'Switchyard', { place: 'floor' }),
    device('ash', 'drive-low', 'Ash Drive', {
      place: 'floor',
      engaged: true,
      settings: { drive: 3 },
    }),
    device('slag', 'drive-mid', 'Slag Drive', {
      place: 'floor',
      engaged: true,
      settings: { drive: 5, tone: 6 },
    }),
    device('moth', 'drive-high', 'Moth Drive', {
      place: 'floor',
      engaged: true,
      settings: { drive: 5, level: 4 },
    }),
    device('wheel', 'phaser', 'Wheel Phaser', { place: 'floor', engaged: true }),
    device('lode', 'modeler-floor', 'Lode modeler', {
      maker: 'Perihelion Works',
      place: 'floor',
      midi: { channel: 2 },
    }),
    device('amp', 'amp-block', 'Amp', { ...inside, settings: { gain: 2.5, master: 6 } }),
    device('cabb', 'cab-block', 'Cab', inside),
    device('feed', 'pan', 'Delay feed', { ...inside, settings: { pan: 10, level: -3 } }),
    device('merge', 'mixer-stereo', 'Merge', { ...inside, settings: { panC: -10, panD: 10 } }),
    device('hall', 'reverb', 'Dome block', { ...inside, settings: { mix: 3, tails: true } }),
    device('wood', 'eq', 'Wood EQ', { ...inside, engaged: true }),
    device('space', 'reverb', 'Small room', { ...inside, engaged: true, settings: { mix: 2.5 } }),
    device('lvl', 'volume-active', 'Piezo level', inside),
    device('vesk', 'gate', 'Vesk Gate', {
      place: 'floor',
      engaged: true,
      settings: { threshold: -55 },
    }),
    device('comet', 'delay', 'Comet Delay', {
      midi: { channel: 3 },
      tempo: { way: 'program', division: 'dotted eighth' },
      place: 'floor',
      engaged: true,
      settings: { mix: 10, repeats: 4, tails: true },
    }),
    device('stage', 'head-tube-digital', 'Stage head', {
      midi: { channel: 4 },
      maker: 'Orrery Amplification',
      place: 'amps',
      settings: { master: 6 },
    }),
    device('cab', 'cabinet', 'Stage cabinet', { place: 'amps' }),
    device('house', 'console-input-stereo', 'House, magnetic', {
      place: 'house',
      settings: { input: 'line' },
    }),
    device('wide', 'console-input-stereo', 'House, piezo', {
      place: 'house',
      settings: { input: 'line' },
    }),
    device('psu', 'supply-isolated', 'Board supply', { place: 'floor' }),
    device('psu2', 'supply-large', 'Modeler supply', { place: 'floor' }),
    device('iso', 'hum-isolator', 'Hum isolator', { place: 'floor' }),
    device('treadle', 'expression-pedal', 'Piezo treadle', {
      place: 'floor',
      notes: 'Goes straight into the modeler, which reads it finely.',
    }),
    device('rock', 'expression-pedal', 'Echo rocker', {
      place: 'floor',
      notes: 'Goes into the Switchyard and becomes a control change.',
    }),
  ],
  leads: [
    lead('h01', 'bari.out', 'comp.in', 5),
    lead('h02', 'comp.out', 'tee.in', 0.3),
    lead('h03', 'tee.a', 'loops.in', 1),
    lead('h04', 'tee.b', 'vesk.key', 1),
    lead('m1', 'loops.midiOut', 'lode.midiIn', 1, 'midi'),
    lead('m2', 'lode.midiOut', 'comet.midiIn', 1, 'midi'),
    lead('x1', 'treadle.out', 'lode.exp1', 1.5, 'control'),
    lead('x2', 'rock.out', 'loops.exp', 1, 'control'),
    ...(['ash', 'slag', 'moth', 'wheel'] as const).flatMap((id, i) => [
      lead(`s${i + 1}`, `loops.send${i + 1}`, `${id}.in`, 0.8),
      lead(`r${i + 1}`, `${id}.out`, `loops.return${i + 1}`, 0.8),
    ]),
    lead('h05', 'loops.out', 'lode.in', 1),
    lead('h06', 'bari.piezo', 'lode.aux', 5),
    lead('h07', 'lode.send1', 'vesk.in', 1),
    lead('h08', 'vesk.out', 'lode.return1', 1),
    lead('h09', 'lode.send2', 'comet.in', 1),
    lead('h10', 'comet.out', 'lode.return3', 1),
    lead('h11', 'comet.outR', 'lode.return4', 1),
    lead('h12', 'lode.digitalOut', 'stage.digital', 8, 'digital'),
    lead('h13', 'stage.speaker', 'cab.in', 1.5, 'speaker'),
    lead('h14', 'lode.out', 'iso.in', 2.4),
    lead('h15', 'lode.outR', 'iso.inR', 2.4),
    lead('h16', 'iso.out', 'house.in', 25, 'balanced', 60),
    lead('h17', 'iso.outR', 'house.inR', 25, 'balanced', 60),
    lead('h18', 'lode.out2', 'wide.in', 25, 'balanced', 60),
    lead('h19', 'lode.out2R', 'wide.inR', 25, 'balanced', 60),
    link('i01', 'lode.fromIn', 'amp.in'),
    link('i02', 'amp.out', 'lode.toSend1'),
    link('i03', 'amp.out', 'lode.toDigital1'),
    link('i04', 'lode.fromReturn1', 'cabb.in'),
    link('i05', 'cabb.out', 'merge.a'),
    link('i06', 'cabb.out', 'feed.in'),
    link('i07', 'feed.outR', 'lode.toSend2'),
    link('i08', 'lode.fromReturn3', 'merge.c'),
    link('i09', 'lode.fromReturn4', 'merge.d'),
    link('i10', 'merge.out', 'hall.in'),
    link('i11', 'merge.outR', 'hall.inR'),
    link('i12', 'hall.out', 'lode.toOut'),
    link('i13', 'hall.outR', 'lode.toOutR'),
    link('i14', 'lode.fromAux', 'wood.in'),
    link('i15', 'wood.out', 'lvl.in'),
    link('i16', 'lvl.out', 'space.in'),
    link('i17', 'space.out', 'lode.toOut2'),
    link('i18', 'space.outR', 'lode.toOut2R'),
  ],
  sounds: numbered([
    sound(
      'bare',
      'Bare',
      ['hall'],
      { feed: { settings: { level: -60 } } },
      'The delay is starved by its feed, not bypassed: bypassed it would pass dry beside dry.',
    ),
    sound('ash', 'Ash', ['hall'], { loops: { settings: { order: '1' } } }),
    sound('slag', 'Slag', ['hall'], { loops: { settings: { order: '1 2' } } }),
    sound('furnace', 'Furnace', ['hall'], {
      loops: { settings: { order: '1 (2+3@-6) 4' } },
      amp: { settings: { gain: 3.5 } },
    }),
    sound('wheel', 'Wheel first', ['hall'], { loops: { settings: { order: '4 1' } } }),
  ]),
  controls: [
    {
      id: 'wood',
      name: 'Piezo treadle',
      type: 'pedal',
      device: 'treadle',
      travel: { from: 4, to: 96 },
      assigns: [{ id: 'level', device: 'lvl', setting: 'pedal', min: 0, max: 10, curve: 'audio' }],
    },
    {
      id: 'sea',
      name: 'Echo rocker',
      type: 'pedal',
      device: 'rock',
      travel: { from: 5, to: 95 },
      assigns: [
        {
          id: 'feed',
          device: 'feed',
          setting: 'level',
          min: -60,
          max: 0,
          curve: 'reverse-audio',
          cc: 11,
          sounds: ['ash', 'slag', 'wheel'],
        },
        { id: 'size', device: 'hall', setting: 'mix', min: 1, max: 7, cc: 12, sounds: ['furnace'] },
      ],
    },
  ],
  order: {
    stances: {
      'modulation-after-dirt': {
        stance: 'ignore',
        because: 'Wheel first wants the phaser in front, as the older ones were.',
      },
      'gate-place': {
        stance: 'ignore',
        because: 'Its key is clean and it acts between amp and cab.',
      },
    },
  },
  brief: {
    sources: [{ id: 'b1', kind: 'instrument-dual', name: 'Baritone, two outputs' }],
    destinations: [
      { id: 'b2', way: 'head', name: 'Stage cabinet' },
      { id: 'b3', way: 'house', name: 'House, magnetic' },
      { id: 'b4', way: 'house', name: 'House, piezo' },
    ],
    sounds: [
      { id: 'b5', name: 'Bare', character: 'clean' },
      { id: 'b6', name: 'Slag', character: 'crunch' },
      { id: 'b7', name: 'Furnace', character: 'saturated' },
    ],
    gear: [
      { id: 'b8', kind: 'reverb', name: 'Dome Reverb' },
      { id: 'b9', kind: 'delay', name: 'Comet Delay' },
    ],
  },
  promises: [
    { id: 'piezo-only', type: 'never-hears', destination: 'wide', source: 'bari' },
    {
      id: 'level-only',
      type: 'moves-only',
      device: 'lvl',
      setting: 'pedal',
      destinations: ['wide'],
    },
    { id: 'treadle-only', type: 'control-moves-only', control: 'wood', destinations: ['wide'] },
    { id: 'wide', type: 'stereo', destination: 'house', sounds: ['ash', 'slag', 'furnace'] },
    { id: 'tails', type: 'tails-survive', from: 'furnace', to: 'ash' },
    { id: 'one', type: 'one-press', from: 'ash', to: 'slag' },
    { id: 'loads', type: 'no-tube-unloaded' },
  ],
});
