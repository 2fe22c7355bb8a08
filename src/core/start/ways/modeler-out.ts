import type { Device } from '../../rig/schema';
import { type Making, METRES, type Waiting } from '../making';
import type { Wiring } from './amp-parts';
import { type End, finish, toEach } from './ends';
import { addControl, type Inner, MASTER } from './modeler-amps';

/** A second line into a modeler: where it comes in, and whether it shares the outputs or has one of them. */
export interface SecondLine {
  name: string;
  /** The inner point at which it comes in. */
  from: string;
  /** What is joined to its outer jack, where that is not done yet. */
  at?: Waiting;
  sides: 'mixed' | 'dual';
  /** Whether an amplifier is modelled for it. */
  amp: boolean;
  /** An inner point of another line that goes along with it, past its amplifier. */
  also?: string;
  /** Who plays it, where that is not who plays the first line, too. */
  player?: string;
}

type StageBy = 'return' | 'power' | 'digital';

const STAGE_WHY: Record<StageBy, string> = {
  return:
    'The modeler is the preamplifier; its cabinet is left out on the way to a real loudspeaker.',
  power: 'A plain power amplifier and a cabinet: what is modelled is heard as it is.',
  digital:
    'One link carries sound and control, taken right behind the modelled amplifier; nothing is ' +
    'converted twice, and no ground goes along.',
};

/** How loudspeakers on stage are driven: by power stages of amplifiers, by power amplifiers, by a digital link. */
export function stageFor({ choices }: Wiring, kind: string, amps: readonly End[]): StageBy {
  if (!amps.length) return 'return';
  const areHeads = amps.every((a) => a.way === 'head');
  const hasLink = kind === 'modeler-floor' || kind === 'modeler-rack';
  return choices.take<StageBy>(
    'power-stage',
    'What the amplifiers on stage do',
    [
      ['return', 'power stages: the modeler goes into their returns'],
      ...(areHeads ? [['power', 'power amplifiers, a cabinet each'] as const] : []),
      ...(areHeads && amps.length === 1 && hasLink
        ? [['digital', 'a head with a digital input, on one link'] as const]
        : []),
    ],
    'return',
    (t) => STAGE_WHY[t],
  );
}

/** Main outputs behind transformers: amplifiers on stage and a desk close a circle of grounds. */
function isolated(making: Making, choices: Wiring['choices'], { left, right }: Waiting): Waiting {
  const iso = making.add('hum-isolator', 'Isolator', { place: 'floor' });
  making.join(left, { device: iso.id, jack: 'in' }, 0.5);
  if (right) making.join(right, { device: iso.id, jack: 'inR' }, 0.5);
  choices.take(
    'isolator',
    'What keeps grounds apart',
    [['isolator', 'an isolator behind the main outputs']],
    'isolator',
    () => 'Amplifiers on stage and a desk are both on the mains: a lead to each closes a hum loop.',
  );
  return {
    left: { device: iso.id, jack: 'out' },
    right: { device: iso.id, jack: 'outR' },
    metres: METRES.desk,
  };
}

/** A way for each of several power stages: the two sides first, then what a splitter makes of them. */
function forAmps(making: Making, sides: readonly Waiting['left'][], count: number) {
  const ways = [...sides];
  for (let n = 1; ways.length < count; n++) {
    const from = ways.shift();
    if (!from) break;
    const fork = making.add('splitter-isolated', `Fork ${n}`, { place: 'floor' });
    making.join(from, { device: fork.id, jack: 'in' }, METRES.patch);
    ways.push({ device: fork.id, jack: 'a' }, { device: fork.id, jack: 'b' });
  }
  return ways;
}

interface Out {
  amps: readonly End[];
  others: readonly End[];
  stageBy: StageBy;
  second: SecondLine | undefined;
}

/** The main outputs to who hears a loudspeaker modelled, the second ones to power stages. */
export function sendOut(
  w: Wiring,
  modeler: Device,
  { stage, cab }: { stage: Inner; cab: Inner },
  { amps, others, stageBy, second }: Out,
): void {
  if (second) withSecond(w, modeler, cab, { second, others, amps, stageBy });
  else if (others.length) toDirect(w, modeler, cab, others, amps.length > 0);
  toStage(w, modeler, stage, amps, stageBy);
}

/** A line that goes past the amplifier, where others are added to it. */
const QUIETER = { settings: { level: -9 } };

/** Both lines to all, or a line of its own for each. */
function withSecond(
  w: Wiring,
  modeler: Device,
  cab: Inner,
  out: Omit<Out, 'second'> & { second: SecondLine },
): void {
  const { making, brief } = w;
  const { second, others, amps } = out;
  const at = (jack: string) => ({ device: modeler.id, jack });
  const last = secondInside(making, modeler, out);
  if (!others.length) return;
  if (second.sides === 'mixed') {
    for (const end of last) for (const jack of ['toOut', 'toOutR']) making.join(end, at(jack), 0);
    toDirect(w, modeler, cab, others, amps.length > 0);
    return;
  }
  making.join(cab.left, at('toOut'), 0);
  for (const end of last) making.join(end, at('toOutR'), 0);
  const lines = { left: at('out'), right: at('outR'), metres: METRES.desk };
  const { left, right = left } = amps.length ? isolated(making, w.choices, lines) : lines;
  const mono = { ...brief, means: { ...brief.means, house: 'mono' as const } };
  const own = others.map((e) => ({ ...e, name: `${e.name}, ${second.name}` }));
  const { player = '' } = second;
  const reach = (
    ends: readonly End[],
    from: Waiting['left'],
    hears: { only?: string; not?: string },
  ) => {
    const before = making.devices.length;
    toEach(making, ends, mono, { left: from, metres: METRES.desk });
    for (const d of making.devices.slice(before)) making.apart.set(d.id, hears);
  };
  reach(others, left, { not: player });
  reach(own, right, { only: player });
}

/** What a second line goes through inside, to loudspeakers on stage where it shares them; where it then waits. */
function secondInside(
  making: Making,
  modeler: Device,
  { second, amps, others, stageBy }: Omit<Out, 'second'> & { second: SecondLine },
): Waiting['left'][] {
  const at = (jack: string) => ({ device: modeler.id, jack });
  const block = (kind: string, name: string, rest: Partial<Device> = {}) =>
    making.add(kind, name, { host: modeler.id, ...rest });
  const along = (from: string, row: Device[]) =>
    making.through({ left: at(from), metres: 0 }, row).left;
  if (second.at)
    making.join(
      second.at.left,
      at(second.from === 'fromAux' ? 'aux' : 'digitalIn'),
      second.at.metres,
    );
  const amp =
    second.amp &&
    block('amp-block', `Amp, ${second.name}`, { settings: { master: MASTER.beside } });
  const shaped = amp
    ? along(second.from, [amp, block('cab-block', `Cab, ${second.name}`)])
    : along(second.from, [block('pan', `Level, ${second.name}`, QUIETER)]);
  const plain =
    second.also === undefined
      ? []
      : [along(second.also, [block('pan', `Level, ${second.name} modelled`, QUIETER)])];
  if (second.sides === 'mixed') {
    // A real loudspeaker takes no modelled one; what is past the amplifier goes there only where nobody else hears it.
    const onStage = [
      ...(amp ? [{ device: amp.id, jack: 'out' }] : []),
      ...(others.length ? [] : [...(amp ? [] : [shaped]), ...plain]),
    ];
    const inputs =
      stageBy === 'digital' ? ['toDigital1'] : ['toOut2', 'toOut2R'].slice(0, amps.length);
    for (const end of onStage) for (const jack of inputs) making.join(end, at(jack), 0);
  }
  return [shaped, ...plain];
}

/** What hears no real loudspeaker: both sides for all, or one for the ears and one for the others. */
function toDirect(
  w: Wiring,
  modeler: Device,
  cab: Inner,
  others: readonly End[],
  isOnStage: boolean,
): void {
  const { making, choices, brief } = w;
  const at = (jack: string) => ({ device: modeler.id, jack });
  const ears = others.filter((e) => e.way === 'in-ears');
  const rest = others.filter((e) => e.way !== 'in-ears');
  const isApart =
    ears.length > 0 &&
    rest.length > 0 &&
    choices.take(
      'outputs',
      'What the two outputs carry',
      [
        ['sides', 'both sides, to all'],
        ['ears', 'the right one the ears, the left one everybody else'],
      ],
      'sides',
      (t) =>
        t === 'sides'
          ? 'All hear the same, in stereo where they can.'
          : 'Ears and house can be set apart in level and tone; neither is stereo.',
    ) === 'ears';
  const both = { left: at('out'), right: at('outR'), metres: METRES.desk };
  const outer = (way: Waiting) => (isOnStage ? isolated(making, choices, way) : way);
  if (!isApart) {
    making.join(cab.left, at('toOut'), 0);
    making.join(cab.right, at('toOutR'), 0);
    toEach(making, others, brief, outer(both));
    return;
  }
  const level = (name: string) => making.add('pan', name, { host: modeler.id });
  const [house, own] = [level('Level, others'), level('Level, ears')];
  for (const [block, jack] of [
    [house, 'toOut'],
    [own, 'toOutR'],
  ] as const) {
    making.join(cab.left, { device: block.id, jack: 'in' }, 0);
    making.join({ device: block.id, jack: 'out' }, at(jack), 0);
  }
  const { left, right } = outer(both);
  const mono = { ...brief, means: { ...brief.means, house: 'mono' as const } };
  toOthers(w, rest, { left, metres: METRES.desk });
  if (right) toEach(making, ears, mono, { left: right, metres: METRES.desk });
  earsByPedal(w, modeler, own, ears);
}

/** One line to those who have no ears in; the house from the loudspeaker's line output, where that is chosen. */
function toOthers({ making, choices, brief }: Wiring, ends: readonly End[], at: Waiting): void {
  const mono = { ...brief, means: { ...brief.means, house: 'mono' as const } };
  const [speaker, house] = ['stage', 'house'].map((way) => ends.find((e) => e.way === way));
  const taken =
    speaker && house
      ? choices.take(
          'house-from',
          `Where ${house.name} gets its line`,
          [
            ['split', 'from a splitter'],
            ['speaker', `from the line output of ${speaker.name}`],
          ],
          'split',
          (t) =>
            t === 'split'
              ? 'Nothing on stage stands in its way.'
              : 'One lead from the board does for both; who unplugs the loudspeaker takes the house with it.',
        )
      : 'split';
  if (taken === 'split' || !speaker || !house) {
    toEach(making, ends, mono, at);
    return;
  }
  toEach(
    making,
    ends.filter((e) => e !== house),
    mono,
    at,
  );
  const box = making.devices.find((d) => d.name === speaker.name);
  if (box)
    finish(making, house, { left: { device: box.id, jack: 'thru' }, metres: METRES.desk }, 'line');
}

/** A pedal that moves the level in the ears and nothing else, where that is chosen. */
function earsByPedal(
  { making, choices }: Wiring,
  modeler: Device,
  level: Device,
  ears: readonly End[],
) {
  const taken = choices.take(
    'ears-pedal',
    'Who sets the level in the ears',
    [
      ['fixed', 'it stays as it is set'],
      ['pedal', 'a pedal of the player'],
    ],
    'fixed',
    (t) =>
      t === 'fixed'
        ? 'The pack has a volume of its own.'
        : 'It moves what the ears hear of the guitar, and never the house: that is a promise, too.',
  );
  if (taken === 'fixed') return;
  const control = addControl(making, modeler, { name: 'Ears pedal', by: 'pedal' }, () => [
    { id: 'level', device: level.id, setting: 'level', min: -60, max: 0, curve: 'reverse-audio' },
  ]);
  making.promises.push({
    id: 'ears-pedal',
    type: 'control-moves-only',
    control: control.id,
    destinations: ears.flatMap((e) => making.devices.find((d) => d.name === e.name)?.id ?? []),
  });
}

function toStage(
  { making }: Wiring,
  modeler: Device,
  stage: Inner,
  amps: readonly End[],
  by: StageBy,
): void {
  const at = (jack: string) => ({ device: modeler.id, jack });
  const [only] = amps;
  if (by === 'digital' && only) {
    const head = making.add('head-tube-digital', only.name, { place: 'amps' });
    making.join(stage.left, at('toDigital1'), 0);
    making.join(at('digitalOut'), { device: head.id, jack: 'digital' }, METRES.amp);
    toCabinet(making, head, 'Cabinet');
    return;
  }
  if (amps.length) making.join(stage.left, at('toOut2'), 0);
  if (amps.length > 1) making.join(stage.right, at('toOut2R'), 0);
  const ways = forAmps(making, [at('out2'), at('out2R')].slice(0, amps.length), amps.length);
  for (const [n, line] of amps.entries()) {
    const way = ways[n];
    if (!way) continue;
    const isHead = line.way === 'head';
    const kind = by === 'power' ? 'power-amp' : isHead ? 'head-tube' : 'combo-tube-loop';
    const power = making.add(kind, line.name, { place: by === 'power' ? 'rack' : 'amps' });
    making.join(way, { device: power.id, jack: by === 'power' ? 'in' : 'return' }, METRES.amp);
    if (isHead) toCabinet(making, power, amps.length > 1 ? `Cabinet, ${line.name}` : 'Cabinet');
  }
}

function toCabinet(making: Making, power: Device, name: string): void {
  const cabinet = making.add('cabinet', name, { place: 'amps' });
  making.join(
    { device: power.id, jack: 'speaker' },
    { device: cabinet.id, jack: 'in' },
    METRES.speaker,
  );
}
