import type { Remark } from '../findings/finding';
import type { Reference } from '../rig/schema';
import type { Cycle } from './cycles';
import type { DestinationFigures } from './destinations';
import type { HumLoop } from './ground';
import type { HostUse } from './hosts';
import type { SectionTone } from './sections';
import type { SoundContext } from './sound-context';
import type { SpeakerLine } from './speakers';
import type { StationFigures } from './stations';

/** What a remark is made from: a sound with its figures. */
export interface Evidence {
  ctx: SoundContext;
  stations: StationFigures[];
  destinations: DestinationFigures[];
  tones: SectionTone[];
  cycles: Cycle[];
  hosts: HostUse[];
  humLoops: HumLoop[];
  speakers: SpeakerLine[];
  reference: Reference;
}

/** Looks at a sound's figures and says what a person should know. */
export type Remarker = (evidence: Evidence) => Remark[];
