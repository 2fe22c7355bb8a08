import { at as entryAt, sure } from '../outcome';
import { type Job, type Kind, KINDS, kindOf } from '../kinds';
import { freshId } from '../rig/fresh-id';
import type {
  Brief,
  Character,
  Device,
  Lead,
  Rig,
  RigPromise,
  Sound,
  Stance,
  Way,
} from '../rig/schema';

/** Jobs of what stands in the pedal row of a start. */
const PEDAL_JOBS: Job[] = [
  'tuner',
  'buffer',
  'fuzz',
  'pitch',
  'filter',
  'compressor',
  'drive',
  'boost',
  'gate',
  'eq',
  'volume',
  'modulation',
  'delay',
  'reverb',
  'looper',
];
const plain = (k: Kind, jack: string) => k.jacks.some((j) => j.id === jack && j.connector === 'TS');

/** Instruments that a start can begin with: one signal on an ordinary jack. */
export const START_INSTRUMENTS: readonly Kind[] = KINDS.filter(
  (k) => k.job === 'instrument' && plain(k, 'out'),
);
/** Pedals that a start can put in a row. */
export const START_PEDALS: readonly Kind[] = KINDS.filter(
  (k) => PEDAL_JOBS.includes(k.job) && k.family !== 'Routing' && plain(k, 'in') && plain(k, 'out'),
);

/** What a start is told beside the brief. */
export interface StartChoice {
  id: string;
  name: string;
  /** Order rules on which the other school is followed. */
  otherSchool: readonly string[];
}

/** Places in the usual order; what is not listed does not stand in the pedal row. */
const USUAL: Job[] = [
  'fuzz',
  'tuner',
  'buffer',
  'pitch',
  'filter',
  'compressor',
  'boost',
  'drive',
  'gate',
  'eq',
  'volume',
  'modulation',
  'delay',
  'reverb',
  'looper',
];
const IN_LOOP: Job[] = ['delay', 'reverb', 'looper'];

/** Where a pedal goes, smaller first, by the school chosen for each rule. */
function rank(kindId: string, other: ReadonlySet<string>): number {
  const kind = kindOf(kindId);
  if (kind.wantsBarePickup && !other.has('bare-pickup')) return -1;
  const at = (job: Job) => USUAL.indexOf(job);
  const gain = kind.figures.find((f) => f.id === 'gainHighDb')?.typical ?? 0;
  const moved: [string, Job, number][] = [
    ['tuner-place', 'tuner', at('reverb') + 0.5],
    ['pitch-early', 'pitch', at('compressor') + 0.5],
    ['filter-before-dirt', 'filter', at('drive') + 0.92],
    ['compressor-early', 'compressor', at('drive') + 0.94],
    ['boost-place', 'boost', at('drive') + 0.96],
    ['volume-place', 'volume', at('tuner') + 0.5],
  ];
  const place =
    moved.find(([rule, job]) => job === kind.job && other.has(rule))?.[2] ?? at(kind.job);
  const step = Math.min(0.9, Math.max(0, gain) / 100);
  return kind.job === 'drive' ? place + (other.has('gain-low-to-high') ? 0.9 - step : step) : place;
}

/**
 * Makes a rig from a brief: ordered, connected, with the sounds asked for and the promises that
 * follow from it. It is a start, to be edited.
 */
export function proposeRig(brief: Brief, { id, name, otherSchool }: StartChoice): Rig {
  const other = new Set(otherSchool);
  const start = new Start(brief, other);
  start.connect();
  const stances: Record<string, Stance> = Object.fromEntries(
    [...other].map((rule) => [rule, { stance: 'other' as const }]),
  );
  return {
    format: 'yantrel-rig',
    version: 1,
    id,
    name,
    devices: start.devices,
    leads: start.leads,
    sounds: brief.sounds.map((sound, n) => startSound(sound, n, brief.sounds, start.pedals)),
    ...(other.size > 0 && { order: { stances } }),
    brief,
    promises: start.promises(),
  };
}

const jobOf = (d: Device) => kindOf(d.kind).job;
const partnerOf = (d: Device, jack: string) =>
  kindOf(d.kind).jacks.find((j) => j.id === jack)?.pair?.with;
const WIDENING: Job[] = ['modulation', 'delay', 'reverb'];

/**
 * A rig in the making: it grows from the instruments towards those who must hear them. `at`, `out`
 * and `reach` are where it ends now and how long the next lead is, in metres; `widened` whether two
 * sides come out there.
 */
class Start {
  readonly devices: Device[] = [];
  readonly leads: Lead[] = [];
  readonly pedals: Device[];
  private readonly instruments: Device[];
  private at: Device;
  private out = 'out';
  private reach = 3;
  private widened = false;

  constructor(
    private readonly brief: Brief,
    private readonly other: ReadonlySet<string>,
  ) {
    this.instruments = brief.sources.map((i, n) =>
      this.add(i.kind, i.name, { place: 'player', ...(n > 0 && { engaged: false }) }),
    );
    this.pedals = brief.gear
      .filter((g) => START_PEDALS.some((k) => k.id === g.kind))
      .sort((a, b) => rank(a.kind, other) - rank(b.kind, other))
      .map((p) => this.add(p.kind, p.name, { place: 'floor' }));
    this.at = entryAt(this.instruments, 0);
  }

  /** Instruments to one point, through the pedals, to an amplifier or straight to the desk. */
  connect(): void {
    this.gather();
    const amps = this.brief.destinations.filter(isAmp);
    const direct = this.brief.destinations.filter((d) => !isAmp(d));
    const late = (d: Device) => IN_LOOP.includes(jobOf(d));
    if (amps.length) {
      const loop = this.other.has('time-after-dirt') ? [] : this.pedals.filter(late);
      this.through(
        this.pedals.filter((d) => !loop.includes(d)),
        false,
      );
      this.toAmp(amps, loop, direct);
    } else {
      const wide = this.pedals.filter((d) => late(d) || jobOf(d) === 'modulation');
      this.through(
        this.pedals.filter((d) => !wide.includes(d)),
        false,
      );
      this.toDesk(wide, direct);
    }
  }

  /** Everyone hears every instrument, tuners too; no tube amplifier runs without a load. */
  promises(): RigPromise[] {
    const ends = this.devices.filter((d) => kindOf(d.kind).destination);
    const hears = ends.flatMap((d) =>
      this.instruments.map((i): RigPromise => ({
        id: freshId(`hears-${d.id}-${i.id}`, []),
        type: 'hears',
        destination: d.id,
        source: i.id,
      })),
    );
    const tuned = this.pedals.some((d) => jobOf(d) === 'tuner') ? this.instruments : [];
    return [
      ...hears,
      ...tuned.map((i): RigPromise => ({
        id: freshId(`tuner-${i.id}`, []),
        type: 'tuner-hears',
        source: i.id,
      })),
      ...(this.brief.destinations.some(isAmp)
        ? [{ id: 'no-tube-unloaded', type: 'no-tube-unloaded' as const }]
        : []),
    ];
  }

  private add(kind: string, name: string, rest: Partial<Device> = {}): Device {
    const taken = this.devices.map((d) => d.id);
    const device: Device = { id: freshId(name, taken), kind, name, ...rest };
    this.devices.push(device);
    return device;
  }

  private join(
    from: Device,
    fromJack: string,
    to: Device,
    toJack: string,
    metres: number,
    type: Lead['type'] = 'instrument',
  ): void {
    this.leads.push({
      id: `lead-${this.leads.length + 1}`,
      from: { device: from.id, jack: fromJack },
      to: { device: to.id, jack: toJack },
      type,
      metres,
    });
  }

  /** From the instruments to one point, each by its own wireless where it has one. */
  private gather(): void {
    const { sources } = this.brief;
    const several = sources.filter((x) => x.wireless).length > 1;
    const arriving = this.instruments.map((from, n): { from: Device; reach: number } => {
      if (!entryAt(sources, n).wireless) return { from, reach: 3 };
      const name = several ? `Wireless, ${from.name}` : 'Wireless';
      const radio = this.add('wireless', name, { place: 'rack' });
      this.join(from, 'out', radio, 'in', 0.8);
      return { from: radio, reach: 1.5 };
    });
    this.at = entryAt(arriving, 0).from;
    this.reach = entryAt(arriving, 0).reach;
    for (const [n, extra] of arriving.slice(1).entries()) {
      const name = arriving.length > 2 ? `Instrument joiner ${n + 1}` : 'Instrument joiner';
      const joiner = this.add('mixer-line', name, { place: 'floor' });
      this.join(this.at, this.out, joiner, 'a', this.reach);
      this.join(extra.from, 'out', joiner, 'b', extra.reach);
      this.at = joiner;
      this.reach = 0.3;
    }
  }

  /**
   * Connects a row of devices; from the first one that makes the signal wide, both sides go on,
   * unless a mono loop ends it.
   */
  private through(row: readonly Device[], mayWiden: boolean): void {
    for (const d of row) {
      const way = kindOf(d.kind).through!;
      const [rightOut, rightIn] = [partnerOf(this.at, this.out), partnerOf(d, way.in)];
      this.join(this.at, this.out, d, way.in, this.reach);
      if (this.widened && rightOut && rightIn) this.join(this.at, rightOut, d, rightIn, this.reach);
      this.at = d;
      this.out = way.out;
      this.reach = 0.3;
      this.widened ||=
        mayWiden && partnerOf(d, way.out) !== undefined && WIDENING.includes(jobOf(d));
    }
  }

  /** Into an amplifier, late effects in its loop, and a microphone for each who is not in the room. */
  private toAmp(amps: Brief['destinations'], loop: Device[], direct: Brief['destinations']): void {
    const isHead = amps.some((a) => a.way === 'head');
    const name = sure(amps.find((a) => a.way === (isHead ? 'head' : 'combo'))).name;
    const amp = this.add(isHead ? 'head-tube' : 'combo-tube-loop', name, { place: 'amps' });
    this.join(this.at, this.out, amp, 'in', 6);
    if (loop.length) {
      [this.at, this.out, this.reach, this.widened] = [amp, 'send', 6, false];
      this.through(loop, false);
      this.join(this.at, this.out, amp, 'return', 6);
    }
    let speaker = amp;
    if (isHead) {
      speaker = this.add('cabinet', 'Cabinet', { place: 'amps' });
      this.join(amp, 'speaker', speaker, 'in', 1.5, 'speaker');
    }
    for (const o of direct) {
      const mic = this.add('microphone', `${o.name} mic`, { place: 'amps' });
      this.join(speaker, 'air', mic, 'air', 0.1, 'air');
      const end =
        o.way === 'house'
          ? this.add('console-input', o.name, { place: 'house' })
          : this.add(endKind(o.way), o.name, { place: 'house', settings: { input: 'mic' } });
      this.join(mic, 'out', end, 'in', 20, 'balanced');
    }
  }

  /** Through a simulator, wide from there on, to each who hears it; a splitter for each but the last. */
  private toDesk(wide: readonly Device[], direct: Brief['destinations']): void {
    const simulator = this.add('amp-cab-simulator', 'Amp and cab simulator', {
      place: 'floor',
      engaged: true,
      settings: { master: 8 },
    });
    this.through([simulator, ...wide], true);
    const ends = direct.length ? direct : [{ way: 'house' as const, name: 'House' }];
    for (const [n, o] of ends.entries()) {
      if (n === ends.length - 1) this.finish(o, this.at, this.out, this.widened && n === 0);
      else {
        const split = this.add('splitter-buffered', `Split ${n + 1}`, { place: 'floor' });
        this.join(this.at, this.out, split, 'in', 0.5);
        this.finish(o, split, 'b', false);
        [this.at, this.out] = [split, 'a'];
      }
    }
  }

  private finish(o: { way: Way; name: string }, from: Device, jack: string, stereo: boolean): void {
    const end =
      o.way === 'house'
        ? this.add(stereo ? 'console-input-stereo' : 'console-input', o.name, {
            place: 'house',
            settings: { input: 'line' },
          })
        : this.add(endKind(o.way), o.name, { place: 'house' });
    this.join(from, jack, end, 'in', 20, 'balanced');
    const right = partnerOf(from, jack);
    if (stereo && right) this.join(from, right, end, 'inR', 20, 'balanced');
  }
}

const isAmp = (d: { way: Way }) => d.way === 'head' || d.way === 'combo';
const endKind = (way: Way) => (way === 'in-ears' ? 'in-ear-mix' : 'recorder');

/** How many of the drives a character asks for, as a share of all. */
const DRIVEN: Record<Character, number> = {
  clean: 0,
  edge: 0.34,
  crunch: 0.67,
  saturated: 1,
  special: 0,
};

/**
 * First guesses: as many drives as the character asks for, else one more with each sound; the last
 * sound also boost and delay.
 */
function startSound(
  wanted: Brief['sounds'][number],
  n: number,
  all: Brief['sounds'],
  pedals: readonly Device[],
): Sound {
  const drives = pedals.filter((d) => jobOf(d) === 'drive' || jobOf(d) === 'fuzz');
  const isLast = n === all.length - 1 && all.length > 1;
  const share = wanted.character
    ? DRIVEN[wanted.character]
    : all.length > 1
      ? n / (all.length - 1)
      : 0;
  const steps = Math.ceil(drives.length * share - 1e-9);
  const on = pedals.filter(
    (d) =>
      jobOf(d) === 'compressor' ||
      jobOf(d) === 'reverb' ||
      drives.slice(0, steps).includes(d) ||
      (isLast && (jobOf(d) === 'boost' || jobOf(d) === 'delay')),
  );
  return {
    id: freshId(
      wanted.name,
      all.slice(0, n).map((x) => freshId(x.name, [])),
    ),
    name: wanted.name,
    ...(wanted.notes && { notes: wanted.notes }),
    states: Object.fromEntries(on.map((d) => [d.id, { engaged: true }])),
  };
}
