import type { Edit } from '../rig/edits';
import type { RuleId } from './rules';
import type { Severity } from './severity';

export { countOf, isWorse, openCounts, SEVERITIES, type Severity } from './severity';

/** A change that would cure a finding, in words and as edits. */
export interface Fix {
  words: string;
  edits: Edit[];
}

/** Something one sound shows: what is the matter, why (with the figure), and what would cure it. */
export interface Remark {
  rule: RuleId;
  /** One of those that its rule can have. */
  severity: Severity;
  /** Ids of the devices and leads it is about; the first is where a person should look. */
  subjects: string[];
  /** What tells it from others of the same rule, where that is less than all its subjects. */
  about?: string;
  what: string;
  why: string;
  /** How much is at stake, in whatever its rule counts: of several with one cause that with most is told. */
  stake?: number;
  fix?: Fix;
  /** Other ways to cure it. */
  others?: Fix[];
}

/** The first of several fixes, and the others, as a remark has them; nothing where there are none. */
export const fixes = ([fix, ...others]: readonly Fix[]): Pick<Remark, 'fix' | 'others'> => ({
  ...(fix && { fix }),
  ...(others.length && { others }),
});

/** A remark over all the sounds that show it. `accepted` holds the reason when somebody has accepted it. */
export interface Finding extends Remark {
  key: string;
  sounds: string[];
  accepted?: string;
}
