import { defineKind, jack } from './define';
import type { Pass } from './kind';
import { midiFigures, midiIn, midiThru } from './midi-parts';
import { choice, figure, pedalFigures, stage, wire, worldMains, as } from './parts';

const AMPS = [1, 2, 3, 4];
const CABS = [1, 2, 3, 4];
const audio = (id: string, label: string, direction: 'in' | 'out') =>
  jack({
    id,
    label,
    direction,
    signal: 'audio',
    connector: 'TS',
  });
const speaker = (id: string, label: string, direction: 'in' | 'out') =>
  jack({
    id,
    label,
    direction,
    signal: 'speaker',
    connector: 'speaker',
    apart: true,
  });

export const ampSwitcher = defineKind({
  id: 'amp-switcher',
  name: 'Amp and cabinet switcher',
  family: 'Routing',
  job: 'switcher',
  about:
    'One guitar to any of four amplifiers, its speaker output to any of four cabinets, ' +
    'one effects loop shared by the amplifiers that have one, and a line between (line ' +
    'send and return) for an attenuator or a load that serves them all. The front input ' +
    'takes priority over the rear one. Each amplifier hangs on transformers, and its speaker line on ' +
    'both poles of a relay, so that no two grounds meet. Nothing selected: silent tuning.',
  jacks: [
    audio('in', 'in, front', 'in'),
    audio('inRear', 'in, rear', 'in'),
    audio('tuner', 'tuner out', 'out'),
    ...AMPS.flatMap((n) => [
      audio(`amp${n}`, `amp ${n} input`, 'out'),
      audio(`send${n}`, `amp ${n} loop send`, 'in'),
      audio(`return${n}`, `amp ${n} loop return`, 'out'),
      speaker(`speaker${n}`, `amp ${n} speaker`, 'in'),
    ]),
    ...CABS.map((n) => speaker(`cab${n}`, `cabinet ${n}`, 'out')),
    audio('loopSend', 'shared loop send', 'out'),
    audio('loopReturn', 'shared loop return', 'in'),
    speaker('lineSend', 'line send', 'out'),
    speaker('lineReturn', 'line return', 'in'),
    midiIn,
    midiThru,
  ],
  figures: [
    ...pedalFigures(1e6, -105, 'one buffer an output'),
    ...midiFigures({ programMs: 15, gapMs: 10, why: 'relays, switched while muted' }),
    figure(
      'loadOhms',
      'Load on what is not selected',
      'Ω',
      8,
      [2, 32],
      'a resistor for each amplifier that is not selected',
    ),
    figure('loadWatts', 'Rating of that load', 'W', 100, [1, 1000], 'a resistor on a heat sink'),
  ],
  parameters: [
    choice(
      'amp',
      'Amplifier',
      ['1', '1'],
      ['2', '2'],
      ['3', '3'],
      ['4', '4'],
      ['none', 'none (silent tuning)'],
    ),
    choice('cab', 'Cabinet', ['1', '1'], ['2', '2'], ['3', '3'], ['4', '4'], ['none', 'none']),
    { type: 'switch', id: 'loop', label: 'Shared loop in', initial: true },
    as(
      'amplifiers not selected',
      choice(
        'unselected',
        'Amplifiers not selected',
        ['load', 'see a load inside'],
        ['open', 'see nothing'],
      ),
    ),
  ],
  through: { in: 'in', out: 'amp1' },
  alwaysOn: true,
  programs: true,
  midi: { programs: { count: 128, bank: 'none', shows: { from: 1 } }, thrus: ['hardware'] },
  loops: [
    {
      id: 'loop',
      label: 'shared loop',
      send: ['loopSend'],
      return: ['loopReturn'],
      opensAt: 'never',
    },
    {
      id: 'line',
      label: 'line insert',
      send: ['lineSend'],
      return: ['lineReturn'],
      ofSpeakerLine: true,
      opensAt: 'never',
    },
  ],
  earth: 'in',
  rackUnits: 2,
  mains: { ...worldMains, watts: 20 },
  size: { width: 483, depth: 250, height: 88, grams: 7000 },
  passes: (s, plugged) => {
    const amp = s.choice('amp');
    const cab = s.choice('cab');
    const input = plugged('in') ? 'in' : 'inRear';
    const rest: Pass = {
      is: 'shunt',
      at: '',
      ohms: s.figure('loadOhms'),
      coil: { watts: s.figure('loadWatts') },
    };
    const passes: Pass[] = [stage(s, { id: 'tuner', from: input, to: 'tuner' })];
    if (plugged('in') && plugged('inRear')) passes.push({ is: 'open', a: 'inRear', b: 'tuner' });
    for (const n of AMPS) {
      const chosen = amp === String(n);
      if (!plugged(`amp${n}`) && !plugged(`speaker${n}`)) continue;
      passes.push(
        stage(s, {
          id: `amp${n}`,
          from: input,
          to: `amp${n}`,
          muted: !chosen,
          groundThrough: false,
        }),
      );
      const line = plugged('lineSend') && plugged('lineReturn');
      if (chosen && cab !== 'none')
        passes.push(wire(`speaker${n}`, line ? 'lineSend' : `cab${cab}`));
      else {
        if (s.choice('unselected') === 'load') passes.push({ ...rest, at: `speaker${n}` });
        for (const c of CABS)
          if (plugged(`cab${c}`)) passes.push({ is: 'open', a: `speaker${n}`, b: `cab${c}` });
      }
      if (!plugged(`send${n}`)) continue;
      if (chosen && s.on('loop') && plugged('loopSend'))
        passes.push(
          stage(s, { id: `send${n}`, from: `send${n}`, to: 'loopSend', groundThrough: false }),
          stage(s, {
            id: `return${n}`,
            from: 'loopReturn',
            to: `return${n}`,
            groundThrough: false,
          }),
        );
      else
        passes.push(
          stage(s, { id: `send${n}`, from: `send${n}`, to: `return${n}`, groundThrough: false }),
        );
    }
    if (plugged('lineSend') && plugged('lineReturn') && cab !== 'none' && amp !== 'none')
      passes.push(wire('lineReturn', `cab${cab}`));
    for (const n of CABS)
      if (plugged(`cab${n}`) && cab !== String(n))
        passes.push({ is: 'open', a: 'lineReturn', b: `cab${n}` });
    return passes;
  },
});
