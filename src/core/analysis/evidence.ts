import type { Remark } from '../findings/finding';
import type { Reference } from '../rig/schema';
import type { Heard } from '../signal';
import type { Cycle } from './cycles';
import type { HumLoop } from './ground';
import type { HostUse } from './hosts';
import type { SectionTone } from './sections';
import type { SpeakerLine } from './speaker-lines';

/** What a remark is made from: a sound with its figures. */
export interface Evidence extends Heard {
  tones: SectionTone[];
  cycles: Cycle[];
  hosts: HostUse[];
  humLoops: HumLoop[];
  speakers: SpeakerLine[];
  reference: Reference;
  /**
   * Whether ways out are looked for where that takes many copies: whoever only looks at figures, or
   * compares, spares it.
   */
  wantsFixes: boolean;
}

/** Looks at a sound's figures and says what a person should know. */
export type Remarker = (evidence: Evidence) => Remark[];
