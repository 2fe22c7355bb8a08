import { type NoteAt, noteOfNet } from '../note';
import { at } from '../outcome';
import type { Rig, Sound } from '../rig/schema';
import { DEFAULT_REFERENCE } from '../rig/typical-leads';
import { sourceDevice } from '../rig/source-id';
import { soundContext } from '../signal/sound-context';
import { loudest, mainDriver } from '../signal/point-figures';
import { type Tone, toneCurve, toneOf, type TonePoint } from './tone';
import { aloneInto } from './tone-loss';

/** The response of a bare pickup as wired in one sound, and through the reference lead alone. */
export interface PickupTone {
  pickup: string;
  listener: string;
  now: Tone;
  reference: Tone;
  curve: { hertz: number; now: number; reference: number }[];
}

/**
 * The tone of the passive section that a listener ends, against the reference lead; nothing where
 * no bare pickup drives it.
 */
export function pickupTone(rig: Rig, soundId: string, pickup: string): PickupTone | undefined {
  const sound = rig.sounds.find((s) => s.id === soundId);
  if (!sound) return undefined;
  const ctx = soundContext(rig, sound);
  const { circuit } = ctx.flowing;
  const section = circuit.sections.find((s) =>
    s.drivers.some((d) => d.device === pickup && d.source?.bare),
  );
  const driver = section && mainDriver(section);
  if (!section || driver === undefined) return undefined;
  const nets = new Set(section.nets);
  const stage = circuit.stages.find((s) => nets.has(s.from) && s.stage.inOhms < Infinity);
  const arrival = circuit.arrivals.find((a) => nets.has(a.net));
  const end = stage ? { device: stage.device, net: stage.from } : arrival;
  const reference = rig.reference ?? DEFAULT_REFERENCE;
  const alone = aloneInto(ctx, pickup, reference.metres * reference.pfPerMetre, reference.ohms);
  if (!end || !alone) return undefined;
  const now = toneCurve(circuit, section, driver, end.net);
  const ref: TonePoint[] = toneCurve(alone.circuit, at(alone.circuit.sections, 0), 0, alone.net);
  return {
    pickup,
    listener: end.device,
    now: toneOf(circuit, section, driver, end.net),
    reference: toneOf(alone.circuit, at(alone.circuit.sections, 0), 0, alone.net),
    curve: now.map((p, i) => ({ hertz: p.hertz, now: p.db, reference: at(ref, i).db })),
  };
}

/**
 * The note of what plays loudest at a point, as its passive pickup gives it through the reference
 * lead into the reference load alone; undefined where an instrument with electronics of its own
 * plays, or nothing.
 */
export function referenceNote(
  rig: Rig,
  sound: Sound,
  device: string,
  point: string,
): NoteAt | undefined {
  const ctx = soundContext(rig, sound);
  const flow = loudest(ctx.at(device, point).flows);
  const source = flow && sourceDevice(flow.source);
  const isBare = ctx.flowing.circuit.drivers.some((d) => d.device === source && d.source?.bare);
  if (!source || !isBare) return undefined;
  const reference = rig.reference ?? DEFAULT_REFERENCE;
  const alone = aloneInto(ctx, source, reference.metres * reference.pfPerMetre, reference.ohms);
  return alone && noteOfNet(alone.circuit, alone.net);
}
