import { type Job, kindOf } from '../kinds';
import { endWords, nameOf } from '../rig/find';
import type { Device, Lead, Rig } from '../rig/schema';
import { walkOrder } from '../changes/compare';
import { cutList } from './cut-list';
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
  const devices = rig.devices.filter((d) => d.host === undefined);
  const real = rig.leads.filter((l) => l.type !== 'inside' && l.type !== 'air');
  const lead = (l: Lead, verb: string): Step => ({
    id: `${verb} ${l.id}`,
    words: `${endWords(rig, l.from)} to ${endWords(rig, l.to)}`,
  });
  const short = (a: Lead, b: Lead) => a.metres - b.metres || (a.id < b.id ? -1 : 1);
  const isControl = (l: Lead) => l.type === 'midi' || l.type === 'usb' || l.type === 'control';
  const floor = devices.filter((d) => (d.place ?? 'floor') === 'floor' && kindOf(d.kind).size);
  const order = walkOrder(rig);
  const byWalk = (list: Device[]) =>
    [...list].sort((a, b) => order.indexOf(a.id) - order.indexOf(b.id));
  const codes = new Map(cutList(rig).cuts.map((c) => [c.lead.id, c.code]));
  const ears = rig.devices.filter((d) => kindOf(d.kind).destination).map((d) => d.name);
  const into = new Map(packingOf(rig).pieces.flatMap((p) => p.devices.map((d) => [d.id, p.name])));
  const parts: Part[] = [
    {
      id: 'layout',
      title: 'Lay out and fasten',
      steps: byWalk(floor).map((d) => ({ id: `lay ${d.id}`, words: d.name })),
    },
    {
      id: 'power',
      title: 'Power',
      afterCure: true,
      steps: devices
        .filter((d) => d.supply)
        .map((d) => ({
          id: `power ${d.id}`,
          words:
            `${d.name} to ${nameOf(rig, d.supply!.device)}` +
            (d.supply!.outlet ? `, outlet ${d.supply!.outlet}` : '') +
            (d.supply!.volts ? `, ${d.supply!.volts} V` : ''),
        })),
    },
    {
      id: 'audio',
      title: 'Audio leads, the shortest first',
      afterCure: true,
      steps: real
        .filter((l) => !isControl(l))
        .sort(short)
        .map((l) => lead(l, 'run')),
    },
    {
      id: 'control',
      title: 'Messages and controls',
      afterCure: true,
      steps: real
        .filter(isControl)
        .sort(short)
        .map((l) => lead(l, 'run')),
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
    {
      id: 'test',
      title: 'Test every lead: through, and no short',
      steps: real
        .filter((l) => l.type !== 'usb' && l.type !== 'digital')
        .map((l) => ({
          ...lead(l, 'test'),
          words: `${codes.get(l.id)}: ${endWords(rig, l.from)} to ${endWords(rig, l.to)}`,
        })),
    },
    {
      id: 'paths',
      title: 'Test every path',
      steps: ears.length
        ? rig.sounds.map((s) => ({
            id: `hear ${s.id}`,
            words: `${s.name}: listen at ${ears.length > 1 ? `all ${ears.length} destinations` : ears[0]}`,
            why: ears.join('; '),
          }))
        : [],
    },
    {
      id: 'dial',
      title: 'Dial in',
      steps: DIAL_IN.flatMap((group) =>
        byWalk(rig.devices.filter((d) => group.jobs.includes(kindOf(d.kind).job))).map((d) => ({
          id: `dial ${d.id}`,
          words: group.words(d.name),
          why: group.why,
        })),
      ).concat(
        rig.sounds.length > 1
          ? [
              {
                id: 'dial levels',
                words: 'Match the levels of all sounds',
                why: 'Last, by ear and by the gain ladder.',
              },
            ]
          : [],
      ),
    },
    {
      id: 'label',
      title: 'Label',
      steps: real.map((l) => ({
        id: `label ${l.id}`,
        words: `${codes.get(l.id)} at both ends: ${endWords(rig, l.from)}, ${endWords(rig, l.to)}`,
      })),
    },
    {
      id: 'pack',
      title: 'Pack',
      steps: devices
        .filter((d) => d.place !== 'house')
        .map((d) => ({
          id: `pack ${d.id}`,
          words:
            `${d.name}` +
            (d.gear?.serial ? `, ${d.gear.serial}` : '') +
            (into.has(d.id) ? `: into ${into.get(d.id)}` : ''),
        })),
    },
  ];
  return parts.filter((p) => p.steps.length > 0);
}

/** When adhesive has set, as a time in ms; nothing where no timer runs. */
export const cureEnds = (rig: Rig): number | undefined =>
  rig.done?.cureFrom === undefined
    ? undefined
    : Date.parse(rig.done.cureFrom) + (rig.done.cureHours ?? USUAL_CURE_HOURS) * 3_600_000;
