import { Button, Group } from '@mantine/core';
import type { ReactNode } from 'react';
import { betterWords, type PowerPlan } from '../../../core/build';
import { nameOf } from '../../../core/rig';
import { howMany } from '../../../core/units';
import { useDocument, useRig } from '../../store/use-rig';

/** A plan of the outlets to take: what it feeds, what stays without and why, and how many plugs move. */
export function PlanFound({
  plan,
  onDone,
  longer,
}: {
  plan: PowerPlan;
  onDone: () => void;
  /** How a better one is looked for, where there may be one. */
  longer: ReactNode;
}) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  return (
    <>
      <strong>
        {plan.fed.length} of {plan.fed.length + plan.starved.length} devices can be fed
        {plan.shared ? `, ${plan.shared} of them sharing an outlet` : ''};{' '}
        {howMany(plan.moved, 'plug')} to move.
      </strong>
      {!plan.isProven && (
        <>
          <p>{betterWords(plan)}</p>
          {longer}
        </>
      )}
      {plan.starved.length > 0 && (
        <ul>
          {plan.starved.map((s) => (
            <li key={s.device}>
              <strong>{nameOf(rig, s.device)}</strong> gets nothing: {s.why}
              {s.shortMilliamps ? `, ${s.shortMilliamps} mA short` : ''}. It takes {s.cure}
              {s.edits.length > 0
                ? '; with that, solved again, it is fed beside all that are. '
                : '.'}
              {s.edits.length > 0 && (
                <Button
                  size="compact-xs"
                  variant="default"
                  onClick={() => edit(s.edits, `${s.cure}, for ${nameOf(rig, s.device)}`)}
                >
                  Write it in
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      <Group gap={6} mt={4}>
        <Button
          size="compact-sm"
          disabled={!plan.edits.length}
          onClick={() => {
            if (edit(plan.edits, 'gave out the outlets as planned').ok) onDone();
          }}
        >
          {plan.edits.length ? 'Plug it so' : 'It is plugged so already'}
        </Button>
        <Button size="compact-sm" variant="default" onClick={onDone}>
          Leave it
        </Button>
      </Group>
    </>
  );
}
