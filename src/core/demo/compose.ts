import { at } from '../outcome';
import type { Device, Lead, LeadType, Sound, State } from '../rig/schema';

/** A lead written short: "bari.out" to "radio.in". */
export const lead = (
  id: string,
  from: string,
  to: string,
  metres: number,
  type: LeadType = 'instrument',
  pfPerMetre?: number,
): Lead => {
  const end = (text: string) => ({ device: at(text.split('.'), 0), jack: at(text.split('.'), 1) });
  return { id, from: end(from), to: end(to), type, metres, ...(pfPerMetre && { pfPerMetre }) };
};

export const device = (
  id: string,
  kind: string,
  name: string,
  rest: Partial<Device> = {},
): Device => ({ id, kind, name, ...rest });

/** A sound: which devices are engaged, and what else differs. */
export const sound = (
  id: string,
  name: string,
  engaged: readonly string[],
  rest: Record<string, State> = {},
  notes?: string,
): Sound => ({
  id,
  name,
  ...(notes && { notes }),
  states: {
    ...Object.fromEntries(engaged.map((d) => [d, { engaged: true, ...rest[d] }])),
    ...Object.fromEntries(Object.entries(rest).filter(([d]) => !engaged.includes(d))),
  },
});
