import { MultiSelect, Select } from '@mantine/core';
import { stepsOf } from '../../../core/control';
import { endsOfAssignment, valueAt } from '../../../core/control/effective';
import { kindOf } from '../../../core/kinds';
import { at as entryAt } from '../../../core/outcome';
import type { Curve } from '../../../core/units';
import { deviceOf, nameOf } from '../../../core/rig/find';
import type { Assignment, Control } from '../../../core/rig/schema';
import { CommitNumber } from '../../look/commit-number';
import { useDocument } from '../../store/use-rig';
import { movable } from '../movable';
import { CURVE_NAMES } from './control-words';
import { ValueField } from './value-field';
import { TakeOut } from '../../look/take-out';

interface OfAssignment {
  control: Control;
  assignment: Assignment;
  onChange: (change: Partial<Assignment>) => void;
}

/** What is kept when an assignment moves something else: none of its ends. */
const NO_ENDS = { min: undefined, max: undefined, on: undefined, off: undefined };

/** One thing that a control moves. */
export function AssignmentRow({
  control,
  assignment: a,
  onChange,
  onRemove,
}: OfAssignment & { onRemove: () => void }) {
  const rig = useDocument();
  const device = deviceOf(rig, a.device);
  const steps = device ? stepsOf(rig, control, device.id) : 0;
  return (
    <tr data-assignment={a.id}>
      <MovesDevice a={a} onChange={onChange} />
      <td>
        <Select
          size="xs"
          w={126}
          aria-label="Setting"
          data={movable(rig, a.device)}
          value={a.setting}
          allowDeselect={false}
          onChange={(v) =>
            v &&
            onChange({
              setting: v,
              ...NO_ENDS,
            })
          }
        />
      </td>
      <EndFields control={control} assignment={a} onChange={onChange} />
      {control.type === 'pedal' && (
        <td>
          <Select
            size="xs"
            w={104}
            aria-label="Curve"
            data={Object.entries(CURVE_NAMES).map(([value, label]) => ({ value, label }))}
            value={a.curve ?? 'linear'}
            allowDeselect={false}
            onChange={(v) => v && onChange({ curve: v as Curve })}
          />
        </td>
      )}
      <td>
        <MultiSelect
          searchable
          size="xs"
          w={132}
          aria-label="Sounds it holds in"
          placeholder={a.sounds?.length ? '' : 'every sound'}
          data={rig.sounds.map((s) => ({ value: s.id, label: s.name }))}
          value={a.sounds ?? []}
          onChange={(v) => onChange({ sounds: v.length ? v : undefined })}
        />
      </td>
      <td>
        <CommitNumber
          w={64}
          aria-label="Control change"
          min={0}
          max={127}
          allowDecimal={false}
          placeholder="–"
          value={a.cc}
          onCommit={(v) => onChange({ cc: v })}
        />
        {steps === 128 && <span className="faint common-text">128 steps</span>}
      </td>
      <td>
        <TakeOut what={`Take ${nameOf(rig, a.device)} out of ${control.name}`} onClick={onRemove} />
      </td>
    </tr>
  );
}

/** Which device the control moves. */
function MovesDevice({
  a,
  onChange,
}: {
  a: Assignment;
  onChange: (change: Partial<Assignment>) => void;
}) {
  const rig = useDocument();
  return (
    <td>
      <Select
        size="xs"
        w={136}
        searchable
        aria-label="Device"
        data={rig.devices
          .filter((d) => movable(rig, d.id).length)
          .map((d) => ({ value: d.id, label: d.name }))}
        value={a.device}
        allowDeselect={false}
        onChange={(v) =>
          v &&
          onChange({
            device: v,
            setting: entryAt(movable(rig, v), 0).value,
            ...NO_ENDS,
          })
        }
      />
    </td>
  );
}

/** The values at both ends: of a pedal's travel, or when a switch is off and on. */
function EndFields({ control, assignment: a, onChange }: OfAssignment) {
  const rig = useDocument();
  const device = deviceOf(rig, a.device);
  const p = device && kindOf(device.kind).parameters.find((x) => x.id === a.setting);
  const [low, high] = endsOfAssignment(rig, a);
  return control.type === 'pedal' && p?.type === 'knob' ? (
    <>
      <td>
        <CommitNumber
          w={66}
          aria-label="Value at the heel"
          min={p.min}
          max={p.max}
          step={0.5}
          value={low}
          onCommit={(v) => onChange({ min: v })}
        />
      </td>
      <td>
        <CommitNumber
          w={66}
          aria-label="Value at the toe"
          min={p.min}
          max={p.max}
          step={0.5}
          value={high}
          onCommit={(v) => onChange({ max: v })}
        />
      </td>
    </>
  ) : (
    <>
      <td>
        <ValueField
          parameter={p}
          label="Value when off"
          value={a.off ?? valueAt(rig, control, a, false)}
          onChange={(v) => onChange({ off: v })}
        />
      </td>
      <td>
        <ValueField
          parameter={p}
          label="Value when on"
          value={a.on ?? valueAt(rig, control, a, true)}
          onChange={(v) => onChange({ on: v })}
        />
      </td>
    </>
  );
}
