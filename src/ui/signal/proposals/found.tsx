import type { ReactNode } from 'react';
import { type Outcome, reasonOf } from '../../../core/outcome';
import type { Edit } from '../../../core/rig';
import type { ProposalName, Proposals } from '../../../worker';
import { BuffersFound } from './buffers-found';
import { InsideFound } from './inside-found';
import { IsolationFound } from './isolation-found';
import { OrderFound } from './order-found';

/** Proposals that are asked for one sound; ways to one press are asked for a pair, under Control. */
export type SoundProposal = Extract<ProposalName, 'order' | 'inside' | 'isolation' | 'buffers'>;

export type Answer = {
  [N in SoundProposal]: { name: N; answer: Proposals[N]['answer'] };
}[SoundProposal];

/** A proposal to look at and to take; it is stale once the rig has changed since it was made. */
export interface TakeFound<P> {
  proposal: P;
  stale: boolean;
  onTake: (edits: Edit[], words: string) => void;
}

/** What was found, or in words why nothing can be. */
export function Found({
  found,
  held,
  onHold,
  ...rest
}: Omit<TakeFound<never>, 'proposal'> & {
  found: Answer;
  held: readonly [string, boolean][];
  onHold: (device: string, inside: boolean) => void;
}) {
  switch (found.name) {
    case 'order':
      return shown(found.answer, (p) => <OrderFound proposal={p} {...rest} />);
    case 'inside':
      return shown(found.answer, (p) => (
        <InsideFound proposal={p} held={held} onHold={onHold} {...rest} />
      ));
    case 'isolation':
      return <IsolationFound proposal={found.answer} {...rest} />;
    case 'buffers':
      return <BuffersFound proposal={found.answer} {...rest} />;
  }
}

const shown = <P,>(answer: Outcome<P>, show: (proposal: P) => ReactNode) =>
  answer.ok ? show(answer.value) : <div className="empty">{reasonOf(answer)}</div>;
