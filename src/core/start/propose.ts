import { type Job, type Kind, KINDS, kindOf } from '../kinds';
import { freshId } from '../rig/fresh-id';
import type { Device, Lead, Rig, Sound, Stance } from '../rig/schema';

/** Jobs of what stands in the pedal row of a start. */
const PEDAL_JOBS: Job[] = ['tuner', 'buffer', 'fuzz', 'pitch', 'filter', 'compressor', 'drive', 'boost', 'gate', 'eq', 'volume', 'modulation', 'delay', 'reverb', 'looper'];
const plain = (k: Kind, jack: string) => k.jacks.some((j) => j.id === jack && j.connector === 'TS');

/** Instruments that a start can begin with: one signal on an ordinary jack. */
export const START_INSTRUMENTS: readonly Kind[] = KINDS.filter((k) => k.job === 'instrument' && plain(k, 'out'));
/** Pedals that a start can put in a row. */
export const START_PEDALS: readonly Kind[] = KINDS.filter((k) => PEDAL_JOBS.includes(k.job) && k.family !== 'Routing' && plain(k, 'in') && plain(k, 'out'));

/** Ways in which a rig can be heard. */
export const OUTPUTS = ['head', 'combo', 'house', 'in-ears', 'recorder'] as const;
export type Output = (typeof OUTPUTS)[number];

/** What the short start asks. Pedals and instruments are kinds, named by the person or after the kind. */
export interface Brief {
  name: string;
  instruments: { kind: string; name: string }[];
  wireless: boolean;
  outputs: Output[];
  pedals: { kind: string; name: string }[];
  /** Order rules on which the other school is followed. */
  otherSchool: string[];
  sounds: string[];
}

/** Places in the usual order; what is not listed does not stand in the pedal row. */
const USUAL: Job[] = ['fuzz', 'tuner', 'buffer', 'pitch', 'filter', 'compressor', 'boost', 'drive', 'gate', 'eq', 'volume', 'modulation', 'delay', 'reverb', 'looper'];
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
  const place = moved.find(([rule, job]) => job === kind.job && other.has(rule))?.[2] ?? at(kind.job);
  const step = Math.min(0.9, Math.max(0, gain) / 100);
  return kind.job === 'drive' ? place + (other.has('gain-low-to-high') ? 0.9 - step : step) : place;
}

/** Makes a rig from a brief: ordered, connected, with the sounds asked for. It is a start, to be edited. */
export function proposeRig(brief: Brief, id: string): Rig {
  const other = new Set(brief.otherSchool);
  const devices: Device[] = [];
  const leads: Lead[] = [];
  const add = (kind: string, name: string, rest: Partial<Device> = {}): Device => {
    const device: Device = { id: freshId(name, devices.map((d) => d.id)), kind, name, ...rest };
    devices.push(device);
    return device;
  };
  const join = (from: Device, fromJack: string, to: Device, toJack: string, metres: number, type: Lead['type'] = 'instrument') =>
    leads.push({ id: `lead-${leads.length + 1}`, from: { device: from.id, jack: fromJack }, to: { device: to.id, jack: toJack }, type, metres });

  const instruments = brief.instruments.map((i, n) => add(i.kind, i.name, { place: 'player', ...(n > 0 && { engaged: false }) }));
  const pedals = [...brief.pedals].sort((a, b) => rank(a.kind, other) - rank(b.kind, other)).map((p) => add(p.kind, p.name, { place: 'floor' }));
  const jobOf = (d: Device) => kindOf(d.kind).job;

  // From the instruments to one point.
  let at: Device = instruments[0]!;
  let out = 'out';
  let reach = 3;
  if (brief.wireless) {
    const radio = add('wireless', 'Wireless', { place: 'rack' });
    join(at, out, radio, 'in', 0.8);
    at = radio;
    reach = 1.5;
  }
  for (const [n, extra] of instruments.slice(1).entries()) {
    const joiner = add('mixer-line', instruments.length > 2 ? `Instrument joiner ${n + 1}` : 'Instrument joiner', { place: 'floor' });
    join(at, out, joiner, 'a', reach);
    join(extra, 'out', joiner, 'b', 3);
    at = joiner;
    reach = 0.3;
  }

  /** Connects a row of devices; from the first one that makes the signal wide, both sides go on, unless a mono loop ends it. */
  const through = (row: Device[], mayWiden = true) => {
    for (const d of row) {
      const way = kindOf(d.kind).through!;
      const pair = (jack: string) => kindOf(d.kind).jacks.find((j) => j.id === jack)?.pair?.with;
      const [rightOut, rightIn] = [kindOf(at.kind).jacks.find((j) => j.id === out)?.pair?.with, pair(way.in)];
      const wide = widened && rightOut && rightIn;
      join(at, out, d, way.in, reach);
      if (wide) join(at, rightOut, d, rightIn, reach);
      at = d;
      out = way.out;
      reach = 0.3;
      widened ||= mayWiden && pair(way.out) !== undefined && ['modulation', 'delay', 'reverb'].includes(jobOf(d));
    }
  };
  let widened = false;

  const wantsAmp = brief.outputs.includes('head') || brief.outputs.includes('combo');
  const direct = brief.outputs.filter((o) => o === 'house' || o === 'in-ears' || o === 'recorder');
  const loop = wantsAmp && !other.has('time-after-dirt') ? pedals.filter((d) => IN_LOOP.includes(jobOf(d))) : [];
  const wide = wantsAmp ? [] : pedals.filter((d) => [...IN_LOOP, 'modulation'].includes(jobOf(d)));
  const front = pedals.filter((d) => !loop.includes(d) && !wide.includes(d));
  through(front, false);

  if (wantsAmp) {
    const isHead = brief.outputs.includes('head');
    const amp = add(isHead ? 'head-tube' : 'combo-tube-loop', isHead ? 'Head' : 'Combo', { place: 'amps' });
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
      const mic = add('microphone', o === 'house' ? 'House mic' : o === 'in-ears' ? 'Ears mic' : 'Recorder mic', { place: 'amps' });
      join(speaker, 'air', mic, 'air', 0.1, 'air');
      const end = o === 'house' ? add('console-input', 'House', { place: 'house' }) : add(o === 'in-ears' ? 'in-ear-mix' : 'recorder', o === 'in-ears' ? 'In-ears' : 'Recorder', { place: 'house', settings: { input: 'mic' } });
      join(mic, 'out', end, 'in', 20, 'balanced');
    }
  } else {
    const simulator = add('amp-cab-simulator', 'Amp and cab simulator', { place: 'floor', engaged: true, settings: { master: 8 } });
    through([simulator, ...wide]);
    const ends = direct.length ? direct : (['house'] as const);
    ends.forEach((o, n) => {
      if (n < ends.length - 1) {
        const split = add('splitter-buffered', `Split ${n + 1}`, { place: 'floor' });
        join(at, out, split, 'in', 0.5);
        finish(o, split, 'b', false);
        [at, out] = [split, 'a'];
      } else finish(o, at, out, widened && ends.length === 1);
    });
  }

  function finish(o: Output, from: Device, jack: string, stereo: boolean) {
    const end = o === 'house'
      ? add(stereo ? 'console-input-stereo' : 'console-input', 'House', { place: 'house', settings: { input: 'line' } })
      : add(o === 'in-ears' ? 'in-ear-mix' : 'recorder', o === 'in-ears' ? 'In-ears' : 'Recorder', { place: 'house' });
    join(from, jack, end, 'in', 20, 'balanced');
    const right = kindOf(from.kind).jacks.find((j) => j.id === jack)?.pair?.with;
    if (stereo && right) join(from, right, end, 'inR', 20, 'balanced');
  }

  const stances: Record<string, Stance> = Object.fromEntries([...other].map((rule) => [rule, { stance: 'other' as const }]));
  return {
    format: 'yantrel-rig', version: 1, id, name: brief.name, devices, leads, sounds: brief.sounds.map((name, n) => startSound(name, n, brief.sounds, pedals)),
    ...(other.size > 0 && { order: { stances } }),
  };
}

/** First guesses: each sound after the first engages one more drive; the last one also boost and delay. */
function startSound(name: string, n: number, all: readonly string[], pedals: readonly Device[]): Sound {
  const jobOf = (d: Device) => kindOf(d.kind).job;
  const drives = pedals.filter((d) => jobOf(d) === 'drive' || jobOf(d) === 'fuzz');
  const isLast = n === all.length - 1 && all.length > 1;
  const steps = all.length > 1 ? Math.ceil((drives.length * n) / (all.length - 1)) : 0;
  const on = pedals.filter((d) => jobOf(d) === 'compressor' || jobOf(d) === 'reverb' || drives.slice(0, steps).includes(d) || (isLast && (jobOf(d) === 'boost' || jobOf(d) === 'delay')));
  return { id: freshId(name, all.slice(0, n).map((x) => x.toLowerCase())), name, states: Object.fromEntries(on.map((d) => [d.id, { engaged: true }])) };
}
