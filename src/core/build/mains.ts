import { kindOf, type MainsNeed } from '../kinds';
import type { Device, Rig } from '../rig/schema';
import { COUNTRIES, type Country, plugFits, voltsIn } from './countries';

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
  /** Plugs that go into it: one a device, or as many as it has inlets. */
  plugs: number;
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
        plugs: feeds.reduce((n, d) => n + (mainsOf(d)?.inlets ?? 1), 0),
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

/** Codes of the tour that stand for no country whose mains is known. */
export const unknownCountries = (rig: Rig): string[] =>
  (rig.tour?.countries ?? []).filter((code) => !countryOf(code));

/**
 * What is wrong with a device in a country: too much or too little voltage, another frequency, a
 * voltage selector of which nobody said how it is set, a plug that goes into no socket there.
 */
export interface CountryWrong {
  device: Device;
  what: 'over' | 'under' | 'hz' | 'selector' | 'plug';
  /** The voltage at which it is wrong. */
  volts: number;
}

/** One country of the tour: its mains, the most that the rig draws there, and what does not bear it. */
export interface CountryCheck {
  country: Country;
  amps: number;
  wrong: CountryWrong[];
}

export function checkCountries(rig: Rig): CountryCheck[] {
  return (rig.tour?.countries ?? []).flatMap((code) => {
    const country = countryOf(code);
    if (!country) return [];
    const lowest = Math.min(...voltsIn(country));
    const { takers, watts } = mainsSums(rig, lowest);
    const wrong = takers.flatMap((t) => wrongIn(country, t.device, t.need));
    return [{ country, amps: watts / lowest, wrong }];
  });
}

/** Devices that do not bear a voltage which was measured, in V, at the frequencies of a place, in Hz. */
export const misfitsAt = (rig: Rig, volts: number, hz: readonly number[]): CountryWrong[] =>
  mainsSums(rig, volts).takers.flatMap(({ device, need }) => {
    const what = mainsMisfit(asSet(need, device), volts, hz);
    return what ? [{ device, what, volts }] : [];
  });

/** A device as it is set: where its selector stands, it bears that range alone. */
function asSet(need: MainsNeed, { mains }: Device): MainsNeed {
  const setTo = mains?.setTo;
  const range = need.volts.find(
    ([low, high]) => setTo !== undefined && setTo >= low && setTo <= high,
  );
  return range ? { ...need, volts: [range] } : need;
}

function wrongIn(country: Country, device: Device, need: MainsNeed): CountryWrong[] {
  const set = asSet(need, device);
  const wrong = voltsIn(country).flatMap((volts): CountryWrong[] => {
    const what = mainsMisfit(set, volts, country.hz);
    return what ? [{ device, what, volts }] : [];
  });
  const first = wrong.find((w) => w.what === 'over') ?? wrong[0];
  const { volts } = country;
  const isUnset = !first && need.volts.length > 1 && set === need;
  const plug = device.mains?.plug;
  const isLoose = plug && device.mains?.from === undefined && !plugFits(plug, country);
  return [
    ...(first ? [first] : []),
    ...(isUnset ? [{ device, what: 'selector' as const, volts }] : []),
    ...(isLoose ? [{ device, what: 'plug' as const, volts }] : []),
  ];
}
