import { type Jack, type Kind, kindOf, settingWith } from '../kinds';
import { applyEdits, type Edit, type End, freshId, freeName, type Lead, type Rig } from '../rig';
import { leadTypeFor } from '../rig/find';
import { usualMetres } from '../rig/joining';
import type { Sheet } from '../rig/sheets';
import { ChainError, type ChainItem, type ChainPart, parseChain } from './chain-grammar';
import { ChainWords } from './chain-words';
import { allOf } from '../units';

/** Something in a line that was read: where it stands, and what it was taken for. */
export interface ReadItem {
  from: number;
  to: number;
  words: string;
  /** What it means; nothing where it is not understood. */
  kind?: string;
  /** The nearest kinds, where it is not understood. */
  guesses: readonly Kind[];
}

/** A line that was read: the rig of what was understood, and what was not. */
export interface ReadChain {
  /** Nothing where the line breaks off, or nothing in it was understood. */
  rig?: Rig;
  items: readonly ReadItem[];
  /** Where the line breaks a rule, and what was expected. */
  broken?: { at: number; what: string };
  /** What was put in that nobody wrote, and what could not be joined. */
  notes: readonly string[];
}

export interface ChainOptions {
  id: string;
  name: string;
  sheets?: readonly Sheet[];
}

/**
 * Makes a rig of a line: devices in a row, ways side by side, loops, with leads of usual length. Where
 * one output is to feed several ways a splitter is put in, and where several ways come to one input a
 * mixer, each told in the notes.
 */
export function rigOfChain(line: string, { id, name, sheets = [] }: ChainOptions): ReadChain {
  const words = new ChainWords(sheets);
  let parts: ChainPart[];
  try {
    parts = parseChain(line);
  } catch (error) {
    if (!(error instanceof ChainError)) throw error;
    return { items: [], notes: [], broken: { at: error.at, what: error.message } };
  }
  const making = new Making(words, {
    format: 'yantrel-rig',
    version: 1,
    id,
    name,
    devices: [],
    leads: [],
    sounds: [{ id: 'first', name: 'First sound', states: {} }],
    ...(sheets.length > 0 && { sheets: [...sheets] }),
  });
  making.row(parts, []);
  const { rig, items, notes } = making;
  const used = rig.sheets?.filter((s) =>
    rig.devices.some((d) => d.kind.startsWith(`own.${s.id}.`)),
  );
  const { sheets: _all, ...bare } = rig;
  return {
    ...(rig.devices.length > 0 && {
      rig: { ...bare, ...(used?.length && { sheets: used }) },
    }),
    items,
    notes,
  };
}

/** Signals that one jack can hand to another: the way a lead between them would be told. */
const SOUND = ['audio', 'speaker', 'air', 'digital'];

/** What gives a line out, whatever it is fed. */
const LINES: ReadonlySet<Kind['job']> = new Set<Kind['job']>(['modeler', 'simulator']);

/** Kinds with one input, by the kind that takes two sides in its place. */
const STEREO_FORM: Record<string, string> = { 'console-input': 'console-input-stereo' };

/** Jacks of a kind that carry sound one way, the way through first, those of its loops left out. */
function jacksOf(kind: Kind, way: 'in' | 'out'): Jack[] {
  const ofLoops = new Set((kind.loops ?? []).flatMap((l) => [...l.send, ...l.return]));
  const main = kind.through?.[way];
  const partner = kind.jacks.find((j) => j.id === main)?.pair?.with;
  const rank = (j: Jack) => (j.id === main ? 0 : j.id === partner ? 1 : 2);
  return kind.jacks
    .filter(
      (j) =>
        (j.direction === way || j.direction === 'either') &&
        SOUND.includes(j.signal) &&
        !j.inside &&
        !ofLoops.has(j.id),
    )
    .sort((a, b) => rank(a) - rank(b));
}

/** A rig that grows from left to right; the ends are the jacks where signal stands and waits. */
class Making {
  readonly items: ReadItem[] = [];
  readonly notes: string[] = [];

  constructor(
    private readonly words: ChainWords,
    public rig: Rig,
  ) {}

  row(parts: readonly ChainPart[], ends: readonly End[]): readonly End[] {
    let now = ends;
    for (const part of parts)
      now = part.is === 'item' ? this.item(part, now) : this.fork(part.ways, now);
    return now;
  }

  private item(item: ChainItem, ends: readonly End[]): readonly End[] {
    const kind = this.words.meant(item.words);
    const { from, to, words } = item;
    this.items.push({
      from,
      to,
      words,
      ...(kind && { kind: kind.id }),
      guesses: kind ? [] : this.words.guesses(words),
    });
    if (!kind) return ends;
    const fed = this.withMicrophones(kind, ends);
    const [one, sides] = this.inputsFor(kind, fed, item.count);
    return sides.flatMap((side) => this.stand(item, one, side));
  }

  /**
   * Which kind takes what waits, and what of it each of them takes: as many as were asked for; for a
   * desk or a recorder, one input for two sides of one thing, else one a way.
   */
  private inputsFor(kind: Kind, ends: readonly End[], count: number): [Kind, (readonly End[])[]] {
    if (count > 1) return [kind, this.split(ends, count)];
    const ins = jacksOf(kind, 'in').length;
    if (!kind.destination || ends.length <= ins) return [kind, [ends]];
    const wide = STEREO_FORM[kind.id];
    return wide && ends.length === 2 ? [kindOf(wide), [ends]] : [kind, ends.map((end) => [end])];
  }

  /** What waits, with a microphone in front of each loudspeaker that what comes next cannot hear itself. */
  private withMicrophones(kind: Kind, ends: readonly End[]): readonly End[] {
    const ins = jacksOf(kind, 'in');
    return ends.map((end) => {
      const outs = jacksOf(this.kindAt(end.device), 'out');
      const canJoin = outs.some((o) => ins.some((i) => i.signal === o.signal));
      if (canJoin || !outs.some((o) => o.signal === 'air')) return end;
      const microphone = kindOf('microphone');
      const device = this.add(microphone);
      this.notes.push(`${this.nameOf(device)} was put in, in front of ${this.nameOf(end.device)}`);
      this.feed(device, microphone, [end]);
      return { device, jack: 'out' };
    });
  }

  /** Puts one device down behind what waits, with what stands in its loops. */
  private stand(item: ChainItem, kind: Kind, ends: readonly End[]): readonly End[] {
    const device = this.add(kind, item.name);
    const sides = this.feed(device, kind, ends);
    for (const [i, row] of item.loops.entries()) this.fillLoop(device, kind, i, row);
    const outs = jacksOf(kind, 'out');
    const [main] = outs;
    if (!main) return [];
    const both = (item.stereo || sides > 1) && main.pair ? [main.id, main.pair.with] : [main.id];
    // A box with several outputs that are no pair, as a splitter, hands on all of them.
    const many = !main.pair && kind.job === 'splitter' ? outs.map((j) => j.id) : both;
    return many.map((jack) => ({ device, jack }));
  }

  private add(kind: Kind, name?: string): string {
    const id = freshId(
      name ?? kind.name,
      this.rig.devices.map((d) => d.id),
    );
    const called = freeName(
      name ?? kind.name,
      this.rig.devices.map((d) => d.name),
    );
    this.edit([{ edit: 'addDevice', device: { id, kind: kind.id, name: called } }], called);
    return id;
  }

  /** Leads from what waits into a device; how many of its sides they feed. */
  private feed(device: string, kind: Kind, ends: readonly End[]): number {
    if (!ends.length) return 0;
    const ins = jacksOf(kind, 'in');
    const waiting = ins.length < ends.length ? this.mixed(ends) : ends;
    const taken = new Set<string>();
    for (const end of waiting) {
      const from = this.outAt(end, ins);
      const into = ins.find((j) => !taken.has(j.id) && j.signal === from?.signal);
      if (!from || !into) {
        this.notes.push(
          `${this.nameOf(device)} has no input for what comes from ${this.nameOf(end.device)}`,
        );
        continue;
      }
      taken.add(into.id);
      this.lead({ device: end.device, jack: from.id }, { device, jack: into.id });
      if (LINES.has(this.kindAt(end.device).job)) this.takesLine(device, kind);
    }
    return taken.size;
  }

  /** Sets an input that takes microphones or lines for a line. */
  private takesLine(device: string, kind: Kind): void {
    const input = settingWith(kind, 'microphone or line');
    if (input)
      this.edit(
        [{ edit: 'setSetting', device, setting: input.id, value: 'line' }],
        this.nameOf(device),
      );
  }

  /** The jack that a waiting end leaves by: another of its device where that fits what comes next and it does not. */
  private outAt(end: End, ins: readonly Jack[]): Jack | undefined {
    const kind = this.kindAt(end.device);
    const outs = jacksOf(kind, 'out');
    const own = outs.find((j) => j.id === end.jack);
    const fits = (j: Jack | undefined) => j && ins.some((i) => i.signal === j.signal);
    return fits(own) ? own : outs.find((j) => fits(j) && !this.isTaken(end.device, j));
  }

  /** What stands in a loop, one after the other. */
  private fillLoop(host: string, kind: Kind, index: number, row: readonly ChainPart[]): void {
    const loop = kind.loops?.[index];
    if (!loop) {
      this.notes.push(
        `${this.nameOf(host)} has ${kind.loops?.length ?? 0} loops; the others are left out`,
      );
      return;
    }
    for (const part of row) {
      if (part.is === 'fork') {
        this.notes.push('ways side by side in a loop are left out; put them there by hand');
        continue;
      }
      const meant = this.words.meant(part.words);
      const { from, to, words } = part;
      this.items.push({
        from,
        to,
        words,
        ...(meant && { kind: meant.id }),
        guesses: meant ? [] : this.words.guesses(words),
      });
      if (!meant) continue;
      const device = this.add(meant, part.name);
      const { kind: kindId, name } = this.deviceAt(device);
      this.edit(
        [
          {
            edit: 'putInLoop',
            device: { id: device, kind: kindId, name },
            host,
            loop: loop.id,
          },
        ],
        name,
      );
    }
  }

  private fork(ways: readonly (readonly ChainPart[])[], ends: readonly End[]): readonly End[] {
    const [end] = ends;
    if (end && ends.length === 1 && this.isSpeaker(end)) return this.onOneLine(ways, end);
    const begun = this.split(ends, ways.length);
    return ways.flatMap((way, i) => this.row(way, begun[i] ?? []));
  }

  private isSpeaker = ({ device, jack }: End): boolean =>
    this.kindAt(device).jacks.some((j) => j.id === jack && j.signal === 'speaker');

  /** Loudspeakers side by side on one amplifier: at its other outputs, then each at the link of the one before. */
  private onOneLine(ways: readonly (readonly ChainPart[])[], end: End): readonly End[] {
    const free = [end, ...this.speakerOuts(end.device).filter((e) => e.jack !== end.jack)];
    return ways.flatMap((way) => {
      const before = new Set(this.rig.devices.map((d) => d.id));
      // A microphone stands in front of what was there before; the rest hangs on the line.
      const from = this.takesSpeaker(way[0]) ? free.shift() : end;
      const left = this.row(way, from ? [from] : []);
      const [cabinet] = this.rig.devices.filter((d) => !before.has(d.id));
      if (cabinet) free.push(...this.speakerOuts(cabinet.id));
      return left;
    });
  }

  private takesSpeaker = (part: ChainPart | undefined): boolean =>
    part?.is === 'item' &&
    this.words.meant(part.words)?.jacks.some((j) => j.signal === 'speaker') === true;

  /** Speaker outputs and links of a device that nothing is plugged into. */
  private speakerOuts = (device: string): End[] =>
    this.kindAt(device)
      .jacks.filter(
        (j) => j.signal === 'speaker' && j.direction !== 'in' && !this.isTaken(device, j),
      )
      .map((j) => ({ device, jack: j.id }));

  /** Ends for so many ways: one each where there are as many, else splitters are put in. */
  private split(ends: readonly End[], ways: number): (readonly End[])[] {
    if (!ends.length) return Array.from({ length: ways }, () => []);
    if (ends.length === ways) return ends.map((e) => [e]);
    // In front of one loudspeaker stand as many microphones as there are ways.
    if (ends.every((e) => jacksOf(this.kindAt(e.device), 'out').some((j) => j.signal === 'air')))
      return Array.from({ length: ways }, () => ends);
    let waiting = [...ends];
    while (waiting.length < ways) {
      const [end] = waiting;
      if (!end) break;
      const splitter = kindOf('splitter-buffered');
      const device = this.add(splitter);
      this.notes.push(
        `${this.nameOf(device)} was put in: one output of ${this.nameOf(end.device)} feeds several ways`,
      );
      this.feed(device, splitter, [end]);
      const outs = jacksOf(splitter, 'out').map((j) => ({ device, jack: j.id }));
      waiting = [...waiting.slice(1), ...outs];
    }
    return Array.from({ length: ways }, (_, i) => waiting.slice(i, i + 1));
  }

  /** Several ways made one, by mixers. */
  private mixed(ends: readonly End[]): End[] {
    let waiting = [...ends];
    const areInstruments = ends.every((e) => this.kindAt(e.device).job === 'instrument');
    while (waiting.length > 1) {
      // Of several instruments one is played at a time, unless the line says a mixer.
      const mixer = kindOf(areInstruments && waiting.length <= 4 ? 'input-selector' : 'mixer-line');
      const most = jacksOf(mixer, 'in').length;
      const device = this.add(mixer);
      this.notes.push(
        `${this.nameOf(device)} was put in: ${allOf(
          waiting.slice(0, most).map((e) => this.nameOf(e.device)),
        )} come to one input`,
      );
      this.feed(device, mixer, waiting.slice(0, most));
      waiting = [{ device, jack: 'out' }, ...waiting.slice(most)];
    }
    return waiting;
  }

  private lead(from: End, to: End): void {
    const type: Lead['type'] = leadTypeFor(this.rig, from, to);
    const id = freshId(
      'l1',
      this.rig.leads.map((l) => l.id),
    );
    const metres = usualMetres(this.rig, from, to);
    this.edit([{ edit: 'connect', lead: { id, from, to, type, metres } }], this.nameOf(to.device));
  }

  /** Makes edits; what is refused is told, and the rest goes on. */
  private edit(edits: Edit[], about: string): void {
    const made = applyEdits(this.rig, edits);
    if (made.ok) this.rig = made.value.rig;
    else this.notes.push(`${about}: ${made.problems[0]?.what ?? 'it could not be placed'}`);
  }

  private isTaken(device: string, jack: Jack): boolean {
    return (
      !jack.many &&
      jack.signal !== 'air' &&
      this.rig.leads.some((l) => l.from.device === device && l.from.jack === jack.id)
    );
  }

  private deviceAt = (id: string) =>
    this.rig.devices.find((d) => d.id === id) ?? { ...NOTHING, id };
  private kindAt = (id: string): Kind => kindOf(this.deviceAt(id).kind);
  private nameOf = (id: string): string => this.deviceAt(id).name;
}

const NOTHING = { kind: 'buffer', name: 'nothing' };
