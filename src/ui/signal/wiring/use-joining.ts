import { useEffect, useMemo, useState } from 'react';
import { type End, endWords, type Joint, jointsOf, leadsOfJoint } from '../../../core/rig';
import { useDocument, useRig } from '../../store/use-rig';

const keyOf = ({ device, jack }: End): string => `${device}/${jack}`;

/** A jack that was chosen, what fits it, and how it is joined. */
export interface Joining {
  from: End | null;
  /** What is being done, in words, and nothing where no jack is chosen. */
  words: string;
  isFrom: (end: End) => boolean;
  fits: (end: End) => boolean;
  /** Chooses a jack; one that fits the chosen one is joined to it. */
  press: (end: End) => void;
  leave: () => void;
}

/** Choosing one jack and then another, which joins them; Escape leaves it. */
export function useJoining(): Joining {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const select = useRig((s) => s.select);
  const [from, setFrom] = useState<End | null>(null);
  const joints = useMemo(() => {
    const found = new Map<string, Joint>();
    if (!from) return found;
    for (const joint of jointsOf(rig, from.device)) {
      const isFrom = keyOf(joint.from) === keyOf(from);
      if (!isFrom && keyOf(joint.to) !== keyOf(from)) continue;
      const other = keyOf(isFrom ? joint.to : joint.from);
      if (!found.has(other)) found.set(other, joint);
    }
    return found;
  }, [rig, from]);
  const leave = () => setFrom(null);
  useEffect(() => {
    if (!from) return;
    const onKey = (e: KeyboardEvent) => {
      if (e.key === 'Escape') leave();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [from]);
  const join = (joint: Joint) => {
    const leads = leadsOfJoint(rig, joint);
    const words = `connected ${endWords(rig, joint.from)} to ${endWords(rig, joint.to)}`;
    const isDone = edit(
      leads.map((lead) => ({ edit: 'connect', lead })),
      joint.other ? `${words}, both sides` : words,
    ).ok;
    if (isDone && leads[0]) select({ kind: 'lead', id: leads[0].id });
    leave();
  };
  return {
    from,
    leave,
    words: from ? wordsFor(endWords(rig, from), joints.size) : '',
    isFrom: (end) => from !== null && keyOf(end) === keyOf(from),
    fits: (end) => joints.has(keyOf(end)),
    press: (end) => {
      const joint = joints.get(keyOf(end));
      if (joint) join(joint);
      else setFrom(from && keyOf(end) === keyOf(from) ? null : end);
    },
  };
}

function wordsFor(jack: string, count: number): string {
  if (!count) return `No free jack fits ${jack}.`;
  return `${jack}: choose the other end; ${count} ${count === 1 ? 'jack fits' : 'jacks fit'}.`;
}
