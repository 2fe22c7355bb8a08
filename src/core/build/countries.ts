import type { MainsPlug } from '../kinds';

/**
 * Mains of a country: nominal volts (of most of it, and `also` in parts of it), frequencies in Hz, and
 * plug types by their letters.
 */
export interface Country {
  code: string;
  name: string;
  volts: number;
  also: readonly number[];
  hz: readonly (50 | 60)[];
  plugs: string;
}

const at = (
  code: string,
  name: string,
  volts: number,
  hz: 50 | 60 | readonly (50 | 60)[],
  plugs: string,
  also: readonly number[] = [],
): Country => ({ code, name, volts, also, hz: typeof hz === 'number' ? [hz] : hz, plugs });

/** Every nominal voltage of a country. */
export const voltsIn = ({ volts, also }: Country): number[] => [volts, ...also];

/** Countries whose names take an article in a sentence. */
const WITH_ARTICLE: ReadonlySet<string> = new Set(['FO', 'GB', 'NL', 'PH', 'US']);

/** A country as a sentence has it: "Austria", "the Netherlands". */
export const inSentence = ({ code, name }: Country): string =>
  WITH_ARTICLE.has(code) ? `the ${name}` : name;

/** Sockets that take a plug beside those of its own letter, with its earth where it has one. */
const ALSO_INTO: Partial<Record<MainsPlug, string>> = { A: 'B', C: 'EFHJKLNO', E: 'F', F: 'E' };

/** Whether a plug goes into a socket of a country without an adapter. */
export const plugFits = (plug: MainsPlug, { plugs }: Country): boolean =>
  [plug, ...(ALSO_INTO[plug] ?? '')].some((letter) => plugs.includes(letter));

/** Nominal mains where rigs travel. Venues differ: measure at the socket before anything is plugged in. */
export const COUNTRIES: readonly Country[] = [
  at('AR', 'Argentina', 220, 50, 'C, I'),
  at('AT', 'Austria', 230, 50, 'C, F'),
  at('AU', 'Australia', 230, 50, 'I'),
  at('BE', 'Belgium', 230, 50, 'C, E'),
  at('BG', 'Bulgaria', 230, 50, 'C, F'),
  at('BR', 'Brazil', 127, 60, 'C, N', [220]),
  at('CA', 'Canada', 120, 60, 'A, B'),
  at('CH', 'Switzerland', 230, 50, 'C, J'),
  at('CL', 'Chile', 220, 50, 'C, L'),
  at('CN', 'China', 220, 50, 'A, C, I'),
  at('CO', 'Colombia', 110, 60, 'A, B'),
  at('CR', 'Costa Rica', 120, 60, 'A, B'),
  at('CZ', 'Czechia', 230, 50, 'C, E'),
  at('DE', 'Germany', 230, 50, 'C, F'),
  at('DK', 'Denmark', 230, 50, 'C, K'),
  at('EE', 'Estonia', 230, 50, 'C, F'),
  at('ES', 'Spain', 230, 50, 'C, F'),
  at('FI', 'Finland', 230, 50, 'C, F'),
  at('FO', 'Faroe Islands', 230, 50, 'C, K'),
  at('FR', 'France', 230, 50, 'C, E'),
  at('GB', 'United Kingdom', 230, 50, 'G'),
  at('GR', 'Greece', 230, 50, 'C, F'),
  at('HK', 'Hong Kong', 220, 50, 'G'),
  at('HR', 'Croatia', 230, 50, 'C, F'),
  at('HU', 'Hungary', 230, 50, 'C, F'),
  at('ID', 'Indonesia', 230, 50, 'C, F'),
  at('IE', 'Ireland', 230, 50, 'G'),
  at('IL', 'Israel', 230, 50, 'C, H'),
  at('IN', 'India', 230, 50, 'C, D, M'),
  at('IS', 'Iceland', 230, 50, 'C, F'),
  at('IT', 'Italy', 230, 50, 'C, F, L'),
  at('JP', 'Japan', 100, [50, 60], 'A, B'),
  at('KR', 'South Korea', 220, 60, 'C, F'),
  at('LT', 'Lithuania', 230, 50, 'C, F'),
  at('LU', 'Luxembourg', 230, 50, 'C, F'),
  at('LV', 'Latvia', 230, 50, 'C, F'),
  at('MX', 'Mexico', 127, 60, 'A, B'),
  at('MY', 'Malaysia', 240, 50, 'G'),
  at('NL', 'Netherlands', 230, 50, 'C, F'),
  at('NO', 'Norway', 230, 50, 'C, F'),
  at('NZ', 'New Zealand', 230, 50, 'I'),
  at('PE', 'Peru', 220, 60, 'A, B, C', [110]),
  at('PH', 'Philippines', 220, 60, 'A, B, C', [110]),
  at('PL', 'Poland', 230, 50, 'C, E'),
  at('PT', 'Portugal', 230, 50, 'C, F'),
  at('RO', 'Romania', 230, 50, 'C, F'),
  at('RS', 'Serbia', 230, 50, 'C, F'),
  at('SA', 'Saudi Arabia', 230, 60, 'G', [127]),
  at('SE', 'Sweden', 230, 50, 'C, F'),
  at('SG', 'Singapore', 230, 50, 'G'),
  at('SI', 'Slovenia', 230, 50, 'C, F'),
  at('SK', 'Slovakia', 230, 50, 'C, E'),
  at('TH', 'Thailand', 230, 50, 'A, B, C, O'),
  at('TR', 'Turkey', 230, 50, 'C, F'),
  at('TW', 'Taiwan', 110, 60, 'A, B'),
  at('US', 'United States', 120, 60, 'A, B'),
  at('UY', 'Uruguay', 220, 50, 'C, F, L'),
  at('ZA', 'South Africa', 230, 50, 'C, M, N'),
];
