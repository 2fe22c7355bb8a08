import { Select } from '@mantine/core';
import { valueAt } from '../../../core/control/effective';
import { freshId } from '../../../core/rig';
import { nameOf } from '../../../core/rig/find';
import type { Assignment, Control } from '../../../core/rig/schema';
import { useDocument, useRig } from '../../store/use-rig';
import { movable } from '../movable';
import { AssignmentRow } from './assignment-row';
import { ControlHead, TravelFields } from './control-head';
import { valueWords } from './control-words';
import { PositionField } from './position-field';

/** One control: what it is, where it stands in the chosen sound, and all that it moves. */
export function OneControl({ control }: { control: Control }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const soundId = useRig((s) => s.sound);
  const sound = rig.sounds.find((s) => s.id === soundId);
  const set = (change: Partial<Control>) =>
    edit({ edit: 'setControl', control: { ...control, ...change } });
  const setAssign = (a: Assignment, change: Partial<Assignment>) =>
    set({ assigns: control.assigns.map((x) => (x === a ? { ...x, ...change } : x)) });
  const add = (device: string) => {
    const setting = movable(rig, device)[0]?.value;
    if (setting)
      set({
        assigns: [
          ...control.assigns,
          {
            id: freshId(
              `${device}-${setting}`,
              control.assigns.map((a) => a.id),
            ),
            device,
            setting,
          },
        ],
      });
  };
  return (
    <section data-editor="control">
      <ControlHead control={control} onChange={set} />
      {control.type === 'pedal' && <TravelFields control={control} onChange={set} />}
      <h3>In {sound?.name ?? 'this sound'}</h3>
      {sound && <PositionField control={control} sound={sound} />}
      <h3>Moves</h3>
      <table className="sheet-table" data-table="assignments">
        <thead>
          <tr>
            <th>Device</th>
            <th>Setting</th>
            <th>{control.type === 'pedal' ? 'Heel' : 'Off'}</th>
            <th>{control.type === 'pedal' ? 'Toe' : 'On'}</th>
            {control.type === 'pedal' && <th>Curve</th>}
            <th>In</th>
            <th>CC</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {control.assigns.map((a) => (
            <AssignmentRow
              key={a.id}
              control={control}
              assignment={a}
              onChange={(change) => setAssign(a, change)}
              onRemove={() => set({ assigns: control.assigns.filter((x) => x !== a) })}
            />
          ))}
        </tbody>
      </table>
      <Select
        mt={8}
        size="xs"
        w={260}
        searchable
        placeholder="Add something that it moves …"
        aria-label="Add a device that it moves"
        data={rig.devices
          .filter((d) => movable(rig, d.id).length)
          .map((d) => ({ value: d.id, label: d.name }))}
        value={null}
        onChange={(v) => v && add(v)}
      />
      <Summary control={control} />
    </section>
  );
}

/** What it comes to at the ends and in the middle, in words. */
function Summary({ control }: { control: Control }) {
  const rig = useDocument();
  if (!control.assigns.length) return null;
  return (
    <p className="faint common-text-2">
      {(control.type === 'pedal' ? [0, 50, 100] : [false, true])
        .map(
          (x) =>
            (typeof x === 'number' ? `${x} %` : x ? 'on' : 'off') +
            ': ' +
            control.assigns
              .map(
                (a) =>
                  `${nameOf(rig, a.device)} ${valueWords(rig, a, valueAt(rig, control, a, x))}`,
              )
              .join(', '),
        )
        .join(' · ')}
    </p>
  );
}
