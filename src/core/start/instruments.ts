import { type Kind, kindOf, KINDS } from '../kinds';
import type { Brief } from '../rig/schema';

type Source = Brief['sources'][number];

/** What a start can begin with: instruments, voices and feeds. */
export const START_INSTRUMENTS: readonly Kind[] = KINDS.filter((k) => k.job === 'instrument');

/** Whether a source goes past pedals and amplifiers. */
export const isFeed = ({ kind }: Pick<Source, 'kind'>): boolean => kindOf(kind).feed !== undefined;

/** Whether an instrument has a digital output alone, which only a modeler takes. */
export const isDigital = ({ kind }: Pick<Source, 'kind'>): boolean =>
  kindOf(kind).jacks.every((j) => j.signal === 'digital');

/** Whether a source can come by a pack for instruments. */
export const canBeWireless = (s: Pick<Source, 'kind'>): boolean => !isFeed(s) && !isDigital(s);
