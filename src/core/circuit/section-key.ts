import { sure } from '../outcome';
import type { Circuit, Section } from './circuit';

/** Everything that a section's answers depend on, as one word: equal words, equal answers. */
export function sectionKey(circuit: Circuit, section: Section): string {
  const at = new Map(section.nets.map((n, i) => [n, i]));
  const nets = section.nets.map((n) => {
    const { leadFarads, shunts } = sure(circuit.nets[n]);
    return `${leadFarads}:${shunts.map((x) => [x.ohms, x.farads, x.henries ?? 0].join()).join(';')}`;
  });
  const resistors = section.resistors.map((r) => `${at.get(r.a)}-${at.get(r.b)}=${r.ohms}`);
  const drivers = section.drivers.map((d) => `${at.get(d.net)}:${d.ohms},${d.henries}`);
  return [nets.join('|'), resistors.join('|'), drivers.join('|')].join('#');
}
