import { Button, Select } from '@mantine/core';
import { useState } from 'react';
import type { Scene } from '../../../core/control/scene';
import type { Stage } from '../../../core/midi';
import type { Rig, Send, Sound } from '../../../core/rig/schema';
import { useRig } from '../../store/use-rig';
import { WrittenTable } from './written-table';

/** What a sender gives for a sound: what follows from the programs, or a list written out by hand. */
export function WrittenList({ rig, stage, scene }: { rig: Rig; stage: Stage; scene: Scene }) {
  const edit = useRig((s) => s.edit);
  const senders = [...stage.orders.graph.devices.values()].filter(
    (m) => (m.commands || m.recalls) && m.sends.some((s) => s === 'program' || s === 'control'),
  );
  const [picked, setPicked] = useState<string | null>(null);
  const sender =
    senders.find((m) => m.device.id === picked) ??
    senders.find((m) => stage.orders.commands(scene).has(m.device.id)) ??
    senders[0];
  const sound: Sound | undefined = rig.sounds.find((s) => s.id === scene.sound.id);
  if (!sender || !sound) return null;
  const id = sender.device.id;
  const written = (sound.sends ?? []).filter((x) => x.from === id);
  const writeOut = () =>
    edit({ edit: 'setSends', sound: sound.id, from: id, sends: followingSends(stage, scene, id) });
  return (
    <>
      <h3>
        What{' '}
        <Select
          searchable
          size="xs"
          w={150}
          className="written-list-select"
          aria-label="Sender"
          data={senders.map((m) => ({ value: m.device.id, label: m.device.name }))}
          value={id}
          allowDeselect={false}
          onChange={setPicked}
        />{' '}
        sends for {sound.name}
      </h3>
      {written.length === 0 ? (
        <p>
          It follows from the programs and settings of what it tells.{' '}
          <Button size="compact-xs" variant="default" onClick={writeOut}>
            Write it out by hand
          </Button>
        </p>
      ) : (
        <WrittenTable sound={sound} from={id} written={written} />
      )}
    </>
  );
}

/** What follows from the programs and settings of what a sender tells, as a list to go on with by hand. */
function followingSends(stage: Stage, scene: Scene, from: string): Send[] {
  return (stage.orders.commands(scene).get(from) ?? []).flatMap(({ to: id, message }): Send[] => {
    const to = id === undefined ? undefined : stage.orders.graph.devices.get(id);
    const head = { from, ...(id && { to: id }) };
    if (message.type === 'program') {
      const bank = to && scene.sound.states[to.device.id]?.program?.bank;
      const { channel, number } = message;
      const banked = bank !== undefined && to?.bank !== 'none' && { bank };
      return [{ ...head, message: { type: 'program', channel, number, ...banked } }];
    }
    if (
      message.type === 'note-on' ||
      message.type === 'note-off' ||
      message.type === 'bend' ||
      message.type === 'pressure'
    )
      return [{ ...head, message: { ...message } }];
    if (message.type !== 'control') return [];
    const { channel, cc, value } = message;
    // Bank selects go with the program that follows them.
    return to?.programs && (cc === 0 || cc === 32)
      ? []
      : [{ ...head, message: { type: 'control', channel, cc, value } }];
  });
}
