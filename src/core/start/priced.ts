import { analyse, settled } from '../report';
import type { Brief } from '../rig/schema';
import type { Choice } from './choices';
import { type Proposal, proposeRig, type StartChoice } from './propose';

/**
 * A proposal that says of each other way what it would bring: each is made on a copy, its levels set, and
 * judged as any rig is; what is worse than advice and is not so in the proposal is told.
 */
export function priced(proposal: Proposal, brief: Brief, choice: StartChoice): Proposal {
  const told = (p: Pick<Proposal, 'rig'>) =>
    analyse(p.rig).findings.flatMap((f) =>
      f.severity === 'advice' ? [] : [`${f.severity}: ${f.what}`],
    );
  const now = new Set(told(proposal));
  const brings = (id: string, value: string): string[] => {
    const changed = { ...brief.means?.changed, [id]: value };
    const other = proposeRig({ ...brief, means: { ...brief.means, changed } }, choice);
    // Where the other way is no way any more, nothing can be said of it.
    if (other.choices.find((c) => c.id === id)?.taken !== value) return [];
    return told({ rig: settled(other.rig) }).filter((what) => !now.has(what));
  };
  const choices = proposal.choices.map((c): Choice => ({
    ...c,
    options: c.options.map((o) =>
      o.value === c.taken || !c.isWired ? o : { ...o, brings: brings(c.id, o.value) },
    ),
  }));
  return { ...proposal, choices };
}
