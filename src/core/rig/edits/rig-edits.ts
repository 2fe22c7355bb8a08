import * as z from 'zod';
import { defineEdit } from './define';
import { briefSchema, idSchema, referenceSchema, rigSchema, stanceSchema } from '../schema';
import { given } from './parts';

export const rigEdits = {
  renameRig: defineEdit(
    'renameRig',
    { name: z.string() },
    {
      apply: (rig, e) => void (rig.name = e.name),
      words: (e) => `renamed the rig to ${e.name}`,
    },
  ),
  setRigNotes: defineEdit(
    'setRigNotes',
    { notes: z.string() },
    {
      apply: (rig, e) => void (rig.notes = e.notes),
      words: () => 'changed the notes of the rig',
    },
  ),
  setStance: defineEdit(
    'setStance',
    { rule: idSchema, stance: stanceSchema },
    {
      apply: (rig, e) => void (((rig.order ??= {}).stances ??= {})[e.rule] = e.stance),
      words: (e) => `chose "${e.stance.stance}" for an order rule`,
    },
  ),
  acceptFinding: defineEdit(
    'acceptFinding',
    { finding: z.string(), reason: z.string(), on: z.iso.date().optional() },
    {
      apply: (rig, e) => {
        if (!e.reason.trim())
          return 'Say why this finding is accepted; the reason is kept and printed.';
        rig.accepted = [
          ...(rig.accepted ?? []).filter((a) => a.finding !== e.finding),
          given({ finding: e.finding, reason: e.reason.trim(), on: e.on }),
        ];
      },
      words: () => 'accepted a finding',
    },
  ),
  reopenFinding: defineEdit(
    'reopenFinding',
    { finding: z.string() },
    {
      apply: (rig, e) =>
        void (rig.accepted &&= rig.accepted.filter((a) => a.finding !== e.finding)),
      words: () => 'took a finding up again',
    },
  ),
  setReference: defineEdit(
    'setReference',
    { reference: referenceSchema },
    {
      apply: (rig, e) => void (rig.reference = e.reference),
      words: () => 'changed the reference lead',
    },
  ),
  setBrief: defineEdit(
    'setBrief',
    { brief: briefSchema },
    {
      apply: (rig, e) => void (rig.brief = e.brief),
      words: () => 'changed the brief',
    },
  ),
  replaceRig: defineEdit(
    'replaceRig',
    { rig: rigSchema },
    {
      apply: () => undefined,
      words: () => 'went back to another revision',
    },
  ),
};
