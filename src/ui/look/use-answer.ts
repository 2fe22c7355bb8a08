import { useEffect, useState } from 'react';
import type { Questions } from '../../worker/messages';
import { useRig } from '../store/use-rig';

/**
 * What the worker says to a question, asked again whenever the question or the figures change;
 * nothing while it is still being worked out.
 */
export function useAnswer<Q extends keyof Questions>(
  question: Q,
  ask: Questions[Q]['ask'] | null,
): Questions[Q]['answer'] | null {
  const door = useRig((s) => s.door);
  const report = useRig((s) => s.report);
  const [answer, setAnswer] = useState<{ to: string; value: Questions[Q]['answer'] } | null>(null);
  const key = ask === null ? null : JSON.stringify([question, ask]);
  useEffect(() => {
    if (!door || key === null) return;
    let wanted = true;
    const [, asked] = JSON.parse(key) as [Q, Questions[Q]['ask']];
    door.ask(question, asked).then(
      (value) => wanted && setAnswer({ to: key, value }),
      () => undefined,
    );
    return () => {
      wanted = false;
    };
  }, [door, question, key, report]);
  return answer && answer.to === key ? answer.value : null;
}
