import { fixed } from '../units';
import type { DeviceState } from './kind';
import { defineKind } from './define';
import { airFigure, airJack, inFrontOf } from './amp-parts';
import { hostFigures, hostJacks, hostLoops, hostParameters, hostPasses } from './host-parts';
import { between, figure, knob, stage, wire, worldMains } from './parts';

const PLAN = { loops: 2 };
const OUTER = new Set(['out', 'outR']);

export const comboModeling = defineKind({
  id: 'combo-modeling',
  name: 'Modeling combo',
  family: 'Modelers',
  job: 'modeler',
  about:
    'A modeler, a power stage and a speaker in one box. The left output drives its own ' +
    'speaker, the right one a slave’s power stage. With a lead in the power-stage input ' +
    'it is a slave itself: then only its master still works.',
  jacks: [
    ...hostJacks(PLAN).filter((j) => !OUTER.has(j.id)),
    {
      id: 'slaveOut',
      label: 'right out, for a slave',
      direction: 'out',
      signal: 'audio',
      connector: 'TS',
    },
    { id: 'powerIn', label: 'power-stage in', direction: 'in', signal: 'audio', connector: 'TS' },
    airJack,
  ],
  figures: [
    ...hostFigures,
    figure('watts', 'Rated power', 'W', 60, [0.1, 2000], 'a solid-state stage for a stage combo'),
    figure('speakerOhms', 'Own speaker', 'Ω', 8, [2, 32], 'the usual speaker'),
    airFigure,
  ],
  parameters: [
    ...hostParameters.filter((p) => p.id !== 'outputLevel'),
    knob('master', 'Master', 5, (v) => `${fixed(between(-40, 0, v))} dB`),
  ],
  startsEngaged: true,
  stateWords: { on: 'on', off: 'off' },
  programs: true,
  loops: hostLoops(PLAN),
  hosts: {
    slots: 8,
    percent: 100,
    paths: 1,
    links: [
      ['fromIn', 'toOut'],
      ['fromIn', 'toOutR'],
    ],
  },
  destination: { jacks: ['voice coil'], hears: 'stage' },
  earth: 'in',
  mains: { ...worldMains, watts: 90 },
  size: { width: 560, depth: 270, height: 480, grams: 16_000 },
  passes: (s, plugged) => {
    const slave = plugged('powerIn');
    const volts = Math.sqrt(s.figure('watts') * s.figure('speakerOhms'));
    const master = stage(s, {
      id: 'power',
      from: 'power',
      to: 'voice coil',
      inOhms: 10_000,
      outOhms: 0.1,
      muted: !s.engaged,
      gainDb: 26,
      outputDb: between(-40, 0, s.knob('master')),
      noiseDbu: -100,
      ceiling: { dbu: 20 * Math.log10(volts / 0.7746), shape: 'hard', meant: false },
    });
    const asks: DeviceState = s;
    const inside = hostPasses(
      { ...asks, choice: (id: string) => (id === 'outputLevel' ? 'line' : asks.choice(id)) },
      PLAN,
      (jack) => OUTER.has(jack) || plugged(jack),
    ).map((p) =>
      p.is === 'stage' && p.to === 'out'
        ? { ...p, to: slave ? 'unheard' : 'power' }
        : p.is === 'stage' && p.to === 'outR'
          ? { ...p, to: 'slaveOut' }
          : p,
    );
    return [
      ...(slave ? inside.map((p) => (p.is === 'stage' ? { ...p, muted: true } : p)) : inside),
      ...(slave ? [wire('powerIn', 'power')] : []),
      master,
      inFrontOf(s, 'voice coil'),
      {
        is: 'arrive',
        at: 'voice coil',
        ohms: s.figure('speakerOhms'),
        maxDbu: 60,
        noiseDbu: -Infinity,
      },
    ];
  },
});
