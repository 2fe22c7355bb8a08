import type { Fix, Remark } from '../findings/finding';
import { at as entryAt, sure } from '../outcome';
import { endWords, nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import { circleOf } from './circle';
import { type Arrived, type MidiGraph, midiGraph, reachIn, type Way } from './graph';
import { type Ready, withFixes } from './ready';
import { usbHostFix } from './usb-host-fix';
import { halfWayFix, thruBoxFix } from './wiring-fixes';

/** Longest DIN lead by the standard, in metres. */
export const MOST_METRES = 15;
/** Hardware thrus in a row before edges get too soft to be read safely. */
export const MOST_THRUS = 3;

/** What is wrong with the wires themselves: socket types, USB roles, length, chains, circles. */
export function wireRemarks(rig: Rig): Remark[] {
  const graph = midiGraph(rig);
  const oneEach = new Map(graph.ways.toReversed().map((way) => [way.lead.id, way]));
  const leads = [...new Set(graph.ways.map((w) => w.lead.id))];
  return [
    ...leads.flatMap((id) => leadRemarks(rig, sure(oneEach.get(id)))),
    ...thruRemarks(rig, graph),
    ...circleRemarks(rig, graph),
  ].map(withFixes);
}

/** What is wrong with one lead, whichever way messages would run along it. */
function leadRemarks(rig: Rig, { lead, broken, medium }: Way): Ready[] {
  const [a, b] = [endWords(rig, lead.from), endWords(rig, lead.to)];
  const subjects = [lead.id, lead.from.device, lead.to.device];
  const found: Ready[] = [];
  if (broken === 'type')
    found.push({
      rule: 'midi-type',
      severity: 'fault',
      subjects,
      what: `The lead from ${a} to ${b} carries no messages.`,
      why:
        'One socket is wired as type A, the other as type B: tip and ring change places ' +
        'between them, so nothing is heard.',
      fixes: [
        {
          words: lead.crossed ? 'Use a straight lead' : 'Use a crossed lead',
          edits: [{ edit: 'setLead', lead: lead.id, crossed: !lead.crossed }],
        },
      ],
    });
  if (broken === 'no host' || broken === 'two hosts')
    found.push({
      rule: 'midi-usb',
      severity: 'fault',
      subjects,
      what: `${nameOf(rig, lead.from.device)} and ${nameOf(rig, lead.to.device)} cannot talk over USB.`,
      why:
        broken === 'no host'
          ? 'Both can only follow as devices; a bus needs one host to lead it.'
          : 'Both want to lead the bus as hosts.',
      fixes: [usbHostFix(rig, lead)],
    });
  if (medium === 'din' && lead.metres > MOST_METRES)
    found.push({
      rule: 'midi-length',
      severity: 'caution',
      subjects,
      what: `The MIDI lead from ${a} to ${b} is ${lead.metres} m long.`,
      why: `The standard allows ${MOST_METRES} m; beyond, edges get soft and bytes are lost.`,
      fixes: [halfWayFix(rig, lead)],
    });
  return found;
}

/** The first device of each chain of thrus that is one too far; those behind it would say the same. */
function thruRemarks(rig: Rig, graph: MidiGraph): Ready[] {
  const found = new Map<string, Ready>();
  for (const { device: sender } of graph.devices.values())
    for (const [id, at] of reachIn(graph, sender.id))
      if (at.copies === MOST_THRUS + 1 && !found.has(id))
        found.set(id, thruRemark(rig, graph, sender.id, id, at));
  return [...found.values()];
}

function thruRemark(rig: Rig, graph: MidiGraph, sender: string, id: string, at: Arrived): Ready {
  // A box in front of the first, the last ones from its second output: then both arms are short, the
  // box counted.
  const wayTo = (device: string | undefined) => reachIn(graph, sender).get(device ?? '')?.way.lead;
  const [before, behind] = [
    wayTo(at.path[at.path.length - 1 - at.copies]),
    wayTo(at.path[at.path.length - MOST_THRUS]),
  ];
  return {
    rule: 'midi-thrus',
    severity: 'caution',
    subjects: [id, sender],
    about: id,
    what: `${nameOf(rig, id)} hangs behind ${at.copies} hardware thrus.`,
    why:
      `Each copy softens the edges: ${at.path.map((d) => nameOf(rig, d)).join(', ')}. ` +
      `More than ${MOST_THRUS} in a row are not safe; a thru box puts devices ` +
      'side by side.',
    fixes:
      before?.type === 'midi' && behind?.type === 'midi' && before !== behind
        ? [thruBoxFix(rig, before, behind)]
        : [],
  };
}

/** Messages that would go round: told with a device that could pass nothing on, or a lead to take out. */
function circleRemarks(rig: Rig, graph: MidiGraph): Ready[] {
  const circle = circleOf(graph);
  if (!circle) return [];
  const cut = circle.find((id) => sure(graph.devices.get(id)).kind.midi?.thrus.includes('none'));
  const passNothing: Fix[] = cut
    ? [
        {
          words: `Set ${nameOf(rig, cut)} to pass nothing on`,
          edits: [
            {
              edit: 'setMidi',
              device: cut,
              midi: { ...sure(graph.devices.get(cut)).device.midi, thru: 'none' },
            },
          ],
        },
      ]
    : [];
  const closing = graph.ways.find(
    (w) => w.from.device === circle.at(-1) && w.to.device === circle[0],
  );
  const takeOut: Fix[] = closing
    ? [
        {
          words: `Take out the lead from ${endWords(rig, closing.lead.from)}`,
          edits: [{ edit: 'disconnect', lead: closing.lead.id }],
        },
      ]
    : [];
  return [
    {
      rule: 'midi-loop',
      severity: 'fault',
      subjects: circle,
      what: 'Messages go round in a circle.',
      why:
        `${[...circle, entryAt(circle, 0)].map((d) => nameOf(rig, d)).join(', ')}: each passes on ` +
        'what comes in, so one message never ends.',
      fixes: [...passNothing, ...takeOut],
    },
  ];
}
