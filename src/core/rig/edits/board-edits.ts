import { defineEdit } from './define';
import {
  boardPlaceSchema,
  boardSchema,
  loomSchema,
  rackPlaceSchema,
  rackSchema,
} from '../build-schema';
import { idSchema } from '../schema';
import { addTo, changeIn, stand, carriedNoMore } from './parts';

export const boardEdits = {
  placeOnBoard: defineEdit(
    'placeOnBoard',
    { device: idSchema, at: boardPlaceSchema.nullable() },
    {
      apply: (rig, e) =>
        stand(
          rig,
          e.device,
          'at',
          e.at,
          e.at && !rig.boards?.some((b) => b.id === e.at!.board) ? 'board' : undefined,
        ),
      words: (e, { d, rig }) =>
        e.at
          ? `placed ${d(e.device)} on ${rig.boards?.find((b) => b.id === e.at!.board)?.name ?? e.at.board}`
          : `took ${d(e.device)} off its board`,
    },
  ),
  placeInRack: defineEdit(
    'placeInRack',
    { device: idSchema, rack: rackPlaceSchema.nullable() },
    {
      apply: (rig, e) =>
        stand(
          rig,
          e.device,
          'rack',
          e.rack,
          e.rack && !rig.racks?.some((r) => r.id === e.rack!.rack) ? 'rack' : undefined,
        ),
      words: (e, { d, rig }) =>
        e.rack
          ? `mounted ${d(e.device)} ` +
            `in ${rig.racks?.find((r) => r.id === e.rack!.rack)?.name ?? e.rack.rack}, ` +
            `unit ${e.rack.unit}`
          : `took ${d(e.device)} out of its rack`,
    },
  ),
  addBoard: defineEdit(
    'addBoard',
    { board: boardSchema },
    {
      apply: (rig, e) => addTo(rig, 'boards', e.board),
      words: (e) => `added the board ${e.board.name}`,
    },
  ),
  setBoard: defineEdit(
    'setBoard',
    { board: boardSchema },
    {
      apply: (rig, e) => changeIn(rig, 'boards', e.board.id, e.board),
      words: (e) => `changed the board ${e.board.name}`,
    },
  ),
  removeBoard: defineEdit(
    'removeBoard',
    { board: idSchema },
    {
      apply: (rig, e) => {
        for (const d of rig.devices) if (d.at?.board === e.board) delete d.at;
        carriedNoMore(rig, e.board);
        return changeIn(rig, 'boards', e.board);
      },
      words: (e, { rig }) =>
        `removed the board ${rig.boards?.find((x) => x.id === e.board)?.name ?? e.board}`,
    },
  ),
  addRack: defineEdit(
    'addRack',
    { rack: rackSchema },
    {
      apply: (rig, e) => addTo(rig, 'racks', e.rack),
      words: (e) => `added the rack ${e.rack.name}`,
    },
  ),
  setRack: defineEdit(
    'setRack',
    { rack: rackSchema },
    {
      apply: (rig, e) => changeIn(rig, 'racks', e.rack.id, e.rack),
      words: (e) => `changed the rack ${e.rack.name}`,
    },
  ),
  removeRack: defineEdit(
    'removeRack',
    { rack: idSchema },
    {
      apply: (rig, e) => {
        for (const d of rig.devices) if (d.rack?.rack === e.rack) delete d.rack;
        carriedNoMore(rig, e.rack);
        return changeIn(rig, 'racks', e.rack);
      },
      words: (e, { rig }) =>
        `removed the rack ${rig.racks?.find((x) => x.id === e.rack)?.name ?? e.rack}`,
    },
  ),
  addLoom: defineEdit(
    'addLoom',
    { loom: loomSchema },
    {
      apply: (rig, e) => addTo(rig, 'looms', e.loom),
      words: (e) => `added the loom ${e.loom.name}`,
    },
  ),
  setLoom: defineEdit(
    'setLoom',
    { loom: loomSchema },
    {
      apply: (rig, e) => changeIn(rig, 'looms', e.loom.id, e.loom),
      words: (e) => `changed the loom ${e.loom.name}`,
    },
  ),
  removeLoom: defineEdit(
    'removeLoom',
    { loom: idSchema },
    {
      apply: (rig, e) => changeIn(rig, 'looms', e.loom),
      words: (e, { rig }) =>
        `removed the loom ${rig.looms?.find((x) => x.id === e.loom)?.name ?? e.loom}`,
    },
  ),
};
