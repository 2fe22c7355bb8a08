import { Button, Group, Modal, Table } from '@mantine/core';
import { type Dispatch, type SetStateAction, useState } from 'react';
import { loadsOf } from '../../../core/build';
import type { Outlet } from '../../../core/kinds';
import { sure } from '../../../core/outcome';
import { type Device, freshId, outletsOf, supplyTotal } from '../../../core/rig';
import { CommitNumber } from '../../look/commit-number';
import { useDocument, useRig } from '../../store/use-rig';
import { OutletForm } from './outlet-form';

/**
 * The outlets of one supply, as its label has them. An outlet that goes unplugs what hangs on it,
 * as the button says.
 */
export function SupplyOutlets({ supply }: { supply: Device }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [open, setOpen] = useState(false);
  const outlets = outletsOf(supply) ?? [];
  const total = supplyTotal(supply);
  const fed = new Map(
    loadsOf(rig)
      .filter((l) => l.place.supply.id === supply.id)
      .map((l) => [l.place.outlet.id, l.takers.length]),
  );
  const write = (list: Outlet[], milliamps: number | undefined = total) =>
    edit({
      edit: 'setDevice',
      device: supply.id,
      gives: { ...supply.gives, outlets: list.map((o) => ({ ...o })), totalMilliamps: milliamps },
    });
  const change = (id: string, part: Partial<Outlet>) =>
    write(outlets.map((o) => (o.id === id ? { ...o, ...part } : o)));
  const add = () => {
    const last = sure(outlets.at(-1));
    const id = freshId(
      String(outlets.length + 1),
      outlets.map((o) => o.id),
    );
    write([...outlets, { ...last, id, label: `outlet ${id}` }]);
  };
  return (
    <>
      <Button size="compact-xs" variant="default" onClick={() => setOpen(true)}>
        Outlets of {supply.name} …
      </Button>
      <Modal
        opened={open}
        onClose={() => setOpen(false)}
        size={960}
        title={`Outlets of ${supply.name}`}
        data-supply={supply.id}
      >
        <Table className="figures" verticalSpacing={3} horizontalSpacing={6}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Called</Table.Th>
              <Table.Th>Gives, V</Table.Th>
              <Table.Th>mA</Table.Th>
              <Table.Th>Current</Table.Th>
              <Table.Th>Jack</Table.Th>
              <Table.Th>Isolated</Table.Th>
              <Table.Th>Feeds</Table.Th>
              <Table.Th></Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {outlets.map((o) => (
              <OutletForm
                key={o.id}
                outlet={o}
                feeds={fed.get(o.id) ?? 0}
                last={outlets.length === 1}
                onChange={(part) => change(o.id, part)}
                onRemove={() => write(outlets.filter((x) => x.id !== o.id))}
              />
            ))}
          </Table.Tbody>
        </Table>
        <SupplyLimit outlets={outlets} add={add} total={total} supply={supply} setOpen={setOpen} />
        <p className="faint supply-outlets-text">
          Outlets that are not isolated share one return. Never open a supply; what its maker says
          comes first.
        </p>
      </Modal>
    </>
  );
}

/** What all outlets together can give. */
function SupplyLimit({
  outlets,
  add,
  total,
  supply,
  setOpen,
}: {
  outlets: Outlet[];
  add: () => void;
  total: number | undefined;
  supply: Device;
  setOpen: Dispatch<SetStateAction<boolean>>;
}) {
  const edit = useRig((s) => s.edit);
  return (
    <Group mt={10} align="end" gap={10}>
      <Button size="xs" variant="default" disabled={outlets.length >= 40} onClick={add}>
        One outlet more
      </Button>
      <CommitNumber
        w={150}
        label="All together at most, mA"
        placeholder="no other limit"
        min={1}
        max={200_000}
        value={total}
        onCommit={(v) =>
          edit({
            edit: 'setDevice',
            device: supply.id,
            gives: {
              ...supply.gives,
              outlets: outlets.map((o) => ({ ...o })),
              totalMilliamps: v,
            },
          })
        }
      />
      <Button
        size="xs"
        variant="default"
        disabled={!supply.gives}
        onClick={() => edit({ edit: 'asUsual', device: supply.id, what: ['gives'] })}
      >
        As usual for its kind
      </Button>
      <Button size="xs" ml="auto" onClick={() => setOpen(false)}>
        Done
      </Button>
    </Group>
  );
}
