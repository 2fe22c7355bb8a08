import type { Fix, Remark } from '../findings/finding';
import { byKey } from '../graph';
import { sure } from '../outcome';
import { endWords, nameOf } from '../rig/find';
import { addressIn, type Orders } from './commands';
import { echoAt, reachIn, sendsOwn } from './graph';
import { type Ready, withFixes } from './ready';
import { goesByClock, type MidiDevice, wantsClock } from './setup';
import { joinFix, reachFixes, whereCut } from './wiring-fixes';
import { allOf, anyOf } from '../units';

type Need = 'programs' | 'control changes' | 'clock';

/** What a device waits for, by what its sounds and its set-up say. */
export function needsOf(orders: Orders, m: MidiDevice): Need[] {
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
export const messageReachRemarks = (orders: Orders): Remark[] =>
  [
    ...together(
      [...orders.graph.devices.values()].flatMap((m) =>
        missingNeeds(orders, m).flatMap((need) => missedRemark(orders, m, need)),
      ),
    ),
    ...[...orders.graph.devices.values()].flatMap((m) => [
      ...commanderRemark(orders, m),
      ...mastersRemark(orders, m),
      ...lampsRemark(orders, m),
    ]),
  ].map(withFixes);

/** What one and the same lead cures is one matter: the first of its remarks names all that miss something. */
function together(missed: readonly Ready[]): Ready[] {
  const groups = byKey(missed, ({ rule, about, fixes }) =>
    fixes?.[0] ? `${rule} ${JSON.stringify(fixes[0].edits)}` : about,
  );
  return [...groups.values()].map(([first, ...others]): Ready => {
    const one = sure(first);
    if (!others.length) return one;
    return {
      ...one,
      subjects: [...new Set([one, ...others].flatMap((r) => r.subjects))],
      about: [one, ...others].map((r) => r.about).join('+'),
      what: [one, ...others].map((r) => r.what).join(' '),
    };
  });
}

/** What a device waits for and nobody who sends it reaches it with. */
function missingNeeds(orders: Orders, m: MidiDevice): Need[] {
  const { graph } = orders;
  const id = m.device.id;
  return needsOf(orders, m)
    .filter((need) => !sendersOf(orders, m, need).some((s) => reachIn(graph, s.device.id).has(id)))
    .filter(
      // A switcher or modeler on which the sounds are called by foot needs nobody to tell it.
      (need) =>
        need !== 'programs' ||
        !m.recalls ||
        graph.ways.some((w) => w.to.device === id) ||
        callsOthers(orders, m),
    );
}

/** Whether something that does nothing but call sounds calls those of others: this one was left out. */
const callsOthers = (orders: Orders, m: MidiDevice): boolean =>
  sendersOf(orders, m, 'programs').some(
    (s) =>
      s.commands &&
      !s.recalls &&
      [...reachIn(orders.graph, s.device.id).keys()].some(
        (id) => id !== m.device.id && orders.graph.devices.get(id)?.programs === true,
      ),
  );

/** Other devices that send something here. */
const sendersOf = ({ graph }: Orders, m: MidiDevice, need: Need): MidiDevice[] =>
  [...graph.devices.values()].filter((s) => s.device.id !== m.device.id && isSender(s, need));

/** A device that never gets what it waits for: what stops it on the way, or that nothing brings it. */
function missedRemark(orders: Orders, m: MidiDevice, need: Need): Ready[] {
  const { rig, graph } = orders;
  const id = m.device.id;
  const senders = sendersOf(orders, m, need).sort(
    (a, b) => Number(b.commands) - Number(a.commands),
  );
  if (need === 'clock' && !senders.length) return unledRemark(orders, m);
  const stopped = senders
    .map((s) => ({ sender: s, cut: whereCut(rig, s.device.id, id) }))
    .find((x) => x.cut);
  const stopper = stopped?.cut && graph.devices.get(stopped.cut.stopper);
  return [
    {
      rule: need === 'clock' ? 'midi-clock' : 'midi-cut',
      // A foot can call the sounds of what calls sounds itself.
      severity:
        need === 'programs' && m.recalls && !graph.ways.some((w) => w.to.device === id)
          ? 'caution'
          : 'fault',
      subjects: [id, ...(stopper ? [stopper.device.id] : [])],
      about: `${id} ${need}`,
      what: `${m.device.name} never gets ${need}.`,
      why: stopper
        ? stopperWords(stopper, stopped.sender)
        : senders.length
          ? `No lead brings it what ${anyOf(senders.map((s) => s.device.name))} ` +
            `sends.${heldWords(orders, m)}`
          : `No device of this rig sends ${need}.`,
      fixes: stopped
        ? reachFixes(rig, stopped.sender.device.id, id)
        : distinct(senders.flatMap((x) => joinFix(rig, x.device.id, id))).slice(0, 2),
    },
  ];
}

/** Fixes that are said once where several senders would get the same. */
const distinct = (fixes: readonly Fix[]): Fix[] =>
  fixes.filter((f, i) => fixes.findIndex((o) => o.words === f.words) === i);

const stopperWords = (stopper: MidiDevice, sender: MidiDevice): string =>
  `${stopper.device.name}, in front of it, ` +
  (stopper.device.id === sender.device.id
    ? 'sends nothing of its own by that jack as it is set'
    : 'passes nothing on: it has no thru, or is set to none') +
  `. So nothing from ${sender.device.name} goes further.`;

/** That its MIDI in is taken, where it is. */
function heldWords({ rig }: Orders, m: MidiDevice): string {
  const into = m.kind.jacks.find((j) => j.midi === 'in');
  const taken = into && rig.leads.find((l) => l.to.device === m.device.id && l.to.jack === into.id);
  return taken
    ? ` Its MIDI in holds the lead from ${nameOf(rig, taken.from.device)}; where two senders meet, ` +
        'a merge box joins them.'
    : '';
}

/** A device that is to be told by one that cannot tell it. */
function commanderRemark({ rig, graph, commanderOf }: Orders, m: MidiDevice): Ready[] {
  const id = m.device.id;
  const { commander } = m.device.midi ?? {};
  const real = commanderOf.get(id);
  if (commander === undefined || real === commander) return [];
  return [
    {
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
    },
  ];
}

/** A device that goes by clock and hears more than one that leads. */
function mastersRemark(orders: Orders, m: MidiDevice): Ready[] {
  const id = m.device.id;
  const masters = sendersOf(orders, m, 'clock').filter((s) =>
    reachIn(orders.graph, s.device.id).has(id),
  );
  const [keep, ...rest] = masters;
  if (!keep || !rest.length || !goesByClock(m)) return [];
  return [
    {
      rule: 'midi-clock',
      severity: 'fault',
      subjects: [id, ...masters.map((s) => s.device.id)],
      about: `two ${masters
        .map((s) => s.device.id)
        .sort()
        .join('+')}`,
      what: `${allOf(masters.map((s) => s.device.name))} ${rest.length > 1 ? 'all' : 'both'} lead with clock.`,
      why:
        `${m.device.name} hears ${rest.length > 1 ? 'them all and follows none' : 'both and follows neither'}: ` +
        'its tempo jumps between them.',
      fixes: [
        {
          words: `Let only ${keep.device.name} lead`,
          edits: rest.map((s) => ({
            edit: 'setMidi' as const,
            device: s.device.id,
            midi: { ...s.device.midi, clock: 'ignore' as const },
          })),
        },
      ],
    },
  ];
}

/** Lamps of a controller that show what it told devices which are changed elsewhere too and report nothing. */
function lampsRemark(
  { rig, graph, commanderOf, scenes, commands }: Orders,
  m: MidiDevice,
): Ready[] {
  if (!m.commands || !m.lamps) return [];
  const id = m.device.id;
  const isTold = (d: string) =>
    scenes.some((x) =>
      commands(x)
        .get(id)
        ?.some((c) => c.to === d),
    );
  const stale = [...commanderOf]
    .filter(([d, by]) => by === id && isTold(d))
    .map(([d]) => sure(graph.devices.get(d)))
    .filter((d) => changesElsewhere(d) && !(d.reports && reachIn(graph, d.device.id).has(id)));
  if (!stale.length) return [];
  const one = stale.length === 1;
  return [
    {
      rule: 'midi-lamps',
      severity: 'advice',
      subjects: [id, ...stale.map((d) => d.device.id)],
      about: id,
      what: `The lamps of ${m.device.name} go stale when something is switched elsewhere.`,
      why:
        `${allOf(stale.map((d) => nameOf(rig, d.device.id)))} ${one ? 'has' : 'have'} ` +
        `switches or knobs of ${one ? 'its' : 'their'} own and report${one ? 's' : ''} nothing ` +
        `back to it: ${stale.some((d) => d.reports) ? 'no lead runs back' : 'they cannot'}.`,
    },
  ];
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
          ? `No lead brings it what ${anyOf(able.map((s) => s.device.name))} could send.`
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
