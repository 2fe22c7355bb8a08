import { midiGraph, reachIn } from '../../midi';
import { kindOf } from '../../kinds';
import { deviceOf, jackOf, nameOf } from '../../rig/find';
import type { Lead, Rig, Sound } from '../../rig/schema';
import { placeOf } from '../../rig/stands-where';
import { cut, standingAsIn } from './changes';
import { type Fault, REACH_SECONDS, type Sort, WEAR, type Whole } from './fault';
import { leadWords, placeOfLead } from './look';
import { allOf } from '../../units';

/** MIDI: leads, boxes that pass messages on, wrong socket, wrong channel. Sounds stay as they were. */
export const midiFaults: Sort = {
  id: 'midi',
  words: 'MIDI',
  odds:
    'A MIDI or USB lead fails in 1 of 1000 shows, a plug in the wrong socket and a wrong channel are ' +
    'found in 1 each, a box in 0.4.',
  expand: ({ rig }) => [
    ...rig.leads
      .filter((l) => l.type === 'midi' || l.type === 'usb')
      .flatMap((l) => [...ofLead(rig, l), ...wrongSocket(rig, l)]),
    ...channels(rig),
    ...relays(rig),
  ],
};

/**
 * The sound that was on before, taken as the one before it in the list, the last before the first: what
 * stays as it was stays as that one has it. A simplification: a set may come to it from another one.
 */
export const soundBefore =
  (rig: Rig) =>
  (sound: Sound): Sound | undefined => {
    const i = rig.sounds.findIndex((s) => s.id === sound.id);
    return rig.sounds.at(i - 1);
  };

/** What does not change any more: as the sound before has it. */
export const staysAsItWas = (whole: Whole, devices: readonly string[]): Whole =>
  standingAsIn(whole, devices, soundBefore(whole.rig));

/** Devices that take messages from somebody, and from whom. */
function reached(rig: Rig): Map<string, Set<string>> {
  const graph = midiGraph(rig);
  const by = new Map<string, Set<string>>();
  for (const m of graph.devices.values()) {
    if (!m.commands && !m.recalls && !m.sends.length) continue;
    for (const to of reachIn(graph, m.device.id).keys())
      by.set(to, (by.get(to) ?? new Set()).add(m.device.id));
  }
  return by;
}

/** Devices that change with messages and that somebody no longer reaches in a changed rig. */
function cutOff(rig: Rig, changed: Rig): string[] {
  const graph = midiGraph(rig);
  const after = reached(changed);
  return [...reached(rig)].flatMap(([to, from]) => {
    const m = graph.devices.get(to);
    const listens = m && (m.programs || m.mapped.length > 0);
    return listens && [...from].some((f) => f !== to && !after.get(to)?.has(f)) ? [to] : [];
  });
}

/** What becomes of devices that no message reaches. */
const unmoved = (rig: Rig, lost: readonly string[]): string =>
  `${allOf(lost.map((d) => nameOf(rig, d)))} ${lost.length === 1 ? 'stays as it was' : 'stay as they were'}`;

function ofLead(rig: Rig, lead: Lead): Fault[] {
  const lost = cutOff(rig, { ...rig, leads: rig.leads.filter((l) => l.id !== lead.id) });
  if (!lost.length) return [];
  const where = placeOfLead(rig, lead);
  const base = {
    sort: 'midi' as const,
    subjects: [lead.id],
    swap: lead.id,
    dark: [],
    where,
    change: (w: Whole) => staysAsItWas(cut(w, [lead.id]), lost),
  };
  return [
    {
      ...base,
      id: `midi lead ${lead.id}`,
      words: `${leadWords(rig, lead)}, passes no messages: ${unmoved(rig, lost)}`,
      perThousand: 1 * WEAR[where],
      mend: {
        words: `put in a spare ${lead.type} lead`,
        seconds: REACH_SECONDS[where] + 20,
        spare: { is: 'lead', type: lead.type, metres: lead.metres },
      },
    },
  ];
}

/** A plug in another MIDI socket of the same box than it should be in: an out and a thru are not the same. */
function wrongSocket(rig: Rig, lead: Lead): Fault[] {
  return (['from', 'to'] as const).flatMap((end) => {
    const device = deviceOf(rig, lead[end].device);
    const right = device && jackOf(device, lead[end].jack);
    if (!device || !right) return [];
    const free = kindOf(device.kind).jacks.filter(
      (j) =>
        j.id !== right.id &&
        j.signal === right.signal &&
        j.connector === right.connector &&
        !rig.leads.some((l) =>
          [l.from, l.to].some((e) => e.device === device.id && e.jack === j.id),
        ),
    );
    return free.flatMap((wrong): Fault[] => {
      const plugged = { ...lead, [end]: { device: device.id, jack: wrong.id } };
      const leads = rig.leads.map((l) => (l.id === lead.id ? plugged : l));
      // An input in the place of an output, or the other way, says nothing at all.
      const changed =
        wrong.direction === right.direction ? leads : leads.filter((l) => l.id !== lead.id);
      const lost = cutOff(rig, { ...rig, leads: changed });
      if (!lost.length) return [];
      const where = placeOf(device);
      return [
        {
          id: `midi socket ${lead.id} ${end} ${wrong.id}`,
          sort: 'midi',
          words:
            `${leadWords(rig, lead)}, is in ${wrong.label} of ${device.name}, not in ` +
            `${right.label}: ${unmoved(rig, lost)}`,
          subjects: [lead.id, device.id],
          perThousand: 1 / free.length,
          dark: [],
          where,
          mend: {
            words: `plug it into ${right.label} of ${device.name}`,
            seconds: REACH_SECONDS[where] + 10,
          },
          change: (w) => staysAsItWas(cut(w, [lead.id]), lost),
        },
      ];
    });
  });
}

function channels(rig: Rig): Fault[] {
  const by = reached(rig);
  return [...midiGraph(rig).devices.values()].flatMap((m): Fault[] => {
    const id = m.device.id;
    if (!by.get(id)?.size || m.channel === 'all' || !(m.programs || m.mapped.length)) return [];
    const where = placeOf(m.device);
    return [
      {
        id: `channel ${id}`,
        sort: 'midi',
        words: `${m.device.name} listens on another channel than ${m.channel}`,
        subjects: [id],
        perThousand: 1,
        dark: [],
        where,
        screenAt: id,
        mend: {
          words: `set the channel of ${m.device.name} to ${m.channel}`,
          seconds: REACH_SECONDS[where] + 30,
        },
        change: (w) => staysAsItWas(w, [id]),
      },
    ];
  });
}

/** Boxes that hand messages on and are no instrument of the sound themselves. */
function relays(rig: Rig): Fault[] {
  return [...midiGraph(rig).devices.values()].flatMap(({ device, kind }): Fault[] => {
    if (kind.job !== 'interface' && kind.job !== 'controller') return [];
    const without = {
      ...rig,
      leads: rig.leads.filter((l) => l.from.device !== device.id && l.to.device !== device.id),
    };
    const lost = cutOff(rig, without).filter((d) => d !== device.id);
    if (!lost.length) return [];
    const where = placeOf(device);
    return [
      {
        id: `midi box ${device.id}`,
        sort: 'midi',
        words: `${device.name} passes no messages on: ${unmoved(rig, lost)}`,
        subjects: [device.id],
        perThousand: 0.4,
        dark: [device.id],
        where,
        mend: {
          words: `start ${device.name} anew; then the spare, or call programs by hand`,
          seconds: REACH_SECONDS[where] + 60,
          spare: { is: 'device', kind: device.kind },
        },
        change: (w) => staysAsItWas(w, lost),
      },
    ];
  });
}
