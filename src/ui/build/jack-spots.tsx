'use client';
import { Button, Group, Modal } from '@mantine/core';
import { useState } from 'react';
import { sizeOf, spotsOf } from '../../core/build';
import { sure } from '../../core/outcome';
import type { Device, Edge } from '../../core/rig';
import { useDocument, useRig } from '../store/use-rig';
import { longOn, SpotTable } from './spot-table';

/** Where the jacks of this very box are: plugs, clearances and ways follow. */
export function JackSpots({ device }: { device: Device }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [open, setOpen] = useState(false);
  const size = sure(sizeOf(device) ?? undefined);
  const spots = spotsOf(device);
  const plugged = (jack: string) =>
    rig.leads.some((l) => [l.from, l.to].some((e) => e.device === device.id && e.jack === jack));
  const set = (spot: Record<string, { edge: Edge; mm: number }>) =>
    void edit({
      edit: 'setDevice',
      device: device.id,
      jackSpots: { ...device.jackSpots, ...spot },
    });
  const allAt = (edge: Edge) =>
    set(
      Object.fromEntries(
        spots.map((s, i) => [
          s.jack.id,
          { edge, mm: Math.round((longOn(size, edge) * (i + 1)) / (spots.length + 1)) },
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
        <SpotTable spots={spots} size={size} plugged={plugged} onSet={set} />
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
