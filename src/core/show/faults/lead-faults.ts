import type { Lead, Rig } from '../../rig/schema';
import { cut, noisyAt, passing, withLeads } from './changes';
import { type Fault, REACH_SECONDS, type Sort, type Spare, WEAR } from './fault';
import { jackAt, leadWords, loopsOf, placeOfLead, soundLeads } from './look';

/** A short circuit of a plug, in Ω. */
const SHORT_OHMS = 0.3;
/** What a lead with an open shield is to treble, in pF: its return goes around by other ways. */
const OPEN_SHIELD_PF = 15_000;

/** Leads: open, short, shield open, loose, and two of them with their plugs exchanged. */
export const leadFaults: Sort = {
  id: 'lead',
  words: 'Leads and plugs',
  odds:
    'A lead is found open in 3 of 1000 shows, loose in 3; twice that on the floor and at the ' +
    'player, half of it in the rack (rule of thumb of the trade).',
  expand: ({ rig }) => [...soundLeads(rig).flatMap((l) => ofLead(rig, l)), ...exchanged(rig)],
};

export const spareLead = (lead: Lead): Spare => ({
  is: 'lead',
  type: lead.type,
  metres: lead.metres,
});

function ofLead(rig: Rig, lead: Lead): Fault[] {
  const where = placeOfLead(rig, lead);
  const base = {
    sort: 'lead' as const,
    subjects: [lead.id],
    swap: lead.id,
    dark: [],
    where,
    mend: {
      words: `put a spare ${lead.type} lead in place of ${leadWords(rig, lead)}`,
      seconds: REACH_SECONDS[where] + 20,
      spare: spareLead(lead),
    },
  };
  const name = leadWords(rig, lead);
  const faults: Fault[] = [
    {
      ...base,
      id: `lead open ${lead.id}`,
      words: `${name}, is open`,
      perThousand: 3 * WEAR[where],
      change: (w) => cut(w, [lead.id]),
    },
    {
      ...base,
      id: `lead loose ${lead.id}`,
      words: `${name}, is loose in its plug`,
      perThousand: 3 * WEAR[where],
      moves: lead.id,
      change: (w) => noisyAt(w, lead.to.device, lead.to.jack, 'crackle'),
    },
  ];
  if (lead.type === 'digital') return faults;
  return [
    ...faults,
    {
      ...base,
      id: `lead short ${lead.id}`,
      words: `${name}, is short-circuited`,
      perThousand: 0.5 * WEAR[where],
      change: (w) =>
        passing(w, [lead.to.device], `short ${lead.to.jack}`, (own, state) => [
          ...own(state),
          { is: 'shunt', at: lead.to.jack, ohms: SHORT_OHMS },
        ]),
    },
    ...(lead.type === 'speaker'
      ? []
      : [
          {
            ...base,
            id: `lead shield ${lead.id}`,
            words: `the shield of ${name}, is open`,
            perThousand: 0.6 * WEAR[where],
            change: (w: Parameters<Fault['change']>[0]) =>
              noisyAt(
                withLeads(w, (l) => (l.id === lead.id ? { ...l, pF: OPEN_SHIELD_PF } : l)),
                lead.to.device,
                lead.to.jack,
                'hum',
              ),
          },
        ]),
  ];
}

/** Two leads of one type at the two sides of a stereo pair, or at the send and the return of a loop. */
function exchanged(rig: Rig): Fault[] {
  const leads = soundLeads(rig);
  return leads.flatMap((a, i) =>
    leads.slice(i + 1).flatMap((b): Fault[] => {
      if (a.type !== b.type) return [];
      const sides =
        a.to.device === b.to.device && jackAt(rig, a.to)?.pair?.with === b.to.jack
          ? ('to' as const)
          : a.from.device === b.from.device && jackAt(rig, a.from)?.pair?.with === b.from.jack
            ? ('from' as const)
            : undefined;
      const loop = !sides && a.from.device === b.to.device && inLoop(rig, a, b);
      if (!sides && !loop) return [];
      const where = placeOfLead(rig, a);
      const device = sides ? a[sides].device : a.from.device;
      return [
        {
          id: `leads exchanged ${a.id} ${b.id}`,
          sort: 'lead',
          words: `the plugs of ${leadWords(rig, a)}, and ${leadWords(rig, b)}, are exchanged`,
          subjects: [a.id, b.id, device],
          perThousand: 0.4 * WEAR[where],
          dark: [],
          where,
          mend: { words: 'exchange the two plugs', seconds: REACH_SECONDS[where] + 10 },
          change: (w) =>
            withLeads(w, (l) =>
              l.id === a.id
                ? sides
                  ? { ...l, [sides]: b[sides] }
                  : { ...l, from: b.to }
                : l.id === b.id
                  ? sides
                    ? { ...l, [sides]: a[sides] }
                    : { ...l, to: a.from }
                  : l,
            ),
        },
      ];
    }),
  );
}

/** Whether one lead leaves by the send of a loop and the other comes back by its return. */
const inLoop = (rig: Rig, out: Lead, back: Lead): boolean =>
  loopsOf(rig, out.from.device).some(
    (l) => l.send.includes(out.from.jack) && l.return.includes(back.to.jack),
  );
