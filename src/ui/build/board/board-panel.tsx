import { Button, Group, Select } from '@mantine/core';
import type { Board } from '../../../core/rig';
import { CommitNumber } from '../../look/commit-number';
import { useRig } from '../../store/use-rig';
import { CommitText } from '../../look/commit-text';

/** The board's own measures. */
export function BoardPanel({ board, onGone }: { board: Board; onGone: () => void }) {
  const edit = useRig((s) => s.edit);
  const set = (change: Partial<Board>) =>
    edit({ edit: 'setBoard', board: { ...board, ...change } });
  const number = (
    label: string,
    value: number | undefined,
    most: number,
    commit: (v: number) => void,
    w = 84,
  ) => (
    <CommitNumber
      w={w}
      label={label}
      min={0}
      max={most}
      value={value}
      onCommit={(v) => v !== undefined && commit(v)}
    />
  );
  const raised = board.raised?.[0];
  const spread = (count: number): Board['rails'] =>
    Array.from({ length: count }, (_, i) => ({
      y: Math.round(count > 1 ? (i * (board.depth - 40)) / (count - 1) : board.depth / 2 - 20),
      depth: 40,
    }));
  return (
    <section>
      <Group justify="space-between" align="end">
        <CommitText
          w={180}
          label="Board"
          needed
          value={board.name}
          onCommit={(name) => set({ name })}
        />
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            if (edit({ edit: 'removeBoard', board: board.id }).ok) onGone();
          }}
        >
          Remove
        </Button>
      </Group>
      <Group gap={6} mt={4}>
        {number('Wide, mm', board.width, 3000, (width) => set({ width }))}
        {number('Deep, mm', board.depth, 1500, (depth) => set({ depth }))}
        {number('Free below', board.under, 300, (under) => set({ under }))}
      </Group>
      <Group gap={6} mt={4}>
        {number('Rails', board.rails.length, 20, (n) => set({ rails: spread(Math.round(n)) }))}
        {number('Raised, deep', raised?.depth ?? 0, 1500, (depth) =>
          set({ raised: depth ? [{ y: 0, by: raised?.by ?? 40, depth }] : undefined }),
        )}
        {number('Raised by', raised?.by ?? 0, 300, (by) =>
          set({
            raised: by
              ? [{ y: 0, depth: raised?.depth ?? Math.round(board.depth * 0.45), by }]
              : undefined,
          }),
        )}
      </Group>
      <Group gap={6} mt={4} align="end">
        {number('Weight, g', board.grams, 1e6, (grams) => set({ grams }))}
        <Select
          size="xs"
          w={120}
          label="Preferred foot"
          allowDeselect={false}
          value={board.foot ?? 'right'}
          data={[
            { value: 'left', label: 'left' },
            { value: 'right', label: 'right' },
          ]}
          onChange={(v) => v && set({ foot: v })}
        />
      </Group>
    </section>
  );
}
