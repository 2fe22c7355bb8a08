import { kindOf } from '../kinds';
import { nameOf } from '../rig/find';
import { sameJson } from '../rig/same-json';
import { sheetIdOf } from '../rig/sheets';
import { addressWords, settingWords } from '../rig/words';
import type { Device, Rig, State } from '../rig/schema';
import { same } from './parts';

export function deviceChanges(before: Rig, after: Rig, was: Device, now: Device): string[] {
  const lines: string[] = [];
  if (was.name !== now.name) lines.push(`renamed ${was.name} to ${now.name}`);
  const sheet = sheetIdOf(now.kind);
  const isOneSheet = sheet !== undefined && sheetIdOf(was.kind) === sheet;
  if (was.kind !== now.kind && !isOneSheet)
    lines.push(`${now.name} is now a ${kindOf(now.kind).name}, was a ${kindOf(was.kind).name}`);
  lines.push(...stateChanges(now, was, now, 'in every sound'));
  for (const id of new Set([
    ...Object.keys(was.figures ?? {}),
    ...Object.keys(now.figures ?? {}),
  ])) {
    const f = kindOf(now.kind).figures.find((x) => x.id === id);
    const value = now.figures?.[id];
    if (!same(was.figures?.[id], value))
      lines.push(
        value
          ? `${now.name}: ${f?.label ?? id} ${value.value} ${f?.unit ?? ''}, ${value.from}`
          : `${now.name}: ${f?.label ?? id} back to the typical figure`,
      );
  }
  if (was.host !== now.host)
    lines.push(
      now.host === undefined
        ? `moved ${now.name} out of ${nameOf(before, was.host!)}`
        : `moved ${now.name} into ${nameOf(after, now.host)}`,
    );
  if (!sameJson(was.supply, now.supply))
    lines.push(
      now.supply
        ? `${now.name} is fed from ${nameOf(after, now.supply.device)}` +
            (now.supply.outlet === undefined ? '' : `, ${now.supply.outlet}`)
        : `${now.name} is no longer fed from ${nameOf(before, was.supply!.device)}`,
    );
  if (!sameJson(was.gear, now.gear)) lines.push(`changed what is known of the unit ${now.name}`);
  if (!sameJson(was.at, now.at))
    lines.push(
      now.at
        ? `${was.at ? 'moved' : 'placed'} ${now.name} ` +
            `on ${after.boards?.find((b) => b.id === now.at!.board)?.name ?? now.at.board}`
        : `took ${now.name} off its board`,
    );
  if (!sameJson(was.rack, now.rack))
    lines.push(
      now.rack
        ? `mounted ${now.name} ` +
            `in ${after.racks?.find((r) => r.id === now.rack!.rack)?.name ?? now.rack.rack}, ` +
            `unit ${now.rack.unit}`
        : `took ${now.name} out of its rack`,
    );
  if (!sameJson([was.size, was.units, was.jackSpots], [now.size, now.units, now.jackSpots]))
    lines.push(`changed the measures of ${now.name}`);
  if (!sameJson(was.mains, now.mains)) lines.push(`changed what ${now.name} takes from the mains`);
  if (!sameJson(was.power, now.power)) lines.push(`changed what ${now.name} takes of power`);
  if (!sameJson(was.gives, now.gives)) lines.push(`changed the outlets of ${now.name}`);
  if ((was.pinned ?? false) !== (now.pinned ?? false))
    lines.push(now.pinned ? `pinned ${now.name} to its place` : `took out the pin of ${now.name}`);
  if (!sameJson(was.midi, now.midi)) lines.push(`changed how ${now.name} is set up for MIDI`);
  if (!sameJson(was.tempo, now.tempo))
    lines.push(
      `${now.name} takes its time ` +
        ('by ' +
          (now.tempo
            ? `${now.tempo.way}${now.tempo.division ? `, ${now.tempo.division}` : ''}`
            : 'its own setting')),
    );
  if (!sameJson(was.expects, now.expects))
    lines.push(`changed what the control jacks of ${now.name} expect`);
  if (
    was.notes !== now.notes ||
    was.maker !== now.maker ||
    was.model !== now.model ||
    was.place !== now.place
  )
    lines.push(`changed the record of ${now.name}`);
  return lines;
}

export function stateChanges(
  device: Device,
  was: State | undefined,
  now: State | undefined,
  where: string,
): string[] {
  const lines: string[] = [];
  if (was?.engaged !== now?.engaged)
    lines.push(
      `${device.name} ` +
        (now?.engaged === undefined
          ? 'follows its own setting'
          : now.engaged
            ? 'engaged'
            : 'bypassed') +
        ` ${where}`,
    );
  if (!sameJson(was?.program, now?.program))
    lines.push(
      `${device.name} ${now?.program ? `keeps it at wire ${addressWords(now.program)}` : 'has no program'} ${where}`,
    );
  for (const id of new Set([
    ...Object.keys(was?.settings ?? {}),
    ...Object.keys(now?.settings ?? {}),
  ])) {
    const value = now?.settings?.[id];
    if (was?.settings?.[id] !== value)
      lines.push(
        value === undefined
          ? `${device.name}, ${id} follows its own setting ${where}`
          : `${device.name}, ${settingWords(device.kind, id, value)} ${where}`,
      );
  }
  return lines;
}
