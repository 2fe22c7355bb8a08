import { at as entryAt } from '../../outcome';
import type { Device, End as Jack } from '../../rig/schema';
import { type Making, METRES, type Waiting } from '../making';
import {
  ampFor,
  type AmpTurns,
  inLoop,
  lateOnes,
  microphones,
  shared,
  standUp,
  type Wiring,
} from './amp-parts';
import type { End } from './ends';

/** One amplifier at a time: by forks, or by a switcher that can be called. */
export function inTurns(
  w: Wiring,
  from: Waiting,
  pedals: readonly Device[],
  amps: readonly End[],
  direct: readonly End[],
): AmpTurns {
  const { making, choices } = w;
  const way = choices.take(
    'turns',
    'What changes amplifiers',
    [
      ['fork', 'a splitter with transformers, by foot'],
      ...(amps.length > 4 ? [] : [['switcher', 'an amp switcher, by MIDI'] as const]),
    ],
    'fork',
    (taken) =>
      taken === 'fork'
        ? 'Each way has a transformer, which keeps the grounds of the amplifiers apart, and each ' +
          'keeps its own loudspeaker as its load.'
        : 'It takes programs and lets heads share a cabinet; amplifiers that do not sound ' +
          'see a load in it. Its ground and theirs meet.',
  );
  if (way === 'switcher') return bySwitcher(w, from, pedals, amps, direct);
  const at = making.through(from, pedals);
  const { ends, boxes } = shared(w, at, amps.length, true);
  const stages = amps.map((line, n) => standUp(making, line, { left: entryAt(ends, n) }));
  const hears = microphones(making, stages, direct);
  for (const [i, { speaker }] of stages.entries()) hears[speaker.id] = [i];
  return {
    hears,
    states: amps.map((_, n) =>
      Object.fromEntries(
        boxes.map((box, i) => [box.id, { settings: { select: i === n ? 'a' : 'b' } }]),
      ),
    ),
  };
}

/** One amplifier at a time, by a switcher that gives the others a load. */
function bySwitcher(
  w: Wiring,
  from: Waiting,
  pedals: readonly Device[],
  amps: readonly End[],
  direct: readonly End[],
): AmpTurns {
  const { making } = w;
  const areHeads = amps.every((a) => a.way === 'head');
  const loop = areHeads ? lateOnes(w, pedals, 'the loop that the heads share') : [];
  const at = making.through(
    from,
    pedals.filter((d) => !loop.includes(d)),
  );
  const switcher = making.add('amp-switcher', 'Amp switcher', { place: 'amps' });
  const jack = (id: string): Jack => ({ device: switcher.id, jack: id });
  making.join(at.left, jack('in'), METRES.amp);
  const cabinet = areHeads ? cabinetFor(making, switcher, 1, 'Cabinet') : undefined;
  const stages = amps.map((line, i) => {
    const isHead = line.way === 'head';
    const amp = ampFor(making, line);
    making.join(jack(`amp${i + 1}`), { device: amp.id, jack: 'in' }, 1);
    if (!isHead) return { amp, speaker: amp };
    making.join({ device: amp.id, jack: 'speaker' }, jack(`speaker${i + 1}`), 1);
    if (loop.length) {
      making.join({ device: amp.id, jack: 'send' }, jack(`send${i + 1}`), 1);
      making.join(jack(`return${i + 1}`), { device: amp.id, jack: 'return' }, 1);
    }
    return {
      amp,
      speaker: cabinet ?? cabinetFor(making, switcher, i + 1, `Cabinet, ${line.name}`),
    };
  });
  inLoop(making, loop, jack('loopSend'), jack('loopReturn'));
  if (areHeads) attenuated(w, switcher);
  const hears = microphones(making, cabinet ? stages.slice(0, 1) : stages, direct);
  if (!cabinet) for (const [i, { speaker }] of stages.entries()) hears[speaker.id] = [i];
  return {
    hears: cabinet ? {} : hears,
    states: amps.map((line, i) => {
      const cab = cabinet ? '1' : line.way === 'head' ? String(i + 1) : 'none';
      return { [switcher.id]: { settings: { amp: String(i + 1), cab } } };
    }),
  };
}

/** What makes heads softer, once for all of them: between the head and the cabinet that are switched together. */
function attenuated({ making, choices }: Wiring, switcher: Device): void {
  const taken = choices.take(
    'attenuator',
    'Between head and cabinet',
    [
      ['nothing', 'nothing'],
      ['attenuator', 'an attenuator'],
    ],
    'nothing',
    (t) =>
      t === 'nothing'
        ? 'The cabinet gets what the head gives.'
        : 'In the line of the switcher it serves each head; mind what it may take, and that its load fits.',
  );
  if (taken === 'nothing') return;
  const box = making.add('attenuator', 'Attenuator', { place: 'amps' });
  const [send, back] = [
    { device: switcher.id, jack: 'lineSend' },
    { device: switcher.id, jack: 'lineReturn' },
  ];
  making.join(send, { device: box.id, jack: 'in' }, METRES.speaker);
  making.join({ device: box.id, jack: 'out' }, back, METRES.speaker);
}

function cabinetFor(making: Making, switcher: Device, n: number, name: string): Device {
  const cabinet = making.add('cabinet', name, { place: 'amps' });
  making.join(
    { device: switcher.id, jack: `cab${n}` },
    { device: cabinet.id, jack: 'in' },
    METRES.speaker,
  );
  return cabinet;
}
