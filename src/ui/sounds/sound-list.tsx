'use client';
import { ActionIcon, Button, Group, Tooltip } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconCopy, IconTrash } from '@tabler/icons-react';
import { cutText, freshId } from '../../core/rig';
import type { Sound } from '../../core/rig/schema';
import { useDocument, useRig } from '../store/use-rig';
import { CommitText } from '../look/commit-text';

/** The sounds of the rig: name, order, copy, notes, remove. Removing can be undone. */
export function SoundList() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const setSound = useRig((s) => s.setSound);
  const ids = rig.sounds.map((s) => s.id);
  const add = () => {
    const id = freshId('sound', ids);
    if (
      edit({ edit: 'addSound', sound: { id, name: `Sound ${rig.sounds.length + 1}`, states: {} } })
        .ok
    )
      setSound(id);
  };
  return (
    <div className="scroll sound-list-box">
      <table className="sheet-table">
        <thead>
          <tr>
            <th>Key</th>
            <th>Name</th>
            <th>Notes</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {rig.sounds.map((s, i) => (
            <SoundRow key={s.id} s={s} i={i} ids={ids} />
          ))}
        </tbody>
      </table>
      <Button mt={10} size="sm" onClick={add}>
        Add a sound
      </Button>
    </div>
  );
}

/** One sound, with what can be done with it. */
function SoundRow({ s, i, ids }: { s: Sound; i: number; ids: string[] }) {
  const current = useRig((s) => s.sound);
  const edit = useRig((s) => s.edit);
  const rig = useDocument();
  return (
    <tr aria-current={s.id === current}>
      <td className="figures">{i < 9 ? i + 1 : i === 9 ? 0 : ''}</td>
      <td>
        <CommitText
          aria-label={`Name of sound ${i + 1}`}
          needed
          value={s.name}
          onCommit={(name = '') => edit({ edit: 'renameSound', sound: s.id, name })}
        />
      </td>
      <td>
        <CommitText
          aria-label={`Notes of ${s.name}`}
          value={s.notes}
          onCommit={(notes = '') => edit({ edit: 'setSoundNotes', sound: s.id, notes })}
        />
      </td>
      <td>
        <Group gap={4} wrap="nowrap">
          <Tooltip label="Up">
            <ActionIcon
              variant="default"
              aria-label={`Move ${s.name} up`}
              disabled={i === 0}
              onClick={() => edit({ edit: 'moveSound', sound: s.id, to: i - 1 })}
            >
              <IconArrowUp size={15} />
            </ActionIcon>
          </Tooltip>
          <Tooltip label="Down">
            <ActionIcon
              variant="default"
              aria-label={`Move ${s.name} down`}
              disabled={i === rig.sounds.length - 1}
              onClick={() => edit({ edit: 'moveSound', sound: s.id, to: i + 1 })}
            >
              <IconArrowDown size={15} />
            </ActionIcon>
          </Tooltip>
          <Tooltip label="Copy">
            <ActionIcon
              variant="default"
              aria-label={`Copy ${s.name}`}
              onClick={() =>
                edit({
                  edit: 'copySound',
                  sound: s.id,
                  id: freshId(s.id, ids),
                  name: `${cutText(s.name, 110)} copy`,
                })
              }
            >
              <IconCopy size={15} />
            </ActionIcon>
          </Tooltip>
          <Tooltip label="Remove (can be undone)">
            <ActionIcon
              variant="default"
              aria-label={`Remove ${s.name}`}
              disabled={rig.sounds.length === 1}
              onClick={() => edit({ edit: 'removeSound', sound: s.id })}
            >
              <IconTrash size={15} />
            </ActionIcon>
          </Tooltip>
        </Group>
      </td>
    </tr>
  );
}
