import { Group, Select } from '@mantine/core';
import type { ReactNode } from 'react';
import { boardModel, type Judged, pressedDevices } from '../../../core/build';
import { boardSvg } from '../../../core/formats';
import type { Board, Rig } from '../../../core/rig';
import { showLength } from '../../../core/units';
import { useRig } from '../../store/use-rig';
import { DrawingFiles } from '../drawing-files';

/** Which board it is, what its leads come to, and while a device is moved what they came to before. */
export function BenchBar({
  rig,
  board,
  adding,
  onBoard,
  judged,
  before,
}: {
  rig: Rig;
  board: Board;
  adding: ReactNode;
  onBoard: (id: string | null) => void;
  judged: Judged;
  before: Judged | null;
}) {
  const units = useRig((s) => s.units);
  const others = (rig.boards ?? []).length > 1;
  return (
    <Group gap={8} px={14} pb={6} align="end">
      {others && (
        <Select
          searchable
          size="xs"
          w={170}
          aria-label="Board"
          allowDeselect={false}
          value={board.id}
          data={(rig.boards ?? []).map((b) => ({ value: b.id, label: b.name }))}
          onChange={onBoard}
        />
      )}
      {adding}
      <span className="figures small-print" data-board-sum>
        {showLength(judged.mm / 1000, units.length)} of lead, {judged.crossings}{' '}
        {judged.crossings === 1 ? 'crossing' : 'crossings'},{' '}
        {judged.clashes.length ? `${judged.clashes.length} to put right` : 'nothing hits'}
        {before
          ? `; before: ${showLength(before.mm / 1000, units.length)}, ${before.crossings}, ${before.clashes.length}`
          : ''}
      </span>
      <DrawingFiles
        name={`${rig.id}-${board.id}`}
        svg={() => boardSvg(rig, board, {}, boardModel(rig, board, pressedDevices(rig)))}
      />
    </Group>
  );
}
