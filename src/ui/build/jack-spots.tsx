'use client';
import { Button, Group, Modal, Select, Table } from '@mantine/core';
import { useState } from 'react';
import { sizeOf, spotsOf } from '../../core/build';
import type { Spot } from '../../core/build/footprint';
import { type Outcome, sure } from '../../core/outcome';
import { type Device, type Edge, EDGES } from '../../core/rig';
import type { Rig } from '../../core/rig/schema';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';

/** Where the jacks of this very box are: plugs, clearances and ways follow. */
export function JackSpots({ device }: { device: Device }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [open, setOpen] = useState(false);
  const size = sure(sizeOf(device) ?? undefined);
  const spots = spotsOf(device);
  const long = (edge: Edge) => (edge === 'rear' || edge === 'front' ? size.width : size.depth);
  const plugged = (jack: string) =>
    rig.leads.some((l) => [l.from, l.to].some((e) => e.device === device.id && e.jack === jack));
  const set = (spot: Record<string, { edge: Edge; mm: number }>) =>
    edit({ edit: 'setDevice', device: device.id, jackSpots: { ...device.jackSpots, ...spot } });
  const allAt = (edge: Edge) =>
    set(
      Object.fromEntries(
        spots.map((s, i) => [
          s.jack.id,
          { edge, mm: Math.round((long(edge) * (i + 1)) / (spots.length + 1)) },
        ]),
      ),
    );
  if (!spots.length) return null;
  return (
    <>
      <Button size="compact-xs" variant="default" onClick={() => setOpen(true)}>
        Jacks …
      </Button>
      <Modal
        opened={open}
        onClose={() => setOpen(false)}
        size={560}
        title={`Where the jacks of ${device.name} are`}
        data-jack-spots={device.id}
      >
        <p className="faint common-text-3">
          Seen from above before it is turned, the switch towards you: from the left end of the rear
          and front edges, from the rear end of the sides.
        </p>
        <Table className="figures" verticalSpacing={3}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Jack</Table.Th>
              <Table.Th>Plugged</Table.Th>
              <Table.Th>Edge</Table.Th>
              <Table.Th>From its end, mm</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {spots.map((s) => (
              <SpotRow key={s.jack.id} s={s} plugged={plugged} set={set} long={long} />
            ))}
          </Table.Tbody>
        </Table>
        <Group mt={12} gap={8}>
          <Button size="xs" variant="default" onClick={() => allAt('rear')}>
            All at the rear
          </Button>
          <Button
            size="xs"
            variant="default"
            disabled={!device.jackSpots}
            onClick={() => edit({ edit: 'asUsual', device: device.id, what: ['jackSpots'] })}
          >
            As usual for its kind
          </Button>
          <Button size="xs" ml="auto" onClick={() => setOpen(false)}>
            Done
          </Button>
        </Group>
      </Modal>
    </>
  );
}

/** Where one jack sits on its box. */
function SpotRow({
  s,
  plugged,
  set,
  long,
}: {
  s: Spot;
  plugged: (jack: string) => boolean;
  set: (spot: Record<string, { edge: Edge; mm: number }>) => Outcome<Rig>;
  long: (edge: Edge) => number;
}) {
  return (
    <Table.Tr data-spot={s.jack.id}>
      <Table.Td>{s.jack.label}</Table.Td>
      <Table.Td>{plugged(s.jack.id) ? 'yes' : <span className="faint">no</span>}</Table.Td>
      <Table.Td>
        <Select
          size="xs"
          w={110}
          aria-label={`Edge of ${s.jack.label}`}
          allowDeselect={false}
          data={[...EDGES]}
          value={s.edge}
          onChange={(v) =>
            v &&
            set({
              [s.jack.id]: {
                edge: v,
                mm: Math.min(Math.round(s.mm), long(v)),
              },
            })
          }
        />
      </Table.Td>
      <Table.Td>
        <CommitNumber
          w={96}
          aria-label={`Place of ${s.jack.label}, mm`}
          min={0}
          max={long(s.edge)}
          value={Math.round(s.mm)}
          onCommit={(v) => v !== undefined && set({ [s.jack.id]: { edge: s.edge, mm: v } })}
        />
      </Table.Td>
    </Table.Tr>
  );
}
