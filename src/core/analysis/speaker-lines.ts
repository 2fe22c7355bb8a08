import { at, sure } from '../outcome';
import type { Circuit, CircuitStage, Driver, Net } from '../circuit';
import { byKey } from '../graph';
import { leadOf } from '../rig/find';
import type { Lead } from '../rig/schema';
import type { SoundContext } from '../signal/sound-context';

/** What one load of a speaker output gets. */
export interface SpeakerLoad {
  device: string;
  /** The most that it gets, in watts. */
  watts: number;
  ratedWatts: number;
  /** Level lost in the speaker leads on the way to it, in dB. */
  lossDb: number;
}

/** What a speaker output sees in one sound. */
export interface SpeakerLine {
  amp: string;
  /** Load in ohms; `null` where there is none. */
  loadOhms: number | null;
  /** The tap, or the lowest load that a solid-state stage bears, in ohms. */
  tapOhms: number;
  tube: boolean;
  /** Rated power: into the tap, or into the lowest load. */
  watts: number;
  /** Each load with its share of the power, what stands behind an attenuator too. */
  loads: SpeakerLoad[];
  /** Other speaker outputs on the same line. */
  others: string[];
  /** The most level that is lost in the speaker leads to any load, in dB. */
  lossDb: number;
  /** Nothing plays through the amplifier in this sound. */
  idle: boolean;
}

/** Resistance of a speaker lead in ohms a metre and conductor, by cross-section: copper, 0.01725 Ω·mm²/m. */
export const leadOhmsPerMetre = (squareMm: number): number => 0.01725 / squareMm;

/** Cross-section of a speaker lead where none is stated, in mm². */
export const USUAL_SQUARE_MM = 2.5;

/** Level lost in a speaker lead, in dB: `20·log10(Z / (Z + 2·ℓ·r))`. */
export const speakerLeadLossDb = (
  ohms: number,
  metres: number,
  squareMm = USUAL_SQUARE_MM,
): number => 20 * Math.log10(ohms / (ohms + 2 * metres * leadOhmsPerMetre(squareMm)));

/**
 * What a power stage gives into a load, in watts. A tube stage gives its rated power into a load
 * that matches its tap (and, as a simplification that errs to the safe side, into any other). A
 * solid-state stage gives its rated voltage: `P·Zlowest/Z`, and no more than rated under its lowest
 * load.
 */
export const wattsInto = (
  stage: { watts: number; ohms: number; tube: boolean },
  ohms: number,
): number => (stage.tube ? stage.watts : stage.watts * Math.min(1, stage.ohms / ohms));

/** Every speaker output of a sound with what it drives: parallel loads `1/Σ(1/Z)`, series loads `ΣZ`. */
export const speakerLines = (ctx: SoundContext): SpeakerLine[] =>
  ctx.flowing.circuit.drivers.flatMap((d) => {
    const stage = d.stages.find((s) => s.stage.speaker);
    return stage ? [new LineOf(ctx, d, stage).figures()] : [];
  });

/** One load across the line, as the power divides: a load in series counts as one of its share. */
interface Across {
  device: string;
  ohms: number;
  ratedWatts: number;
}

class LineOf {
  private readonly net: Net;
  private readonly across: readonly Across[];
  private readonly ways = new Map<string, ReadonlySet<Lead>>();
  private ofLine?: Lead[];

  constructor(
    private readonly ctx: SoundContext,
    private readonly driver: Driver,
    private readonly power: CircuitStage,
  ) {
    this.net = at(ctx.flowing.circuit.nets, driver.net);
    this.across = this.net.coils.map((c) => ({
      device: c.device,
      ohms: c.ohms,
      ratedWatts: c.watts,
    }));
  }

  figures(): SpeakerLine {
    const speaker = sure(this.power.stage.speaker);
    const { drivers } = this.ctx.flowing.circuit;
    const siemens = sumOf(this.across, (c) => 1 / c.ohms);
    const loadOhms = siemens > 0 ? 1 / siemens : null;
    const given = loadOhms === null ? 0 : wattsInto(speaker, loadOhms);
    const loads = this.across.flatMap((c) => {
      const lossDb = this.lossTo(c.device);
      const watts = given * (1 / c.ohms / siemens);
      return [
        { device: c.device, watts, ratedWatts: c.ratedWatts, lossDb },
        ...this.behind(c.device, watts, lossDb),
      ];
    });
    return {
      amp: this.driver.device,
      loadOhms,
      tapOhms: speaker.ohms,
      tube: speaker.tube,
      watts: speaker.watts,
      loads,
      others: drivers
        .filter((o) => o !== this.driver && o.net === this.driver.net)
        .filter((o) => o.stages.some((s) => s.stage.speaker))
        .map((o) => o.device),
      lossDb: Math.min(0, ...loads.map((l) => l.lossDb)),
      idle: this.ctx.flowing.present(this.power.from).flows.length === 0,
    };
  }

  /** What hangs behind a load that passes power on, such as an attenuator, shared as behind the amplifier. */
  private behind(device: string, watts: number, lossDb: number): SpeakerLoad[] {
    const { drivers, nets } = this.ctx.flowing.circuit;
    return (powerWays(this.ctx).passing.get(device) ?? []).flatMap((s) => {
      const { coils } = at(nets, at(drivers, s.driver).net);
      const siemens = sumOf(coils, (c) => 1 / c.ohms);
      const passed = watts * 10 ** (s.stage.outputDb / 10);
      return coils.flatMap((c) => {
        const share = passed * (1 / c.ohms / siemens);
        return [
          { device: c.device, watts: share, ratedWatts: c.watts, lossDb },
          ...this.behind(c.device, share, lossDb),
        ];
      });
    });
  }

  /** Speaker leads of the line and of the legs of its boxes in series. */
  private leads(net = this.net, seen = new Set<number>()): Lead[] {
    if (seen.has(net.index)) return [];
    seen.add(net.index);
    const { drivers, nets } = this.ctx.flowing.circuit;
    const legs = (powerWays(this.ctx).inSeries.get(net.index) ?? []).map((s) =>
      at(nets, at(drivers, s.driver).net),
    );
    const here = net.leads
      .flatMap((id) => leadOf(this.ctx.rig, id) ?? [])
      .filter((l) => l.type === 'speaker');
    return [...here, ...legs.flatMap((leg) => this.leads(leg, seen))];
  }

  /** The leads that the current of a load runs through, from the load back to the amplifier. */
  private wayTo(device: string): ReadonlySet<Lead> {
    const known = this.ways.get(device);
    if (known) return known;
    const leads = (this.ofLine ??= this.leads());
    const seen = new Set<Lead>();
    const from = (at: string): void => {
      const lead = leads.find((l) => l.to.device === at && !seen.has(l));
      if (!lead) return;
      seen.add(lead);
      // What stands in series carries one current: all legs of its box take their part of it.
      if (inSeries(this.ctx, lead.from.device))
        for (const leg of leads) if (leg.from.device === lead.from.device) seen.add(leg);
      from(lead.from.device);
    };
    from(device);
    this.ways.set(device, seen);
    return seen;
  }

  /** Each lead on the way against the load that it carries. */
  private lossTo(device: string): number {
    return sumOf([...this.wayTo(device)], (lead) => {
      const carried = this.across.filter((c) => this.wayTo(c.device).has(lead));
      return speakerLeadLossDb(1 / sumOf(carried, (c) => 1 / c.ohms), lead.metres, lead.squareMm);
    });
  }
}

const sumOf = <T>(list: readonly T[], of: (x: T) => number): number =>
  list.reduce((sum, x) => sum + of(x), 0);

const inSeries = (ctx: SoundContext, device: string): boolean => powerWays(ctx).boxes.has(device);

/** The few stages of a circuit that power goes through: to what hangs behind a load, and in series. */
interface PowerWays {
  /** By the device that passes power on. */
  passing: Map<string, CircuitStage[]>;
  /** By the net that feeds the legs; and the boxes that stand in series. */
  inSeries: Map<number, CircuitStage[]>;
  boxes: ReadonlySet<string>;
}

const waysOfPower = new WeakMap<Circuit, PowerWays>();

function powerWays({ flowing: { circuit } }: SoundContext): PowerWays {
  let ways = waysOfPower.get(circuit);
  if (!ways) {
    const series = circuit.stages.filter((s) => s.stage.id === 'series');
    ways = {
      passing: byKey(
        circuit.stages.filter((s) => s.stage.passesPower),
        (s) => s.device,
      ),
      inSeries: byKey(series, (s) => s.from),
      boxes: new Set(series.map((s) => s.device)),
    };
    waysOfPower.set(circuit, ways);
  }
  return ways;
}
