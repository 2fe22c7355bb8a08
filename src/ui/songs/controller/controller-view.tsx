'use client';
import { Button, Group } from '@mantine/core';
import { freshId } from '../../../core/rig';
import type { Candidate } from '../../../core/rig/schema';
import { controllerNeeds, judge } from '../../../core/songs';
import { useDocument, useRig } from '../../store/use-rig';
import { CandidatesTable } from './candidates-table';
import { NeedsList } from './needs-list';
import { Pages } from './pages';
import { Wants } from './wants';

/**
 * What a foot controller has to do for this rig and these songs, candidates held against it, and
 * pages of switches with labels at true size.
 */
export function ControllerView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const candidates = rig.candidates ?? [];
  const needs = controllerNeeds(rig);
  const judged = candidates.map((c) => judge(rig, needs, c));
  const save = (list: Candidate[], words?: string) =>
    edit({ edit: 'setCandidates', candidates: list }, words);
  return (
    <div className="scroll common-box">
      <NeedsList needs={needs} />
      <Wants />
      <Group gap={8} mt={6} align="end" className="no-print">
        <Button
          size="xs"
          variant="default"
          onClick={() =>
            save(
              [
                ...candidates,
                {
                  id: freshId(
                    'controller',
                    candidates.map((c) => c.id),
                  ),
                  name: `Controller ${candidates.length + 1}`,
                  switches: 8,
                  pedals: 0,
                  pedalJacks: 1,
                  sends: ['program', 'control'],
                  twoWay: false,
                  labels: 'tape',
                },
              ],
              'added a controller to compare',
            )
          }
        >
          Add a candidate
        </Button>
      </Group>
      {candidates.length === 0 ? (
        <div className="empty common-gap-3">
          Enter the controllers you could get, as their sheets describe them; each is held against
          what is needed.
        </div>
      ) : (
        <CandidatesTable candidates={candidates} judged={judged} onSave={save} />
      )}
      <Pages />
    </div>
  );
}
