import { type Job, kindOf } from '../kinds';
import { endWords, nameOf } from '../rig/find';
import type { Device, Lead, Rig } from '../rig/schema';
import { walkOrder } from '../walk';
import { leadCodes } from './lead-codes';
import { packingOf } from './packing';

/** One thing to do. Its id stays the same while what it is about does, so that a tick is kept. */
export interface Step {
  id: string;
  words: string;
  why?: string;
}
export interface Part {
  id: string;
  title: string;
  steps: Step[];
  afterCure?: boolean;
}

/** Hours that adhesive needs, typical; the packet says. */
export const USUAL_CURE_HOURS = 12;

/**
 * Dialling in goes from what colours everything to what colours one sound; drives last, with the
 * wet effects on.
 */
const DIAL_IN: { jobs: Job[]; words: (name: string) => string; why: string }[] = [
  {
    jobs: ['amp', 'simulator', 'modeler'],
    words: (n) => `${n}: on its own, everything else off`,
    why: 'The amplifier first: all else is heard through it.',
  },
  {
    jobs: ['reverb'],
    words: (n) => `${n}: as wet as the quietest song bears`,
    why: 'Then reverb.',
  },
  {
    jobs: ['delay'],
    words: (n) => `${n}: level and repeats against the dry sound`,
    why: 'Then delay, and only then the drives.',
  },
  {
    jobs: ['fuzz', 'drive', 'boost'],
    words: (n) => `${n}: soft and hard, with reverb and delay on, thinking of the whole band`,
    why: 'One stage at a time: what is harsh alone may be right in the mix.',
  },
];

/**
 * Everything that has to be done to build the rig, in working order: lay out, let adhesive set,
 * power, audio from the shortest, messages, tie down, test, dial in, label, pack.
 */
export function checklist(rig: Rig): Part[] {
  const parts = [...puttingTogether(rig), ...trying(rig), ...puttingAway(rig)];
  return parts.filter((p) => p.steps.length > 0);
}

/** Devices that can be touched; blocks are inside another. */
const boxesOf = (rig: Rig): Device[] => rig.devices.filter((d) => d.host === undefined);
/** Leads that can be touched, the shortest first. */
const leadsOf = (rig: Rig): Lead[] =>
  rig.leads
    .filter((l) => l.type !== 'inside' && l.type !== 'air')
    .sort((a, b) => a.metres - b.metres || (a.id < b.id ? -1 : 1));
const isControl = (l: Lead) => l.type === 'midi' || l.type === 'usb' || l.type === 'control';
const ends = (rig: Rig, l: Lead) => [endWords(rig, l.from), endWords(rig, l.to)] as const;

/** Devices in the order in which signal meets them. */
function byWalk(rig: Rig, devices: readonly Device[]): Device[] {
  const order = walkOrder(rig);
  return [...devices].sort((a, b) => order.indexOf(a.id) - order.indexOf(b.id));
}

/** Fastening, power, leads, and tying them down. */
function puttingTogether(rig: Rig): Part[] {
  const floor = boxesOf(rig).filter((d) => (d.place ?? 'floor') === 'floor' && kindOf(d.kind).size);
  const codes = leadCodes(rig);
  const run = (l: Lead): Step => ({
    id: `run ${l.id}`,
    words: `${codes.get(l.id)?.code}: ${ends(rig, l).join(' to ')}`,
  });
  return [
    {
      id: 'layout',
      title: 'Lay out and fasten',
      steps: byWalk(rig, floor).map((d) => ({ id: `lay ${d.id}`, words: d.name })),
    },
    {
      id: 'power',
      title: 'Power',
      afterCure: true,
      steps: boxesOf(rig).flatMap((d) => (d.supply ? [powerStep(rig, d, d.supply)] : [])),
    },
    {
      id: 'audio',
      title: 'Audio leads, the shortest first',
      afterCure: true,
      steps: leadsOf(rig)
        .filter((l) => !isControl(l))
        .map(run),
    },
    {
      id: 'control',
      title: 'Messages and controls',
      afterCure: true,
      steps: leadsOf(rig).filter(isControl).map(run),
    },
    {
      id: 'tie',
      title: 'Tie down',
      steps: [
        {
          id: 'tie',
          words: 'Tie leads where they cross edges and at every turn; power away from audio',
        },
      ],
    },
  ];
}

const powerStep = (rig: Rig, d: Device, supply: NonNullable<Device['supply']>): Step => ({
  id: `power ${d.id}`,
  words:
    `${d.name} to ${nameOf(rig, supply.device)}` +
    (supply.outlet ? `, outlet ${supply.outlet}` : '') +
    (supply.volts ? `, ${supply.volts} V` : ''),
});

/** Every lead, every path, and every knob. */
function trying(rig: Rig): Part[] {
  const codes = leadCodes(rig);
  const ears = rig.devices.filter((d) => kindOf(d.kind).destination).map((d) => d.name);
  const at = ears.length > 1 ? `all ${ears.length} destinations` : ears[0];
  return [
    {
      id: 'test',
      title: 'Test every lead: through, and no short',
      steps: rig.leads
        .filter((l) => !['inside', 'air', 'usb', 'digital'].includes(l.type))
        .map((l) => ({
          id: `test ${l.id}`,
          words: `${codes.get(l.id)?.code}: ${ends(rig, l).join(' to ')}`,
        })),
    },
    {
      id: 'paths',
      title: 'Test every path',
      steps: ears.length
        ? rig.sounds.map((s) => ({
            id: `hear ${s.id}`,
            words: `${s.name}: listen at ${at}`,
            why: ears.join('; '),
          }))
        : [],
    },
    { id: 'dial', title: 'Dial in', steps: dialSteps(rig) },
  ];
}

function dialSteps(rig: Rig): Step[] {
  const steps = DIAL_IN.flatMap((group) =>
    byWalk(
      rig,
      rig.devices.filter((d) => group.jobs.includes(kindOf(d.kind).job)),
    ).map((d): Step => ({ id: `dial ${d.id}`, words: group.words(d.name), why: group.why })),
  );
  if (rig.sounds.length > 1)
    steps.push({
      id: 'dial levels',
      words: 'Match the levels of all sounds',
      why: 'Last, by ear and by the gain ladder.',
    });
  return steps;
}

/** Labels, and what goes into which case. */
function puttingAway(rig: Rig): Part[] {
  const codes = leadCodes(rig);
  const into = new Map(packingOf(rig).pieces.flatMap((p) => p.devices.map((d) => [d.id, p.name])));
  return [
    {
      id: 'label',
      title: 'Label',
      steps: rig.leads
        .filter((l) => l.type !== 'inside' && l.type !== 'air')
        .map((l) => ({
          id: `label ${l.id}`,
          words: `${codes.get(l.id)?.code} at both ends: ${ends(rig, l).join(', ')}`,
        })),
    },
    {
      id: 'pack',
      title: 'Pack',
      steps: boxesOf(rig)
        .filter((d) => d.place !== 'house')
        .map((d) => ({
          id: `pack ${d.id}`,
          words:
            d.name +
            (d.gear?.serial ? `, ${d.gear.serial}` : '') +
            (into.has(d.id) ? `: into ${into.get(d.id)}` : ''),
        })),
    },
  ];
}

/** When adhesive has set, as a time in ms; nothing where no timer runs. */
export const cureEnds = (rig: Rig): number | undefined =>
  rig.done?.cureFrom === undefined
    ? undefined
    : Date.parse(rig.done.cureFrom) + (rig.done.cureHours ?? USUAL_CURE_HOURS) * 3_600_000;
