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
   * Whether ways out are looked for where that is dear. Nobody presses a fix on a copy that is only
   * compared.
   */
  wantsFixes: boolean;
}

/** Looks at a sound's figures and says what a person should know. */
export type Remarker = (evidence: Evidence) => Remark[];
