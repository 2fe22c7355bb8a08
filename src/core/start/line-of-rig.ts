import { done, type Outcome, refused } from '../outcome';
import { kindOf } from '../kinds';
import type { Device, Lead, Rig } from '../rig/schema';
import { rigOfChain } from './chain-rig';

const SOUND: readonly Lead['type'][] = [
  'instrument',
  'balanced',
  'stereo',
  'speaker',
  'digital',
  'air',
];

/**
 * A rig as one line, where a line can say it: devices in a row, ways side by side, what stands in
 * loops. The line is read again and held against the rig, so that a line that is printed makes the
 * same devices joined in the same way; what it leaves out (settings, sounds, lengths) it leaves out
 * always. A rig that a line cannot say is refused, with what it cannot.
 */
export function lineOfRig(rig: Rig): Outcome<string> {
  const inside = rig.devices.find((d) => d.host !== undefined);
  if (inside) return refused(`${inside.name} lives inside another device, which no line can say.`);
  const printer = new Printer(rig);
  const line = printer.all();
  const again = line === undefined ? undefined : rigOfChain(line, rig).rig;
  if (line === undefined || !again)
    return refused(
      'This rig is no chain that a line can say: its ways do not come together again.',
    );
  const [was, now] = [joinsOf(rig), joinsOf(again)];
  const lost = was.find((j) => !now.includes(j)) ?? now.find((j) => !was.includes(j));
  return lost === undefined
    ? done(line)
    : refused(`A line cannot say how ${lost} is joined here; export the rig as a file instead.`);
}

/** Every device and every way for sound between two, by their names: what a line says of a rig. */
export function joinsOf(rig: Rig): string[] {
  const name = new Map(rig.devices.map((d) => [d.id, d.name]));
  const heard = rig.devices.filter((d) => isHeard(rig, d)).map((d) => `${d.name} (${d.kind})`);
  const ways = rig.leads
    .filter((l) => SOUND.includes(l.type))
    .map((l) => `${name.get(l.from.device)} to ${name.get(l.to.device)}`);
  return [...heard, ...ways].sort();
}

const isHeard = (rig: Rig, d: Device): boolean =>
  rig.leads.some(
    (l) => SOUND.includes(l.type) && (l.from.device === d.id || l.to.device === d.id),
  ) || kindOf(d.kind).job === 'instrument';

/** Follows a rig from its sources and writes down what it meets. */
class Printer {
  /** What each device hands on to beyond its loops, in the order of its jacks. */
  private readonly next = new Map<string, string[]>();
  private readonly before = new Map<string, string[]>();
  private readonly inLoops = new Map<string, string[][]>();
  private readonly written = new Set<string>();
  private readonly opened = new Set<string>();

  constructor(private readonly rig: Rig) {
    const ofLoops = new Set<Lead>();
    for (const d of rig.devices) this.inLoops.set(d.id, this.loopsOf(d, ofLoops));
    for (const d of rig.devices) {
      const jacks = kindOf(d.kind).jacks.map((j) => j.id);
      const out = rig.leads
        .filter((l) => l.from.device === d.id && SOUND.includes(l.type) && !ofLoops.has(l))
        .sort((a, b) => jacks.indexOf(a.from.jack) - jacks.indexOf(b.from.jack));
      this.next.set(d.id, [...new Set(out.map((l) => l.to.device))]);
      for (const l of out)
        this.before.set(l.to.device, [...(this.before.get(l.to.device) ?? []), d.id]);
    }
  }

  all(): string | undefined {
    const held = new Set([...this.inLoops.values()].flat(2));
    const begins = this.rig.devices
      .filter((d) => !held.has(d.id) && isHeard(this.rig, d) && !this.before.get(d.id)?.length)
      .map((d) => d.id);
    if (!begins.length) return undefined;
    if (begins.length === 1) return this.row(begins[0] ?? '', undefined);
    const meet = this.meeting(begins);
    const ways = begins.map((b) => this.row(b, meet)).join(' | ');
    return meet === undefined ? `(${ways})` : `(${ways}) > ${this.row(meet, undefined)}`;
  }

  /**
   * What follows one behind the other, up to where ways meet that parted before. What was written down
   * already is not followed again: a way that goes round has no line, which reading it again tells.
   */
  private row(from: string, until: string | undefined): string {
    const words: string[] = [];
    for (let at: string | undefined = from; at !== undefined && at !== until;) {
      if (this.written.has(at)) break;
      this.written.add(at);
      words.push(this.item(at));
      const next: string[] = this.next.get(at) ?? [];
      if (next.length < 2) {
        at = next[0];
        continue;
      }
      const meet = this.meeting(next);
      words.push(`(${next.map((n) => this.row(n, meet ?? until)).join(' | ')})`);
      at = meet;
    }
    return words.join(' > ');
  }

  private item(id: string): string {
    const device = this.rig.devices.find((d) => d.id === id);
    const kind = kindOf(device?.kind ?? '');
    const words = /[>()[\]|"]/.test(kind.name) ? kind.id : kind.name;
    const named =
      device && device.name !== kind.name ? ` "${device.name.replaceAll('"', "'")}"` : '';
    // Boxes that hang in the loops of one another are no line.
    const held = this.opened.has(id) ? [] : (this.inLoops.get(id) ?? []);
    this.opened.add(id);
    const loops = held.map((row) => ` [${row.map((d) => this.item(d)).join(' > ')}]`).join('');
    return `${words}${named}${this.isWide(id) ? ' stereo' : ''}${loops}`;
  }

  /** Whether both sides of a pair go on, where one way in would make it one. */
  private isWide(id: string): boolean {
    const from = this.rig.leads.filter((l) => l.from.device === id && SOUND.includes(l.type));
    const kind = kindOf(this.rig.devices.find((d) => d.id === id)?.kind ?? '');
    const main = kind.jacks.find((j) => j.id === kind.through?.out);
    const isPlugged = (jack?: string) => from.some((l) => l.from.jack === jack);
    return main?.pair !== undefined && isPlugged(main.id) && isPlugged(main.pair.with);
  }

  /** The first device that every one of several ways comes to. */
  private meeting(starts: readonly string[]): string | undefined {
    const reached = starts.map((s) => this.reached(s));
    const [first = []] = reached;
    return first.find((d) => reached.every((r) => r.includes(d)));
  }

  /** What is reached from a device, itself first, the nearest first. */
  private reached(from: string): string[] {
    const found = [from];
    for (const at of found)
      for (const n of this.next.get(at) ?? []) if (!found.includes(n)) found.push(n);
    return found;
  }

  /** What stands in each loop of a device, one behind the other, up to the last loop that holds anything. */
  private loopsOf(device: Device, ofLoops: Set<Lead>): string[][] {
    const rows = (kindOf(device.kind).loops ?? []).map((loop) => {
      const row: string[] = [];
      const leadAt = (id: string, jacks: readonly string[]) =>
        this.rig.leads.find(
          (l) => l.from.device === id && jacks.includes(l.from.jack) && SOUND.includes(l.type),
        );
      let lead = leadAt(device.id, loop.send);
      while (lead) {
        ofLoops.add(lead);
        const { device: to } = lead.to;
        if (to === device.id || row.includes(to)) break;
        row.push(to);
        const kind = kindOf(this.rig.devices.find((d) => d.id === to)?.kind ?? '');
        lead = leadAt(to, [kind.through?.out ?? 'out']);
      }
      return row;
    });
    const last = rows.findLastIndex((r) => r.length > 0);
    return rows.slice(0, last + 1);
  }
}
