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
export function proposeRig(brief: Brief, { id, name: rigName, otherSchool }: StartChoice): Rig {
  const other = new Set(otherSchool);
  const devices: Device[] = [];
  const leads: Lead[] = [];
  const add = (kind: string, name: string, rest: Partial<Device> = {}): Device => {
    const device: Device = {
      id: freshId(
        name,
        devices.map((d) => d.id),
      ),
      kind,
      name,
      ...rest,
    };
    devices.push(device);
    return device;
  };
  const join = (
    from: Device,
    fromJack: string,
    to: Device,
    toJack: string,
    metres: number,
    type: Lead['type'] = 'instrument',
  ) =>
    leads.push({
      id: `lead-${leads.length + 1}`,
      from: { device: from.id, jack: fromJack },
      to: { device: to.id, jack: toJack },
      type,
      metres,
    });

  const instruments = brief.sources.map((i, n) =>
    add(i.kind, i.name, { place: 'player', ...(n > 0 && { engaged: false }) }),
  );
  const onHand = brief.gear.filter((g) => START_PEDALS.some((k) => k.id === g.kind));
  const pedals = [...onHand]
    .sort((a, b) => rank(a.kind, other) - rank(b.kind, other))
    .map((p) => add(p.kind, p.name, { place: 'floor' }));
  const jobOf = (d: Device) => kindOf(d.kind).job;

  // From the instruments to one point, each by its own wireless where it has one.
  const arriving = instruments.map((from, n): { from: Device; reach: number } => {
    if (!entryAt(brief.sources, n).wireless) return { from, reach: 3 };
    const radio = add(
      'wireless',
      brief.sources.filter((x) => x.wireless).length > 1 ? `Wireless, ${from.name}` : 'Wireless',
      { place: 'rack' },
    );
    join(from, 'out', radio, 'in', 0.8);
    return { from: radio, reach: 1.5 };
  });
  let at: Device = entryAt(arriving, 0).from;
  let out = 'out';
  let reach = entryAt(arriving, 0).reach;
  for (const [n, extra] of arriving.slice(1).entries()) {
    const joiner = add(
      'mixer-line',
      arriving.length > 2 ? `Instrument joiner ${n + 1}` : 'Instrument joiner',
      { place: 'floor' },
    );
    join(at, out, joiner, 'a', reach);
    join(extra.from, 'out', joiner, 'b', extra.reach);
    at = joiner;
    reach = 0.3;
  }

  /**
   * Connects a row of devices; from the first one that makes the signal wide, both sides go on,
   * unless a mono loop ends it.
   */
  const through = (row: Device[], mayWiden = true) => {
    for (const d of row) {
      const way = kindOf(d.kind).through!;
      const pair = (jack: string) => kindOf(d.kind).jacks.find((j) => j.id === jack)?.pair?.with;
      const [rightOut, rightIn] = [
        kindOf(at.kind).jacks.find((j) => j.id === out)?.pair?.with,
        pair(way.in),
      ];
      const wide = widened && rightOut && rightIn;
      join(at, out, d, way.in, reach);
      if (wide) join(at, rightOut, d, rightIn, reach);
      at = d;
      out = way.out;
      reach = 0.3;
      widened ||=
        mayWiden &&
        pair(way.out) !== undefined &&
        ['modulation', 'delay', 'reverb'].includes(jobOf(d));
    }
  };
  let widened = false;

  const amps = brief.destinations.filter((d) => d.way === 'head' || d.way === 'combo');
  const wantsAmp = amps.length > 0;
  const direct = brief.destinations.filter((d) => d.way !== 'head' && d.way !== 'combo');
  const loop =
    wantsAmp && !other.has('time-after-dirt')
      ? pedals.filter((d) => IN_LOOP.includes(jobOf(d)))
      : [];
  const wide = wantsAmp ? [] : pedals.filter((d) => [...IN_LOOP, 'modulation'].includes(jobOf(d)));
  const front = pedals.filter((d) => !loop.includes(d) && !wide.includes(d));
  through(front, false);

  if (wantsAmp) {
    const isHead = amps.some((a) => a.way === 'head');
    const amp = add(
      isHead ? 'head-tube' : 'combo-tube-loop',
      sure(amps.find((a) => a.way === (isHead ? 'head' : 'combo'))).name,
      { place: 'amps' },
    );
    join(at, out, amp, 'in', 6);
    if (loop.length) {
      [at, out, reach, widened] = [amp, 'send', 6, false];
      through(loop, false);
      join(at, out, amp, 'return', 6);
    }
    let speaker = amp;
    if (isHead) {
      speaker = add('cabinet', 'Cabinet', { place: 'amps' });
      join(amp, 'speaker', speaker, 'in', 1.5, 'speaker');
    }
    for (const o of direct) {
      const mic = add('microphone', `${o.name} mic`, { place: 'amps' });
      join(speaker, 'air', mic, 'air', 0.1, 'air');
      const end =
        o.way === 'house'
          ? add('console-input', o.name, { place: 'house' })
          : add(o.way === 'in-ears' ? 'in-ear-mix' : 'recorder', o.name, {
              place: 'house',
              settings: { input: 'mic' },
            });
      join(mic, 'out', end, 'in', 20, 'balanced');
    }
  } else {
    const simulator = add('amp-cab-simulator', 'Amp and cab simulator', {
      place: 'floor',
      engaged: true,
      settings: { master: 8 },
    });
    through([simulator, ...wide]);
    const ends = direct.length ? direct : [{ way: 'house' as const, name: 'House' }];
    ends.forEach((o, n) => {
      if (n < ends.length - 1) {
        const split = add('splitter-buffered', `Split ${n + 1}`, { place: 'floor' });
        join(at, out, split, 'in', 0.5);
        finish(o, split, 'b', false);
        [at, out] = [split, 'a'];
      } else finish(o, at, out, widened && ends.length === 1);
    });
  }

  function finish(o: { way: Way; name: string }, from: Device, jack: string, stereo: boolean) {
    const end =
      o.way === 'house'
        ? add(stereo ? 'console-input-stereo' : 'console-input', o.name, {
            place: 'house',
            settings: { input: 'line' },
          })
        : add(o.way === 'in-ears' ? 'in-ear-mix' : 'recorder', o.name, { place: 'house' });
    join(from, jack, end, 'in', 20, 'balanced');
    const right = kindOf(from.kind).jacks.find((j) => j.id === jack)?.pair?.with;
    if (stereo && right) join(from, right, end, 'inR', 20, 'balanced');
  }

  const stances: Record<string, Stance> = Object.fromEntries(
    [...other].map((rule) => [rule, { stance: 'other' as const }]),
  );
  const ends = devices.filter((d) => kindOf(d.kind).destination);
  const promises: RigPromise[] = [
    ...ends.flatMap((d) =>
      instruments.map((i): RigPromise => ({
        id: freshId(`hears-${d.id}-${i.id}`, []),
        type: 'hears',
        destination: d.id,
        source: i.id,
      })),
    ),
    ...(pedals.some((d) => jobOf(d) === 'tuner')
      ? instruments.map((i): RigPromise => ({
          id: freshId(`tuner-${i.id}`, []),
          type: 'tuner-hears',
          source: i.id,
        }))
      : []),
    ...(wantsAmp ? [{ id: 'no-tube-unloaded', type: 'no-tube-unloaded' as const }] : []),
  ];
  return {
    format: 'yantrel-rig',
    version: 1,
    id,
    name: rigName,
    devices,
    leads,
    sounds: brief.sounds.map((sound, n) => startSound(sound, n, brief.sounds, pedals)),
    ...(other.size > 0 && { order: { stances } }),
    brief,
    promises,
  };
}

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
  const jobOf = (d: Device) => kindOf(d.kind).job;
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
