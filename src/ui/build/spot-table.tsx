'use client';
import { Select, Table } from '@mantine/core';
import type { Spot } from '../../core/build/footprint';
import { type Edge, EDGES } from '../../core/rig';
import { CommitNumber } from '../look/commit-number';

/** How long an edge of a box is, in mm. */
export const longOn = (size: { width: number; depth: number }, edge: Edge): number =>
  edge === 'rear' || edge === 'front' ? size.width : size.depth;

type Set = (spot: Record<string, { edge: Edge; mm: number }>) => void;

/** Where each jack of a box is: on which edge, and how far along it. */
export function SpotTable({
  spots,
  size,
  plugged,
  onSet,
}: {
  spots: readonly Pick<Spot, 'jack' | 'edge' | 'mm'>[];
  size: { width: number; depth: number };
  /** Whether something is plugged into a jack, where that is known. */
  plugged?: (jack: string) => boolean;
  onSet: Set;
}) {
  return (
    <Table className="figures" verticalSpacing={3} w="auto">
      <Table.Thead>
        <Table.Tr>
          <Table.Th>Jack</Table.Th>
          {plugged && <Table.Th>Plugged</Table.Th>}
          <Table.Th>Edge</Table.Th>
          <Table.Th>From its end, mm</Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {spots.map((s) => (
          <SpotRow key={s.jack.id} s={s} size={size} plugged={plugged} onSet={onSet} />
        ))}
      </Table.Tbody>
    </Table>
  );
}

/** Where one jack sits on its box. */
function SpotRow({
  s,
  size,
  plugged,
  onSet,
}: {
  s: Pick<Spot, 'jack' | 'edge' | 'mm'>;
  size: { width: number; depth: number };
  plugged: ((jack: string) => boolean) | undefined;
  onSet: Set;
}) {
  const long = (edge: Edge) => longOn(size, edge);
  return (
    <Table.Tr data-spot={s.jack.id}>
      <Table.Td>{s.jack.label}</Table.Td>
      {plugged && (
        <Table.Td>{plugged(s.jack.id) ? 'yes' : <span className="faint">no</span>}</Table.Td>
      )}
      <Table.Td>
        <Select
          size="xs"
          w={110}
          aria-label={`Edge of ${s.jack.label}`}
          allowDeselect={false}
          data={[...EDGES]}
          value={s.edge}
          onChange={(v) =>
            v && onSet({ [s.jack.id]: { edge: v, mm: Math.min(Math.round(s.mm), long(v)) } })
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
          onCommit={(v) => v !== undefined && onSet({ [s.jack.id]: { edge: s.edge, mm: v } })}
        />
      </Table.Td>
    </Table.Tr>
  );
}
