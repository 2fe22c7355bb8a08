'use client';
import { Button, Group } from '@mantine/core';
import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import type { Outcome } from '../../core/outcome';
import { type Brief, freshId, type Rig } from '../../core/rig';
import { briefOf, briefState } from '../../core/start';
import { laterPart } from '../look/later';
import { useDocument, useRig } from '../store/use-rig';
import { Budget } from './budget';
import { Promises } from './promises';
import { Destinations, GearOnHand, Instruments, Nevers, SoundsWanted } from './brief-lists';

const StartAgain = dynamic(
  laterPart('start again', () => import('./start-again').then((m) => m.StartAgain)),
  { ssr: false },
);

const EMPTY: Brief = { sources: [], destinations: [], sounds: [], gear: [], never: [] };

/** What is asked of the rig, line by line, each held against what is there; and what it must keep. */
export function BriefView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const brief = rig.brief ?? EMPTY;
  const state = useMemo(() => briefState(rig, brief), [rig, brief]);
  const [starting, setStarting] = useState(false);
  const set = (change: Partial<Brief>) =>
    edit({ edit: 'setBrief', brief: { ...brief, ...change } });
  const id = (name: string) =>
    freshId(
      name,
      [
        ...brief.sources,
        ...brief.destinations,
        ...brief.sounds,
        ...brief.gear,
        ...(brief.never ?? []),
      ].map((x) => x.id),
    );
  const isEmpty =
    !brief.sources.length &&
    !brief.destinations.length &&
    !brief.sounds.length &&
    !brief.gear.length;
  const addDevice = (kind: string, name: string) =>
    edit({
      edit: 'addDevice',
      device: {
        id: freshId(
          name,
          rig.devices.map((d) => d.id),
        ),
        kind,
        name,
      },
    });
  const can = brief.sources.length > 0 && brief.destinations.length > 0 && brief.sounds.length > 0;
  return (
    <div className="scroll">
      <div className="brief">
        <div>
          {isEmpty && <NoBrief set={set} />}
          <Instruments set={set} brief={brief} id={id} state={state} addDevice={addDevice} />
          <Destinations set={set} brief={brief} id={id} state={state} />
          <SoundsWanted set={set} brief={brief} id={id} state={state} />
          <GearOnHand set={set} brief={brief} id={id} state={state} addDevice={addDevice} />
          <Group mt={12} gap={8}>
            <Button size="xs" variant="default" disabled={!can} onClick={() => setStarting(true)}>
              Propose a rig from this brief …
            </Button>
            {!can && (
              <span className="faint small-print">
                It needs an instrument, a destination and a sound.
              </span>
            )}
          </Group>
        </div>
        <div>
          <Promises />
          <Budget />
          <Nevers set={set} brief={brief} id={id} />
        </div>
      </div>
      {starting && <StartAgain brief={brief} onBrief={set} onClose={() => setStarting(false)} />}
    </div>
  );
}

/** Said while the brief is empty: it can be read from the rig. */
function NoBrief({ set }: { set: (change: Partial<Brief>) => Outcome<Rig> }) {
  const rig = useDocument();
  return (
    <div className="empty brief-view-gap">
      No brief yet. Write down who plays what, who must hear it and which sounds are wanted; or read
      it from the rig as it is.{' '}
      <Button size="compact-xs" ml={6} onClick={() => set(briefOf(rig))}>
        Read it from the rig
      </Button>
    </div>
  );
}
