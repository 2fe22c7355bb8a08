import { at as entryAt } from '../outcome';
import type { Heard } from '../signal';
import type { StationFigures } from '../signal/station-figures';
import type { Fix, Severity } from '../findings/finding';
import type { RuleId } from '../findings/rules';
import { coilFix, moveFix } from '../findings/insert-fix';
import { figureWith, type Job, kindOf } from '../kinds';
import { byId, leadFrom, leadInto } from '../rig/find';
import { type ByJob, type Neighbours } from './neighbours';
import { sortedByGain } from './sorted-gains';

/** One piece of order advice: what one school does, what the other does, why, and how to tell. */
export interface OrderRule {
  id: RuleId;
  thing: string;
  main: string;
  other: string;
  why: string;
  /** Said only when somebody has chosen a school for it. */
  quiet?: boolean;
  /** What can take a stance of its own, device by device. */
  jobs?: readonly Job[];
  /** Remarks on one engaged station. */
  look: (at: Look, school: 'main' | 'other') => Breach[];
}

/** What order is judged by. */
export type Ordered = Pick<Heard, 'ctx' | 'stations'> & {
  /** Whether places further on are offered, too, to be tried. */
  wantsFixes?: boolean;
};

/** One station with what lies around it. */
export interface Look {
  s: StationFigures;
  job: Job;
  before: ByJob;
  behind: ByJob;
  evidence: Ordered;
  near: Neighbours;
}

/** A rule not kept: against which other station, in words, and which way to move. */
export interface Breach {
  other?: StationFigures;
  /** Other devices of which the same is said. */
  more?: string[];
  what: string;
  why?: string;
  severity?: Severity;
  move?: 'before' | 'behind';
  fix?: Fix;
  /** Another way than a move beside the other one. */
  also?: Fix;
}

/** An amplifier that adds this much saturation behind a delay distorts its echoes audibly. */
const ADDED_DIRT_PERCENT = 8;

const DIRT: Job[] = ['drive', 'fuzz'];
const TIME: Job[] = ['delay', 'reverb'];
const pick = (where: ByJob, jobs: Job[]): StationFigures | undefined =>
  jobs.map((j) => where[j]).find((s) => s !== undefined);
/** The name of the device that is looked at, or of another. */
export const name = (at: Look, s: StationFigures = at.s): string =>
  at.evidence.ctx.device(s.device).name;

/** `jobs` should stand before what `later` names; the breach is one of those standing upstream. */
const shouldPrecede = (at: Look, jobs: Job[], later: Job[]): Breach[] => {
  const found = jobs.includes(at.job) ? pick(at.before, later) : undefined;
  return found
    ? [{ other: found, move: 'before', what: `${name(at)} stands behind ${name(at, found)}.` }]
    : [];
};

/** `jobs` should stand behind what `earlier` names; the breach is one of those standing downstream. */
const shouldFollow = (at: Look, jobs: Job[], earlier: Job[]): Breach[] => {
  const found = jobs.includes(at.job) ? pick(at.behind, earlier) : undefined;
  return found
    ? [{ other: found, move: 'behind', what: `${name(at)} stands before ${name(at, found)}.` }]
    : [];
};

/** Highest gain of a drive, by its figures; kinds without one are not compared. */
const mostGain = (at: Look, s: StationFigures): number => {
  const device = at.evidence.ctx.device(s.device);
  const figure = figureWith(kindOf(device.kind), 'highest gain');
  return figure ? (device.figures?.[figure.id]?.value ?? figure.typical) : 0;
};

/**
 * Echoes that an amplifier distorts: one matter, whatever their number, told of the first of them; the
 * amplifier's loop cures it where it has one.
 */
function distorted(at: Look, amp: StationFigures): Breach[] {
  const { ctx, stations } = at.evidence;
  const isAlike = (s: StationFigures) => {
    const behind = at.near.behind(s);
    const { job } = kindOf(ctx.device(s.device).kind);
    const nearest = pick(behind, ['amp', 'simulator']);
    return TIME.includes(job) && nearest?.device === amp.device && !pick(behind, DIRT);
  };
  const all = at.s.state === 'engaged' ? stations : [at.s];
  const here = all
    .filter((s) => s.state === at.s.state && isAlike(s))
    .sort((a, b) => a.column - b.column || byId({ id: a.device }, { id: b.device }));
  const [first, ...more] = new Set(here.map((s) => s.device));
  if (first !== at.s.device) return [];
  const devices = [first, ...more];
  const names = devices.map((id) => ctx.device(id).name).join(' and ');
  const { jacks, loops } = kindOf(ctx.device(amp.device).kind);
  const loop = loops?.find((l) => jacks.find((j) => j.id === l.send[0])?.signal === 'audio');
  return [
    {
      other: amp,
      more,
      what: `${names} ${more.length ? 'feed' : 'feeds'} ${name(at, amp)}, which distorts.`,
      why:
        `${name(at, amp)} takes the sound ` +
        `to ${amp.output.thdPercent!.normal.toFixed(0)} % saturation, so it distorts the ` +
        'echoes together with the notes.',
      fix: loop && {
        words: `Put ${names} into the ${loop.label} of ${name(at, amp)}`,
        edits: devices.map((id) => ({
          ...{ edit: 'putInLoop' as const, device: ctx.device(id) },
          ...{ host: amp.device, loop: loop.id },
        })),
      },
    },
  ];
}

export const ORDER_RULES: readonly OrderRule[] = [
  {
    id: 'bare-pickup',
    thing: 'Low-impedance fuzz, treble booster',
    main: 'first, straight from the pickup, no buffer or wireless ahead',
    other: 'anywhere, behind a pickup simulator',
    why: 'they load the pickup on purpose; behind a buffer they no longer clean up with the guitar’s volume',
    look: (at, school) => {
      const { ctx } = at.evidence;
      if (
        school === 'other' ||
        !kindOf(ctx.device(at.s.device).kind).wantsBarePickup ||
        !at.s.ins[0]
      )
        return [];
      const net = ctx.at(at.s.device, at.s.ins[0]).net;
      const section = entryAt(
        ctx.flowing.circuit.sections,
        entryAt(ctx.flowing.circuit.nets, net).section,
      );
      const active = section.drivers.find((d) => !d.source?.bare);
      // Of an instrument with electronics of its own nobody gets a bare pickup, in whatever order.
      const isBare = ctx.flowing.circuit.drivers.some((d) => d.source?.bare);
      if (!active || active.source || !isBare) return [];
      const first = at.evidence.stations
        .filter((s) => s.source)
        .map((s) => leadFrom(ctx.rig, s.device, s.outs[0] ?? ''))
        .find((l) => l !== undefined);
      const radio =
        first &&
        kindOf(ctx.device(first.to.device).kind).job === 'wireless' &&
        first.to.jack === 'in';
      const other = at.evidence.stations.find((s) => s.device === active.device);
      const driver = ctx.device(active.device).name;
      // A coil in the output loads as a pickup does: what is lost is the guitar's volume alone.
      if (active.henries > 0)
        return [
          {
            other,
            severity: 'advice',
            what: `${name(at)} sees the coil of ${driver}, not the pickup.`,
            why: 'It is loaded as a pickup would be, but the guitar’s volume does not reach it.',
          },
        ];
      return [
        {
          other,
          severity: 'caution',
          what: `${name(at)} does not see the pickup.`,
          why: radio
            ? `${ctx.device(first.to.device).name} comes first, and both cannot be had.`
            : `${driver} drives it, so it will not clean up with the guitar’s volume.`,
          fix:
            first && !radio
              ? moveFix(ctx.rig, at.s.device, first.id, `Move ${name(at)} to the front`)
              : coilFix(ctx.rig, leadInto(ctx.rig, at.s.device, at.s.ins[0] ?? ''), name(at)),
        },
      ];
    },
  },
  {
    id: 'pitch-early',
    jobs: ['pitch'],
    thing: 'Pitch tracking',
    main: 'early, before distortion',
    other: 'after the compressor',
    why: 'it tracks the clean string best; shifting distortion shifts its harmonics too',
    look: (at, school) => [
      ...shouldPrecede(at, ['pitch'], [...DIRT, 'boost']).map((b) => ({
        ...b,
        severity: 'caution' as const,
      })),
      ...(school === 'other' ? shouldFollow(at, ['pitch'], ['compressor']) : []),
    ],
  },
  {
    id: 'filter-before-dirt',
    jobs: ['filter'],
    thing: 'Wah, envelope filter',
    main: 'before dirt',
    other: 'after dirt, for a wilder sweep',
    why: 'both are respected; the first is the usual',
    look: (at, school) =>
      school === 'main' ? shouldPrecede(at, ['filter'], DIRT) : shouldFollow(at, ['filter'], DIRT),
  },
  {
    id: 'compressor-early',
    jobs: ['compressor'],
    thing: 'Compressor',
    main: 'early, before dirt',
    other: 'after dirt, as a leveller',
    why: 'early it adds sustain and feeds the drives evenly; it also raises their noise',
    look: (at, school) =>
      school === 'main'
        ? shouldPrecede(at, ['compressor'], DIRT)
        : shouldFollow(at, ['compressor'], DIRT),
  },
  {
    id: 'gain-low-to-high',
    thing: 'Gain stages',
    main: 'low to high, each left on',
    other: 'high to low',
    why: 'stacking keeps one press per step',
    look: (at, school) => {
      // Each against the one right before it: where all of those are in order, all pairs are.
      const earlier = at.job === 'drive' ? at.near.rightBefore(at.s).drive : undefined;
      if (!earlier) return [];
      const rising = mostGain(at, at.s) >= mostGain(at, earlier);
      return rising === (school === 'main') || mostGain(at, at.s) === mostGain(at, earlier)
        ? []
        : [
            {
              other: earlier,
              move: 'before',
              what: `${name(at)} has ${rising ? 'more' : 'less'} gain than ${name(at, earlier)} before it.`,
              ...(at.evidence.wantsFixes && sortedByGain(at, school, mostGain)),
            },
          ];
    },
  },
  {
    id: 'boost-place',
    jobs: ['boost'],
    thing: 'Boost',
    main: 'before dirt or amp, for saturation',
    other: 'after it, for a solo level',
    why: 'before a saturated stage a boost adds saturation and hardly any level; after it, level',
    quiet: true,
    look: (at, school) =>
      school === 'main' ? shouldPrecede(at, ['boost'], DIRT) : shouldFollow(at, ['boost'], DIRT),
  },
  {
    id: 'gate-place',
    jobs: ['gate'],
    thing: 'Noise gate',
    main: 'acts after gain and before time effects',
    other: 'simple: right after the drives',
    why: 'tails must survive, and what it stands before it cannot quieten',
    look: (at, school) => [
      ...shouldFollow(at, ['gate'], DIRT),
      ...(school === 'main' ? shouldPrecede(at, ['gate'], ['delay', 'reverb']) : []),
    ],
  },
  {
    id: 'volume-place',
    jobs: ['volume'],
    thing: 'Volume pedal',
    main: 'after dirt, before time effects',
    other: 'first (acts as gain), or last (cuts everything)',
    why: 'swells stay even and tails survive; a passive pedal loads a bare pickup and belongs after a buffer',
    look: (at, school) =>
      school === 'other'
        ? []
        : [
            ...shouldFollow(at, ['volume'], DIRT),
            ...shouldPrecede(at, ['volume'], ['delay', 'reverb']),
          ],
  },
  {
    id: 'modulation-after-dirt',
    jobs: ['modulation'],
    thing: 'Modulation',
    main: 'after dirt; older choruses and phasers in front of the amp',
    other: 'in the loop or after the amp block, for width',
    why: 'taste and era',
    look: (at, school) => [
      ...shouldFollow(at, ['modulation'], DIRT),
      ...(school === 'other' ? shouldFollow(at, ['modulation'], ['amp', 'simulator']) : []),
    ],
  },
  {
    id: 'time-after-dirt',
    jobs: ['delay', 'reverb'],
    thing: 'Delay, then reverb',
    main: 'after distortion: in the loop, after the amp block, or on a wet amp',
    other: 'in front of a clean amp',
    why: 'echoes of a distorted note, not distortion of echoes',
    look: (at) => {
      if (at.job !== 'delay' && at.job !== 'reverb') return [];
      const amp = pick(at.behind, ['amp', 'simulator']);
      const adds = amp?.output.thdPercent
        ? amp.output.thdPercent.normal - (amp.input?.thdPercent?.normal ?? 0)
        : 0;
      const dirty = adds >= ADDED_DIRT_PERCENT && !pick(at.behind, DIRT) ? amp : undefined;
      const reverbFirst = at.job === 'reverb' ? at.behind.delay : undefined;
      return [
        ...shouldFollow(at, ['delay', 'reverb'], DIRT),
        ...(dirty ? distorted(at, dirty) : []),
        ...(reverbFirst
          ? [
              {
                other: reverbFirst,
                move: 'behind' as const,
                what: `${name(at)} stands before ${name(at, reverbFirst)}.`,
              },
            ]
          : []),
      ];
    },
  },
  {
    id: 'looper-last',
    thing: 'Looper',
    main: 'last',
    other: 'before the amp block, to audition',
    why: 'it repeats what reaches it; what stands behind it changes the loop too',
    look: (at, school) =>
      school === 'other'
        ? []
        : shouldFollow(at, ['looper'], [...DIRT, 'boost', 'modulation', 'delay', 'reverb']),
  },
  {
    id: 'tuner-place',
    thing: 'Tuner',
    main: 'first, or from a tuner output',
    other: 'late, as the mute that also silences the pedals’ noise',
    why: 'the two uses conflict: early it hears the string best, late it mutes best',
    look: (at, school) => {
      if (kindOf(at.evidence.ctx.device(at.s.device).kind).job !== 'tuner') return [];
      // A fuzz that wants the bare pickup goes before even the tuner.
      const noisy: Job[] = [
        ...(school === 'main' ? ['drive' as const] : DIRT),
        'boost',
        'modulation',
        'delay',
        'reverb',
      ];
      const found = pick(school === 'main' ? at.before : at.behind, noisy);
      if (!found) return [];
      return [
        school === 'main'
          ? {
              other: found,
              move: 'before',
              what: `${name(at)} stands behind ${name(at, found)}.`,
              why:
                'It tunes best on the clean string. As a late mute it serves the other use, which is a ' +
                'school of its own.',
            }
          : {
              other: found,
              move: 'behind',
              what: `${name(at)} stands before ${name(at, found)}, whose noise it cannot mute.`,
            },
      ];
    },
  },
  {
    id: 'buffer-place',
    thing: 'Buffer',
    main: 'first after the devices that need the bare pickup; last before a long lead',
    other: 'none, with short leads',
    why: 'see what leads take at 5 kHz',
    look: () => [],
  },
  {
    id: 'eq-after-split',
    thing: 'EQ for one destination',
    main: 'after the split',
    other: 'before it',
    why: 'one ear’s cure is the house’s problem',
    quiet: true,
    look: (at, school) => {
      if (school === 'other' || at.job !== 'eq') return [];
      const heard = at.near.destinationsBehind(at.s);
      return heard > 1 ? [{ what: `${name(at)} changes ${heard} destinations at once.` }] : [];
    },
  },
];
