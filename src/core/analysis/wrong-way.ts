import { sure } from '../outcome';
import type { Remark } from '../findings/finding';
import { jackOf } from '../rig/find';
import type { Lead } from '../rig/schema';
import type { Remarker } from './evidence';

/** Leads between two outputs or two inputs: the plug went into the jack beside the right one. */
export const wrongWayRemarks: Remarker = ({ ctx }) => {
  const direction = (end: Lead['from']) => jackOf(ctx.device(end.device), end.jack)?.direction;
  const wrong = ctx.rig.leads.filter(
    (l) => direction(l.from) !== 'either' && direction(l.from) === direction(l.to),
  );
  return wrong.map((lead): Remark => {
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
      subjects: [lead.from.device, lead.to.device, lead.id],
      about: partner ? [lead.id, partner.id].sort().join('+') : lead.id,
      what: partner
        ? `Send and return are swapped between ${ctx.device(lead.from.device).name} ` +
          `and ${ctx.device(lead.to.device).name}.`
        : `A lead joins two ${way === 'out' ? 'outputs' : 'inputs'}: ${name(lead.from)}, and ${name(lead.to)}.`,
      why: partner
        ? 'One lead joins two outputs and another two inputs, so nothing passes. Each lead ' +
          'must run from a send to a return.'
        : way === 'out'
          ? 'Two outputs drive each other, and nothing listens. Plug one end into an input.'
          : 'Two inputs listen to each other, and nothing drives them. Plug one end into an output.',
      fix,
    };
  });
};
