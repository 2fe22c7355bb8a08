import * as z from 'zod';
import { defineEdit } from './define';
import { setSchema, songSchema } from '../song-schema';
import { idSchema } from '../schema';
import { addTo, changeIn } from './parts';

export const songEdits = {
  addSong: defineEdit(
    'addSong',
    { song: songSchema, at: z.number().int().min(0).optional() },
    {
      apply: (rig, e) => addTo(rig, 'songs', e.song, e.at),
      words: (e) => `added the song ${e.song.title}`,
    },
  ),
  setSong: defineEdit(
    'setSong',
    { song: songSchema },
    {
      apply: (rig, e) => changeIn(rig, 'songs', e.song.id, e.song),
      words: (e) => `changed the song ${e.song.title}`,
    },
  ),
  removeSong: defineEdit(
    'removeSong',
    { song: idSchema },
    {
      apply: (rig, e) => {
        for (const s of rig.sets ?? []) s.entries = s.entries.filter((x) => x.song !== e.song);
        return changeIn(rig, 'songs', e.song);
      },
      words: (e, { rig }) =>
        `removed the song ${rig.songs?.find((x) => x.id === e.song)?.title ?? e.song}`,
    },
  ),
  addSet: defineEdit(
    'addSet',
    { set: setSchema },
    {
      apply: (rig, e) => addTo(rig, 'sets', e.set),
      words: (e) => `added the set ${e.set.name}`,
    },
  ),
  setSet: defineEdit(
    'setSet',
    { set: setSchema },
    {
      apply: (rig, e) => changeIn(rig, 'sets', e.set.id, e.set),
      words: (e) => `changed the set ${e.set.name}`,
    },
  ),
  removeSet: defineEdit(
    'removeSet',
    { set: idSchema },
    {
      apply: (rig, e) => changeIn(rig, 'sets', e.set),
      words: (e, { rig }) =>
        `removed the set ${rig.sets?.find((x) => x.id === e.set)?.name ?? e.set}`,
    },
  ),
};
