'use client';
import { MultiSelect, Select } from '@mantine/core';
import { useState } from 'react';
import {
  checkCountries,
  COUNTRIES,
  countryOf,
  mainsSums,
  unknownCountries,
  voltsIn,
} from '../../core/build';
import type { CountryCheck } from '../../core/build/mains';
import { kindOf, MAINS_PLUGS } from '../../core/kinds';
import type { MainsNeed } from '../../core/kinds/kind';
import type { Outcome } from '../../core/outcome';
import type { Device } from '../../core/rig';
import type { Rig } from '../../core/rig/schema';
import { allOf, anyOf, fixed } from '../../core/units';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';

const RANGES: { value: string; label: string; volts: [number, number][] }[] = [
  { value: 'world', label: '100 to 240 V', volts: [[100, 240]] },
  { value: 'high', label: '220 to 240 V', volts: [[220, 240]] },
  { value: 'low', label: '110 to 120 V', volts: [[110, 120]] },
  {
    value: 'both',
    label: '115 or 230 V, switched',
    volts: [
      [110, 120],
      [220, 240],
    ],
  },
  { value: 'hundred', label: '100 V', volts: [[100, 100]] },
];
const rangeOf = (volts: [number, number][]) =>
  RANGES.find((r) => JSON.stringify(r.volts) === JSON.stringify(volts))?.value ?? null;

/**
 * What the rig takes from the mains, strip by strip, and what of it does not bear the mains where
 * it plays.
 */
const WRONG_WORDS = {
  over: 'too much',
  under: 'too little',
  hz: 'frequency',
  selector: 'selector not said',
  plug: 'plug',
};

export function MainsPart() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [volts, setVolts] = useState(230);
  const sums = mainsSums(rig, volts);
  const checks = checkCountries(rig);
  const strips = rig.devices.filter((d) => kindOf(d.kind).mainsOutlets);
  const set = (d: Device, change: Partial<NonNullable<Device['mains']>>) =>
    edit({
      edit: 'setDevice',
      device: d.id,
      mains: Object.fromEntries(
        Object.entries({ ...d.mains, ...change }).filter(([, v]) => v !== undefined),
      ),
    });
  const told = [...new Set(COUNTRIES.flatMap(voltsIn))].sort((a, b) => a - b);
  return (
    <section data-mains className="mains-part-gap">
      <h3>Mains</h3>
      <div className="two-wide">
        <div>
          <div className="figures mains-part-row" data-mains-sum>
            <span>
              <strong>{Math.round(sums.watts)} W</strong>, {fixed(sums.amps)} A at
            </span>
            <Select
              searchable={false}
              size="xs"
              w={92}
              aria-label="Volts of the venue"
              allowDeselect={false}
              value={String(volts)}
              data={told.map((v) => ({ value: String(v), label: `${v} V` }))}
              onChange={(v) => v && setVolts(Number(v))}
            />
          </div>
          {sums.strips.map((s) => (
            <p key={s.device.id} className="figures mains-part-text" data-strip-load={s.device.id}>
              <strong>{s.device.name}</strong>: {s.plugs} of {s.outlets} sockets,{' '}
              {Math.round(s.watts)} W, {fixed(s.amps)} of {s.gives} A
              {s.plugs > s.outlets ? <strong> too few sockets</strong> : ''}
              {s.amps > s.gives ? <strong> too much</strong> : ''}
              {s.inrushAmps
                ? `; up to ${s.inrushAmps} A at once when switched on together: one after the other`
                : ''}
            </p>
          ))}
          <table className="sheet-table figures" data-table="mains">
            <thead>
              <tr>
                <th>Device</th>
                <th>W</th>
                <th>Takes</th>
                <th>Plugged into</th>
                <th>Plug</th>
              </tr>
            </thead>
            <tbody>
              {sums.takers.map(({ device: d, need }) => (
                <TakerRow key={d.id} d={d} need={need} set={set} strips={strips} />
              ))}
            </tbody>
          </table>
        </div>
        <div>
          <MultiSelect
            size="xs"
            searchable
            clearable
            label="Where it plays"
            placeholder="country …"
            data={COUNTRIES.map((c) => ({ value: c.code, label: c.name }))}
            value={(rig.tour?.countries ?? []).filter((c) => countryOf(c))}
            onChange={(countries) => edit({ edit: 'setTour', tour: { ...rig.tour, countries } })}
          />
          {checks.length > 0 && <CountryTable checks={checks} />}
          {unknownCountries(rig).length > 0 && (
            <p role="status">
              Nothing is known of the mains in {unknownCountries(rig).join(', ')}.
            </p>
          )}
          <p className="faint common-text-2">
            Nominal values; venues differ, so measure at the socket before anything is plugged in.
            Watts and voltages are typical until you put in those of the plate; a plug that nobody
            has said is held against no socket. Protective earth is never lifted; outdoors behind
            residual-current protection; local electrical codes apply, and inside mains equipment
            only a licensed technician works.
          </p>
        </div>
      </div>
    </section>
  );
}

/** What each country of the tour has, and what does not work there. */
function CountryTable({ checks }: { checks: CountryCheck[] }) {
  return (
    <table className="sheet-table figures common-gap-3" data-table="countries">
      <thead>
        <tr>
          <th>Country</th>
          <th>Mains</th>
          <th>Plugs</th>
          <th>Draws</th>
          <th>Does not bear it</th>
        </tr>
      </thead>
      <tbody>
        {checks.map((c) => (
          <tr key={c.country.code} data-country={c.country.code}>
            <td>{c.country.name}</td>
            <td>
              {anyOf(voltsIn(c.country))} V, {allOf(c.country.hz)} Hz
            </td>
            <td>{c.country.plugs}</td>
            <td>{fixed(c.amps)} A</td>
            <td>
              {c.wrong.length ? (
                <strong>
                  {c.wrong.map((w) => `${w.device.name} (${WRONG_WORDS[w.what]})`).join(', ')}
                </strong>
              ) : (
                'all do'
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** One device on the mains: what it draws, which inlet it has, what feeds it. */
function TakerRow({
  d,
  need,
  set,
  strips,
}: {
  d: Device;
  need: MainsNeed;
  set: (d: Device, change: Partial<NonNullable<Device['mains']>>) => Outcome<Rig>;
  strips: Device[];
}) {
  return (
    <tr data-mains-taker={d.id}>
      <td>
        <strong>{d.name}</strong>
        <div className="faint common-text">
          {allOf(need.hz)} Hz
          {need.inrushAmps ? `, ${need.inrushAmps} A at the start` : ''}
        </div>
      </td>
      <td>
        <CommitNumber
          w={76}
          aria-label={`Watts of ${d.name}`}
          min={0}
          max={20_000}
          value={need.watts}
          onCommit={(watts) => set(d, { watts })}
        />
      </td>
      <td>
        <Select
          size="xs"
          w={168}
          aria-label={`Mains voltage of ${d.name}`}
          allowDeselect={false}
          placeholder={anyOf(need.volts.map((r) => r.join(' to ')))}
          value={rangeOf(need.volts)}
          data={RANGES.map(({ value, label }) => ({ value, label }))}
          onChange={(v) => {
            const r = RANGES.find((x) => x.value === v);
            if (r) set(d, { volts: r.volts, setTo: undefined });
          }}
        />
        {need.volts.length > 1 && (
          <Select
            searchable={false}
            size="xs"
            w={168}
            mt={4}
            clearable
            aria-label={`Voltage selector of ${d.name}`}
            placeholder="set to …"
            value={d.mains?.setTo === undefined ? null : String(d.mains.setTo)}
            data={need.volts.map(([low, high]) => ({
              value: String(Math.round((low + high) / 2)),
              label: `set to ${Math.round((low + high) / 2)} V`,
            }))}
            onChange={(v) => set(d, { setTo: v ? Number(v) : undefined })}
          />
        )}
      </td>
      <td>
        <Select
          searchable
          size="xs"
          w={150}
          clearable
          aria-label={`Mains socket of ${d.name}`}
          placeholder="the wall"
          value={d.mains?.from ?? null}
          data={strips.filter((s) => s.id !== d.id).map((s) => ({ value: s.id, label: s.name }))}
          onChange={(v) => set(d, { from: v ?? undefined })}
        />
      </td>
      <td>
        <Select
          size="xs"
          w={64}
          clearable
          aria-label={`Mains plug of ${d.name}`}
          placeholder="?"
          value={d.mains?.plug ?? null}
          data={[...MAINS_PLUGS]}
          onChange={(plug) => set(d, { plug: plug ?? undefined })}
        />
      </td>
    </tr>
  );
}
