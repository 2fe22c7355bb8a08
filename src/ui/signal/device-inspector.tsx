'use client';
import { Button, Group, Select, Switch } from '@mantine/core';
import dynamic from 'next/dynamic';
import { PLACE_NAMES, placeOf, PLACES } from '../../core/draw';
import { type Figure, kindOf } from '../../core/kinds';
import type { Kind } from '../../core/kinds/kind';
import { at, type Outcome, sure } from '../../core/outcome';
import {
  type Device,
  deviceOf,
  jackLabels,
  nameOf,
  outletsOf,
  type SettingValue,
} from '../../core/rig';
import { isEngaged, resolveState, settingOf, stateIn } from '../../core/rig/device-state';
import type { Rig, Sound, State } from '../../core/rig/schema';
import { type StationFigures, touchWord } from '../../core/signal';
import { fixed, showChange, showLevel, withPrefix } from '../../core/units';
import { SeverityMark } from '../look/severity';
import { useDocument, useRig, useSoundReport } from '../store/use-rig';
import { FigureEditor } from './figure-editor';
import { HostPanel, loopHint, MoveButtons } from './host-panel';
import { Knob } from './knob';
import { waysIn, waysOut } from './place-edits';
import { SpeakerPanel } from './speaker-panel';
import { TextSetting } from './text-setting';
import { CommitText } from '../look/commit-text';

/**
 * Everything about one device: its controls in this sound, what it does here, its figures, and what
 * is known against it.
 */
export function DeviceInspector({
  device,
  station,
  onAppend,
  onReplace,
  onRemove,
  onMove,
}: {
  device: Device;
  station?: string;
  onAppend?: () => void;
  onReplace: () => void;
  onRemove: () => void;
  onMove: () => void;
}) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const soundId = useRig((s) => s.sound);
  const report = useSoundReport();
  const allFindings = useRig((s) => s.report.findings);
  const openFindings = useRig((s) => s.openFindings);
  const kind = kindOf(device.kind);
  const sound = rig.sounds.find((s) => s.id === soundId);
  const state = stateIn(sound, device.id);
  const engaged = isEngaged(kind, device, state);
  const passes = report?.stations.filter((s) => s.device === device.id) ?? [];
  const shown = passes.find((s) => s.id === station) ?? passes[0];
  const findings = allFindings.filter(
    (f) => f.subjects.includes(device.id) && f.accepted === undefined,
  );
  const words = kind.stateWords ?? { on: 'engaged', off: 'bypassed' };
  const costs = costFigures(device);
  const set = (setting: string, value: SettingValue) =>
    edit({ edit: 'setSetting', device: device.id, sound: sound?.id, setting, value });
  const ownSetting = (id: string) =>
    state?.settings !== undefined && Object.hasOwn(state.settings, id);
  return (
    <div data-inspector={device.id}>
      <NameField device={device} />
      <div className="faint small-print">
        {kind.name}
        {device.maker ? `, ${device.maker}` : ''}. {kind.about}
      </div>
      {!kind.alwaysOn && (
        <WhereItStands engaged={engaged} words={words} sound={sound} device={device} />
      )}
      {kind.parameters.length > 0 && (
        <>
          <h3>Controls in {sound?.name ?? 'this sound'}</h3>
          <Knobs kind={kind} device={device} state={state} ownSetting={ownSetting} set={set} />
          {state && (
            <Button
              mt={6}
              size="compact-xs"
              variant="default"
              onClick={() => edit({ edit: 'clearState', device: device.id, sound: sound!.id })}
            >
              Follow the device’s own settings here
            </Button>
          )}
          {kind.parameters.some((p) => p.type === 'knob' && !ownSetting(p.id)) && (
            <div className="faint device-inspector-text">
              * the device’s own setting, the same in every sound that says nothing else
            </div>
          )}
        </>
      )}
      {kind.hosts && <HostPanel device={device} />}
      <SpeakerPanel device={device} />
      {shown && <InThisSound station={shown} passes={passes.length} />}
      {kind.job === 'instrument' && <ToneChart pickup={device.id} />}
      {findings.length > 0 && (
        <>
          <h3>Findings</h3>
          {findings.map((f) => (
            <div key={f.key} className="device-inspector-text-2">
              <SeverityMark severity={f.severity} /> {f.what}
            </div>
          ))}
          <Button size="compact-xs" variant="default" onClick={() => openFindings(true)}>
            Open the findings
          </Button>
        </>
      )}
      <h3>Figures</h3>
      {kind.figures.length || costs.length ? (
        <FigureEditor device={device} figures={[...kind.figures, ...costs]} />
      ) : (
        <div className="faint">Metal only: it has no electrical figures of its own.</div>
      )}
      {kind.power && (
        <p className="faint common-text-2">
          Power, typical: {kind.power.volts} V, {kind.power.milliamps} mA.
          {kind.size
            ? ` Size ${kind.size.width} × ${kind.size.depth} × ${kind.size.height} mm.`
            : ''}
        </p>
      )}
      <RecordFields key={`record ${device.id}`} device={device} />
      <DeviceTools
        kind={kind}
        onMove={onMove}
        device={device}
        onAppend={onAppend}
        onReplace={onReplace}
        onRemove={onRemove}
      />
    </div>
  );
}

/** What can be done with the device. */
function DeviceTools({
  kind,
  onMove,
  device,
  onAppend,
  onReplace,
  onRemove,
}: {
  kind: Kind;
  onMove: () => void;
  device: Device;
  onAppend: (() => void) | undefined;
  onReplace: () => void;
  onRemove: () => void;
}) {
  const rig = useDocument();
  return (
    <Group gap={6} mt={10}>
      {kind.through && (
        <Button size="compact-sm" variant="default" onClick={onMove}>
          Move (M)
        </Button>
      )}
      <MoveButtons ways={[...waysOut(rig, device), ...waysIn(rig, device)]} />
      {onAppend && (
        <Button size="compact-sm" variant="default" onClick={onAppend}>
          Add behind (A)
        </Button>
      )}
      <Button size="compact-sm" variant="default" onClick={onReplace}>
        Replace (R)
      </Button>
      <Button size="compact-sm" variant="default" onClick={onRemove}>
        Remove (Del)
      </Button>
    </Group>
  );
}

/** Where the device stands in the rig. */
function WhereItStands({
  engaged,
  words,
  sound,
  device,
}: {
  engaged: boolean;
  words: { on: string; off: string };
  sound: Sound | undefined;
  device: Device;
}) {
  const edit = useRig((s) => s.edit);
  return (
    <Group mt={8} gap={8}>
      <Switch
        label={`${engaged ? words.on : words.off} in ${sound?.name ?? 'this sound'}`}
        checked={engaged}
        onChange={(e) =>
          edit({
            edit: 'setEngaged',
            device: device.id,
            sound: sound?.id,
            engaged: e.currentTarget.checked,
          })
        }
      />
    </Group>
  );
}

/** The knobs of the device in this sound, and the figures behind them. */
function Knobs({
  kind,
  device,
  state,
  ownSetting,
  set,
}: {
  kind: Kind;
  device: Device;
  state: State | undefined;
  ownSetting: (id: string) => boolean;
  set: (setting: string, value: SettingValue) => Outcome<Rig>;
}) {
  const rig = useDocument();
  return (
    <div className="knobs">
      {kind.parameters.map((p) => {
        const value = settingOf(kind, device, state, p.id) ?? p.initial;
        if (p.type === 'knob')
          return (
            <Knob
              key={p.id}
              parameter={p}
              value={Number(value)}
              figure={(f) => resolveState(kind, device, state).figure(f)}
              own={ownSetting(p.id)}
              onChange={(v) => set(p.id, v)}
            />
          );
        if (p.type === 'text')
          return (
            <TextSetting
              key={p.id}
              parameter={p}
              value={String(value)}
              hint={p.role === 'loop order' ? loopHint(rig, device) : undefined}
              onCommit={(v) => set(p.id, v)}
            />
          );
        if (p.type === 'choice')
          return (
            <Select
              key={p.id}
              size="xs"
              label={p.label}
              data={p.options}
              value={String(value)}
              allowDeselect={false}
              onChange={(v) => v && set(p.id, v)}
            />
          );
        return (
          <Switch
            key={p.id}
            size="xs"
            label={p.label}
            checked={value === true}
            onChange={(e) => set(p.id, e.currentTarget.checked)}
          />
        );
      })}
    </div>
  );
}

/**
 * What a block costs inside its host, and what a host has, as figures that can be corrected like
 * any other.
 */
function costFigures(device: Device): Figure[] {
  const kind = kindOf(device.kind);
  const figure = (
    id: string,
    label: string,
    unit: Figure['unit'],
    typical: number,
    max: number,
    reason: string,
  ): Figure => ({ id, label, unit, typical, min: 0, max, reason });
  return [
    ...(kind.block && device.host !== undefined
      ? [
          figure('slots', 'Slots it takes', '', kind.block.slots, 64, 'one for each block'),
          figure(
            'percent',
            'Processing it takes, %',
            '',
            kind.block.percent,
            400,
            'typical for a block of this kind',
          ),
        ]
      : []),
    ...(kind.hosts
      ? [
          figure('slots', 'Slots it has', '', kind.hosts.slots, 256, 'usual for its size'),
          figure('percent', 'Processing it has, %', '', kind.hosts.percent, 1000, 'all of it'),
          figure('paths', 'Paths it has', '', kind.hosts.paths, 16, 'usual for its size'),
        ]
      : []),
  ];
}

function NameField({ device }: { device: Device }) {
  const edit = useRig((s) => s.edit);
  return (
    <CommitText
      size="sm"
      aria-label="Name of the device"
      needed
      value={device.name}
      onCommit={(name) => edit({ edit: 'setDevice', device: device.id, name })}
      styles={{
        input: {
          fontWeight: 700,
          fontSize: 16,
          background: 'var(--tape)',
          color: 'var(--tape-ink)',
          borderColor: 'var(--tape-edge)',
        },
      }}
    />
  );
}

function RecordFields({ device }: { device: Device }) {
  const rig = useDocument();
  const supplies = rig.devices.flatMap((d) =>
    (outletsOf(d) ?? []).map((o) => ({ value: `${d.id} ${o.id}`, label: `${d.name}, ${o.label}` })),
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

// Charts are large; this one is fetched when an instrument is first chosen.
const ToneChart = dynamic(() => import('./tone-chart').then((m) => m.ToneChart), { ssr: false });

/** What one pass does to level, noise, saturation and latency in the chosen sound. */
function InThisSound({ station, passes }: { station: StationFigures; passes: number }) {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  const { input, output } = station;
  const level = (v: number | null | undefined) => showLevel(v ?? null, units.level);
  const delta = (a: number | null | undefined, b: number | null | undefined) =>
    a === null || a === undefined || b === null || b === undefined ? 'none' : showChange(b - a);
  const thd = output.thdPercent;
  return (
    <>
      <h3>
        What it does here
        {passes > 1
          ? ` (pass by ${jackLabels(deviceOf(rig, station.device), station.ins) || 'itself'})`
          : ''}
      </h3>
      <dl className="pairs figures">
        <dt>Level, normal picking</dt>
        <dd>{level(output.levelDbu?.normal)}</dd>
        {input && (
          <>
            <dt>Changes level by</dt>
            <dd>{delta(input.levelDbu?.normal, output.levelDbu?.normal)}</dd>
          </>
        )}
        {station.gainDb !== null && (
          <>
            <dt>Small-signal gain</dt>
            <dd>{showChange(station.gainDb)}</dd>
          </>
        )}
        <dt>Noise</dt>
        <dd>{level(output.noiseDbu)}</dd>
        {input && (
          <>
            <dt>Changes noise by</dt>
            <dd>{delta(input.noiseDbu, output.noiseDbu)}</dd>
          </>
        )}
        <dt>Most of the noise from</dt>
        <dd>{output.noisiest ? nameOf(rig, output.noisiest) : 'none'}</dd>
        {thd && (
          <>
            <dt>Saturation soft / normal / hard</dt>
            <dd>
              {fixed(thd.soft)} / {fixed(thd.normal)} / {fixed(thd.hard)} %
            </dd>
            <dt>That is</dt>
            <dd>
              {touchWord(thd.soft / 100)}, {touchWord(thd.normal / 100)},{' '}
              {touchWord(thd.hard / 100)}
            </dd>
          </>
        )}
        {station.headroomDb !== null && (
          <>
            <dt>Headroom</dt>
            <dd>{fixed(station.headroomDb)} dB</dd>
          </>
        )}
        {input && input.lossDb !== null && (
          <>
            <dt>Lost into its input</dt>
            <dd>
              {fixed(input.lossDb, 2)} dB
              {input.sourceOhms !== null && input.loadOhms !== null
                ? ` (${withPrefix(input.sourceOhms, 'Ω')} into ${withPrefix(input.loadOhms, 'Ω')})`
                : ''}
            </dd>
          </>
        )}
        <dt>Latency so far</dt>
        <dd>
          {fixed(output.latencyMs ?? 0, 2)} ms
          {input && output.latencyMs !== null && input.latencyMs !== null
            ? `, of it ${fixed(output.latencyMs - input.latencyMs, 2)} here`
            : ''}
        </dd>
        <dt>Width</dt>
        <dd>{station.width}</dd>
      </dl>
    </>
  );
}
