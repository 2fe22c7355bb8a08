'use client';
import { useEffect, useState } from 'react';
import type { Outcomes } from '../../core/report';
import type { Edit, Rig } from '../../core/rig';
import { useDocument } from '../store/use-rig';
import { useWorking } from './use-working';

/** The first three of several sentences as one: what stands inside it has no full stop. */
function listed(list: string[]): string {
  const shown = [...list.slice(0, 3), ...(list.length > 3 ? [`and ${list.length - 3} more.`] : [])];
  return shown.map((x, i) => (i < shown.length - 1 ? x.replace(/\.$/, '') : x)).join('; ');
}

/** What came of a change on a copy, in a line. */
export function outcomeWords({ breaks, costs }: Outcomes, does: string): string {
  if (breaks.length) return `Tried: ${does}; breaks: ${listed(breaks)}`;
  return costs.length
    ? `Tried: ${does} and breaks nothing; besides: ${listed(costs)}`
    : `Tried: ${does} and changes nothing else that is told.`;
}

/**
 * What came of a proposal on a copy: what it breaks, and what is only put right when the rig is built
 * or is told of another box than before.
 */
function proposalWords({ breaks, bearable, costs }: Outcomes): string {
  const harm = breaks.filter((b) => !bearable.includes(b));
  const does = 'does what it says';
  if (!bearable.length) return outcomeWords({ breaks, bearable, costs }, does);
  const words =
    harm.length || costs.length
      ? outcomeWords({ breaks: harm, bearable, costs }, does)
      : `Tried: ${does} and breaks nothing.`;
  return `${words.replace(/\.?$/, '.')} To put right afterwards: ${listed(bearable)}`;
}

/** Tries a proposal on a copy of the rig as it stands and says what it breaks. */
export function TriedEdits({ edits }: { edits: Edit[] }) {
  const rig = useDocument();
  const { work, start } = useWorking('outcome');
  const [of, setOf] = useState<Rig | null>(null);
  const key = JSON.stringify(edits);
  useEffect(() => {
    setOf(rig);
    start({ rig, edits: JSON.parse(key) as Edit[] });
  }, [rig, key, start]);
  const known = of === rig ? work : { state: 'idle' as const };
  return (
    <p className="faint common-text-2" role="status" data-tried-proposal={known.state}>
      {known.state === 'done'
        ? proposalWords(known.answer)
        : known.state === 'failed'
          ? `It could not be tried: ${known.why}. Look at the preview before you take it.`
          : 'Trying it on a copy …'}
    </p>
  );
}
