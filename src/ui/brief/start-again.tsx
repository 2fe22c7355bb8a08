'use client';
import { Button, Group, Modal } from '@mantine/core';
import type { Brief } from '../../core/rig';
import { MeansFields } from '../start/means-fields';
import { ProposalView } from '../start/proposal';
import { useProposal } from '../start/use-proposal';
import { useDocument, useRig } from '../store/use-rig';
import { howMany } from '../../core/units';

/**
 * A rig made anew from the brief, to be looked at and changed before it takes the place of this one.
 * The old one stays in the history, and undo brings it back.
 */
export function StartAgain({
  brief,
  onBrief,
  onClose,
}: {
  brief: Brief;
  onBrief: (change: Partial<Brief>) => void;
  onClose: () => void;
}) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const { proposed, busy, failed } = useProposal(
    brief,
    {
      id: rig.id,
      name: rig.name,
      otherSchool: Object.entries(rig.order?.stances ?? {})
        .filter(([, s]) => s.stance === 'other')
        .map(([rule]) => rule),
      ...(rig.limits && { limits: rig.limits }),
      ...(rig.sheets && { sheets: rig.sheets }),
    },
    brief.means?.built ?? false,
  );
  return (
    <Modal opened onClose={onClose} size="xl" title="A rig from this brief">
      <MeansFields brief={brief} onMeans={(means) => onBrief({ means })} />
      {!proposed && <p role="status">{failed ?? `Working it out: ${busy?.words ?? ''} …`}</p>}
      {proposed && (
        <ProposalView
          proposed={proposed}
          busy={busy}
          failed={failed}
          onChange={(id, value) =>
            onBrief({
              means: { ...brief.means, changed: { ...brief.means?.changed, [id]: value } },
            })
          }
        />
      )}
      <p className="small-print">
        It takes the place of what is here: {howMany(rig.devices.length, 'device')}. Undo brings
        that back; every revision stays in the history.
      </p>
      <Group gap={8}>
        <Button
          size="xs"
          disabled={!proposed || busy !== null}
          onClick={() =>
            proposed &&
            edit({ edit: 'replaceRig', rig: proposed.rig }, 'started again from the brief').ok &&
            onClose()
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
