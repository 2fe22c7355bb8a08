import { Button, Checkbox, Select, Table } from '@mantine/core';
import { USUAL_POWER_PLUG } from '../../../core/build';
import type { Outlet } from '../../../core/kinds';
import { cutText } from '../../../core/rig';
import { CommitNumber } from '../../look/commit-number';
import { useRig } from '../../store/use-rig';
import { asCurrent, currentOf, CURRENTS, PLUGS, voltsFrom } from './power-choices';
import { CommitText } from '../../look/commit-text';

/** One outlet of a supply as its label has it, as a row of fields. */
export function OutletForm({
  outlet: o,
  feeds,
  last,
  onChange,
  onRemove,
}: {
  outlet: Outlet;
  feeds: number;
  last: boolean;
  onChange: (part: Partial<Outlet>) => void;
  onRemove: () => void;
}) {
  return (
    <Table.Tr data-gives={o.id}>
      <Table.Td>
        <CommitText
          w={112}
          aria-label={`Name of ${o.label}`}
          needed
          value={o.label}
          onCommit={(label = '') => onChange({ label: cutText(label, 40) })}
        />
      </Table.Td>
      <VoltagesCell o={o} onChange={onChange} />
      <Table.Td>
        <CommitNumber
          w={84}
          aria-label={`Milliamps of ${o.label}`}
          min={1}
          max={20_000}
          value={o.milliamps}
          onCommit={(v) => v !== undefined && onChange({ milliamps: v })}
        />
      </Table.Td>
      <Table.Td>
        <Select
          size="xs"
          w={172}
          aria-label={`Current of ${o.label}`}
          allowDeselect={false}
          data={CURRENTS}
          value={currentOf(o)}
          onChange={(v) => v && onChange(asCurrent(v))}
        />
      </Table.Td>
      <Table.Td>
        <Select
          size="xs"
          w={128}
          aria-label={`Jack of ${o.label}`}
          allowDeselect={false}
          data={PLUGS}
          value={o.plug ?? USUAL_POWER_PLUG}
          onChange={(v) => v && onChange({ plug: v })}
        />
      </Table.Td>
      <Table.Td>
        <Checkbox
          size="xs"
          aria-label={`${o.label} is isolated`}
          checked={o.isolated}
          onChange={(e) => onChange({ isolated: e.currentTarget.checked })}
        />
      </Table.Td>
      <Table.Td>{feeds || '–'}</Table.Td>
      <Table.Td>
        <Button
          size="compact-xs"
          variant="default"
          disabled={last}
          aria-label={`Take ${o.label} out`}
          onClick={onRemove}
        >
          {feeds ? `Unplug ${feeds}, take out` : 'Take out'}
        </Button>
      </Table.Td>
    </Table.Tr>
  );
}

/** The voltages that the outlet gives. */
function VoltagesCell({ o, onChange }: { o: Outlet; onChange: (part: Partial<Outlet>) => void }) {
  const setNotice = useRig((s) => s.setNotice);
  return (
    <Table.Td>
      <CommitText
        w={92}
        aria-label={`Voltages of ${o.label}`}
        needed
        value={[o.volts, ...(o.also ?? [])].join(', ')}
        onCommit={(text = '') => {
          const volts = voltsFrom(text);
          if (volts) onChange(volts);
          else
            setNotice(
              `“${text}” is no list of voltages. Give what it can be set to, ` +
                'such as 9, 12, 18; the usual one first.',
            );
        }}
      />
    </Table.Td>
  );
}
