import { defineEdit } from './define';
import { idSchema, promiseSchema } from '../schema';
import { promiseWords } from '../promise-words';
import { addTo, changeIn } from './parts';

export const promiseEdits = {
  addPromise: defineEdit(
    'addPromise',
    { promise: promiseSchema },
    {
      apply: (rig, e) => addTo(rig, 'promises', e.promise),
      words: (e, { rig }) => `promised: ${promiseWords(rig, e.promise)}`,
    },
  ),
  setPromise: defineEdit(
    'setPromise',
    { promise: promiseSchema },
    {
      apply: (rig, e) => changeIn(rig, 'promises', e.promise.id, e.promise),
      words: (e, { rig }) => `changed a promise to: ${promiseWords(rig, e.promise)}`,
    },
  ),
  removePromise: defineEdit(
    'removePromise',
    { promise: idSchema },
    {
      apply: (rig, e) => changeIn(rig, 'promises', e.promise),
      words: (e, { rig }) => {
        const gone = rig.promises?.find((p) => p.id === e.promise);
        return gone ? `took back the promise: ${promiseWords(rig, gone)}` : 'took back a promise';
      },
    },
  ),
};
