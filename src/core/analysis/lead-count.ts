import type { LeadType, Rig } from '../rig/schema';

/** What there is to lay. Air and links inside hosts are no leads. */
export interface LeadCount {
  leads: number;
  plugs: number;
  metres: number;
  byType: { type: LeadType; count: number }[];
}

/** Counts leads by type; branches of one insert lead share a plug. */
export function countLeads(rig: Rig): LeadCount {
  const real = rig.leads.filter((l) => l.type !== 'inside' && l.type !== 'air');
  const ends = new Set(real.flatMap((l) => [l.from, l.to].map((e) => `${e.device}/${e.jack}`)));
  const types = [...new Set(real.map((l) => l.type))];
  return {
    leads: real.length,
    plugs: ends.size,
    metres: real.reduce((s, l) => s + l.metres, 0),
    byType: types
      .map((type) => ({ type, count: real.filter((l) => l.type === type).length }))
      .sort((a, b) => b.count - a.count),
  };
}
