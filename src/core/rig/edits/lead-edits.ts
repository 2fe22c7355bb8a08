import * as z from 'zod';
import { defineEdit } from './define';
import { idSchema, leadSchema } from '../schema';
import { leadOf, leadTypeFor, endWords } from '../find';
import { given } from './parts';
import { allOf } from '../../units';

export const leadEdits = {
  connect: defineEdit(
    'connect',
    { lead: leadSchema },
    {
      apply: (rig, e) => void rig.leads.push(e.lead),
      words: (e, { rig }) =>
        `connected ${endWords(rig, e.lead.from)} to ${endWords(rig, e.lead.to)}`,
    },
  ),
  disconnect: defineEdit(
    'disconnect',
    { lead: idSchema },
    {
      apply: (rig, e) => {
        const at = rig.leads.findIndex((l) => l.id === e.lead);
        if (at < 0) return `There is no lead "${e.lead}" any more.`;
        rig.leads.splice(at, 1);
      },
      words: (e, { rig }) => {
        const l = leadOf(rig, e.lead);
        return l
          ? `disconnected ${endWords(rig, l.from)} from ${endWords(rig, l.to)}`
          : 'disconnected a lead';
      },
    },
  ),
  setLead: defineEdit(
    'setLead',
    {
      lead: idSchema,
      metres: z.number().optional(),
      pfPerMetre: z.number().optional(),
      type: leadSchema.shape.type.optional(),
      label: z.string().optional(),
      shieldLifted: z.boolean().optional(),
      squareMm: z.number().optional(),
      conductor: leadSchema.shape.conductor,
      crossed: z.boolean().optional(),
      pF: leadSchema.shape.pF.unwrap().nullable().optional(),
      plugs: leadSchema.shape.plugs,
    },
    {
      apply: (rig, e) => {
        const found = leadOf(rig, e.lead);
        if (!found) return `There is no lead "${e.lead}" any more.`;
        const { edit: _edit, lead: _lead, pF, ...changes } = e;
        Object.assign(found, given(changes));
        if (pF === null) delete found.pF;
        else if (pF !== undefined) found.pF = pF;
      },
      words: (e, { into }) => `changed the lead ${into(e.lead)}`,
    },
  ),
  swapEnds: defineEdit(
    'swapEnds',
    { leads: z.array(idSchema).length(2) },
    {
      apply: (rig, e) => {
        const [a, b] = e.leads.map((id) => leadOf(rig, id));
        if (!a || !b) return 'One of the two leads is not there any more.';
        [a.to, b.to] = [b.to, a.to];
        for (const l of [a, b])
          l.type =
            leadTypeFor(rig, l.from, l.to) === 'instrument'
              ? l.type
              : leadTypeFor(rig, l.from, l.to);
      },
      words: (e, { rig }) =>
        `exchanged where the leads from ${allOf(
          e.leads.map((id) => {
            const l = leadOf(rig, id);
            return l ? endWords(rig, l.from) : id;
          }),
        )} go`,
    },
  ),
};
