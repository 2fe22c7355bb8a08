'use client';
import { Button, Menu } from '@mantine/core';
import { useState } from 'react';
import { BOARD_SIZES } from '../../../core/build';
import { sure } from '../../../core/outcome';
import { freshId } from '../../../core/rig';
import { useDocument, useRig } from '../../store/use-rig';
import { Bench } from './bench';

/**
 * The board from above: everything to scale, placed by hand or arranged, with what hits what as it
 * happens.
 */
export function BoardView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [chosen, setChosen] = useState<string | null>(null);
  const board = rig.boards?.find((b) => b.id === chosen) ?? rig.boards?.[0];
  const add = (size: string) => {
    const found = sure(BOARD_SIZES.find((b) => b.id === size));
    const id = freshId(
      'board',
      [...(rig.boards ?? []), ...(rig.racks ?? []), ...rig.devices].map((x) => x.id),
    );
    if (
      edit({
        edit: 'addBoard',
        board: {
          id,
          name: rig.boards?.length ? `Board ${rig.boards.length + 1}` : 'Pedalboard',
          ...found.board,
        },
      }).ok
    )
      setChosen(id);
  };
  const adding = (
    <Menu>
      <Menu.Target>
        <Button size="xs" variant={board ? 'default' : 'filled'}>
          Add a board
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {BOARD_SIZES.map((b) => (
          <Menu.Item key={b.id} onClick={() => add(b.id)}>
            {b.label}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
  if (!board)
    return (
      <div className="empty common-gap-2">
        There is no board yet. Take one in a common size, change its measures as you like, then
        stand the pedals on it: leads, lengths and what hits what follow from that.{' '}
        <div className="common-gap-3">{adding}</div>
      </div>
    );
  return <Bench key={board.id} rig={rig} board={board} onBoard={setChosen} adding={adding} />;
}
