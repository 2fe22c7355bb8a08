'use client';
import { Group, Select, Switch } from '@mantine/core';
import { PLACE_NAMES, placeOf, PLACES } from '../../core/draw';
import { at, sure } from '../../core/outcome';
import { type Device, outletsOf } from '../../core/rig';
import { CommitText } from '../look/commit-text';
import { useDrawn, useRig } from '../store/use-rig';

/** What is kept of a device: where it stands, what feeds it, whose it is. */
export function RecordFields({ device }: { device: Device }) {
  const supplies = useDrawn((rig) =>
    rig.devices.flatMap((d) =>
      (outletsOf(d) ?? []).map((o) => ({
        value: `${d.id} ${o.id}`,
        label: `${d.name}, ${o.label}`,
      })),
    ),
  );
  const edit = useRig((s) => s.edit);
  return (
    <>
      <h3>Record</h3>
      <Group gap={8} align="end" wrap="nowrap">
        <Select
          size="xs"
          label="Stands"
          data={PLACES.map((p) => ({ value: p, label: PLACE_NAMES[p] }))}
          value={placeOf(device)}
          allowDeselect={false}
          disabled={device.host !== undefined}
          onChange={(v) =>
            v &&
            edit({ edit: 'setDevice', device: device.id, place: sure(PLACES.find((p) => p === v)) })
          }
        />
        {supplies.length > 0 && device.host === undefined && (
          <Select
            searchable
            size="xs"
            label="Fed by"
            clearable
            placeholder="not said"
            data={supplies}
            value={device.supply ? `${device.supply.device} ${device.supply.outlet ?? ''}` : null}
            onChange={(v) =>
              edit(
                v
                  ? {
                      edit: 'setDevice',
                      device: device.id,
                      supply: { device: at(v.split(' '), 0), outlet: v.split(' ')[1] },
                    }
                  : { edit: 'unplugPower', device: device.id },
              )
            }
          />
        )}
      </Group>
      <Switch
        size="xs"
        mt={6}
        label="Pinned: proposals leave it where it is"
        checked={device.pinned === true}
        onChange={(e) =>
          edit({ edit: 'setDevice', device: device.id, pinned: e.currentTarget.checked })
        }
      />
      <CommitText
        label="Maker and model"
        value={device.maker}
        onCommit={(maker = '') => edit({ edit: 'setDevice', device: device.id, maker })}
      />
      <CommitText
        label="Notes"
        value={device.notes}
        onCommit={(notes = '') => edit({ edit: 'setDevice', device: device.id, notes })}
      />
    </>
  );
}
