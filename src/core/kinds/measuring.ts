import type { Figure } from './kind';

/** A way to learn a figure of the device at hand. */
export interface MeasuringWay {
  tool: string;
  steps: string;
  /**
   * How far devices of one kind lie from what is typical: so many dB, or so many times, up and down.
   * Rules of thumb of the trade, not statistics.
   */
  spread: { db: number } | { times: number } | 'either';
}

const within = (db: number) => ({ db });
const upTo = (times: number) => ({ times });

/** Every way in which a figure is learnt. Cautions stand in docs/safety.md. */
export const MEASURING_WAYS = {
  label: {
    tool: 'the label or the manual',
    steps: 'Read it beside the jack or on the back; nothing needs to be opened or switched on.',
    spread: upTo(2),
  },
  manual: {
    tool: 'the manual',
    steps: 'Look it up under specifications, or set the knob to both ends and read the display.',
    spread: upTo(1.5),
  },
  ohmmeter: {
    tool: 'a multimeter, Ω',
    steps:
      'Unplug everything. Volume and tone full up. Measure from tip to sleeve of the output, or ' +
      'between the ends of the track.',
    spread: upTo(1.5),
  },
  capacitance: {
    tool: 'a capacitance meter',
    steps: 'Unplug everything and measure between tip and sleeve, the other end open.',
    spread: upTo(1.5),
  },
  inductance: {
    tool: 'an LCR meter at 100 or 120 Hz',
    steps: 'Unplug everything, volume and tone full up, and measure L from tip to sleeve.',
    spread: upTo(1.5),
  },
  'output impedance': {
    tool: 'a tone of 1 kHz, a level meter and a resistor near the typical figure',
    steps:
      'Measure the level with nothing else plugged in, U₁, then with the resistor R across tip and ' +
      'sleeve, U₂, both in volts. The impedance is R · (U₁ ÷ U₂ − 1).',
    spread: upTo(2),
  },
  'input impedance': {
    tool: 'a tone of 1 kHz, a level meter and a resistor near the typical figure',
    steps:
      'Measure the voltage at the input, U₁, then with the resistor R in series before it, U₂. The ' +
      'impedance is R · U₂ ÷ (U₁ − U₂).',
    spread: upTo(2),
  },
  'played level': {
    tool: 'a meter of dBu with a high input impedance, or an interface with a known full scale',
    steps:
      'Volume full up, one minute of the part at its usual strength: the middle of the RMS is the ' +
      'level, the highest instant the peak.',
    spread: within(6),
  },
  'clip point': {
    tool: 'a tone of 1 kHz and an oscilloscope or a recording',
    steps:
      'Gain at unity. Raise the tone until the tops flatten, and read the level there. Turn ' +
      'loudspeakers and headphones down first.',
    spread: within(4),
  },
  noise: {
    tool: 'a level meter, 20 Hz to 20 kHz',
    steps:
      'Short the input with a plug whose tip is tied to its sleeve, measure the output, and take off ' +
      'the gain.',
    spread: within(6),
  },
  hum: {
    tool: 'a level meter of high input impedance, 20 Hz to 20 kHz',
    steps:
      'Where you will play, volume full up, strings damped, with the lead that you use: turn about ' +
      'once, and take the middle of what is read.',
    spread: within(8),
  },
  gain: {
    tool: 'a tone of 1 kHz and a level meter',
    steps:
      'Send a tone that is soft enough not to clip. Measure in and out with the knob at the place ' +
      'that the figure names; the difference is the gain.',
    spread: within(3),
  },
  latency: {
    tool: 'a recorder with two tracks',
    steps:
      'Record a click on one track directly and on the other through the device. Count the time ' +
      'between the two.',
    spread: upTo(1.5),
  },
  messages: {
    tool: 'a recorder with a track for audio and one for MIDI',
    steps:
      'Record the message and what is heard, ten times over; take the longest time between them.',
    spread: upTo(2),
  },
  taper: {
    tool: 'a multimeter, Ω',
    steps:
      'Unplug everything. At half travel measure from the wiper to the heel end of the track, and ' +
      'divide by the whole track. Of an active pedal: the level at half travel under that at the toe.',
    spread: upTo(4),
  },
  polarity: {
    tool: 'a recorder with two tracks',
    steps:
      'Record a click on one track directly and on the other through the device: if the first swing ' +
      'goes the other way, it turns polarity over.',
    spread: 'either',
  },
} satisfies Record<string, MeasuringWay>;
type WayName = keyof typeof MEASURING_WAYS;

/** Which way a figure is learnt, by what it is. */
const WAY_OF: Record<string, WayName> = {
  ...each(
    'label',
    'watts',
    'tapOhms',
    'ohms',
    'speakerOhms',
    'lowestOhms',
    'loadOhms',
    'loadWatts',
  ),
  ...each('manual', 'rateLowHz', 'rateHighHz', 'rateStepHz', 'timeLowMs', 'timeHighMs'),
  ...each('manual', 'timeStepMs', 'ratio'),
  ...each('ohmmeter', 'pickupOhms', 'volumeOhms', 'toneOhms', 'trackOhms', 'coilOhms', 'potOhms'),
  ...each('capacitance', 'pickupPf', 'toneNf'),
  ...each('inductance', 'pickupHenries', 'coilHenries'),
  ...each('output impedance', 'outputOhms', 'sendOhms'),
  ...each('input impedance', 'inputOhms', 'returnOhms', 'micOhms', 'lineOhms'),
  ...each('played level', 'nominalDbu', 'peakDbu', 'piezoDbu', 'piezoPeakDbu', 'modelledDbu'),
  ...each('played level', 'modelledPeakDbu'),
  ...each('clip point', 'ceilingDbu', 'lineMaxDbu', 'instrumentMaxDbu', 'micMaxDbu', 'maxInDbu'),
  ...each('noise', 'noiseDbu', 'powerNoiseDbu', 'micNoiseDbu', 'lineNoiseDbu'),
  ...each('hum', 'humDbu'),
  ...each('gain', 'gainDb', 'gainLowDb', 'gainHighDb', 'levelLowDb', 'levelHighDb', 'dirtyDb'),
  ...each('gain', 'powerGainDb', 'airDb', 'rangeDb', 'lineDb', 'tiltDb', 'lossDb'),
  ...each('latency', 'latencyMs', 'tripMs', 'dryLatencyMs'),
  ...each('messages', 'controlMs', 'programMs', 'gapMs', 'thruMs'),
  ...each('taper', 'halfShare'),
  ...each('polarity', 'turnsOver'),
};

function each(way: WayName, ...ids: string[]): Record<string, WayName> {
  return Object.fromEntries(ids.map((id) => [id, way]));
}

/** How a figure of a device is learnt; nothing for one that nobody could measure. */
export const measuringWay = ({ id }: Figure): MeasuringWay | undefined =>
  Object.hasOwn(WAY_OF, id) ? MEASURING_WAYS[WAY_OF[id] as WayName] : undefined;

/**
 * The lowest and the highest that a figure may well be on a device whose figure was not measured:
 * around what is typical, and within what can be entered at all.
 */
export function believable(figure: Figure): [low: number, high: number] {
  const { typical, min, max } = figure;
  const spread = measuringWay(figure)?.spread;
  const held = (x: number) => Math.min(max, Math.max(min, x));
  if (spread === undefined) return [typical, typical];
  if (spread === 'either') return [min, max];
  if ('db' in spread) return [held(typical - spread.db), held(typical + spread.db)];
  return [held(typical / spread.times), held(typical * spread.times)];
}
