import { isControlJack, type Jack, type Kind } from '../../kinds';
import { sure } from '../../outcome';
import { CONTROL_LEADS, type Device, type End, type Lead, type Rig } from '../schema';
import type { Check, Known, Say } from './checking';

/** One end of a lead that is there: its device and jack, and the host it is inside of. */
interface FoundEnd {
  end: End;
  device: Device;
  kind: Kind;
  jack: Jack;
  inside: string | undefined;
}

/** A lead with both ends found, and where it stands in the document. */
interface FoundLead {
  lead: Lead;
  at: string;
  a: FoundEnd;
  b: FoundEnd;
}

/** Ends that are not there, jacks that are taken, and leads that join what they cannot. */
export const checkLeads: Check = (rig, devices, say) => {
  const used = new Map<string, number>();
  rig.leads.forEach((lead, row) => {
    const at = `leads[${row}]`;
    const [a, b] = (['from', 'to'] as const).map((side) => {
      const found = findEnd(rig, devices, lead[side], `${at}.${side}`, say);
      if (found) checkJack(found, lead, side, row, used, say);
      return found;
    });
    if (!a || !b) return;
    const found = { lead, at, a, b };
    checkDirections(found, say);
    checkInside(found, devices, say);
    checkSignals(found, devices, say);
  });
};

function findEnd(
  rig: Rig,
  devices: Known,
  end: End,
  where: string,
  say: Say,
): FoundEnd | undefined {
  const found = devices.get(end.device);
  if (!found) {
    if (!rig.devices.some((d) => d.id === end.device))
      say(`${where}.device`, `there is no device "${end.device}" in this rig`);
    return undefined;
  }
  const { device, kind } = found;
  const jack = kind.jacks.find((j) => j.id === end.jack);
  if (!jack) {
    const has = kind.jacks.map((j) => `"${j.id}"`).join(', ');
    say(`${where}.jack`, `${device.name} (${kind.name}) has no jack "${end.jack}"; it has ${has}`);
    return undefined;
  }
  return { end, device, kind, jack, inside: jack.inside ? device.id : device.host };
}

/** Whether a lead of this type may go into the jack, and whether the jack is free. */
function checkJack(
  { end, device, jack }: FoundEnd,
  lead: Lead,
  side: 'from' | 'to',
  row: number,
  used: Map<string, number>,
  say: Say,
) {
  const at = `leads[${row}]`;
  if ((jack.signal === 'air') !== (lead.type === 'air'))
    say(
      `${at}.type`,
      jack.signal === 'air'
        ? `"${end.jack}" of ${device.name} is reached through air; use the type "air"`
        : `a lead of air joins a speaker and a microphone, not "${end.jack}" of ${device.name}`,
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
      `jack "${end.jack}" of ${device.name} already holds leads[${used.get(key)}]; ` +
        ('a jack takes one lead' +
          (lead.type === 'midi'
            ? side === 'to'
              ? ': put a merge box where two senders meet'
              : ': put a thru box where messages part'
            : '')),
    );
  used.set(key, row);
}

function checkDirections({ lead, at, a, b }: FoundLead, say: Say) {
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
}

/** What is inside a host is joined inside it, to blocks and to the host's inner points. */
function checkInside({ lead, at, a, b }: FoundLead, devices: Known, say: Say) {
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
}

/** Messages, USB, controls, digital and sound each have jacks and leads of their own. */
function checkSignals({ lead, at, a, b }: FoundLead, devices: Known, say: Say) {
  if (a.inside !== undefined && (isControlJack(a.jack) || isControlJack(b.jack)))
    return say(
      at,
      `${a.device.name} is inside ${devices.get(a.inside)?.device.name ?? 'a host'}: messages and ` +
        'controls reach it through the jacks of its host',
    );
  const control = [a, b].map((e) => (isControlJack(e.jack) ? e.jack.signal : undefined));
  if (control[0] !== control[1])
    return say(
      at,
      `it joins ${control[0] ?? 'sound'} (${lead.from.jack}) and ${control[1] ?? 'sound'} ` +
        `(${lead.to.jack}); messages, USB, controls and sound each have jacks of their own`,
    );
  if (control[0] && lead.type !== control[0])
    return say(`${at}.type`, `a lead between two ${control[0]} jacks has the type "${control[0]}"`);
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
}
