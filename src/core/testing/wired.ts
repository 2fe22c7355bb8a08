import { type Jack, kindOf } from '../kinds';
import { sure } from '../outcome';
import type { Device, Lead, LeadType, Rig, SettingValue, Sound } from '../rig/schema';
import { device, lead, rigOf, sound } from './rigs';

type Settings = Record<string, SettingValue>;
/** A kind, or that with settings or more of the device. */
type Written = string | [string, Partial<Device>];

/**
 * A rig written short: devices by id, each named as its id in capitals; leads as "g.out>d.in", parted
 * by spaces, of the type that their jacks ask for; sounds as the ids of what is engaged, or that with
 * settings of devices.
 *
 *     wired({ g: 'guitar-humbucker', a: 'combo-tube' }, 'g.out>a.in', { Clean: 'a' })
 */
export function wired(
  devices: Record<string, Written>,
  leads: string,
  sounds: Record<string, string | [string, Record<string, Settings>]>,
  rest: Partial<Rig> = {},
): Rig {
  const made = Object.entries(devices).map(([id, written]) =>
    typeof written === 'string'
      ? device(id, written, id.toUpperCase())
      : device(id, written[0], id.toUpperCase(), written[1]),
  );
  const byId = new Map(made.map((d) => [d.id, d]));
  return rigOf(
    made,
    leads.split(/\s+/).map((text, i) => leadOf(byId, `l${i}`, text)),
    Object.entries(sounds).map(([id, written]) => soundOf(id, written)),
    rest,
  );
}

function leadOf(byId: ReadonlyMap<string, Device>, id: string, text: string): Lead {
  const [from, to] = text.split('>').map((end) => {
    const [name = '', jack = ''] = end.split('.');
    const of = sure(byId.get(name));
    return { of, jack: sure(kindOf(of.kind).jacks.find((j) => j.id === jack)), end };
  });
  const [a, b] = [sure(from), sure(to)];
  return lead(id, a.end, b.end, metresOf(a, typeOf(a, b)), typeOf(a, b));
}

interface Plugged {
  of: Device;
  jack: Jack;
}

const isBalanced = ({ jack }: Plugged): boolean => ['XLR', 'combo'].includes(jack.connector);

function typeOf(a: Plugged, b: Plugged): LeadType {
  if (a.jack.inside === true || a.of.host !== undefined) return 'inside';
  const { signal } = a.jack;
  if (signal !== 'audio') return signal;
  return isBalanced(a) && isBalanced(b) ? 'balanced' : 'instrument';
}

/** A player's lead is 5 m long, one to the desk 10, a patch lead 0.3. */
const METRES: Partial<Record<LeadType, number>> = {
  inside: 0,
  air: 0.05,
  speaker: 1,
  balanced: 10,
};
const metresOf = ({ of }: Plugged, type: LeadType): number =>
  METRES[type] ?? (kindOf(of.kind).job === 'instrument' ? 5 : 0.3);

function soundOf(id: string, written: string | [string, Record<string, Settings>]): Sound {
  const [engaged, settings] = typeof written === 'string' ? [written, {}] : written;
  return sound(
    id,
    id,
    engaged.split(' ').filter(Boolean),
    Object.fromEntries(Object.entries(settings).map(([d, s]) => [d, { settings: s }])),
  );
}
