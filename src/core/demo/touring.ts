import type { Rig } from '../rig/schema';
import { device, lead, sound } from './compose';
import { touringBuilt } from './places';
import { EXAMPLE_SHEETS } from './example-sheets';
import { touringSets, touringSongs } from './touring-songs';

/** Which outlet feeds what: floor, rack, and the two digital boxes at the end on a supply of their own. */
const OUTLETS: Record<string, [supply: string, outlet: string]> = {
  tuner: ['supply', '1'],
  comp: ['supply', '2'],
  sub: ['supply', '3'],
  brine: ['supply', '4'],
  kiln: ['supply', '5'],
  flare: ['supply', '6'],
  skeg: ['supply', '7'],
  vesk: ['supply', '8'],
  swell: ['supply', '8'],
  radio: ['rsupply', '7'],
  sim: ['rsupply', '8'],
  join: ['rsupply', '1'],
  fork: ['rsupply', '2'],
  heads: ['rsupply', '3'],
  drift: ['rsupply', '4'],
  echo: ['wsupply', '7'],
  dome: ['wsupply', '8'],
};

/** What is plugged into the conditioner; the heads go to the wall. */
const MAINS = ['ears', 'tech', 'rsupply', 'wsupply', 'supply'];

const powered = (devices: Rig['devices']): Rig['devices'] =>
  devices.map((d) => ({
    ...d,
    ...(OUTLETS[d.id] && { supply: { device: OUTLETS[d.id]![0], outlet: OUTLETS[d.id]![1] } }),
    ...(MAINS.includes(d.id) && { mains: { from: 'mast' } }),
  }));

/** Puts the programs of the echo and the reverb to each sound. */
const withPrograms = (
  at: Record<string, [echo: number, dome: number]>,
  sounds: Rig['sounds'],
): Rig['sounds'] =>
  sounds.map((s) => ({
    ...s,
    states: {
      ...s.states,
      ...Object.fromEntries(
        (['echo', 'dome'] as const).map((id, i) => [
          id,
          { ...s.states[id], program: { number: at[s.id]![i]! } },
        ]),
      ),
    },
  }));

/** What lies in the spares case, written down so that it can stand in at once. */
const spareSheets = EXAMPLE_SHEETS.filter((s) =>
  ['tandem-drive', 'two-shores', 'lighthouse-echo'].includes(s.id),
);

/**
 * The main touring rig: baritone on wireless and lap steel on a lead, two tube heads behind an
 * isolated fork, a wide direct pair, in-ears, tracks and click.
 */
export const touringRig: Rig = touringBuilt({
  format: 'yantrel-rig',
  version: 1,
  id: 'salt-and-ferry',
  name: 'Salt and Ferry run, main rig',
  notes:
    'Iseult Brannoch: baritone and lap steel. Salt warehouse, car ferry, observatory. ' +
    'Tech: Odd Fjellvik. House: Wenna Trask.',
  devices: powered([
    device('bari', 'guitar-baritone', 'Baritone', {
      maker: 'Tolvanen Workshop',
      place: 'player',
      figures: { pickupOhms: { value: 9300, from: 'measured', on: '2026-09-14' } },
    }),
    device('radio', 'wireless', 'Radio pack', { maker: 'Skarn Radio', place: 'rack' }),
    device('steel', 'lap-steel', 'Lap steel', {
      maker: 'Tolvanen Workshop',
      place: 'player',
      engaged: false,
    }),
    device('join', 'mixer-line', 'Instrument joiner', {
      place: 'rack',
      notes: 'Both inputs stay up; the instrument not in use has its volume down.',
    }),
    device('tuner', 'tuner-buffered', 'Tuner', { place: 'floor' }),
    device('comp', 'compressor', 'Harbour Comp', {
      place: 'floor',
      settings: { sustain: 3.5, level: 4.5 },
    }),
    device('sub', 'octave', 'Ballast Octave', { place: 'floor', settings: { mix: 4 } }),
    device('brine', 'drive-low', 'Brine Drive', {
      place: 'floor',
      settings: { drive: 3, tone: 4.5, level: 6 },
    }),
    device('kiln', 'drive-mid', 'Kiln Drive', {
      place: 'floor',
      settings: { drive: 4.5, tone: 6, level: 5.5 },
    }),
    device('flare', 'boost', 'Flare Boost', { place: 'floor', settings: { gain: 4 } }),
    device('vesk', 'gate', 'Vesk Gate', { place: 'floor', settings: { threshold: -58 } }),
    device('fork', 'splitter-buffered', 'Fork', { place: 'rack' }),
    device('heads', 'splitter-isolated', 'Heads fork', {
      place: 'rack',
      settings: { select: 'a' },
    }),
    device('head', 'head-tube', 'Stage head', {
      maker: 'Orrery Amplification',
      place: 'amps',
      settings: { gain: 2, tone: 5.5, master: 6 },
    }),
    device('swell', 'volume-active', 'Swell pedal', { place: 'floor' }),
    device('echo', 'delay', 'Gangway Echo', {
      place: 'rack',
      settings: { time: 6.75, repeats: 3, mix: 3 },
      midi: { channel: 1, clock: 'follow' },
      tempo: { way: 'clock', division: 'dotted eighth' },
    }),
    device('cab', 'cabinet', 'Stage cabinet', { place: 'amps' }),
    device('mic', 'microphone', 'Cabinet mic', { place: 'amps' }),
    device('house', 'console-input', 'House, cabinet mic', { place: 'house' }),
    device('mic2', 'microphone', 'Ears mic', { place: 'amps' }),
    device('ears', 'in-ear-mix', 'Iseult’s in-ears', { place: 'rack', settings: { input: 'mic' } }),
    device('sim', 'amp-cab-simulator', 'Dry-dock Simulator', {
      place: 'rack',
      engaged: true,
      settings: { gain: 2.5, master: 7 },
    }),
    device('drift', 'chorus', 'Drift Chorus', { place: 'rack', settings: { rate: 3, depth: 5 } }),
    device('dome', 'reverb', 'Dome Reverb', {
      place: 'rack',
      settings: { decay: 6, mix: 3.5 },
      midi: { channel: 2 },
    }),
    device('wide', 'console-input-stereo', 'House, wide pair', {
      place: 'house',
      settings: { input: 'line' },
    }),
    device('deck', 'head-tube-two', 'Deck head', {
      maker: 'Orrery Amplification',
      place: 'amps',
      settings: { gain: 1.5, tone: 6, master: 6, channel: 'clean' },
    }),
    device('deckcab', 'cabinet', 'Deck cabinet', {
      place: 'amps',
      figures: { ohms: { value: 16, from: 'sheet' }, watts: { value: 200, from: 'sheet' } },
    }),
    device('tracks', 'playback', 'Tide tracks', {
      place: 'rack',
      notes: 'Tracks to the house, click to the tech: never the click to the house.',
    }),
    device('tdi', 'direct-box', 'Tracks direct box', { place: 'rack' }),
    device('tdesk', 'console-input', 'House, tracks', { place: 'house' }),
    device('band', 'mix-feed', 'Monitor mix', { place: 'house' }),
    device('tech', 'in-ear-mix', 'Odd’s in-ears', { place: 'rack' }),
    device('supply', 'supply-isolated', 'Pedal supply', { place: 'floor' }),
    device('rsupply', 'supply-isolated', 'Rack supply', { place: 'rack' }),
    device('wsupply', 'supply-isolated', 'Wide supply', { place: 'rack' }),
    device('skeg', 'foot-controller', 'Skeg', {
      maker: 'Perihelion Works',
      place: 'floor',
      notes: 'Calls the rack: echo and reverb. The pedals are still stepped on.',
    }),
    device('mast', 'power-conditioner', 'Mast conditioner', { place: 'rack' }),
    device('hatch', 'panel', 'Hatch panel', { place: 'rack' }),
    device('purser', 'set-list-app', 'Purser tablet', {
      place: 'floor',
      midi: { clock: 'send' },
      notes: 'Running order and clock; the same machine’s twin plays the tracks.',
    }),
  ]),
  leads: [
    lead('l01', 'bari.out', 'radio.in', 0.8),
    lead('l02', 'radio.out', 'join.a', 1.5),
    lead('l03', 'steel.out', 'join.b', 6),
    lead('l04', 'join.out', 'tuner.in', 6),
    lead('l05', 'tuner.out', 'comp.in', 0.2),
    lead('l06', 'comp.out', 'sub.in', 0.2),
    lead('l07', 'sub.out', 'brine.in', 0.2),
    lead('l08', 'brine.out', 'kiln.in', 0.2),
    lead('l09', 'kiln.out', 'flare.in', 0.2),
    lead('l10', 'flare.out', 'vesk.in', 0.2),
    lead('l11', 'vesk.out', 'fork.in', 6),
    lead('l12', 'fork.a', 'heads.in', 0.5),
    lead('l27', 'heads.a', 'hatch.front1', 1),
    lead('l34', 'hatch.rear1', 'head.in', 2.5),
    lead('l13', 'head.send', 'swell.in', 6),
    lead('l14', 'swell.out', 'echo.in', 6),
    lead('l15', 'echo.out', 'head.return', 3),
    lead('l16', 'head.speaker', 'cab.in', 1.5, 'speaker'),
    lead('l17', 'cab.air', 'mic.air', 0.05, 'air'),
    lead('l18', 'mic.out', 'house.in', 25, 'balanced', 60),
    lead('l19', 'cab.air', 'mic2.air', 0.12, 'air'),
    lead('l20', 'mic2.out', 'ears.in', 8, 'balanced', 60),
    lead('l21', 'fork.b', 'sim.in', 1),
    lead('l22', 'sim.out', 'drift.in', 0.4),
    lead('l23', 'drift.out', 'dome.in', 0.5),
    lead('l24', 'drift.outR', 'dome.inR', 0.5),
    lead('l25', 'dome.out', 'wide.in', 25, 'balanced', 60),
    lead('l26', 'dome.outR', 'wide.inR', 25, 'balanced', 60),
    lead('l28', 'heads.b', 'hatch.front2', 1),
    lead('l35', 'hatch.rear2', 'deck.in', 4.5),
    lead('l29', 'deck.speaker', 'deckcab.in', 1.5, 'speaker'),
    lead('l30', 'tracks.out', 'tdi.in', 1),
    lead('l33', 'tdi.out', 'tdesk.in', 25, 'balanced', 60),
    lead('l31', 'tracks.click', 'tech.in', 3),
    lead('l32', 'band.out', 'tech.inR', 25, 'balanced', 60),
    lead('m01', 'purser.usb', 'skeg.usb', 2, 'usb'),
    lead('m02', 'skeg.midiOut', 'echo.midiIn', 8, 'midi'),
    lead('m03', 'echo.midiThru', 'dome.midiIn', 0.6, 'midi'),
  ],
  sounds: withPrograms(
    {
      flat: [0, 0],
      edge: [0, 0],
      crunch: [0, 0],
      rhythm: [0, 0],
      lead: [1, 1],
      organ: [1, 0],
      steel: [1, 0],
      tune: [0, 2],
    },
    [
      sound(
        'flat',
        'Tide flat',
        ['comp', 'drift', 'dome'],
        {},
        'Clean, wide, compressor always on.',
      ),
      sound('edge', 'Edge', ['comp', 'brine', 'dome'], {
        brine: { engaged: true, settings: { drive: 1.5 } },
      }),
      sound('crunch', 'Crunch', ['comp', 'brine', 'vesk', 'dome']),
      sound('rhythm', 'Kiln rhythm', ['comp', 'brine', 'kiln', 'vesk', 'dome']),
      sound('lead', 'Lead', ['comp', 'brine', 'kiln', 'flare', 'vesk', 'echo', 'dome'], {
        dome: { engaged: true, settings: { mix: 4.5 } },
        heads: { settings: { select: 'both' } },
      }),
      sound('organ', 'Observatory organ', ['comp', 'sub', 'drift', 'echo', 'dome'], {
        drift: { engaged: true, settings: { rate: 6, depth: 7 } },
        heads: { settings: { select: 'both' } },
      }),
      sound('steel', 'Steel swells', ['steel', 'comp', 'brine', 'echo', 'dome'], {
        bari: { engaged: false },
        swell: { settings: { pedal: 6 } },
      }),
      sound('tune', 'Silent tuning', ['tuner'], {
        tracks: { engaged: false },
        band: { engaged: false },
      }),
    ],
  ),
  sheets: spareSheets,
  songs: touringSongs,
  sets: touringSets,
  candidates: [
    {
      id: 'c1',
      name: 'Eight on the floor',
      switches: 8,
      pedals: 0,
      pedalJacks: 2,
      sends: ['program', 'control', 'clock'],
      twoWay: true,
      power: '9 V',
      labels: 'screen',
      letters: 12,
      widthMm: 420,
      depthMm: 160,
      grams: 2200,
      price: 390,
    },
    {
      id: 'c2',
      name: 'Four and a treadle',
      switches: 4,
      pedals: 1,
      toeSwitch: true,
      pedalJacks: 1,
      sends: ['program', 'control'],
      twoWay: false,
      power: 'usb',
      labels: 'tape',
      widthMm: 380,
      depthMm: 190,
      grams: 2900,
      price: 240,
    },
    {
      id: 'c3',
      name: 'Long bar',
      switches: 12,
      pedals: 2,
      pedalJacks: 2,
      sends: ['program', 'control', 'clock', 'pressure'],
      twoWay: true,
      power: 'mains',
      labels: 'screen',
      letters: 20,
      widthMm: 780,
      depthMm: 260,
      grams: 5600,
      price: 720,
    },
  ],
  brief: {
    sources: [
      { id: 'b1', kind: 'guitar-baritone', name: 'Baritone', wireless: true },
      { id: 'b2', kind: 'lap-steel', name: 'Lap steel' },
    ],
    destinations: [
      { id: 'b3', way: 'head', name: 'Stage cabinet' },
      { id: 'b4', way: 'house', name: 'House, wide pair' },
      { id: 'b5', way: 'in-ears', name: 'Iseult’s in-ears' },
    ],
    sounds: [
      { id: 'b6', name: 'Tide flat', character: 'clean' },
      { id: 'b7', name: 'Edge', character: 'edge' },
      { id: 'b8', name: 'Crunch', character: 'crunch' },
      { id: 'b9', name: 'Lead', character: 'saturated' },
      { id: 'b10', name: 'Observatory organ', character: 'special' },
    ],
    gear: [
      { id: 'b11', kind: 'compressor', name: 'Harbour Comp' },
      { id: 'b12', kind: 'drive-low', name: 'Brine Drive' },
      { id: 'b13', kind: 'drive-mid', name: 'Kiln Drive' },
      { id: 'b14', kind: 'chorus', name: 'Drift Chorus' },
      { id: 'b15', kind: 'reverb', name: 'Dome Reverb' },
      { id: 'b16', kind: 'phaser', name: 'Spare phaser' },
    ],
    never: [{ id: 'b17', words: 'No pedal on the ferry deck without its bag: salt spray.' }],
  },
  promises: [
    {
      id: 'hears-house',
      type: 'hears',
      destination: 'house',
      source: 'bari',
      sounds: ['flat', 'edge', 'crunch', 'rhythm', 'lead', 'organ'],
      mustSurvive: true,
    },
    { id: 'no-click', type: 'never-hears', destination: 'tdesk', source: 'tracks/click' },
    { id: 'tuner-bari', type: 'tuner-hears', source: 'bari' },
    { id: 'silent', type: 'muted-silent', sounds: ['tune'] },
    {
      id: 'swell-only',
      type: 'moves-only',
      device: 'swell',
      setting: 'pedal',
      destinations: ['cab', 'house', 'ears'],
      sounds: ['lead', 'steel'],
    },
    { id: 'wide', type: 'stereo', destination: 'wide', sounds: ['flat', 'lead', 'organ'] },
    { id: 'one-up', type: 'one-press', from: 'crunch', to: 'rhythm' },
    { id: 'loads', type: 'no-tube-unloaded' },
    { id: 'prompt', type: 'latency-under', destination: 'ears', ms: 10 },
    {
      id: 'comp-dies',
      type: 'survives',
      device: 'comp',
      destination: 'house',
      actions: 2,
      sounds: ['flat', 'lead'],
    },
  ],
  order: {
    stances: {
      'volume-place': {
        stance: 'ignore',
        because: 'It sits in the loop for swells into the echo.',
      },
    },
  },
  reference: { metres: 3, pfPerMetre: 100, ohms: 1_000_000 },
});
