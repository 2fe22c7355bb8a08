import { Select, Switch } from '@mantine/core';
import { loadsOf, needOf, takersOf, voltagesOf } from '../../../core/build';
import { sure } from '../../../core/outcome';
import type { Device } from '../../../core/rig';
import { CommitNumber } from '../../look/commit-number';
import { useDocument, useRig } from '../../store/use-rig';
import { PowerLabel } from './power-label';

/** Every device that takes power: what it takes, and the outlet it hangs on. */
export function TakersTable({ takers }: { takers: ReturnType<typeof takersOf> }) {
  return (
    <table className="sheet-table figures" data-table="takers">
      <thead>
        <tr>
          <th>Device</th>
          <th>Takes, V</th>
          <th>mA</th>
          <th>Plugged into</th>
          <th>Stays</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        {takers.map((t) => (
          <TakerRow key={t.device.id} device={t.device} />
        ))}
      </tbody>
    </table>
  );
}

function TakerRow({ device }: { device: Device }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const need = sure(needOf(device));
  const outlets = loadsOf(rig).flatMap((l) =>
    voltagesOf(l.place.outlet).map((v) => ({
      value: `${l.place.supply.id} ${l.place.outlet.id} ${v}`,
      label:
        `${l.place.supply.name}, ${l.place.outlet.label}` +
        (voltagesOf(l.place.outlet).length > 1 ? `, ${v} V` : ''),
    })),
  );
  const first =
    device.supply &&
    loadsOf(rig).find(
      (l) =>
        l.place.supply.id === sure(device.supply).device &&
        (sure(device.supply).outlet === undefined ||
          l.place.outlet.id === sure(device.supply).outlet),
    );
  const now =
    device.supply && first
      ? `${device.supply.device} ${first.place.outlet.id} ${device.supply.volts ?? first.place.outlet.volts}`
      : null;
  const set = (power: Partial<NonNullable<Device['power']>>) =>
    edit({ edit: 'setDevice', device: device.id, power: { ...device.power, ...power } });
  return (
    <tr data-taker={device.id}>
      <td>
        <strong>{device.name}</strong>
        <div className="faint common-text">
          {[
            need.noisy && 'digital',
            need.sensitive && 'high gain',
            need.positiveGround && 'positive ground',
            need.maxVolts !== undefined &&
              need.maxVolts !== need.volts &&
              `up to ${need.maxVolts} V`,
            need.ac ? 'AC' : `centre ${need.centre ?? 'negative'}`,
          ]
            .filter(Boolean)
            .join(', ')}
        </div>
      </td>
      <td>
        <CommitNumber
          w={62}
          aria-label={`Volts of ${device.name}`}
          min={0.5}
          max={60}
          value={need.volts}
          onCommit={(v) => v !== undefined && set({ volts: v })}
        />
      </td>
      <td>
        <CommitNumber
          w={72}
          aria-label={`Milliamps of ${device.name}`}
          min={1}
          max={20_000}
          value={need.milliamps}
          onCommit={(v) => v !== undefined && set({ milliamps: v })}
        />
      </td>
      <OutletCell device={device} outlets={outlets} now={now} />
      <td>
        <Switch
          size="xs"
          aria-label={`${device.name} stays on its outlet`}
          disabled={!device.supply}
          checked={device.supply?.pinned ?? false}
          onChange={(e) =>
            edit({
              edit: 'setDevice',
              device: device.id,
              supply: { ...sure(device.supply), pinned: e.currentTarget.checked },
            })
          }
        />
      </td>
      <td>
        <PowerLabel device={device} />
      </td>
    </tr>
  );
}

/** Which outlet feeds it. */
function OutletCell({
  device,
  outlets,
  now,
}: {
  device: Device;
  outlets: { value: string; label: string }[];
  now: string | null;
}) {
  const edit = useRig((s) => s.edit);
  return (
    <td>
      <Select
        size="xs"
        w={200}
        searchable
        clearable
        placeholder="no outlet"
        aria-label={`Outlet of ${device.name}`}
        data={outlets}
        value={now}
        onChange={(v) => {
          if (!v) return void edit({ edit: 'unplugPower', device: device.id });
          const [supply, outlet, volts] = v.split(' ');
          edit({
            edit: 'setDevice',
            device: device.id,
            supply: {
              ...device.supply,
              device: sure(supply),
              outlet: sure(outlet),
              volts: Number(volts),
            },
          });
        }}
      />
    </td>
  );
}
