import { sectionKey } from '../circuit';
import { at } from '../outcome';
import { mainDriver } from '../signal/point-figures';
import type { SoundContext } from '../signal/sound-context';
import { type Tone, toneOf } from './tone';

/** The tone of one passive section: from what drives it to an input that ends it. */
export interface SectionTone extends Tone {
  driver: string;
  /** The device whose input listens here. */
  listener: string;
  /** Whether a bare pickup drives it, so that leads and loads shape the tone. */
  bare: boolean;
  leadPf: number;
  leads: string[];
}

/** Tones already computed, by everything they depend on. */
export type ToneMemory = Map<string, Tone>;

/** Inputs that listen, by section; each device once a net. */
function listeners(ctx: SoundContext): Map<number, { device: string; net: number }[]> {
  const { nets, stages, arrivals } = ctx.flowing.circuit;
  const found = new Map<number, { device: string; net: number }[]>();
  const note = (device: string, net: number) => {
    const section = at(nets, net).section;
    const list = found.get(section) ?? [];
    if (!list.some((l) => l.device === device && l.net === net)) list.push({ device, net });
    found.set(section, list);
  };
  for (const s of stages) if (!s.lead && s.stage.inOhms < Infinity) note(s.device, s.from);
  for (const a of arrivals) note(a.device, a.net);
  return found;
}

/** Every passive section of a sound that carries signal over a lead, with its tone. */
export function sectionTones(ctx: SoundContext, memory: ToneMemory = new Map()): SectionTone[] {
  const { circuit } = ctx.flowing;
  const tones: SectionTone[] = [];
  const heard = listeners(ctx);
  for (const section of circuit.sections) {
    const driver = mainDriver(section);
    if (driver === undefined || !section.nets.some((n) => at(circuit.nets, n).leads.length))
      continue;
    const whole = sectionKey(circuit, section);
    for (const { device, net } of heard.get(section.index) ?? []) {
      const key = `${whole}#${driver}#${section.nets.indexOf(net)}`;
      let tone = memory.get(key);
      if (!tone) memory.set(key, (tone = toneOf(circuit, section, driver, net)));
      tones.push(
        Object.assign({}, tone, {
          driver: at(section.drivers, driver).device,
          listener: device,
          bare: at(section.drivers, driver).source?.bare === true,
          leadPf: 1e12 * section.nets.reduce((s, n) => s + at(circuit.nets, n).leadFarads, 0),
          leads: section.nets.flatMap((n) => at(circuit.nets, n).leads),
        }),
      );
    }
  }
  return tones.sort((a, b) => Number(b.bare) - Number(a.bare));
}
