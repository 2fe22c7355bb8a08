'use client';
import { sure } from '../../core/outcome';
import { Button, Group, NumberInput, Select, Switch } from '@mantine/core';
import { useState } from 'react';
import {
  HEADROOM,
  loadsOf,
  needOf,
  powerLeadsByPlugs,
  takersOf,
  unfed,
  voltagesOf,
} from '../../core/build';
import { type Device, nameOf, outletsOf } from '../../core/rig';
import { showLength } from '../../core/units';
import { save } from '../look/save-file';
import { useWorking } from '../look/use-working';
import { useDocument, useRig } from '../store/use-rig';
import { CommitNumber } from '../look/commit-number';
import { MainsPart } from './mains-part';
import { PowerLabel, SupplyOutlets } from './power-forms';

/** Outlets and what hangs on them, what each device takes, and a plan that gives outlets out exactly. */
export function PowerView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const setNotice = useRig((s) => s.setNotice);
  const [spare, setSpare] = useState<number | string>(HEADROOM * 100);
  const headroom = Math.min(200, Math.max(0, Number(spare) || 0)) / 100;
  const { work, start, clear } = useWorking('power');
  const [asked, setAsked] = useState<unknown>(null);
  const loads = loadsOf(rig, headroom);
  const takers = takersOf(rig);
  const without = unfed(rig);
  const write = () =>
    import('../../core/formats').then(
      (f) => save(`${rig.id}-power.csv`, f.powerPlanCsv(rig), 'text/csv;charset=utf-8'),
      (e: unknown) =>
        setNotice(`The file could not be written: ${e instanceof Error ? e.message : String(e)}.`),
    );
  const plan = work.state === 'done' ? work.answer : null;
  return (
    <div className="scroll power-view-box" data-place="power">
      <Group gap={10} align="end">
        <NumberInput
          size="xs"
          w={130}
          label="Headroom, % of load"
          min={0}
          max={200}
          value={spare}
          onChange={setSpare}
        />
        <Button
          size="xs"
          disabled={work.state === 'working'}
          onClick={() => {
            setAsked(rig);
            start({ rig, headroom });
          }}
        >
          Plan the outlets
        </Button>
        <Button size="xs" variant="default" onClick={() => void write()}>
          As CSV
        </Button>
        <span className="small-print" data-power-sum>
          {takers.length} devices take {takers.reduce((s, t) => s + t.need.milliamps, 0)} mA;{' '}
          {without.length
            ? `${without.length} ${without.length === 1 ? 'has' : 'have'} no outlet`
            : 'each has an outlet'}
          .
        </span>
      </Group>
      {work.state === 'working' && <p role="status">Working it out …</p>}
      {work.state === 'failed' && (
        <p role="alert">It stopped: {work.why}. Nothing was changed; try again.</p>
      )}
      {plan !== null && (
        <section className="verdict common-gap-6" data-plan>
          {typeof plan === 'string' ? (
            plan
          ) : asked !== rig ? (
            'The rig has changed since. Plan again before you take it.'
          ) : (
            <>
              <strong>
                {plan.fed.length} of {plan.fed.length + plan.starved.length} devices can be fed
                {plan.shared ? `, ${plan.shared} of them sharing an outlet` : ''}; {plan.moved}{' '}
                plugs move.
              </strong>
              {plan.starved.length > 0 && (
                <ul>
                  {plan.starved.map((s) => (
                    <li key={s.device}>
                      <strong>{nameOf(rig, s.device)}</strong> gets nothing: {s.why}
                      {s.shortMilliamps ? `, ${s.shortMilliamps} mA short` : ''}. It takes {s.cure}.
                    </li>
                  ))}
                </ul>
              )}
              <Group gap={6} mt={4}>
                <Button
                  size="compact-sm"
                  disabled={!plan.edits.length}
                  onClick={() => {
                    if (edit(plan.edits, 'gave out the outlets as planned').ok) clear();
                  }}
                >
                  {plan.edits.length ? 'Plug it so' : 'It is plugged so already'}
                </Button>
                <Button size="compact-sm" variant="default" onClick={clear}>
                  Leave it
                </Button>
              </Group>
            </>
          )}
        </section>
      )}
      <div className="power-view-columns">
        <section>
          <Group gap={8}>
            <h3>Outlets</h3>
            {rig.devices
              .filter((d) => outletsOf(d))
              .map((d) => (
                <SupplyOutlets key={d.id} supply={d} />
              ))}
          </Group>
          {loads.length === 0 ? (
            <div className="empty">
              There is no supply in this rig. Add one from the palette (Ctrl K, “supply”); then
              outlets can be given out.
            </div>
          ) : (
            <table className="sheet-table figures" data-table="outlets">
              <thead>
                <tr>
                  <th>Supply, outlet</th>
                  <th>Gives</th>
                  <th>Feeds</th>
                  <th>Load</th>
                </tr>
              </thead>
              <tbody>
                {loads.map((l) => {
                  const share = (100 * l.milliamps) / l.place.outlet.milliamps;
                  return (
                    <tr
                      key={`${l.place.supply.id} ${l.place.outlet.id}`}
                      data-outlet={`${l.place.supply.id} ${l.place.outlet.id}`}
                    >
                      <td>
                        {l.place.supply.name}, <strong>{l.place.outlet.label}</strong>
                        <div className="faint common-text">
                          {l.place.outlet.isolated ? 'isolated' : 'shared return'}
                        </div>
                      </td>
                      <td>
                        {l.volts} V{l.place.outlet.ac ? ' AC' : ''}, {l.place.outlet.milliamps} mA
                        {l.place.outlet.centre === 'positive' && (
                          <div className="faint common-text">centre positive</div>
                        )}
                      </td>
                      <td>
                        {l.takers.map((t) => t.device.name).join(', ') || (
                          <span className="faint">nothing</span>
                        )}
                      </td>
                      <td>
                        <div
                          className="loadbar"
                          role="img"
                          aria-label={`${Math.round(share)} % of the outlet`}
                        >
                          <span
                            style={{ width: `${Math.min(100, share)}%` }}
                            data-over={l.room < 0}
                          />
                        </div>
                        {l.milliamps} mA
                        {l.room < 0 && l.takers.length > 0 && (
                          <strong>
                            {' '}
                            {l.milliamps > l.place.outlet.milliamps ? 'too much' : 'no headroom'}
                          </strong>
                        )}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          )}
        </section>
        <section>
          <h3>Devices</h3>
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
        </section>
      </div>
      <PowerLeads />
      <MainsPart />
      <p className="faint common-text-2">
        The plan is exact: voltage or range, AC or DC, polarity, current with headroom, a supply’s
        total; digital apart from high gain and positive ground from all others, on an outlet and on
        a shared return. Figures are typical until you put in those of the label. Supplies and
        mains: what their makers say, local electrical codes and licensed practice come first.
      </p>
    </div>
  );
}

/** The low-voltage leads to bring: which plugs, how long, to what. */
function PowerLeads() {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  const groups = powerLeadsByPlugs(rig);
  if (!groups.length) return null;
  return (
    <section data-power-leads>
      <h3>Power leads</h3>
      <ul className="figures power-leads-text">
        {groups.map(({ plugs, leads }) => (
          <li key={plugs}>
            <strong>{leads.length}</strong> {plugs}:{' '}
            {leads
              .map(
                (l) =>
                  `${l.device.name}${l.metres === null ? '' : ` ${showLength(l.metres, units.length)}`}`,
              )
              .join(', ')}
          </li>
        ))}
      </ul>
    </section>
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
        l.place.supply.id === device.supply!.device &&
        (device.supply!.outlet === undefined || l.place.outlet.id === device.supply!.outlet),
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
              supply: { ...device.supply, device: supply!, outlet: outlet!, volts: Number(volts) },
            });
          }}
        />
      </td>
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
              supply: { ...device.supply!, pinned: e.currentTarget.checked },
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
