import type { DeviceState, Pass, Shunt, Source, Played } from './kind';
import { figure, knob, wire, load, audioTaper } from './parts';

/** Figures of a magnetic pickup and its controls. */
export const pickupFigures = (p: {
  ohms: number;
  henries: number;
  pF: number;
  volume: number;
  tone: number;
  nF: number;
  nominal: number;
  peak: number;
  /** Hum that the coil picks up on a usual stage, in dBu. */
  hum: number;
  why: string;
}) => [
  figure('pickupOhms', 'Winding resistance', 'Ω', p.ohms, [10, 50_000], p.why),
  figure('pickupHenries', 'Winding inductance', 'H', p.henries, [0, 20], p.why),
  figure('pickupPf', 'Winding capacitance', 'pF', p.pF, [0, 2000], p.why),
  figure(
    'volumeOhms',
    'Volume pot',
    'Ω',
    p.volume,
    [1000, 1e8],
    'the usual value for this type of pickup',
  ),
  figure(
    'toneOhms',
    'Tone pot',
    'Ω',
    p.tone,
    [1000, 1e8],
    'the usual value for this type of pickup',
  ),
  figure(
    'toneNf',
    'Tone capacitor',
    'nF',
    p.nF,
    [0, 1000],
    'the usual value for this type of pickup',
  ),
  figure('nominalDbu', 'Level, playing normally, into 1 MΩ', 'dBu', p.nominal, [-60, 20], p.why),
  figure('peakDbu', 'Peak, playing normally, into 1 MΩ', 'dBu', p.peak, [-60, 30], p.why),
  figure(
    'humDbu',
    'Hum that it picks up',
    'dBu',
    p.hum,
    [-120, -40],
    'two metres from transformers and dimmers; it is more close to one, and less across it',
  ),
];

export const guitarControls = [knob('volume', 'Volume', 10), knob('tone', 'Tone', 10)];

/**
 * Response at 1 kHz of a pickup with its controls full up, no lead, into 1 MΩ: nominal levels are
 * stated there.
 */
function ownResponse(s: DeviceState): number {
  const w = 2 * Math.PI * 1000;
  const r = s.figure('pickupOhms');
  const x = w * s.figure('pickupHenries');
  const farads = s.figure('toneNf') * 1e-9;
  let g = 1 / s.figure('volumeOhms') + 1e-6;
  let b = w * s.figure('pickupPf') * 1e-12;
  if (farads > 0) {
    const rt = s.figure('toneOhms');
    const xc = -1 / (w * farads);
    const m = rt * rt + xc * xc;
    g += rt / m;
    b -= xc / m;
  }
  return 1 / Math.hypot(1 + r * g - x * b, r * b + x * g);
}

/**
 * A magnetic pickup with volume and tone pot: the source in series with R and L, then in shunt the
 * winding capacitance, the tone pot in series with its capacitor, and the volume pot's track.
 */
export function passiveInstrument(s: DeviceState, played?: Played): Pass[] {
  const share = audioTaper(s.knob('volume'));
  const track = s.figure('volumeOhms');
  const emf = -20 * Math.log10(ownResponse(s));
  const source: Source = {
    is: 'source',
    at: 'coil',
    ohms: s.figure('pickupOhms'),
    henries: s.figure('pickupHenries'),
    nominalDbu: s.figure('nominalDbu') + emf,
    peakDbu: s.figure('peakDbu') + emf,
    noiseDbu: s.figure('humDbu') + emf,
    touch: true,
    bare: true,
    ...(played && { played }),
  };
  // At rest nothing is played, but the coil hangs on the lead as before.
  const coil: Shunt = { is: 'shunt', at: 'coil', ohms: source.ohms, henries: source.henries };
  const passes: Pass[] = [
    s.engaged ? source : coil,
    { is: 'shunt', at: 'coil', farads: s.figure('pickupPf') * 1e-12 },
  ];
  if (s.figure('toneNf') > 0) {
    passes.push({
      is: 'shunt',
      at: 'coil',
      ohms: Math.max(1, s.figure('toneOhms') * audioTaper(s.knob('tone'))),
      farads: s.figure('toneNf') * 1e-9,
    });
  }
  if (share >= 1) return [...passes, wire('coil', 'out'), load('out', track)];
  return [
    ...passes,
    { is: 'resistor', a: 'coil', b: 'out', ohms: track * (1 - share) },
    load('out', Math.max(1, track * share)),
  ];
}

/** How a piezo under the saddle hears a guitar's low E: the force of the string on the bridge. */
export const AT_BRIDGE: Played = { hertz: 82.41, pluckedAt: 0.17, heardAt: 0 };

/** A source that drives its lead from an amplifier of its own. */
export const activeSource = (s: DeviceState, played?: Played): Pass[] =>
  s.engaged
    ? [
        {
          is: 'source',
          at: 'out',
          ohms: s.figure('outputOhms'),
          henries: 0,
          touch: true,
          bare: false,
          noiseDbu: s.figure('noiseDbu'),
          nominalDbu:
            s.figure('nominalDbu') + 20 * Math.log10(Math.max(1e-6, audioTaper(s.knob('volume')))),
          peakDbu:
            s.figure('peakDbu') + 20 * Math.log10(Math.max(1e-6, audioTaper(s.knob('volume')))),
          ...(played && { played }),
        },
      ]
    : [load('out', s.figure('outputOhms'))];
