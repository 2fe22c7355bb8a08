import type { Fix, Remark } from '../findings/finding';
import { type Job, type Kind, kindOf } from '../kinds';
import { freeJacks, joiningLead } from '../rig';
import { byId, deviceOf, endWords } from '../rig/find';
import type { Device, End, Rig } from '../rig/schema';
import type { Remarker } from './evidence';

/** Devices that are there to be played through: with nothing on their output they are of no use. */
const PLAYED_THROUGH: ReadonlySet<Job> = new Set<Job>([
  ...(['fuzz', 'pitch', 'filter', 'compressor', 'drive', 'boost', 'gate', 'eq'] as const),
  ...(['volume', 'modulation', 'delay', 'reverb'] as const),
]);
/** So many inputs are offered. */
const OFFERED = 3;

/**
 * Effects that signal goes into and nothing comes out of, since no lead is in their output: a loop
 * of which one plug hangs, a chain with one lead missing. And a tuner that is there and not plugged.
 */
export const openEndRemarks: Remarker = ({ ctx, stations }) => {
  const { rig } = ctx;
  const holds = (device: string, jack: string) =>
    rig.leads.some((l) => [l.from, l.to].some((end) => end.device === device && end.jack === jack));
  const ends = rig.devices.flatMap((device): Remark[] => {
    const kind = kindOf(device.kind);
    const { through } = kind;
    if (!through || !PLAYED_THROUGH.has(kind.job) || device.host !== undefined) return [];
    const outs = kind.jacks.filter((j) => j.direction === 'out' && j.signal === 'audio');
    if (outs.length === 0 || outs.some((j) => holds(device.id, j.id))) return [];
    const fed = stations.some((s) => s.device === device.id && s.input?.levelDbu);
    return fed ? [openEnd(rig, device, { device: device.id, jack: through.out })] : [];
  });
  return [...ends, ...loneTuner(rig)];
};

function openEnd(rig: Rig, device: Device, out: End): Remark {
  const fixes = waysOn(rig, device).map((to): Fix => ({
    words: `Plug ${device.name} into ${endWords(rig, to)}`,
    edits: [{ edit: 'connect', lead: joiningLead(rig, out, to) }],
  }));
  const [fix, ...others] = fixes;
  return {
    rule: 'open-end',
    severity: 'fault',
    subjects: [device.id],
    what: `${device.name} gets the signal, and nothing is plugged into its output.`,
    why: 'What goes into it is heard nowhere. Plug its output on, or take it out of the way.',
    ...(fix && { fix, others }),
  };
}

/**
 * Inputs that the output could be meant for: the return of the loop whose send feeds the device,
 * then inputs that hold nothing, those of destinations first.
 */
function waysOn(rig: Rig, device: Device): End[] {
  const feeding = rig.leads.filter((l) => l.to.device === device.id).map((l) => l.from);
  const returns = feeding.flatMap((from) => {
    const loop = kindIn(rig, from.device)?.loops?.find((l) => l.send.includes(from.jack));
    return (loop?.return ?? []).map((jack) => ({ device: from.device, jack }));
  });
  const free = freeJacks(rig, 'in', '', (j) => j.signal === 'audio')
    .filter((d) => d.device.id !== device.id)
    .flatMap(({ device: d, jacks }) => {
      const kind: Kind = kindOf(d.kind);
      const ofLoops = (kind.loops ?? []).flatMap((l) => l.return);
      return jacks
        .filter((j) => !ofLoops.includes(j.id))
        .map((j) => ({ device: d.id, jack: j.id, first: kind.destination ? 0 : 1 }));
    })
    .sort((a, b) => a.first - b.first)
    .map(({ device: d, jack }) => ({ device: d, jack }));
  const open = (end: End) =>
    free.some((x) => x.device === end.device && x.jack === end.jack) ||
    !rig.leads.some((l) => l.to.device === end.device && l.to.jack === end.jack);
  const all = [...returns.filter(open), ...free];
  return all
    .filter((x, i) => all.findIndex((y) => y.device === x.device && y.jack === x.jack) === i)
    .slice(0, OFFERED);
}

/** The only tuner of a rig, with no lead in it. */
function loneTuner(rig: Rig): Remark[] {
  // By id: which of several is named hangs on no order of the file.
  const tuners = rig.devices.filter((d) => kindOf(d.kind).job === 'tuner').sort(byId);
  const isPlugged = (d: Device) =>
    d.host !== undefined || rig.leads.some((l) => [l.from, l.to].some((e) => e.device === d.id));
  const [tuner] = tuners;
  if (!tuner || tuners.some(isPlugged) || rig.leads.length === 0) return [];
  const kind = kindOf(tuner.kind);
  const first = [...rig.leads]
    .sort(byId)
    .find((l) => kindIn(rig, l.from.device)?.job === 'instrument');
  return [
    {
      rule: 'unplugged',
      severity: 'advice',
      subjects: [tuner.id],
      what: `${tuner.name} is there, and not plugged in.`,
      why: 'No tuner of this rig hears anything. Put it into the chain, or on a tap that a splitter gives it.',
      ...(kind.through &&
        first && {
          fix: {
            words: `Put ${tuner.name} behind the instrument`,
            edits: [
              {
                edit: 'moveDevice' as const,
                device: tuner.id,
                lead: first.id,
                newLeads: [`${tuner.id}-in`, `${tuner.id}-out`],
              },
            ],
          },
        }),
    },
  ];
}

const kindIn = (rig: Rig, id: string): Kind | undefined => {
  const device = deviceOf(rig, id);
  return device && kindOf(device.kind);
};
