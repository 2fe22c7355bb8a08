import type { Draft } from 'immer';
import { findKind, type Kind } from '../../kinds';
import { defineEdit } from './define';
import { isSettingOf } from '../integrity/settings';
import { idSchema, type Device, type Rig, type State } from '../schema';
import { kindOfSheet, sheetIdOf, sheetProblems, sheetSchema } from '../sheets';
import { allOf } from '../../units';

/** The devices of a rig that a sheet describes, whichever version of it. */
const devicesOf = (rig: Draft<Rig>, sheet: string): Draft<Device>[] =>
  rig.devices.filter((d) => sheetIdOf(d.kind) === sheet);

export const sheetEdits = {
  putSheet: defineEdit(
    'putSheet',
    { sheet: sheetSchema },
    {
      apply: (rig, { sheet }) => {
        const [problem] = sheetProblems(sheet);
        if (problem) return `${sheet.name}, ${problem.where}: ${problem.what}.`;
        const next = kindOfSheet(sheet);
        const was = rig.sheets?.findIndex((s) => s.id === sheet.id) ?? -1;
        if (was >= 0) rig.sheets![was] = sheet;
        else rig.sheets = [...(rig.sheets ?? []), sheet];
        for (const device of devicesOf(rig, sheet.id)) becomes(rig, device, next);
      },
      words: ({ sheet }, { rig }) =>
        rig.sheets?.some((s) => s.id === sheet.id)
          ? `changed the sheet of ${sheet.name}`
          : `wrote a sheet of ${sheet.name}`,
    },
  ),
  removeSheet: defineEdit(
    'removeSheet',
    { sheet: idSchema },
    {
      apply: (rig, { sheet }) => {
        const users = devicesOf(rig, sheet).map((d) => d.name);
        if (users.length)
          return (
            `This sheet says what ${allOf(users)} ${users.length > 1 ? 'are' : 'is'}. ` +
            'Replace or remove what uses it first.'
          );
        rig.sheets = rig.sheets?.filter((s) => s.id !== sheet);
      },
      words: ({ sheet }, { rig }) =>
        `removed the sheet of ${rig.sheets?.find((s) => s.id === sheet)?.name ?? sheet}`,
    },
  ),
};

/**
 * A device whose sheet says something else now: it keeps its name, place, unit and leads; leads at jacks
 * that are gone are pulled, and settings that the box no longer has, or no longer reaches, are let go.
 */
function becomes(rig: Draft<Rig>, device: Draft<Device>, next: Kind): void {
  if (device.kind === next.id) return;
  const was = findKind(device.kind) ?? next;
  device.kind = next.id;
  const has = (jack: string) =>
    next.jacks.some((j) => j.id === jack) || !was.jacks.some((j) => j.id === jack);
  const stays = (end: { device: string; jack: string }) =>
    end.device !== device.id || has(end.jack);
  rig.leads = rig.leads.filter((l) => stays(l.from) && stays(l.to));
  keep(device, next);
  for (const sound of rig.sounds) keep(sound.states[device.id], next);
  for (const song of rig.songs ?? []) {
    keep(song.states?.[device.id], next);
    for (const section of song.sections) keep(section.states?.[device.id], next);
  }
  for (const [id, { value }] of Object.entries(device.figures ?? {})) {
    const figure = next.figures.find((f) => f.id === id);
    if (!figure || value < figure.min || value > figure.max) delete device.figures![id];
  }
}

function keep(state: Draft<Pick<State, 'settings'>> | undefined, kind: Kind): void {
  for (const [id, value] of Object.entries(state?.settings ?? {}))
    if (!isSettingOf(kind, id, value)) delete state!.settings![id];
}
