'use client';
import { Button } from '@mantine/core';
import { useState } from 'react';
import { freshId } from '../../../core/rig';
import { useDocument, useRig } from '../../store/use-rig';
import { Inside } from './inside';

/**
 * The rack from the front and the rear, what it weighs, where that sits, what heats it, and what is
 * plugged into its panels.
 */
export function RackView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [chosen, setChosen] = useState<string | null>(null);
  const rack = rig.racks?.find((r) => r.id === chosen) ?? rig.racks?.[0];
  const add = () => {
    const id = freshId(
      'rack',
      [...(rig.boards ?? []), ...(rig.racks ?? []), ...rig.devices].map((x) => x.id),
    );
    if (
      edit({
        edit: 'addRack',
        rack: {
          id,
          name: rig.racks?.length ? `Rack ${rig.racks.length + 1}` : 'Rack',
          units: 8,
          depth: 450,
          grams: 8000,
        },
      }).ok
    )
      setChosen(id);
  };
  if (!rack)
    return (
      <div className="empty common-gap-2">
        There is no rack yet. Add one, say how many units it has and how deep it is inside, then
        mount what goes into it.{' '}
        <div className="common-gap-3">
          <Button size="xs" onClick={add}>
            Add a rack
          </Button>
        </div>
      </div>
    );
  return <Inside key={rack.id} rig={rig} rack={rack} onAdd={add} onRack={setChosen} />;
}
