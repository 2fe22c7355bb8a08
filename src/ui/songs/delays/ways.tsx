import { Select } from '@mantine/core';
import { kindOf } from '../../../core/kinds';
import { sure } from '../../../core/outcome';
import { deviceOf, type TempoSetup } from '../../../core/rig';
import { tablesOf } from '../../../core/songs';
import { useDocument, useRig } from '../../store/use-rig';
import { labelOfTime, NOTES } from './names';

const WAYS = [
  { value: 'program', label: 'stored in a program' },
  { value: 'clock', label: 'follows clock' },
  { value: 'tap', label: 'tapped' },
];
/** How each device takes its time. */
export function Ways({ devices }: { devices: string[] }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  return (
    <div className="ways-row">
      {devices.map((id) => {
        const d = sure(deviceOf(rig, id));
        const table = sure(kindOf(d.kind).tempo);
        const set = (change: Partial<TempoSetup>) =>
          edit({
            edit: 'setTempo',
            device: id,
            tempo: {
              way: d.tempo?.way ?? 'program',
              division: d.tempo?.division ?? 'quarter',
              ...(d.tempo?.more && { more: d.tempo.more }),
              ...change,
            },
          });
        return (
          <div key={id} data-way-of={id} className="ways-row-2">
            <Select
              size="xs"
              w={160}
              label={d.name}
              data={WAYS.filter(
                (w) => w.value !== 'clock' || kindOf(d.kind).midi?.clock || d.host !== undefined,
              )}
              placeholder="not chosen"
              value={d.tempo?.way ?? null}
              onChange={(v) => v && set({ way: v as TempoSetup['way'] })}
            />
            <Select
              size="xs"
              w={140}
              aria-label={`Note value of ${d.name}`}
              data={NOTES}
              value={d.tempo?.division ?? 'quarter'}
              allowDeselect={false}
              onChange={(v) => v && set({ division: v })}
            />
            {tablesOf(d)
              .slice(1)
              .map(({ setting }) => (
                <Select
                  key={setting}
                  size="xs"
                  w={140}
                  label={labelOfTime(d, setting)}
                  data={NOTES}
                  value={d.tempo?.more?.[setting] ?? d.tempo?.division ?? 'quarter'}
                  allowDeselect={false}
                  onChange={(v) => v && set({ more: { ...d.tempo?.more, [setting]: v } })}
                />
              ))}
            {table.is === 'rate' && <span className="faint common-text">a cycle</span>}
          </div>
        );
      })}
    </div>
  );
}
