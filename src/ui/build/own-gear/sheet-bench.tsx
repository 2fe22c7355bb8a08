'use client';
import { Group, Switch } from '@mantine/core';
import { useMemo, useState } from 'react';
import { trySheet } from '../../../core/report/try-sheet';
import { type Device, kindOfSheet, type SettingValue, type Sheet } from '../../../core/rig';
import { showLevel } from '../../../core/units';
import { CommitNumber } from '../../look/commit-number';
import { useRig } from '../../store/use-rig';
import { SettingField } from '../../signal/setting-field';

/** Feeds the box and reads what comes out of each jack, while its controls are turned. */
export function SheetBench({ sheet }: { sheet: Sheet }) {
  const [dbu, setDbu] = useState(-18);
  const [isOn, setOn] = useState(true);
  const [settings, setSettings] = useState<Record<string, SettingValue>>({});
  const unit = useRig((s) => s.units.level);
  const kind = kindOfSheet(sheet);
  const own = useMemo(
    () =>
      Object.fromEntries(
        Object.entries(settings).filter(([id]) => kind.parameters.some((p) => p.id === id)),
      ),
    [settings, kind],
  );
  const read = useMemo(() => trySheet(sheet, dbu, own, isOn), [sheet, dbu, own, isOn]);
  const device: Device = { id: 'bench', kind: kind.id, name: sheet.name, settings: own };
  const level = (v: number | null) => (v === null ? 'nothing' : showLevel(v, unit));
  return (
    <>
      <h3>On the bench</h3>
      <div className="own-gear-bench" data-bench>
        <Group gap={10} align="end">
          <CommitNumber
            w={110}
            label="Into it, dBu"
            min={-60}
            max={20}
            value={dbu}
            onCommit={(v) => setDbu(v ?? -18)}
          />
          <Switch
            size="xs"
            label="engaged"
            checked={isOn}
            onChange={(e) => setOn(e.currentTarget.checked)}
          />
          {kind.parameters.map((p) => (
            <SettingField
              key={p.id}
              parameter={p}
              kind={kind}
              device={device}
              state={undefined}
              onChange={(value) => setSettings({ ...own, [p.id]: value })}
            />
          ))}
        </Group>
        {read.length === 0 && <p>It has no output for sound.</p>}
        {read.map((j) => (
          <p key={j.jack} className="figures" data-bench-jack={j.jack}>
            <strong>{j.label}</strong>: with {level(dbu)} in, {level(j.levelDbu)} out
            {j.hardPercent !== null && `, ${j.hardPercent.toFixed(1)} % saturation picked hard`}
            {j.noiseDbu !== null && `, noise ${level(j.noiseDbu)}`}
            {j.latencyMs !== null && j.latencyMs > 0 && `, ${j.latencyMs.toFixed(1)} ms late`}
          </p>
        ))}
        <p className="faint common-text-2">
          A sine at 1 kHz from 1 kΩ; a 10 kΩ input at each output; loops empty. Hard is 6 dB more.
        </p>
      </div>
    </>
  );
}
