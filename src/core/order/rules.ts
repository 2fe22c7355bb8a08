import { at as entryAt } from '../outcome';
import { coilFix, moveFix } from '../findings/insert-fix';
import { type Job, kindOf } from '../kinds';
import { leadFrom, leadInto } from '../rig/find';
import { ADDED_DIRT_PERCENT, distorted } from './echoes';
import { DIRT, mostGain, name, type OrderRule, pick, shouldFollow, shouldPrecede } from './look';
import { sortedByGain } from './sorted-gains';

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
              ...(at.evidence.wantsFixes && sortedByGain(at, school)),
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
