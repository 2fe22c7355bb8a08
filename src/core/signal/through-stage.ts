import type { CircuitStage } from '../circuit/circuit';
import { dbuOfVolts, ratio, voltsOfDbu } from '../units';
import { addHiss, type Hiss, scaleHiss, SILENT, type Strains } from './hiss';
import {
  type Flow,
  merged,
  type PerTouch,
  type Present,
  scaled,
  totalPeak,
  totalVolts,
} from './meeting';
import { clippedRms, clippedShape, type Shape } from './saturate';

/** Under this there is nothing: a fader that is shut, a side that is panned away. */
const NOTHING_VOLTS = 1e-9;

/** Driven to this share of its ceiling, a stage that is meant to clip is heard to. */
const BENT = 0.5;

/**
 * What leaves a stage: compression, then clipping under its ceiling, then output gain; noise rides
 * on small-signal gain, and is left out where there are no strains to keep it in.
 */
export function throughStage(
  s: CircuitStage,
  input: Present,
  key: Present | undefined,
  thermal: Hiss,
  strains: Strains | undefined,
): { flows: Flow[]; noise: Hiss; idle: Hiss } {
  const { stage } = s;
  if (stage.muted) return { flows: [], noise: SILENT, idle: SILENT };
  const gain = ratio(stage.gainDb);
  const output = ratio(stage.outputDb);
  const ceiling = voltsOfDbu(stage.ceiling.dbu);
  const { shape: clip, meant } = stage.ceiling;

  const squeeze = (volts: number): number => {
    if (!stage.compress || volts <= 0) return 1;
    const over = dbuOfVolts(volts) - stage.compress.thresholdDbu;
    return over > 0 ? ratio(-over * (1 - 1 / stage.compress.ratio)) : 1;
  };
  const totals = [0, 1, 2].map((t) => totalVolts(input.flows, t));
  const squeezes = totals.map(squeeze);
  const drives = totals.map((v, t) => (v * squeezes[t]! * gain) / ceiling);
  const bends = (drive: number) => (meant ? drive > 1e-4 : drive > 1);
  const gains = totals.map((v, t) => {
    const linear = gain * squeezes[t]!;
    return (
      (v > 0 && bends(drives[t]!)
        ? (ceiling * Math.SQRT2 * clippedRms(clip, drives[t]!)) / v
        : linear) * output
    );
  });
  const peakIn = totalPeak(input.flows);
  const peakLinear = peakIn * squeezes[1]! * gain;
  const peakOut =
    (clip === 'soft' && meant
      ? ceiling * Math.tanh(peakLinear / ceiling)
      : Math.min(ceiling, peakLinear)) * output;
  const peakGain = peakIn > 0 ? peakOut / peakIn : 0;

  const flows: Flow[] = [];
  for (const f of input.flows) {
    const shapes = f.shapes.map((shape, t) =>
      bends(drives[t]!) ? clippedShape(clip, shape, drives[t]!) : shape,
    ) as PerTouch<Shape>;
    const carried: Flow = {
      ...f,
      shapes,
      volts: f.volts.map((v, t) => v * gains[t]!) as PerTouch<number>,
      peak: f.peak * peakGain,
      latencyMs: f.latencyMs + stage.latencyMs,
      polarity: stage.inverts ? (-f.polarity as 1 | -1) : f.polarity,
      tiltDb: f.tiltDb + stage.tiltDb,
      cabinet: f.cabinet || stage.cabinet === true,
      ...(meant && (drives[1] ?? 0) > BENT && { bentBy: s.device }),
    };
    if (!stage.wet) {
      flows.push(stage.side ? { ...carried, side: stage.side, widenedBy: s.device } : carried);
      continue;
    }
    if (stage.wet.dryDb > -Infinity)
      flows.push({
        ...scaled(carried, ratio(stage.wet.dryDb), 0),
        ...(stage.wet.wetDb > -Infinity && { besideWet: s.device }),
      });
    if (stage.wet.wetDb > -Infinity) {
      const wet = scaled(carried, ratio(stage.wet.wetDb), 0);
      flows.push({
        ...wet,
        wet: s.device,
        ...(stage.side && { side: stage.side, widenedBy: s.device }),
      });
    }
  }

  const heard = flows.filter((f) => f.volts[2] > NOTHING_VOLTS);
  if (!strains) return { flows: merged(heard).flows, noise: SILENT, idle: SILENT };
  // The noise of the stage itself, and that of the network it listens to: whoever listens there hears
  // the same.
  const own = addHiss([
    strains.own(s.device, `${s.device} ${stage.id}`, voltsOfDbu(stage.noiseDbu) ** 2),
    thermal,
  ]);
  const shut =
    stage.gate && (!key || dbuOfVolts(Math.sqrt(key.idle.power)) < stage.gate.thresholdDbu);
  const noise = hissBehind(s, addHiss([input.noise, own]));
  const kept = shut ? scaleHiss(input.idle, ratio(-stage.gate!.rangeDb)) : input.idle;
  return {
    flows: merged(heard).flows,
    noise,
    idle: kept === input.noise ? noise : hissBehind(s, addHiss([kept, own])),
  };
}

/** What a stage makes of noise: small-signal gain, no more than its ceiling, and the ways of its signal. */
function hissBehind({ device, stage }: CircuitStage, noise: Hiss): Hiss {
  const output = ratio(stage.outputDb);
  const most = voltsOfDbu(stage.ceiling.dbu) ** 2;
  const gain = ratio(stage.gainDb);
  const under = 1 / Math.sqrt(1 + (noise.power * gain * gain) / most);
  const turned = stage.inverts ? -1 : 1;
  const by = turned * gain * under * output;
  const side = stage.side ? `${device} ${stage.side}` : '';
  if (!stage.wet) return scaleHiss(noise, by, stage.latencyMs, side);
  return addHiss([
    scaleHiss(noise, by * ratio(stage.wet.dryDb), stage.latencyMs),
    scaleHiss(noise, by * ratio(stage.wet.wetDb), stage.latencyMs, `${device} ${side}`),
  ]);
}
