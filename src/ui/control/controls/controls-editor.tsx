'use client';
import { Button, Group } from '@mantine/core';
import { useState } from 'react';
import { allControls } from '../../../core/control';
import { freshId } from '../../../core/rig';
import type { Control } from '../../../core/rig/schema';
import { useDocument, useRig } from '../../store/use-rig';
import { ControlsTable } from './controls-table';
import { OneControl } from './one-control';

/**
 * Controls and what each moves: assignments with their own ends and curve, in all sounds or some;
 * and where they stand in the chosen sound.
 */
export function ControlsEditor() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const controls = rig.controls ?? [];
  const own = allControls(rig).filter((c) => !controls.includes(c));
  const [chosen, setChosen] = useState<string | null>(null);
  const control = controls.find((c) => c.id === chosen) ?? controls[0];
  const add = (type: Control['type']) => {
    const id = freshId(
      type,
      controls.map((c) => c.id),
    );
    const name = `${type === 'switch' ? 'Switch' : 'Pedal'} ${controls.length + 1}`;
    if (
      edit({
        edit: 'addControl',
        control: { id, name, type, ...(type === 'switch' && { action: 'latching' }), assigns: [] },
      }).ok
    )
      setChosen(id);
  };
  return (
    <div className="scroll two-columns">
      <section>
        <h3 className="controls-editor-gap">Controls</h3>
        <ControlsTable controls={controls} own={own} chosen={control} onChoose={setChosen} />
        {controls.length + own.length === 0 && (
          <div className="empty">
            Nothing is moved by a foot yet. Add a switch or a pedal, then say what it moves: one
            switch can bring one level up and another down.
          </div>
        )}
        <Group gap={6} mt={8}>
          <Button size="compact-sm" variant="default" onClick={() => add('switch')}>
            Add a switch
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => add('pedal')}>
            Add a pedal
          </Button>
        </Group>
      </section>
      {control ? (
        <OneControl key={control.id} control={control} />
      ) : (
        <section className="faint">
          Opposite ends on two levels make a swap (on a switch) or a crossfade (on a pedal). What a
          control reaches is under Reach and sweeps.
        </section>
      )}
    </div>
  );
}
