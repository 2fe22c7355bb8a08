import { at as entryAt } from '../outcome';
import {
  buildCircuit,
  conductorsOf,
  hopOf,
  isHop,
  isMetal,
  passesOf,
  pluggedJacks,
} from '../circuit';
import { JoinedNumbers, reachable } from '../graph';
import type { Pass } from '../kinds';
import type { Rig, Sound } from '../rig/schema';
import { carriedFrom, destinationsIn, isOpen } from './carried';

/** A source that plays under this, in dBu, is turned down. */
const SILENT_DBU = -100;

/** What one device's passes do to the ways of signal: pairs of points, by number, and single points. */
interface Ways {
  joins: (readonly [number, number])[];
  onward: (readonly [number, number])[];
  played: number[];
  arrive: number[];
  /** Loads in series: whether signal comes to a leg hangs on the loads, so the circuit is asked. */
  series: boolean;
}

/**
 * Where signal can go over the leads and devices of a rig, whatever the sound: what metal leads join,
 * and where links without metal lead on. What a device's passes add is kept by those passes, which
 * are the same ones in every sound that sets the device alike.
 */
class Paths {
  private readonly metal = new JoinedNumbers();
  private readonly hops: (readonly [number, number])[] = [];
  private readonly numbers = new Map<string, Map<string, number>>();
  private count = 0;
  private readonly plugged: ReadonlyMap<string, Set<string>>;
  private readonly ways = new Map<string, WeakMap<Pass[], Ways>>();
  private readonly heard = new WeakMap<Sound, Set<string>>();

  constructor(private readonly rig: Rig) {
    this.plugged = pluggedJacks(rig);
    for (const { lead, from, to } of conductorsOf(rig)) {
      const ends = [this.point(lead.from.device, from), this.point(lead.to.device, to)] as const;
      if (isMetal(lead)) this.metal.join(...ends);
      else if (isHop(lead) && isOpen(hopOf(rig, lead))) this.hops.push(ends);
    }
  }

  private point(device: string, name: string): number {
    let points = this.numbers.get(device);
    if (!points) this.numbers.set(device, (points = new Map<string, number>()));
    let at = points.get(name);
    if (at === undefined) points.set(name, (at = this.count++));
    return at;
  }

  private waysOf(device: string, passes: Pass[]): Ways {
    let known = this.ways.get(device);
    if (!known) this.ways.set(device, (known = new WeakMap<Pass[], Ways>()));
    let ways = known.get(passes);
    if (ways) return ways;
    ways = { joins: [], onward: [], played: [], arrive: [], series: false };
    for (const p of passes) {
      if (p.is === 'wire' || p.is === 'resistor')
        ways.joins.push([this.point(device, p.a), this.point(device, p.b)]);
      else if (p.is === 'stage' && isOpen(p))
        ways.onward.push([this.point(device, p.from), this.point(device, p.to)]);
      else if (p.is === 'source' && p.nominalDbu > SILENT_DBU)
        ways.played.push(this.point(device, p.at));
      else if (p.is === 'arrive') ways.arrive.push(this.point(device, p.at));
      else if (p.is === 'series') ways.series = true;
    }
    known.set(passes, ways);
    return ways;
  }

  /** Destinations that any source which is played reaches in a sound. */
  heardIn(sound: Sound): Set<string> {
    let heard = this.heard.get(sound);
    if (!heard) this.heard.set(sound, (heard = this.find(sound)));
    return heard;
  }

  private find(sound: Sound): Set<string> {
    const ways = this.rig.devices.map((d) => this.waysOf(d.id, passesOf(d, sound, this.plugged)));
    if (ways.some((w) => w.series)) return heardInCircuit(this.rig, sound);
    // What shares metal or a resistor hears the same; from there on open stages lead.
    const joined = this.metal.copy();
    for (const w of ways) for (const [a, b] of w.joins) joined.join(a, b);
    const behind: number[][] = [];
    const goOn = ([from, to]: readonly [number, number]) =>
      (behind[joined.root(from)] ??= []).push(joined.root(to));
    this.hops.forEach(goOn);
    for (const w of ways) w.onward.forEach(goOn);
    const played = ways.flatMap((w) => w.played.map((at) => joined.root(at)));
    const reached = reachable(played, (at) => behind[at] ?? []);
    return new Set(
      this.rig.devices
        .filter((_, i) => entryAt(ways, i).arrive.some((at) => reached.has(joined.root(at))))
        .map((d) => d.id),
    );
  }
}

/** The same from the circuit that levels are figured with. */
export function heardInCircuit(rig: Rig, sound: Sound): Set<string> {
  const circuit = buildCircuit(rig, sound);
  const played = circuit.drivers
    .filter((d) => d.source && d.source.nominalDbu > SILENT_DBU)
    .map((d) => entryAt(circuit.nets, d.net).section);
  return destinationsIn(circuit, carriedFrom(circuit, played).sections);
}

const pathsKnown = new WeakMap<Rig['leads'], { devices: Rig['devices']; paths: Paths }>();

/**
 * Destinations that any source which is played reaches, remembered while rig and sound stay the same.
 * Ways are followed, levels are not figured: a source under -100 dBu is silent, a stage with under
 * -80 dB lets nothing through.
 */
export function heardIn(rig: Rig, sound: Sound): Set<string> {
  let known = pathsKnown.get(rig.leads);
  if (known?.devices !== rig.devices)
    pathsKnown.set(rig.leads, (known = { devices: rig.devices, paths: new Paths(rig) }));
  return known.paths.heardIn(sound);
}
