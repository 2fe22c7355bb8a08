import { findKind } from '../../kinds';
import type { Problem } from '../../outcome';
import type { Rig } from '../schema';

/** What is placed where nothing is. */
export function carryingProblems(rig: Rig): Problem[] {
  const [boards, racks] = [rig.boards, rig.racks].map(
    (list) => new Set((list ?? []).map((x) => x.id)),
  ) as [Set<string>, Set<string>];
  const known = new Set([...rig.devices.map((d) => d.id), ...boards, ...racks]);
  return [
    ...rig.devices.flatMap((d, row): Problem[] => [
      ...(d.at && !boards.has(d.at.board)
        ? [
            {
              where: `devices[${row}].at.board`,
              what: `there is no board "${d.at.board}" in this rig`,
            },
          ]
        : []),
      ...(d.rack && !racks.has(d.rack.rack)
        ? [
            {
              where: `devices[${row}].rack.rack`,
              what: `there is no rack "${d.rack.rack}" in this rig`,
            },
          ]
        : []),
      ...(d.at && d.rack
        ? [
            {
              where: `devices[${row}]`,
              what: `${d.name} stands on a board and in a rack; take one of the two out`,
            },
          ]
        : []),
      ...(d.mains?.from !== undefined &&
      !rig.devices.some((x) => x.id === d.mains!.from && findKind(x.kind)?.mainsOutlets)
        ? [
            {
              where: `devices[${row}].mains.from`,
              what: `"${d.mains.from}" has no mains outlets in this rig`,
            },
          ]
        : []),
    ]),
    ...[...boards]
      .filter((id) => racks.has(id) || rig.devices.some((d) => d.id === id))
      .concat([...racks].filter((id) => rig.devices.some((d) => d.id === id)))
      .map((id) => ({
        where: 'boards',
        what: `the id "${id}" is used twice; give one of the two another`,
      })),
    ...(rig.cases ?? []).flatMap((c, row) =>
      c.holds
        .filter((id) => !known.has(id))
        .map((id) => ({
          where: `cases[${row}].holds`,
          what: `there is no device, board or rack "${id}" in this rig`,
        })),
    ),
  ];
}
