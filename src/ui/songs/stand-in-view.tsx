'use client';
import { Button, Select } from '@mantine/core';
import { useState } from 'react';
import { kindOf } from '../../core/kinds';
import { standInsFor } from '../../core/songs';
import { nameOf } from '../../core/rig';
import { useAnswer } from '../look/use-answer';
import { useDocument, useRig } from '../store/use-rig';

/**
 * Another of the family in the place of a device: what is lost by it, and what it does at each
 * destination in the chosen sound.
 */
export function StandInView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const sound = useRig((s) => s.sound);
  const able = rig.devices.filter((d) => standInsFor(d).length > 0);
  const [picked, setPicked] = useState<string | null>(null);
  const device = able.find((d) => d.id === picked) ?? able[0];
  const found = useAnswer('substitutes', device ? { device: device.id, sound } : null);
  if (!device)
    return <div className="empty common-gap-2">Nothing in this rig could be exchanged yet.</div>;
  return (
    <div className="scroll common-box">
      <Select
        size="sm"
        w={320}
        searchable
        label="If this one is missing"
        data={able.map((d) => ({ value: d.id, label: `${d.name}, ${kindOf(d.kind).name}` }))}
        value={device.id}
        allowDeselect={false}
        onChange={setPicked}
      />
      <p className="faint small-print">
        Kinds of the family “{kindOf(device.kind).family}” that do the same job, tried in its place
        in {rig.sounds.find((s) => s.id === sound)?.name}; the nearest in level first. Settings that
        both have are kept.
      </p>
      {found === null ? (
        <p className="faint">Trying …</p>
      ) : found.length === 0 ? (
        <div className="empty">No other kind of this family does this job.</div>
      ) : (
        <table className="sheet-table figures" data-table="substitutes">
          <thead>
            <tr>
              <th>Stands in</th>
              <th>Is lost</th>
              <th>Comes with it</th>
              <th>Where it is heard, it changes</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {found.map((s) => (
              <tr key={s.kind} data-substitute={s.kind}>
                <td>
                  <strong>{s.name}</strong>
                </td>
                <td>{s.lost.join(', ') || 'nothing'}</td>
                <td>{s.gained.join(', ') || 'nothing'}</td>
                <td>
                  {s.changes.length
                    ? s.changes.map((c) => (
                        <div key={c.destination}>
                          {c.destination}: {c.words}
                        </div>
                      ))
                    : 'nothing by more than 0.1 dB'}
                </td>
                <td>
                  <Button
                    size="compact-xs"
                    variant="default"
                    onClick={() =>
                      edit(
                        { edit: 'replaceDevice', device: device.id, kind: s.kind },
                        `let a ${s.name} stand in for ${nameOf(rig, device.id)}`,
                      )
                    }
                  >
                    Put it in
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
