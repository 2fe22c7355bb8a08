'use client';
import { Button, Group, Modal } from '@mantine/core';
import { useMemo } from 'react';
import { at, sure } from '../../core/outcome';
import { analyse, settled } from '../../core/report';
import type { Brief } from '../../core/rig';
import type { Rig } from '../../core/rig/schema';
import { proposeRig } from '../../core/start';
import { WhatIsHeard } from '../look/what-is-heard';
import { useDocument, useRig } from '../store/use-rig';

/**
 * A rig made anew from the brief, to be looked at before it takes the place of this one. The old
 * one stays in the history, and undo brings it back.
 */
export function StartAgain({ brief, onClose }: { brief: Brief; onClose: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const made: Rig = useMemo(
    () =>
      settled(
        proposeRig(brief, {
          id: rig.id,
          name: rig.name,
          otherSchool: Object.entries(rig.order?.stances ?? {})
            .filter(([, s]) => s.stance === 'other')
            .map(([rule]) => rule),
        }),
      ),
    [brief, rig],
  );
  const report = useMemo(() => analyse(made), [made]);
  const first = at(report.sounds, 0);
  return (
    <Modal opened onClose={onClose} size="xl" title="A rig from this brief">
      <ol data-list="proposal" className="start-again-ol">
        {[...first.stations]
          .sort((a, b) => a.column - b.column || a.lane - b.lane)
          .map((s) => (
            <li key={s.id}>
              {sure(made.devices.find((d) => d.id === s.device)).name}
              {s.id.includes(':') ? `, by its ${s.id.split(':')[1]}` : ''}
            </li>
          ))}
      </ol>
      <WhatIsHeard report={report} rig={made} />
      <p className="small-print">
        It takes the place of the {rig.devices.length} devices that are here. Undo brings them back;
        every revision stays in the history.
      </p>
      <Group gap={8}>
        <Button
          size="xs"
          onClick={() =>
            edit({ edit: 'replaceRig', rig: made }, 'started again from the brief').ok && onClose()
          }
        >
          Take this rig
        </Button>
        <Button size="xs" variant="default" onClick={onClose}>
          Leave it as it is
        </Button>
      </Group>
    </Modal>
  );
}
