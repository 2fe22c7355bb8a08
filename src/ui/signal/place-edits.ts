import { at as entryAt } from '../../core/outcome';
import { type Kind, kindOf } from '../../core/kinds';
import { idsOf } from '../../core/rig/fresh-id';
import { deviceOf, leadsFrom, leadsInto } from '../../core/rig/find';
import {
  type Device,
  type Edit,
  freeName,
  freshId,
  hostLoopOf,
  innerReturn,
  isFreeLoop,
  loopAround,
  leadFrom,
  type Rig,
  settingOf,
  stateIn,
  waysOf,
} from '../../core/rig';
import { allOf } from '../../core/units';
import { freeOutput, moveEdit, newLeads } from './moving-edits';

/** A name that no device of the rig has yet. */
export const freshName = (rig: Rig, name: string): string =>
  freeName(
    name,
    rig.devices.map((d) => d.name),
  );

const made = (rig: Rig, kind: Kind) => {
  const name = freshName(rig, kind.name);
  return {
    id: freshId(
      name,
      rig.devices.map((d) => d.id),
    ),
    kind: kind.id,
    name,
  };
};
/**
 * Engaged in the sound that is heard now, bypassed in the others: whoever puts something in wants
 * to hear it.
 */
const heardNow = (kind: Kind, device: string, sound: string | undefined): Edit[] =>
  kind.alwaysOn || kind.job === 'tuner' || !sound
    ? []
    : [{ edit: 'setEngaged', device, sound, engaged: true }];

/** Puts a new device into a lead. */
export function insertEdits(
  rig: Rig,
  kind: Kind,
  lead: string,
  sound: string | undefined,
): [Edit & { edit: 'insertInLead' }, ...Edit[]] {
  const device = made(rig, kind);
  return [
    { edit: 'insertInLead', lead, device, newLeads: newLeads(rig) },
    ...heardNow(kind, device.id, sound),
  ];
}

/** Puts a new device behind another one's free output. */
export function appendEdits(
  rig: Rig,
  kind: Kind,
  after: Device,
  sound: string | undefined,
): [Edit & { edit: 'append' }, ...Edit[]] {
  const device = made(rig, kind);
  return [
    {
      edit: 'append',
      after: { device: after.id, jack: freeOutput(rig, after) ?? '' },
      device,
      newLead: entryAt(newLeads(rig), 0),
    },
    ...heardNow(kind, device.id, sound),
  ];
}

/** The parameter by which a switcher says which loops are in, where it has one. */
const orderOf = (kind: Kind) => kind.parameters.find((p) => p.role === 'loop order');

/**
 * A loop that is put to use is in: in the sound that is heard now its number is written behind the others,
 * where the order does not name it.
 */
function loopHeard(rig: Rig, host: Device, loop: string, sound: string | undefined): Edit[] {
  const kind = kindOf(host.kind);
  const parameter = orderOf(kind);
  const heard = rig.sounds.find((s) => s.id === sound);
  if (!parameter || !heard) return [];
  const number = String((kind.loops ?? []).findIndex((l) => l.id === loop) + 1);
  const order = String(settingOf(kind, host, stateIn(heard, host.id), parameter.id) ?? '');
  const isNamed = order
    .replace(/@[^)\s+]*/g, '')
    .split(/\D+/)
    .includes(number);
  return isNamed
    ? []
    : [
        {
          edit: 'setSetting',
          device: host.id,
          sound,
          setting: parameter.id,
          value: `${order} ${number}`.trim(),
        },
      ];
}

/** Adds a new device into a loop, heard in the sound at hand. */
export function intoLoopEdits(
  rig: Rig,
  kind: Kind,
  host: Device,
  loop: string,
  sound: string | undefined,
): [Edit & { edit: 'putInLoop' }, ...Edit[]] {
  const device = made(rig, kind);
  return [
    { edit: 'putInLoop', device, host: host.id, loop },
    ...heardNow(kind, device.id, sound),
    ...loopHeard(rig, host, loop, sound),
  ];
}

/** Moves devices, in the order given, into a loop: it goes around them. */
export const aroundEdits = (
  rig: Rig,
  devices: readonly Device[],
  host: Device,
  loop: string,
  sound: string | undefined,
): Edit[] => [
  ...devices.map((device): Edit => ({ edit: 'putInLoop', device, host: host.id, loop })),
  ...loopHeard(rig, host, loop, sound),
];

/** Takes a device out of the loop that it hangs in: in front of whose loop it is, or behind. */
export function outOfLoop(rig: Rig, device: Device): { words: string; edit: Edit }[] {
  const held = loopAround(rig, device.id);
  const host = held && deviceOf(rig, held.host);
  const through = host && kindOf(host.kind).through;
  if (!host || !through) return [];
  const front = leadsInto(rig, host.id).find(
    (l) => l.to.jack === through.in && l.type !== 'inside',
  );
  const behind = leadsFrom(rig, host.id).find(
    (l) => l.from.jack === through.out && l.type !== 'inside' && l.type !== 'speaker',
  );
  return [
    ...(front
      ? [
          {
            words: `Out of the loop, in front of ${host.name}`,
            edit: moveEdit(rig, device.id, front.id),
          },
        ]
      : []),
    ...(behind
      ? [
          {
            words: `Out of the loop, behind ${host.name}`,
            edit: moveEdit(rig, device.id, behind.id),
          },
        ]
      : []),
  ];
}

/**
 * The jack of a host at which the path begins that a block stands on; nothing where it begins at a
 * return.
 */
function inputOfPath(rig: Rig, host: string, block: string): string | undefined {
  const seen = new Set<string>();
  for (let at = block; !seen.has(at);) {
    seen.add(at);
    const link = leadsInto(rig, at).find((l) => l.type === 'inside');
    if (!link) return undefined;
    if (link.from.device !== host) at = link.from.device;
    else {
      const jacks = kindOf(deviceOf(rig, host)?.kind ?? '').jacks;
      const faces = jacks.find((j) => j.id === link.from.jack)?.faces;
      const outer = jacks.find((j) => j.id === faces?.jack);
      return faces?.is === 'input' && outer?.signal === 'audio' ? outer.id : undefined;
    }
  }
  return undefined;
}

/**
 * Ways to move a block out of its host: onto free sends and returns at its place, or in front of
 * the host's input.
 */
export function waysOut(rig: Rig, device: Device): { words: string; edit: Edit }[] {
  const host = device.host === undefined ? undefined : deviceOf(rig, device.host);
  const kind = kindOf(device.kind);
  if (!host || !kind.through || kind.size === undefined) return [];
  const sides = waysOf(rig, device.id).length;
  const loops = (kindOf(host.kind).loops ?? [])
    .filter((l) => isFreeLoop(rig, host.id, l))
    .slice(0, sides);
  const ids = [...Array(2 * sides).keys()].reduce<string[]>(
    (list) => [...list, freshId('lead', new Set([...idsOf(rig.leads), ...list]))],
    [],
  );
  const front = leadsInto(rig, host.id).find(
    (l) => l.type !== 'inside' && l.to.jack === inputOfPath(rig, host.id, device.id),
  );
  return [
    ...(loops.length === sides
      ? [
          {
            words: `Out, onto ${allOf(loops.map((l) => l.label.replace('send and return', 'loop')))}`,
            edit: {
              edit: 'moveToLoop' as const,
              device: device.id,
              loops: loops.map((l) => l.id),
              newLeads: ids,
            },
          },
        ]
      : []),
    ...(front
      ? [{ words: `Out, in front of ${host.name}`, edit: moveEdit(rig, device.id, front.id) }]
      : []),
  ];
}

/** Ways to move a real pedal into a host of the rig: where its loop stands, or first on a path. */
export function waysIn(rig: Rig, device: Device): { words: string; edit: Edit }[] {
  if (device.host !== undefined || !kindOf(device.kind).block) return [];
  const loopHost = hostLoopOf(rig, device.id)?.host;
  return rig.devices
    .filter((h) => h.id !== device.id && kindOf(h.kind).hosts)
    .flatMap((host): { words: string; edit: Edit }[] => {
      if (loopHost === host.id)
        return [
          {
            words: `Into ${host.name}, where its loop stands`,
            edit: { edit: 'moveFromLoop', device: device.id },
          },
        ];
      const behind = leadsFrom(rig, device.id).find((l) => l.to.device === host.id);
      const link = leadFrom(rig, host.id, innerReturn(behind?.to.jack ?? 'in'));
      return link?.type === 'inside' && kindOf(device.kind).through
        ? [
            {
              words: `Into ${host.name}, first on its path`,
              edit: moveEdit(rig, device.id, link.id),
            },
          ]
        : [];
    });
}
