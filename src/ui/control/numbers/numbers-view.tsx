'use client';
import { Button } from '@mantine/core';
import { midiDevices, numberingWords } from '../../../core/midi';
import { numberSounds } from '../../../core/songs';
import { useDocument, useRig } from '../../store/use-rig';
import { AddressCell } from './address-cell';
import { Counting } from './counting';
import { NamesFile } from './names-file';
import { Offsets } from './offsets';

/**
 * Where each device keeps each sound: the number on the wire beside what its screen shows; and what
 * a number sent by one becomes on another.
 */
export function NumbersView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const current = useRig((s) => s.sound);
  const devices = [...midiDevices(rig).values()].filter((m) => m.programs);
  if (!devices.length)
    return (
      <div className="empty common-gap-2">
        No device of this rig keeps programs. A loop switcher, a modeler or a delay with MIDI does.
      </div>
    );
  return (
    <div className="scroll common-box-2">
      <table className="sheet-table figures" data-table="numbers">
        <thead>
          <tr>
            <th>Sound</th>
            {devices.map((m) => (
              <th key={m.device.id}>
                {m.device.name}
                <div className="faint numbers-view-text">
                  channel {m.channel}; {numberingWords(m.shows)}
                  {m.bank === 'none'
                    ? ''
                    : `; bank by ${m.bank === 'both' ? 'MSB and LSB' : m.bank.toUpperCase()}`}
                </div>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rig.sounds.map((s) => (
            <tr key={s.id} aria-current={s.id === current}>
              <td>
                <strong>{s.name}</strong>
              </td>
              {devices.map((m) => (
                <td key={m.device.id} data-number={`${m.device.id} ${s.id}`}>
                  <AddressCell m={m} sound={s} address={s.states[m.device.id]?.program} />
                </td>
              ))}
            </tr>
          ))}
          <tr>
            <td className="faint">All at once</td>
            {devices.map((m) => (
              <td key={m.device.id}>
                <Button
                  size="compact-xs"
                  variant="default"
                  onClick={() =>
                    edit(
                      numberSounds(rig, m.device.id),
                      `numbered all sounds on ${m.device.name} from the first on`,
                    )
                  }
                >
                  Number from the first
                </Button>
                <NamesFile m={m} />
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      <Counting devices={devices} />
      <Offsets rig={rig} devices={devices} />
    </div>
  );
}
