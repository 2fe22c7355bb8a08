import { sure } from '../outcome';
import { findKind, isControlJack, type Jack, KINDS, type Kind } from '../kinds';
import { outletsOf } from './find';
import type { Problem } from '../outcome';
import { CONTROL_LEADS, type Device, type Rig, type SettingValue } from './schema';

/**
 * What the schema cannot see: ids used twice, kinds and jacks that do not exist, directions, two
 * leads in one jack, settings out of range.
 */
export function integrityProblems(rig: Rig): Problem[] {
  const problems: Problem[] = [];
  const say = (where: string, what: string) => problems.push({ where, what });
  const devices = new Map<string, { device: Device; kind: Kind }>();

  rig.devices.forEach((device, row) => {
    const at = `devices[${row}]`;
    if (devices.has(device.id))
      say(`${at}.id`, `the id "${device.id}" is used twice; give one of the two another`);
    const kind = findKind(device.kind);
    if (!kind)
      return say(`${at}.kind`, `there is no kind "${device.kind}"; ${nearest(device.kind)}`);
    devices.set(device.id, { device, kind });
    checkSettings(kind, device.settings, `${at}.settings`, say);
    for (const [id, override] of Object.entries(device.figures ?? {})) {
      const figure = kind.figures.find((f) => f.id === id);
      if (figure && (override.value < figure.min || override.value > figure.max)) {
        say(
          `${at}.figures.${id}`,
          `${override.value} ${figure.unit} is not believable for "${figure.label}"; ` +
            `give ${figure.min} to ${figure.max} ${figure.unit}`,
        );
      }
    }
  });
  rig.devices.forEach((device, row) => {
    if (device.host !== undefined) {
      const host = devices.get(device.host);
      if (!host || device.host === device.id)
        say(`devices[${row}].host`, `"${device.host}" is not another device of this rig`);
      else if (!host.kind.hosts)
        say(
          `devices[${row}].host`,
          `${host.device.name} (${host.kind.name}) is no host; blocks live in ${KINDS.filter(
            (k) => k.hosts,
          )
            .map((k) => `"${k.id}"`)
            .join(', ')}`,
        );
      else if (hostsOf(device.id, devices).includes(device.id))
        say(
          `devices[${row}].host`,
          `${device.name} would live inside itself; follow its hosts and take one out`,
        );
      const own = devices.get(device.id)?.kind;
      if (own && !own.block && !own.hosts)
        say(
          `devices[${row}].host`,
          `${device.name} (${own.name}) cannot live inside a host: it has no block form`,
        );
    }
    const supply = device.supply && devices.get(device.supply.device);
    const outlets = supply && outletsOf(supply.device);
    if (device.supply !== undefined && !outlets) {
      say(
        `devices[${row}].supply`,
        `"${device.supply.device}" is no supply of this rig; use a device of the kind ` +
          '"supply-isolated" or "supply-shared"',
      );
    } else if (
      device.supply?.outlet !== undefined &&
      !outlets!.some((o) => o.id === device.supply!.outlet)
    ) {
      say(
        `devices[${row}].supply.outlet`,
        `it has the outlets ${outlets!.map((o) => `"${o.id}"`).join(', ')}`,
      );
    }
    if (device.gives && !devices.get(device.id)?.kind.outlets)
      say(
        `devices[${row}].gives`,
        `${device.name} is no supply; leave out what it gives, or make it one`,
      );
    const twice = device.gives?.outlets.find(
      (o, k, all) => all.findIndex((x) => x.id === o.id) < k,
    );
    if (twice)
      say(
        `devices[${row}].gives.outlets`,
        `two outlets are called "${twice.id}"; give each its own id`,
      );
  });

  const used = new Map<string, number>();
  const leadIds = new Set<string>();
  rig.leads.forEach((lead, row) => {
    const at = `leads[${row}]`;
    if (leadIds.has(lead.id))
      say(`${at}.id`, `the id "${lead.id}" is used twice; give one of the two another`);
    leadIds.add(lead.id);
    const ends: { jack: Jack; inside: string | undefined }[] = [];
    for (const side of ['from', 'to'] as const) {
      const end = lead[side];
      const found = devices.get(end.device);
      if (!found) {
        if (!rig.devices.some((d) => d.id === end.device))
          say(`${at}.${side}.device`, `there is no device "${end.device}" in this rig`);
        continue;
      }
      const jack = found.kind.jacks.find((j) => j.id === end.jack);
      if (!jack) {
        say(
          `${at}.${side}.jack`,
          `${found.device.name} (${found.kind.name}) has no jack "${end.jack}"; it ` +
            `has ${found.kind.jacks.map((j) => `"${j.id}"`).join(', ')}`,
        );
        continue;
      }
      ends.push({ jack, inside: jack.inside ? found.device.id : found.device.host });
      if ((jack.signal === 'air') !== (lead.type === 'air'))
        say(
          `${at}.type`,
          jack.signal === 'air'
            ? `"${end.jack}" of ${found.device.name} is reached through air; use the type "air"`
            : `a lead of air joins a speaker and a microphone, not "${end.jack}" of ${found.device.name}`,
        );
      // Branches of an insert lead share a jack, one for each conductor; inside a host a point
      // takes any number of links.
      const key =
        `${end.device} ${end.jack}` +
        (lead.type === 'insert' && (jack.stereo || jack.insert)
          ? ` ${lead.conductor ?? (side === 'to' && jack.insert ? 'ring' : 'tip')}`
          : '');
      if (!jack.many && lead.type !== 'inside' && used.has(key))
        say(
          `${at}.${side}`,
          `jack "${end.jack}" of ${found.device.name} already holds leads[${used.get(key)}]; ` +
            ('a jack takes one lead' +
              (lead.type === 'midi'
                ? side === 'to'
                  ? ': put a merge box where two senders meet'
                  : ': put a thru box where messages part'
                : '')),
        );
      used.set(key, row);
    }
    const [a, b] = ends;
    if (!a || !b) return;
    if (a.jack.direction === 'in' && b.jack.direction === 'out')
      say(
        at,
        `it runs from the input "${lead.from.jack}" to the output "${lead.to.jack}"; write it the other way round`,
      );
    if (
      (lead.type === 'inside' || a.jack.inside || b.jack.inside) &&
      a.jack.direction === b.jack.direction
    )
      say(
        at,
        `both ends are ${a.jack.direction === 'in' ? 'inputs' : 'outputs'}; a link runs from an output to an input`,
      );
    if (a.inside !== b.inside) {
      const inner = a.inside !== undefined ? lead.from : lead.to;
      say(
        at,
        `"${inner.jack}" of ${sure(devices.get(inner.device)).device.name} is ` +
          `inside ${devices.get((a.inside ?? b.inside)!)?.device.name ?? 'a host'}, the other ` +
          `end is not; join what is inside to the host's inner points`,
      );
    } else if ((a.inside !== undefined) !== (lead.type === 'inside'))
      say(
        `${at}.type`,
        a.inside !== undefined
          ? 'a link inside a host has the type "inside"'
          : 'the type "inside" is for links inside a host; choose the type of a real lead',
      );
    const control = [a, b].map((e) => (isControlJack(e.jack) ? e.jack.signal : undefined));
    if (control[0] !== control[1])
      return say(
        at,
        `it joins ${control[0] ?? 'sound'} (${lead.from.jack}) and ${control[1] ?? 'sound'} ` +
          `(${lead.to.jack}); messages, USB, controls and sound each have jacks of their own`,
      );
    if (control[0] && lead.type !== control[0])
      return say(
        `${at}.type`,
        `a lead between two ${control[0]} jacks has the type "${control[0]}"`,
      );
    if (!control[0] && CONTROL_LEADS.includes(lead.type))
      return say(
        `${at}.type`,
        `the type "${lead.type}" is for jacks that carry messages or controls; these two carry sound`,
      );
    const digital = [a, b].filter((e) => e.jack.signal === 'digital').length;
    if (lead.type !== 'inside' && (digital === 1 || (digital === 2) !== (lead.type === 'digital')))
      say(
        `${at}.type`,
        digital === 2
          ? 'both jacks are digital; use the type "digital"'
          : 'a digital lead joins two digital jacks',
      );
  });

  const soundIds = new Set<string>();
  rig.sounds.forEach((sound, row) => {
    const at = `sounds[${row}]`;
    if (soundIds.has(sound.id))
      say(`${at}.id`, `the id "${sound.id}" is used twice; give one of the two another`);
    soundIds.add(sound.id);
    for (const [id, state] of Object.entries(sound.states)) {
      const found = devices.get(id);
      if (found) checkSettings(found.kind, state.settings, `${at}.states.${id}.settings`, say);
      else if (!rig.devices.some((d) => d.id === id))
        say(`${at}.states.${id}`, `there is no device "${id}" in this rig`);
    }
  });
  const unique = (where: string, list: readonly { id: string }[] | undefined) => {
    const ids = new Set<string>();
    (list ?? []).forEach((x, row) => {
      if (ids.has(x.id))
        say(`${where}[${row}].id`, `the id "${x.id}" is used twice; give one of the two another`);
      ids.add(x.id);
    });
  };
  for (const list of [
    'promises',
    'controls',
    'songs',
    'sets',
    'candidates',
    'boards',
    'racks',
    'cases',
    'looms',
  ] as const)
    unique(list, rig[list]);
  problems.push(...carryingProblems(rig));
  rig.controls?.forEach((c, row) => unique(`controls[${row}].assigns`, c.assigns));
  rig.sets?.forEach((s, row) => unique(`sets[${row}].entries`, s.entries));
  rig.songs?.forEach((song, row) => {
    unique(`songs[${row}].sections`, song.sections);
    for (const [where, states] of [
      [`songs[${row}]`, song.states],
      ...song.sections.map((s, i) => [`songs[${row}].sections[${i}]`, s.states] as const),
    ] as const) {
      for (const [id, state] of Object.entries(states ?? {})) {
        const found = devices.get(id);
        if (found) checkSettings(found.kind, state.settings, `${where}.states.${id}.settings`, say);
      }
    }
  });
  for (const part of ['sources', 'gear'] as const) {
    (rig.brief?.[part] ?? []).forEach((entry, row) => {
      if (!findKind(entry.kind))
        say(
          `brief.${part}[${row}].kind`,
          `there is no kind "${entry.kind}"; ${nearest(entry.kind)}`,
        );
    });
  }
  return problems;
}

/** What is placed where nothing is. */
function carryingProblems(rig: Rig): Problem[] {
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

function checkSettings(
  kind: Kind,
  settings: Record<string, SettingValue> | undefined,
  where: string,
  say: (where: string, what: string) => void,
) {
  for (const [id, value] of Object.entries(settings ?? {})) {
    const wrong = settingProblem(kind, id, value);
    if (wrong) say(`${where}.${id}`, wrong);
  }
}

/**
 * What is wrong with a setting's value for this kind; nothing for settings that the kind does not
 * have, which are kept.
 */
export function settingProblem(kind: Kind, id: string, value: SettingValue): string | undefined {
  const parameter = kind.parameters.find((p) => p.id === id);
  if (!parameter) return undefined;
  if (parameter.type === 'knob') {
    return typeof value === 'number' && value >= parameter.min && value <= parameter.max
      ? undefined
      : `${parameter.label} takes a number from ${parameter.min} to ${parameter.max}, not ${JSON.stringify(value)}`;
  }
  if (parameter.type === 'text') {
    const wrong =
      typeof value === 'string' ? parameter.problem(value) : `a text, not ${JSON.stringify(value)}`;
    return wrong && `${parameter.label}: ${wrong}`;
  }
  if (parameter.type === 'switch')
    return typeof value === 'boolean'
      ? undefined
      : `${parameter.label} is true or false, not ${JSON.stringify(value)}`;
  return parameter.options.some((o) => o.value === value)
    ? undefined
    : `${parameter.label} is one ` +
        `of ${parameter.options.map((o) => `"${o.value}"`).join(', ')}, ` +
        `not ${JSON.stringify(value)}`;
}

function nearest(word: string): string {
  const parts = word
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter((p) => p.length > 2);
  const close = KINDS.filter((k) => parts.some((p) => k.id.includes(p))).slice(0, 4);
  return close.length
    ? `did you mean ${close.map((k) => `"${k.id}"`).join(' or ')}?`
    : 'the kinds are listed in docs/kinds.md';
}

/** The hosts around a device, innermost first; a circle of hosts ends where it closes. */
function hostsOf(id: string, devices: ReadonlyMap<string, { device: Device }>): string[] {
  const hosts: string[] = [];
  for (
    let at = devices.get(id)?.device.host;
    at !== undefined && !hosts.includes(at);
    at = devices.get(at)?.device.host
  )
    hosts.push(at);
  return hosts;
}
