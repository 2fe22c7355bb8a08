import { type Presses } from '../midi';
import type { Edit } from '../rig/edits';

/**
 * A way to bring a change down to one press: what to do, as edits, what it then takes, and what it
 * changes at the destinations.
 */
export interface OnePress {
  words: string;
  why: string;
  edits: Edit[];
  before: Presses;
  after: Presses;
  changes: string[];
}

export type Try = Pick<OnePress, 'words' | 'why' | 'edits'>;
