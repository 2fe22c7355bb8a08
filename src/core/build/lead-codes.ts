import type { Lead, Rig } from '../rig/schema';

/** Colours for the digits 0 to 9, as they are usual in electronics. */
const DIGIT_COLOURS = [
  'black',
  'brown',
  'red',
  'orange',
  'yellow',
  'green',
  'blue',
  'violet',
  'grey',
  'white',
] as const;

/** A number as colours, digit by digit: 27 is red-violet. */
export const colourCode = (n: number): string =>
  [...String(n)].map((d) => DIGIT_COLOURS[Number(d)]!).join('-');

/** Leads that are something in the hand: not what is joined inside a host, nor the air between two. */
export const realLeads = (rig: Rig): Lead[] =>
  rig.leads.filter((l) => l.type !== 'inside' && l.type !== 'air');

/** How a lead is marked at both ends: its code, in numbers or in colours as the rig marks its leads. */
export interface LeadCode {
  code: string;
  colours: string;
}

/** The code of each real lead, by the order of the leads; the usual is numbers, such as W07. */
export function leadCodes(rig: Rig): ReadonlyMap<string, LeadCode> {
  const real = realLeads(rig);
  const digits = Math.max(2, String(real.length).length);
  return new Map(
    real.map(({ id }, i) => {
      const colours = colourCode(i + 1);
      const number = `W${String(i + 1).padStart(digits, '0')}`;
      return [id, { code: rig.making?.codes === 'colours' ? colours : number, colours }];
    }),
  );
}

/** What a lead is called when it is spoken of: as somebody named it, else by its code, else by its type. */
export const leadCalled = (rig: Rig, lead: Lead): string =>
  lead.label ?? leadCodes(rig).get(lead.id)?.code ?? lead.type;
