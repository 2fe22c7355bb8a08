'use client';
import { sure } from '../../core/outcome';
import { Button, Checkbox, Group, Modal, Select, Table, TextInput } from '@mantine/core';
import { useState } from 'react';
import { loadsOf, needOf, powerPlugWords, USUAL_POWER_PLUG } from '../../core/build';
import { type Outlet, POWER_PLUGS } from '../../core/kinds';
import { type Device, freshId, outletsOf, supplyTotal } from '../../core/rig';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';

const PLUGS = POWER_PLUGS.map((value) => ({ value, label: powerPlugWords(value) }));
const CURRENTS = [
  { value: 'negative', label: 'DC, centre negative' },
  { value: 'positive', label: 'DC, centre positive' },
  { value: 'ac', label: 'AC' },
];

const currentOf = (x: { ac?: boolean; centre?: string }): string =>
  x.ac ? 'ac' : (x.centre ?? 'negative');
const asCurrent = (v: string): { ac: boolean; centre: 'negative' | 'positive' } => ({
  ac: v === 'ac',
  centre: v === 'positive' ? 'positive' : 'negative',
});

/** What the label of a device says about its power: everything that a plan looks at. */
export function PowerLabel({ device }: { device: Device }) {
  const edit = useRig((s) => s.edit);
  const [open, setOpen] = useState(false);
  const need = sure(needOf(device));
  const set = (power: Partial<NonNullable<Device['power']>>) =>
    edit({ edit: 'setDevice', device: device.id, power: { ...device.power, ...power } });
  return (
    <>
      <Button
        size="compact-xs"
        variant="default"
        aria-label={`What the label of ${device.name} says`}
        onClick={() => setOpen(true)}
      >
        Label …
      </Button>
      <Modal
        opened={open}
        onClose={() => setOpen(false)}
        title={`What the label of ${device.name} says`}
        data-power-label={device.id}
      >
        <Group gap={10} align="end">
          <CommitNumber
            w={96}
            label="Volts"
            min={0.5}
            max={60}
            value={need.volts}
            onCommit={(v) => v !== undefined && set({ volts: v })}
          />
          <CommitNumber
            w={110}
            label="Bears up to, V"
            min={need.volts}
            max={60}
            value={need.maxVolts ?? need.volts}
            onCommit={(v) => v !== undefined && set({ maxVolts: v })}
          />
          <CommitNumber
            w={96}
            label="Takes, mA"
            min={1}
            max={20_000}
            value={need.milliamps}
            onCommit={(v) => v !== undefined && set({ milliamps: v })}
          />
        </Group>
        <Group gap={10} mt={8} align="end">
          <Select
            size="xs"
            w={190}
            label="Current"
            allowDeselect={false}
            data={CURRENTS}
            value={currentOf(need)}
            onChange={(v) => v && set(asCurrent(v))}
          />
          <Select
            size="xs"
            w={150}
            label="Jack"
            allowDeselect={false}
            data={PLUGS}
            value={need.plug ?? USUAL_POWER_PLUG}
            onChange={(v) => v && set({ plug: v })}
          />
        </Group>
        <Checkbox
          size="xs"
          mt={12}
          label="Digital: it chops its current, keep it apart from high gain"
          checked={need.noisy ?? false}
          onChange={(e) => set({ noisy: e.currentTarget.checked })}
        />
        <Checkbox
          size="xs"
          mt={6}
          label="High gain: noise of its supply is heard"
          checked={need.sensitive ?? false}
          onChange={(e) => set({ sensitive: e.currentTarget.checked })}
        />
        <Checkbox
          size="xs"
          mt={6}
          label="Positive ground: its chassis is its plus, it shares with no other"
          checked={need.positiveGround ?? false}
          onChange={(e) => set({ positiveGround: e.currentTarget.checked })}
        />
        <Group mt={14} justify="space-between">
          <Button
            size="xs"
            variant="default"
            disabled={!device.power}
            onClick={() => edit({ edit: 'asUsual', device: device.id, what: ['power'] })}
          >
            As usual for its kind
          </Button>
          <Button size="xs" onClick={() => setOpen(false)}>
            Done
          </Button>
        </Group>
      </Modal>
    </>
  );
}

/** The voltages of an outlet as they are typed: "9, 12, 18"; nothing where it is not a list of voltages. */
function voltsFrom(text: string): Pick<Outlet, 'volts' | 'also'> | undefined {
  const all = text
    .split(/[,;/\s]+/)
    .filter(Boolean)
    .map(Number);
  if (!all.length || all.length > 9 || all.some((v) => !(v > 0 && v <= 60))) return undefined;
  const [volts, ...also] = [...new Set(all)];
  return { volts: volts!, also };
}

/**
 * The outlets of one supply, as its label has them. An outlet that goes unplugs what hangs on it,
 * as the button says.
 */
export function SupplyOutlets({ supply }: { supply: Device }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const setNotice = useRig((s) => s.setNotice);
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
              <Table.Tr key={o.id} data-gives={o.id}>
                <Table.Td>
                  <TextInput
                    size="xs"
                    w={112}
                    aria-label={`Name of ${o.label}`}
                    key={o.label}
                    defaultValue={o.label}
                    onBlur={(e) => {
                      const v = e.currentTarget.value.trim().slice(0, 40);
                      if (v && v !== o.label) change(o.id, { label: v });
                    }}
                  />
                </Table.Td>
                <Table.Td>
                  <TextInput
                    size="xs"
                    w={92}
                    aria-label={`Voltages of ${o.label}`}
                    key={[o.volts, ...(o.also ?? [])].join()}
                    defaultValue={[o.volts, ...(o.also ?? [])].join(', ')}
                    onBlur={(e) => {
                      const volts = voltsFrom(e.currentTarget.value);
                      if (!volts)
                        setNotice(
                          `“${e.currentTarget.value}” is no list of voltages. Give what it can be set to, ` +
                            'such as 9, 12, 18; the usual one first.',
                        );
                      else if (
                        [volts.volts, ...volts.also!].join() !== [o.volts, ...(o.also ?? [])].join()
                      )
                        change(o.id, volts);
                    }}
                  />
                </Table.Td>
                <Table.Td>
                  <CommitNumber
                    w={84}
                    aria-label={`Milliamps of ${o.label}`}
                    min={1}
                    max={20_000}
                    value={o.milliamps}
                    onCommit={(v) => v !== undefined && change(o.id, { milliamps: v })}
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
                    onChange={(v) => v && change(o.id, asCurrent(v))}
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
                    onChange={(v) => v && change(o.id, { plug: v })}
                  />
                </Table.Td>
                <Table.Td>
                  <Checkbox
                    size="xs"
                    aria-label={`${o.label} is isolated`}
                    checked={o.isolated}
                    onChange={(e) => change(o.id, { isolated: e.currentTarget.checked })}
                  />
                </Table.Td>
                <Table.Td>{fed.get(o.id) || '–'}</Table.Td>
                <Table.Td>
                  <Button
                    size="compact-xs"
                    variant="default"
                    disabled={outlets.length === 1}
                    aria-label={`Take ${o.label} out`}
                    onClick={() => write(outlets.filter((x) => x.id !== o.id))}
                  >
                    {fed.get(o.id) ? `Unplug ${fed.get(o.id)}, take out` : 'Take out'}
                  </Button>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
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
        <p className="faint supply-outlets-text">
          Outlets that are not isolated share one return. Never open a supply; what its maker says
          comes first.
        </p>
      </Modal>
    </>
  );
}
