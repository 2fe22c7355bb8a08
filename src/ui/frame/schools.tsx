'use client';
import { Select } from '@mantine/core';
import { kindOf } from '../../core/kinds';
import { ORDER_RULES, type OrderRule } from '../../core/order';
import type { Stance } from '../../core/rig';
import { SCHOOLS } from '../../core/rig/schema';
import { CommitText } from '../look/commit-text';
import { useDocument, useRig } from '../store/use-rig';

/** Devices that a rule is about, where there are several, each with a stance of its own. */
function OwnSchools({ rule, set }: { rule: OrderRule; set: (stance: Stance) => void }) {
  const rig = useDocument();
  const stance = rig.order?.stances?.[rule.id];
  const own = stance?.devices ?? {};
  const devices = rig.devices.filter((d) => rule.jobs?.includes(kindOf(d.kind).job));
  if (devices.length < 2) return null;
  const choose = (device: string, value: string | null) => {
    const { [device]: _, ...rest } = own;
    const school = SCHOOLS.find((x) => x === value);
    set({
      // What nobody has chosen stays as it is for the others.
      ...(stance ?? { stance: rule.quiet ? 'ignore' : 'follow' }),
      devices: school ? { ...rest, [device]: school } : rest,
    });
  };
  return devices.map((d) => (
    <Select
      key={d.id}
      size="xs"
      mt={4}
      label={d.name}
      aria-label={`School for ${rule.thing}, ${d.name}`}
      value={own[d.id] ?? null}
      placeholder="as the others"
      clearable
      data={[
        { value: 'follow', label: `usual: ${rule.main}` },
        { value: 'other', label: `other school: ${rule.other}` },
        { value: 'ignore', label: 'ignore' },
      ]}
      onChange={(v) => choose(d.id, v)}
    />
  ));
}

/** The stance of this rig on each order rule. */
export function Schools() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  return (
    <div>
      <p className="small-print">
        Order advice is never a lock. For each thing, follow the usual school, the other one, or
        neither, with your reason.
      </p>
      {ORDER_RULES.map((r) => {
        const stance = rig.order?.stances?.[r.id];
        const set = (s: Stance) => edit({ edit: 'setStance', rule: r.id, stance: s });
        return (
          <div key={r.id} className="finding" data-rule={r.id}>
            <strong>{r.thing}</strong>
            <Select
              size="xs"
              aria-label={`School for ${r.thing}`}
              allowDeselect={false}
              value={stance?.stance ?? (r.quiet ? null : 'follow')}
              placeholder="not checked: it depends on what it is for"
              data={[
                { value: 'follow', label: `usual: ${r.main}` },
                { value: 'other', label: `other school: ${r.other}` },
                { value: 'ignore', label: 'ignore, because …' },
              ]}
              onChange={(v) => v && set({ ...stance, stance: v })}
            />
            {stance?.stance === 'ignore' && (
              <CommitText
                mt={4}
                aria-label={`Reason for ignoring ${r.thing}`}
                placeholder="because …"
                value={stance.because}
                onCommit={(because = '') => set({ ...stance, because })}
              />
            )}
            <OwnSchools rule={r} set={set} />
            <div className="faint common-text-2">{r.why}</div>
          </div>
        );
      })}
    </div>
  );
}
