import * as z from 'zod';
import { defineEdit } from './define';
import { candidateSchema, controllerWantsSchema, controlSchema } from '../control-schema';
import { idSchema } from '../schema';
import { addTo, changeIn } from './parts';

export const controlEdits = {
  addControl: defineEdit(
    'addControl',
    { control: controlSchema },
    {
      apply: (rig, e) => addTo(rig, 'controls', e.control),
      words: (e) => `added the control ${e.control.name}`,
    },
  ),
  setControl: defineEdit(
    'setControl',
    { control: controlSchema },
    {
      apply: (rig, e) => changeIn(rig, 'controls', e.control.id, e.control),
      words: (e) => `changed the control ${e.control.name}`,
    },
  ),
  removeControl: defineEdit(
    'removeControl',
    { control: idSchema },
    {
      apply: (rig, e) => {
        for (const s of rig.sounds) if (s.controls) delete s.controls[e.control];
        return changeIn(rig, 'controls', e.control);
      },
      words: (e, { rig }) =>
        `removed the control ${rig.controls?.find((c) => c.id === e.control)?.name ?? e.control}`,
    },
  ),
  setCandidates: defineEdit(
    'setCandidates',
    { candidates: z.array(candidateSchema).max(40) },
    {
      apply: (rig, e) => void (rig.candidates = e.candidates),
      words: () => 'changed which controllers are compared',
    },
  ),
  setControllerWants: defineEdit(
    'setControllerWants',
    { wants: controllerWantsSchema },
    {
      apply: (rig, e) => void (rig.controllerWants = e.wants),
      words: () => 'changed what a controller must have',
    },
  ),
};
