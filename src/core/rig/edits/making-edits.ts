import * as z from 'zod';
import { defineEdit } from './define';
import { caseSchema, limitsSchema, makingSchema, stageSchema, tourSchema } from '../build-schema';

export const makingEdits = {
  tick: defineEdit(
    'tick',
    { step: z.string().min(1).max(200), by: z.string().max(40), at: z.iso.datetime() },
    {
      apply: (rig, e) => {
        if (!e.by.trim()) return 'Say who did it: initials are enough.';
        const done = (rig.done ??= { ticks: [] });
        done.ticks = [
          ...done.ticks.filter((t) => t.id !== e.step),
          { id: e.step, by: e.by.trim(), at: e.at },
        ];
      },
      words: (e) => `ticked a step of the checklist, ${e.by}`,
    },
  ),
  untick: defineEdit(
    'untick',
    { step: z.string().min(1).max(200) },
    {
      apply: (rig, e) => {
        if (!rig.done?.ticks.some((t) => t.id === e.step)) return 'That step is not ticked.';
        rig.done.ticks = rig.done.ticks.filter((t) => t.id !== e.step);
      },
      words: () => 'took a tick back',
    },
  ),
  setCure: defineEdit(
    'setCure',
    { from: z.iso.datetime().nullable(), hours: z.number().min(0).max(240) },
    {
      apply: (rig, e) => {
        const done = (rig.done ??= { ticks: [] });
        done.cureHours = e.hours;
        if (e.from) done.cureFrom = e.from;
        else delete done.cureFrom;
      },
      words: (e) => (e.from ? `adhesive sets for ${e.hours} h` : 'the adhesive has no timer'),
    },
  ),
  setMaking: defineEdit(
    'setMaking',
    { making: makingSchema },
    {
      apply: (rig, e) => void (rig.making = e.making),
      words: () => 'changed how leads are made',
    },
  ),
  setStage: defineEdit(
    'setStage',
    { stage: stageSchema },
    {
      apply: (rig, e) => void (rig.stage = e.stage),
      words: () => 'changed the stage plot',
    },
  ),
  setTour: defineEdit(
    'setTour',
    { tour: tourSchema },
    {
      apply: (rig, e) => void (rig.tour = e.tour),
      words: () => 'changed where the rig plays',
    },
  ),
  setLimits: defineEdit(
    'setLimits',
    { limits: limitsSchema },
    {
      apply: (rig, e) => void (rig.limits = e.limits),
      words: () => 'changed the limits',
    },
  ),
  setCases: defineEdit(
    'setCases',
    { cases: z.array(caseSchema).max(100) },
    {
      apply: (rig, e) => void (rig.cases = e.cases),
      words: () => 'changed the cases',
    },
  ),
};
