import * as z from 'zod';
import { current } from 'immer';
import { defineEdit } from './define';
import { idSchema, soundSchema } from '../schema';
import { soundOf } from '../find';
import { onSound } from './parts';

export const soundEdits = {
  addSound: defineEdit(
    'addSound',
    { sound: soundSchema, at: z.number().int().min(0).optional() },
    {
      apply: (rig, e) => void rig.sounds.splice(e.at ?? rig.sounds.length, 0, e.sound),
      words: (e) => `added the sound ${e.sound.name}`,
    },
  ),
  copySound: defineEdit(
    'copySound',
    { sound: idSchema, id: idSchema, name: z.string() },
    {
      apply: (rig, e) =>
        onSound(rig, e.sound, (s) => {
          rig.sounds.splice(rig.sounds.findIndex((x) => x.id === e.sound) + 1, 0, {
            ...structuredClone(current(s)),
            id: e.id,
            name: e.name,
          });
        }),
      words: (e, { rig }) => `copied the sound ${soundOf(rig, e.sound)?.name ?? ''} to ${e.name}`,
    },
  ),
  renameSound: defineEdit(
    'renameSound',
    { sound: idSchema, name: z.string() },
    {
      apply: (rig, e) => onSound(rig, e.sound, (s) => void (s.name = e.name)),
      words: (e, { rig }) => `renamed the sound ${soundOf(rig, e.sound)?.name ?? ''} to ${e.name}`,
    },
  ),
  setSoundNotes: defineEdit(
    'setSoundNotes',
    { sound: idSchema, notes: z.string() },
    {
      apply: (rig, e) => onSound(rig, e.sound, (s) => void (s.notes = e.notes)),
      words: (e, { rig }) => `changed the notes of ${soundOf(rig, e.sound)?.name ?? 'a sound'}`,
    },
  ),
  moveSound: defineEdit(
    'moveSound',
    { sound: idSchema, to: z.number().int().min(0) },
    {
      apply: (rig, e) =>
        onSound(rig, e.sound, () => {
          const [taken] = rig.sounds.splice(
            rig.sounds.findIndex((x) => x.id === e.sound),
            1,
          );
          rig.sounds.splice(e.to, 0, taken!);
        }),
      words: (e, { rig }) =>
        `moved the sound ${soundOf(rig, e.sound)?.name ?? ''} to place ${e.to + 1}`,
    },
  ),
  removeSound: defineEdit(
    'removeSound',
    { sound: idSchema },
    {
      apply: (rig, e) =>
        onSound(rig, e.sound, () => {
          if (rig.sounds.length === 1)
            return 'A rig keeps at least one sound; add another before removing this one.';
          rig.sounds.splice(
            rig.sounds.findIndex((x) => x.id === e.sound),
            1,
          );
        }),
      words: (e, { rig }) => `removed the sound ${soundOf(rig, e.sound)?.name ?? ''}`,
    },
  ),
};
