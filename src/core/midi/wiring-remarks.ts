import { sure, at as entryAt } from '../outcome';
import type { Message } from './message';
import { sortOf } from './message-sorts';
import { circlesIn } from '../graph';
import type { Fix, Remark } from '../findings/finding';
import { endWords, nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import { addressIn, type Orders } from './commands';
import { echoAt, endKey, midiGraph, outJacks, reachIn, sendsOwn, type Way } from './graph';
import { type MidiDevice, wantsClock } from './setup';
import { joinFix, reachFixes, thruBoxFix, usbHostFix, whereCut } from './wiring-fixes';

/** Longest DIN lead by the standard, in metres. */
export const MOST_METRES = 15;
/** Hardware thrus in a row before edges get too soft to be read safely. */
export const MOST_THRUS = 3;

type Ready = Remark & { fixes?: Fix[] };

const withFixes = ({ fixes, ...remark }: Ready): Remark => ({
  ...remark,
  ...(fixes?.[0] && { fix: fixes[0] }),
  ...(fixes && fixes.length > 1 && { others: fixes.slice(1) }),
});

/** What is wrong with the wires themselves: socket types, USB roles, length, chains, circles. */
export function wireRemarks(rig: Rig): Remark[] {
  const graph = midiGraph(rig);
  const found: Ready[] = [];
  const seen = new Set<string>();
  for (const { lead, broken, medium } of graph.ways) {
    if (seen.has(lead.id)) continue;
    seen.add(lead.id);
    const [a, b] = [endWords(rig, lead.from), endWords(rig, lead.to)];
    const subjects = [lead.id, lead.from.device, lead.to.device];
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
    if (broken === 'no host')
      found.push({
        rule: 'midi-usb',
        severity: 'fault',
        subjects,
        what: `${nameOf(rig, lead.from.device)} and ${nameOf(rig, lead.to.device)} cannot talk over USB.`,
        why: 'Both can only follow as devices; a bus needs one host to lead it.',
        fixes: [usbHostFix(rig, lead)],
      });
    if (broken === 'two hosts')
      found.push({
        rule: 'midi-usb',
        severity: 'fault',
        subjects,
        what: `${nameOf(rig, lead.from.device)} and ${nameOf(rig, lead.to.device)} cannot talk over USB.`,
        why: 'Both want to lead the bus as hosts.',
        fixes: [usbHostFix(rig, lead)],
      });
    if (medium === 'din' && lead.metres > MOST_METRES)
      found.push({
        rule: 'midi-length',
        severity: 'caution',
        subjects,
        what: `The MIDI lead from ${a} to ${b} is ${lead.metres} m long.`,
        why:
          `The standard allows ${MOST_METRES} m; beyond, edges get soft and bytes are lost. ` +
          'Shorten it, or put something that sends anew half way.',
      });
  }
  for (const sender of graph.devices.values()) {
    for (const [id, at] of reachIn(graph, sender.device.id)) {
      // The first device that is one too far; those behind it would say the same.
      if (at.copies !== MOST_THRUS + 1) continue;
      // A box in front of the first, the last ones from its second output: then both arms are
      // short, the box counted.
      const wayTo = (device: string | undefined) =>
        reachIn(graph, sender.device.id).get(device ?? '')?.way.lead;
      const [before, behind] = [
        wayTo(at.path[at.path.length - 1 - at.copies]),
        wayTo(at.path[at.path.length - MOST_THRUS]),
      ];
      if (found.some((f) => f.rule === 'midi-thrus' && f.subjects[0] === id)) continue;
      found.push({
        rule: 'midi-thrus',
        severity: 'caution',
        subjects: [id, sender.device.id],
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
      });
    }
  }
  const circle = circleOf(rig);
  if (circle) {
    const cut = circle.find((id) => sure(graph.devices.get(id)).kind.midi!.thrus.includes('none'));
    found.push({
      rule: 'midi-loop',
      severity: 'fault',
      subjects: circle,
      what: 'Messages go round in a circle.',
      why:
        `${[...circle, entryAt(circle, 0)].map((d) => nameOf(rig, d)).join(', ')}: each passes on ` +
        'what comes in, so one message never ends.',
      fixes: [
        ...(cut
          ? [
              {
                words: `Set ${nameOf(rig, cut)} to pass nothing on`,
                edits: [
                  {
                    edit: 'setMidi' as const,
                    device: cut,
                    midi: { ...sure(graph.devices.get(cut)).device.midi, thru: 'none' as const },
                  },
                ],
              },
            ]
          : []),
        ...graph.ways
          .filter((w) => w.from.device === circle.at(-1) && w.to.device === circle[0])
          .slice(0, 1)
          .map((w) => ({
            words: `Take out the lead from ${endWords(rig, w.lead.from)}`,
            edits: [{ edit: 'disconnect' as const, lead: w.lead.id }],
          })),
      ],
    });
  }
  return found.map(withFixes);
}

/** Devices of a circle in which messages would go round, in the order they pass. */
function circleOf(rig: Rig): string[] | undefined {
  const graph = midiGraph(rig);
  const keyOf = (w: Way) => `${endKey(w.from)}>${endKey(w.to)}`;
  const ways = new Map(graph.ways.filter((w) => !w.broken).map((w) => [keyOf(w), w]));
  const onward = (key: string): string[] => {
    const way = ways.get(key);
    const m = way && graph.devices.get(way.to.device);
    if (!m) return [];
    return outJacks(m)
      .filter((out) => echoAt(m, way.to.jack, out) !== 'none')
      .flatMap((out) => graph.from.get(`${m.device.id}/${out.id}`) ?? [])
      .filter((next) => !next.broken)
      .map(keyOf);
  };
  const [part] = circlesIn(ways.keys(), onward);
  if (!part) return undefined;
  // Walk round inside the part until something comes again.
  const inside = new Set(part);
  const round: string[] = [];
  for (let at = part[0]; at !== undefined; at = onward(at).find((n) => inside.has(n))) {
    const again = round.indexOf(at);
    if (again >= 0)
      return [...new Set(round.slice(again).flatMap((n) => ways.get(n)?.to.device ?? []))];
    round.push(at);
  }
  return undefined;
}

/** What a device waits for, by what its sounds and its set-up say. */
export function needsOf(
  orders: Orders,
  m: MidiDevice,
): ('programs' | 'control changes' | 'clock')[] {
  const id = m.device.id;
  return [
    ...(m.programs && orders.scenes.some((s) => addressIn(s, id)) ? ['programs' as const] : []),
    ...(orders.needed.has(id) && orders.graph.ways.some((w) => w.to.device === id)
      ? ['control changes' as const]
      : []),
    ...(wantsClock(m) ? ['clock' as const] : []),
  ];
}

const SENDS = { programs: 'program', 'control changes': 'control', clock: 'clock' } as const;

/**
 * Whether a device can be the one to send something here: it knows how, is set to, and it is not
 * merely able to in some other use.
 */
const isSender = (m: MidiDevice, need: keyof typeof SENDS): boolean =>
  need === 'clock'
    ? m.clock === 'send' && m.sends.includes('clock')
    : (m.commands || m.recalls) && m.sends.includes(SENDS[need]);

/** Devices that wait for something which never reaches them, clock of two masters, lamps that go stale. */
export function messageReachRemarks(orders: Orders): Remark[] {
  const { rig, graph } = orders;
  const found: Ready[] = [];
  for (const m of graph.devices.values()) {
    const id = m.device.id;
    const cutOff = needsOf(orders, m).filter(
      (need) =>
        ![...graph.devices.values()].some(
          (s) => s.device.id !== id && isSender(s, need) && reachIn(graph, s.device.id).has(id),
        ),
    );
    // A switcher or modeler on which the sounds are called by foot needs nobody to tell it.
    const missing = cutOff.filter(
      (need) => need !== 'programs' || !m.recalls || graph.ways.some((w) => w.to.device === id),
    );
    for (const need of missing) {
      const senders = [...graph.devices.values()]
        .filter((s) => s.device.id !== id && isSender(s, need))
        .sort((a, b) => Number(b.commands) - Number(a.commands));
      const stopped = senders
        .map((s) => ({ sender: s, cut: whereCut(rig, s.device.id, id) }))
        .find((x) => x.cut);
      if (need === 'clock' && !senders.length) {
        found.push(...unledRemark(orders, m));
        continue;
      }
      const into = m.kind.jacks.find((j) => j.midi === 'in');
      const taken = into && rig.leads.find((l) => l.to.device === id && l.to.jack === into.id);
      const held = taken && nameOf(rig, taken.from.device);
      const stopper = stopped?.cut && graph.devices.get(stopped.cut.stopper);
      found.push({
        rule: need === 'clock' ? 'midi-clock' : 'midi-cut',
        severity: 'fault',
        subjects: [id, ...(stopper ? [stopper.device.id] : [])],
        about: `${id} ${need}`,
        what: `${m.device.name} never gets ${need}.`,
        why: stopper
          ? `${stopper.device.name}, in front of ` +
            ('it, ' +
              (stopper.device.id === stopped.sender.device.id
                ? 'sends nothing of its own by that jack as it is set'
                : 'passes nothing on: it has no thru, or is set to none') +
              '. ') +
            `So nothing from ${stopped.sender.device.name} goes further.`
          : senders.length
            ? `No lead brings it what ${senders.map((s) => s.device.name).join(' or ')} ` +
              ('sends.' +
                (held
                  ? ` Its MIDI in holds the lead from ${held}; where two senders meet, a merge ` +
                    'box joins them.'
                  : ''))
            : `No device of this rig sends ${need}.`,
        fixes: stopped
          ? reachFixes(rig, stopped.sender.device.id, id)
          : senders.flatMap((x) => joinFix(rig, x.device.id, id)).slice(0, 2),
      });
    }
    const { commander } = m.device.midi ?? {};
    if (commander !== undefined && orders.commanderOf.get(id) !== commander) {
      const real = orders.commanderOf.get(id);
      found.push({
        rule: 'midi-commander',
        severity: 'fault',
        subjects: [id],
        about: `${id} commander`,
        what: `${m.device.name} is to be told by ${nameOf(rig, commander)}, which cannot do that.`,
        why:
          (graph.devices.has(commander)
            ? 'Its messages do not get there, or it calls no sounds'
            : 'It is no device of this rig that sends') +
          '; ' +
          (real ? `${nameOf(rig, real)} tells it instead` : 'nobody tells it') +
          '.',
        fixes: [
          {
            words: 'Let the nearest one that can tell it',
            edits: [
              { edit: 'setMidi', device: id, midi: { ...m.device.midi, commander: undefined } },
            ],
          },
        ],
      });
    }
    const masters = [...graph.devices.values()].filter(
      (s) => s.device.id !== id && isSender(s, 'clock') && reachIn(graph, s.device.id).has(id),
    );
    if (masters.length > 1 && m.clock === 'follow') {
      const [keep, ...rest] = masters;
      found.push({
        rule: 'midi-clock',
        severity: 'fault',
        subjects: [id, ...masters.map((s) => s.device.id)],
        about: `two ${masters
          .map((s) => s.device.id)
          .sort()
          .join('+')}`,
        what: `${masters.map((s) => s.device.name).join(' and ')} both lead with clock.`,
        why: `${m.device.name} hears both and follows neither: its tempo jumps between them.`,
        fixes: [
          {
            words: `Let only ${keep!.device.name} lead`,
            edits: rest.map((s) => ({
              edit: 'setMidi' as const,
              device: s.device.id,
              midi: { ...s.device.midi, clock: 'ignore' as const },
            })),
          },
        ],
      });
    }
    if (m.commands && m.lamps) {
      const stale = [...orders.commanderOf]
        .filter(
          ([d, by]) =>
            by === id &&
            orders.scenes.some((x) =>
              orders
                .commands(x)
                .get(id)
                ?.some((c) => c.to === d),
            ) &&
            changesElsewhere(sure(graph.devices.get(d))) &&
            !(sure(graph.devices.get(d)).reports && reachIn(graph, d).has(id)),
        )
        .map(([d]) => d);
      if (stale.length)
        found.push({
          rule: 'midi-lamps',
          severity: 'advice',
          subjects: [id, ...stale],
          about: id,
          what: `The lamps of ${m.device.name} go stale when something is switched elsewhere.`,
          why:
            `${stale.map((d) => nameOf(rig, d)).join(', ')} ${stale.length === 1 ? 'has' : 'have'} ` +
            `switches or knobs of ${stale.length === 1 ? 'its' : 'their'} own and ` +
            `report${stale.length === 1 ? 's' : ''} nothing back to ` +
            `it: ${stale.some((d) => sure(graph.devices.get(d)).reports) ? 'no lead runs back' : 'they cannot'}.`,
        });
    }
  }
  return found.map(withFixes);
}

/** A device that follows clock where nothing leads: who could lead, and where its clock would stop. */
function unledRemark({ rig, graph }: Orders, m: MidiDevice): Ready[] {
  const id = m.device.id;
  const able = [...graph.devices.values()].filter(
    (s) => s.device.id !== id && s.sends.includes('clock'),
  );
  const near = able.find((s) => reachIn(graph, s.device.id).has(id));
  const lead = (s: MidiDevice): Fix['edits'][number] => ({
    edit: 'setMidi',
    device: s.device.id,
    midi: { ...s.device.midi, clock: 'send' },
  });
  // A device that is merely made for clock, and hangs on no lead, is meant to run free.
  const runsFree =
    !m.device.tempo &&
    m.device.midi?.clock !== 'follow' &&
    !graph.ways.some((w) => w.to.device === id);
  if (runsFree) return [];
  const base = {
    rule: 'midi-clock' as const,
    severity: 'fault' as const,
    what: `${m.device.name} follows clock, and nothing sends any.`,
  };
  if (near)
    return [
      {
        ...base,
        subjects: [id],
        about: id,
        why: `${near.device.name} reaches it and can lead, but is not set to.`,
        fixes: [{ words: `Let ${near.device.name} lead with clock`, edits: [lead(near)] }],
      },
    ];
  const far = able.map((s) => ({ s, cut: whereCut(rig, s.device.id, id) })).find((x) => x.cut);
  if (!far)
    return [
      {
        ...base,
        subjects: [id],
        about: id,
        why: able.length
          ? `No lead brings it what ${able.map((s) => s.device.name).join(' or ')} could send.`
          : 'No device of this rig can lead with clock.',
      },
    ];
  const stopper = sure(graph.devices.get(far.cut!.stopper)).device.name;
  return [
    {
      ...base,
      subjects: [id, far.cut!.stopper],
      about: id,
      what: `${m.device.name} never gets clock.`,
      why:
        `${far.s.device.name} could lead, but ${stopper}, in front of ${m.device.name}, ` +
        'passes nothing on: it has no thru, or is set to none.',
      fixes: reachFixes(rig, far.s.device.id, id).map((f) => ({
        words: `${f.words}, and let ${far.s.device.name} lead with clock`,
        edits: [...f.edits, lead(far.s)],
      })),
    },
  ];
}

/**
 * Leads that carry no messages at all, whatever is sent: what they hang on passes nothing on and
 * says nothing itself.
 */
export function deadLeadRemarks(orders: Orders, known: readonly Remark[]): Remark[] {
  const { rig, graph } = orders;
  const fed = new Set(
    [...graph.devices.keys()].flatMap((id) =>
      sure(graph.devices.get(id)).sends.length
        ? [...reachIn(graph, id).values()].map((a) => a.way.lead.id)
        : [],
    ),
  );
  return graph.ways
    .filter(
      (w) =>
        w.medium === 'din' &&
        !w.broken &&
        !fed.has(w.lead.id) &&
        !known.some((r) => r.subjects[0] === w.to.device),
    )
    .flatMap((w): Remark[] => {
      const from = sure(graph.devices.get(w.from.device));
      const jack = sure(from.kind.jacks.find((j) => j.id === w.from.jack));
      const alive =
        (from.sends.length > 0 && sendsOwn(from, jack)) ||
        [...fed].some((l) =>
          graph.ways.some(
            (x) =>
              x.lead.id === l &&
              x.to.device === from.device.id &&
              echoAt(from, x.to.jack, jack) !== 'none',
          ),
        );
      if (alive) return [];
      const sender = [...graph.devices.values()].find(
        (s) => s.sends.length > 0 && whereCut(rig, s.device.id, w.to.device),
      );
      return [
        withFixes({
          rule: 'midi-cut',
          severity: 'caution',
          subjects: [w.to.device, from.device.id, w.lead.id],
          about: `${w.lead.id} dead`,
          what: `The MIDI lead from ${endWords(rig, w.lead.from)} to ${endWords(rig, w.lead.to)} carries nothing.`,
          why: `${from.device.name} sends nothing of its own there and passes nothing on that comes in.`,
          fixes: sender ? reachFixes(rig, sender.device.id, w.to.device) : [],
        }),
      ];
    });
}

/**
 * Whether what a device does can be changed on itself: it has switches that a foot can reach, or
 * can be switched on and off.
 */
export const changesElsewhere = (m: MidiDevice): boolean =>
  !m.kind.alwaysOn || (m.kind.switches ?? 0) > 0;

/** Devices that react to messages meant for another one: they listen on the same channel. */
export function listenerRemarks(orders: Orders): Remark[] {
  const { rig, graph, scenes } = orders;
  const found = new Map<string, Ready>();
  for (const scene of scenes) {
    for (const [sender, list] of orders.commands(scene)) {
      for (const c of list) {
        if (c.message.type !== 'program' && c.message.type !== 'control') continue;
        const { message } = c;
        const wanted =
          c.to ??
          [...reachIn(graph, sender).keys()].find((id) => reacts(graph.devices.get(id), message));
        for (const id of reachIn(graph, sender).keys()) {
          const m = sure(graph.devices.get(id));
          if (id === wanted || !reacts(m, message)) continue;
          if (wanted && sharedOnPurpose(orders, wanted, id)) continue;
          const key = [wanted ?? '', id].sort().join('+');
          if (found.has(key)) continue;
          const free = freeChannel(orders);
          const mover = c.written && wanted ? m : (graph.devices.get(wanted ?? id) ?? m);
          const both = wanted ? [nameOf(rig, wanted), m.device.name] : [m.device.name];
          found.set(key, {
            rule: 'midi-double',
            severity: 'fault',
            subjects: wanted ? [id, wanted] : [id],
            about: key,
            what: `${both.join(' and ')} both listen on channel ${message.channel}.`,
            why:
              `${sortOf(message).title(message)}, ` +
              `which ${nameOf(rig, sender)} sends ${wanted ? `for ${nameOf(rig, wanted)}` : ''} ` +
              `in ${scene.name}, changes ${m.device.name} too.`,
            fixes:
              free === undefined
                ? []
                : [
                    {
                      words: `Move ${mover.device.name} to channel ${free}`,
                      edits: [
                        {
                          edit: 'setMidi',
                          device: mover.device.id,
                          midi: { ...mover.device.midi, channel: free },
                        },
                      ],
                    },
                  ],
          });
        }
      }
    }
  }
  return [...found.values()].map(withFixes);
}

/** Whether a message makes a device do something. */
export const reacts = (m: MidiDevice | undefined, message: Message): boolean =>
  m !== undefined && sortOf(message).isTaken(message, m);

/** Two devices on one channel that keep every sound at the same number were set up so on purpose. */
function sharedOnPurpose({ scenes }: Orders, a: string, b: string): boolean {
  const same = scenes.map((s) => [addressIn(s, a), addressIn(s, b)] as const);
  return (
    same.some(([x]) => x) &&
    same.every(
      ([x, y]) => x !== undefined && y !== undefined && x.number === y.number && x.bank === y.bank,
    )
  );
}

/** The lowest channel that nobody listens on. */
function freeChannel({ graph }: Orders): number | undefined {
  const taken = new Set([...graph.devices.values()].map((m) => m.channel));
  return Array.from({ length: 16 }, (_, i) => i + 1).find((n) => !taken.has(n));
}
