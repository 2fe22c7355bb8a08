import { sure } from '../outcome';
import { type Fix, fixes, type Remark } from '../findings/finding';
import { freeJacks } from '../rig';
import { endWords, jackOf } from '../rig/find';
import type { Lead } from '../rig/schema';
import type { SoundContext } from '../signal/sound-context';
import type { Remarker } from './evidence';
import { broughtBack, unheardIn } from './missing-leads';

/** Leads between two outputs or two inputs: the plug went into the jack beside the right one. */
export const wrongWayRemarks: Remarker = ({ ctx, stations, destinations }) => {
  const unheard = unheardIn({ ctx, stations, destinations });
  const back = (fix?: Fix) => (fix ? broughtBack(ctx, fix.edits, unheard) : []);
  const direction = (end: Lead['from']) => jackOf(ctx.device(end.device), end.jack)?.direction;
  const wrong = ctx.rig.leads.filter(
    (l) => direction(l.from) !== 'either' && direction(l.from) === direction(l.to),
  );
  const turned = wrong.flatMap((outs) => turnedBox(wrong, outs, direction));
  const seen = new Set(turned.flatMap((t) => [t.outs, t.ins]));
  const boxes = turned.map(({ box, outs, ins, remark }) => ({
    ...remark,
    subjects: [box, outs.id, ins.id, ...back(remark.fix)],
    what: `${ctx.device(box).name} is wired backwards.`,
  }));
  return [
    ...boxes,
    ...wrong
      .filter((l) => !seen.has(l))
      .map((lead): Remark => {
        const way = sure(direction(lead.from));
        const name = (end: Lead['from']) =>
          `${ctx.device(end.device).name}, ${sure(jackOf(ctx.device(end.device), end.jack)).label}`;
        // Two such leads between the same boxes, one on the outputs and one on the inputs: send and
        // return were exchanged.
        const partner = wrong.find(
          (l) =>
            l !== lead &&
            direction(l.from) !== way &&
            [l.from.device, l.to.device].sort().join() ===
              [lead.from.device, lead.to.device].sort().join(),
        );
        const outs = way === 'out' ? lead : partner;
        const ins = way === 'out' ? partner : lead;
        const fix = outs &&
          ins && {
            words: 'Exchange the two plugs, so that each output meets an input',
            edits: [
              { edit: 'disconnect' as const, lead: outs.id },
              { edit: 'disconnect' as const, lead: ins.id },
              {
                edit: 'connect' as const,
                lead: { ...outs, to: ins.from.device === outs.to.device ? ins.from : ins.to },
              },
              {
                edit: 'connect' as const,
                lead: {
                  ...ins,
                  from: outs.to,
                  to: ins.from.device === outs.to.device ? ins.to : ins.from,
                },
              },
            ],
          };
        return {
          rule: partner ? 'swapped' : 'wrong-way',
          severity: 'fault',
          subjects: [lead.from.device, lead.to.device, lead.id, ...back(fix)],
          about: partner ? [lead.id, partner.id].sort().join('+') : lead.id,
          what: partner
            ? `Send and return are swapped between ${ctx.device(lead.from.device).name} ` +
              `and ${ctx.device(lead.to.device).name}.`
            : `A lead joins two ${way === 'out' ? 'outputs' : 'inputs'}: ${name(lead.from)}, and ${name(lead.to)}.`,
          why: partner
            ? 'One lead joins two outputs and another two inputs, so nothing passes. Each lead ' +
              'must run from a send to a return.'
            : way === 'out'
              ? 'Two outputs drive each other, and nothing listens.'
              : 'Two inputs listen to each other, and nothing drives them.',
          ...fixes([...(fix ? [fix] : []), ...replugged(ctx, lead, way)]),
        };
      }),
  ];
};

/**
 * A box that stands the wrong way round: what should go into it is in one of its outputs, and what
 * should come out of it is in its input.
 */
function turnedBox(
  wrong: readonly Lead[],
  outs: Lead,
  direction: (end: Lead['from']) => string | undefined,
): { box: string; outs: Lead; ins: Lead; remark: Omit<Remark, 'subjects' | 'what'> }[] {
  if (direction(outs.from) !== 'out') return [];
  for (const at of ['to', 'from'] as const) {
    const box = outs[at].device;
    const ins = wrong.find(
      (l) => direction(l.from) === 'in' && (l.from.device === box) !== (l.to.device === box),
    );
    const far = (l: Lead) => (l.from.device === box ? l.to : l.from);
    if (!ins || far(ins).device === far(outs).device) continue;
    const near = ins.from.device === box ? ins.from : ins.to;
    return [
      {
        box,
        outs,
        ins,
        remark: {
          rule: 'wrong-way',
          severity: 'fault',
          about: [outs.id, ins.id].sort().join('+'),
          why:
            'What should go into it is plugged into one of its outputs, and what should come out of ' +
            'it is plugged into its input.',
          fix: {
            words: 'Exchange the two plugs, so that signal goes in and comes out',
            edits: [
              { edit: 'disconnect', lead: outs.id },
              { edit: 'disconnect', lead: ins.id },
              { edit: 'connect', lead: { ...outs, from: far(outs), to: near } },
              { edit: 'connect', lead: { ...ins, from: outs[at], to: far(ins) } },
            ],
          },
        },
      },
    ];
  }
  return [];
}

/** A lead between two jacks of one sort, with one plug in a free jack of the other sort of the same device. */
function replugged(ctx: SoundContext, lead: Lead, way: string): Fix[] {
  const other = way === 'out' ? 'in' : 'out';
  const signalAt = (end: Lead['from']) => jackOf(ctx.device(end.device), end.jack)?.signal;
  return [lead.to, lead.from].flatMap((plug) => {
    const stays = plug === lead.to ? lead.from : lead.to;
    return freeJacks(ctx.rig, other, '', (j) => j.signal === signalAt(plug))
      .filter(({ device }) => device.id === plug.device)
      .flatMap(({ device, jacks }) =>
        jacks.slice(0, 2).map((jack): Fix => {
          const end = { device: device.id, jack: jack.id };
          const [from, to] = other === 'in' ? [stays, end] : [end, stays];
          return {
            words: `Move the plug at ${device.name} to ${endWords(ctx.rig, end)}`,
            edits: [
              { edit: 'disconnect', lead: lead.id },
              { edit: 'connect', lead: { ...lead, from, to } },
            ],
          };
        }),
      );
  });
}
