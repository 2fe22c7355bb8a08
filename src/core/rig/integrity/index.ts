import { findKind } from '../../kinds';
import type { Problem } from '../../outcome';
import type { Rig } from '../schema';
import { carryingProblems } from './carrying';
import { type Check, type Known, nearest, type Say, usedTwice } from './checking';
import { checkDevices, checkHosts, checkSupplies } from './devices';
import { checkLeads } from './leads';
import { checkStates } from './settings';

/** In this order problems are told. */
const CHECKS: readonly Check[] = [
  checkIds,
  checkDevices,
  checkHosts,
  checkSupplies,
  checkLeads,
  checkStates,
  checkBrief,
];

/**
 * What the schema cannot see: ids used twice, kinds and jacks that do not exist, directions, two
 * leads in one jack, settings out of range.
 */
export function integrityProblems(rig: Rig): Problem[] {
  const problems: Problem[] = [];
  const devices: Known = new Map(
    rig.devices.flatMap((device) => {
      const kind = findKind(device.kind);
      return kind ? [[device.id, { device, kind }] as const] : [];
    }),
  );
  for (const check of CHECKS) check(rig, devices, (where, what) => problems.push({ where, what }));
  return [...problems, ...carryingProblems(rig)];
}

function checkIds(rig: Rig, _: Known, say: Say) {
  for (const list of [
    'devices',
    'leads',
    'sounds',
    'promises',
    'controls',
    'songs',
    'sets',
    'candidates',
    'boards',
    'racks',
    'cases',
    'looms',
    'sheets',
  ] as const)
    usedTwice(list, rig[list], say);
  rig.controls?.forEach((c, row) => usedTwice(`controls[${row}].assigns`, c.assigns, say));
  rig.sets?.forEach((s, row) => usedTwice(`sets[${row}].entries`, s.entries, say));
  rig.songs?.forEach((s, row) => usedTwice(`songs[${row}].sections`, s.sections, say));
}

function checkBrief(rig: Rig, _: Known, say: Say) {
  for (const part of ['sources', 'gear'] as const)
    (rig.brief?.[part] ?? []).forEach(({ kind }, row) => {
      if (!findKind(kind))
        say(`brief.${part}[${row}].kind`, `there is no kind "${kind}"; ${nearest(kind)}`);
    });
}

export { settingProblem } from './settings';
