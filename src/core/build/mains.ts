import { kindOf, type MainsNeed } from '../kinds';
import type { Device, Rig } from '../rig/schema';
import { COUNTRIES, type Country } from './countries';

/** What a device takes from the mains: its kind's figures, with what was said of it. */
export function mainsOf(device: Device): MainsNeed | undefined {
  if (device.host !== undefined) return undefined;
  const usual = kindOf(device.kind).mains;
  const said = device.mains;
  if (!usual && said?.watts === undefined) return undefined;
  const base = usual ?? {
    volts: [[100, 240] as [number, number]],
    hz: [50, 60] as (50 | 60)[],
    watts: 0,
  };
  return {
    ...base,
    ...(said?.volts && { volts: said.volts }),
    ...(said?.hz && { hz: said.hz }),
    ...(said?.watts !== undefined && { watts: said.watts }),
    ...(said?.inrushAmps !== undefined && { inrushAmps: said.inrushAmps }),
  };
}

/** Mains voltages swing; a range is taken to bear this share more or less. */
const TOLERANCE = 0.06;

/** Whether a device bears a country's mains: too much, too little, the wrong frequency, or nothing wrong. */
export function mainsMisfit(
  need: MainsNeed,
  volts: number,
  hz: readonly number[],
): 'over' | 'under' | 'hz' | undefined {
  const fits = need.volts.some(
    ([low, high]) => volts >= low * (1 - TOLERANCE) && volts <= high * (1 + TOLERANCE),
  );
  if (!fits) return need.volts.every(([low]) => volts < low) ? 'under' : 'over';
  return hz.every((h) => (need.hz as number[]).includes(h)) ? undefined : 'hz';
}

/** A socket strip with what hangs on it. Power in W, current in A at a voltage. */
export interface ConditionerLoad {
  device: Device;
  outlets: number;
  feeds: Device[];
  watts: number;
  amps: number;
  gives: number;
  inrushAmps: number;
}

/**
 * What the rig takes from the mains at a voltage: in all, and strip by strip; what hangs on none
 * goes to the wall.
 */
export interface MainsSums {
  volts: number;
  watts: number;
  amps: number;
  takers: { device: Device; need: MainsNeed }[];
  strips: ConditionerLoad[];
  wall: Device[];
}

export function mainsSums(rig: Rig, volts: number): MainsSums {
  const takers = rig.devices.flatMap((device) => {
    const need = mainsOf(device);
    return need ? [{ device, need }] : [];
  });
  const below = (id: string, seen: readonly string[] = []): number =>
    takers
      .filter((t) => t.device.mains?.from === id && !seen.includes(t.device.id))
      .reduce((s, t) => s + t.need.watts + below(t.device.id, [...seen, t.device.id]), 0);
  const strips = rig.devices.flatMap((device): ConditionerLoad[] => {
    const outlets = kindOf(device.kind).mainsOutlets;
    if (!outlets) return [];
    const feeds = rig.devices.filter((d) => d.mains?.from === device.id);
    const watts = below(device.id, [device.id]);
    return [
      {
        device,
        outlets: outlets.count,
        feeds,
        watts,
        amps: watts / volts,
        gives: outlets.amps,
        inrushAmps: feeds.reduce((s, d) => s + (mainsOf(d)?.inrushAmps ?? 0), 0),
      },
    ];
  });
  const watts = takers.reduce((s, t) => s + t.need.watts, 0);
  return {
    volts,
    watts,
    amps: watts / volts,
    takers,
    strips,
    wall: takers.filter((t) => t.device.mains?.from === undefined).map((t) => t.device),
  };
}

export const countryOf = (code: string): Country | undefined =>
  COUNTRIES.find((c) => c.code === code);

/** One country of the tour: its mains, and what of the rig does not bear it. */
export interface CountryCheck {
  country: Country;
  amps: number;
  wrong: { device: Device; what: 'over' | 'under' | 'hz' }[];
}

export function checkCountries(rig: Rig): CountryCheck[] {
  return (rig.tour?.countries ?? []).flatMap((code) => {
    const country = countryOf(code);
    if (!country) return [];
    const { takers, watts } = mainsSums(rig, country.volts);
    return [
      {
        country,
        amps: watts / country.volts,
        wrong: takers.flatMap(({ device, need }) => {
          const what = mainsMisfit(need, country.volts, country.hz);
          return what ? [{ device, what }] : [];
        }),
      },
    ];
  });
}
