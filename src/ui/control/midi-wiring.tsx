'use client';
import { sure } from '../../core/outcome';
import { Button, Checkbox, Group, Menu, Select } from '@mantine/core';
import { useMemo, useState } from 'react';
import { LEAD_DASH, LEAD_TAGS, midiMap } from '../../core/draw';
import { SEVERITIES, type Severity } from '../../core/findings/finding';
import { settingOf } from '../../core/rig/device-state';
import { isControlJack, kindOf, KINDS, THRUS, type Thru } from '../../core/kinds';
import {
  type MidiDevice,
  midiDevices,
  midiGraph,
  needsOf,
  ordersOf,
  reachIn,
  wantsClock,
} from '../../core/midi';
import {
  type Device,
  deviceOf,
  type Expects,
  freshId,
  jackOf,
  type MidiSetup,
  nameOf,
} from '../../core/rig';
import { allScenes } from '../../core/songs';
import { SeverityMark } from '../look/severity';
import { ConnectForm } from '../signal/wiring-list';
import { useDocument, useRig } from '../store/use-rig';
import { Reception } from './reception';

const THRU_WORDS: Record<Thru, string> = {
  none: 'passes nothing on',
  hardware: 'copies',
  software: 'repeats',
  merged: 'repeats and joins its own',
};

/**
 * How messages are wired: a map, and every device with its channel, thru, clock, what it waits for
 * and who brings it.
 */
export function MidiWiring() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const findings = useRig((s) => s.report.findings);
  const openFindings = useRig((s) => s.openFindings);
  const [picked, setPicked] = useState<string | null>(null);
  const devices = [...midiDevices(rig).values()];
  const orders = useMemo(() => ordersOf(rig, allScenes(rig)), [rig]);
  const wired = devices.filter(
    (m) =>
      rig.leads.some(
        (l) =>
          (l.from.device === m.device.id || l.to.device === m.device.id) &&
          midiGraph(rig).ways.some((w) => w.lead.id === l.id),
      ) ||
      m.device.midi ||
      m.kind.midi!.sends?.length ||
      rig.sounds.some((s) => s.states[m.device.id]?.program),
  );
  const matters = findings.filter(
    (f) => /^(midi|control)-/.test(f.rule) && f.accepted === undefined,
  );
  const worst = (id: string): Severity | undefined =>
    SEVERITIES.find((s) => matters.some((f) => f.severity === s && f.subjects.includes(id)));
  const add = (kind: string, name: string) => {
    const id = freshId(
      name,
      rig.devices.map((d) => d.id),
    );
    if (edit({ edit: 'addDevice', device: { id, kind, name, place: 'floor' } }).ok) setPicked(id);
  };
  return (
    <div className="scroll midi-wiring-box">
      <Group gap={8} mb={6}>
        <Menu>
          <Menu.Target>
            <Button size="compact-sm" variant="default">
              Add a control device
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            {KINDS.filter((k) => k.family === 'Control').map((k) => (
              <Menu.Item key={k.id} onClick={() => add(k.id, k.name)}>
                {k.name}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
        {matters.length > 0 && (
          <button type="button" className="sound" onClick={() => openFindings(true)}>
            {matters.length} {matters.length === 1 ? 'finding' : 'findings'} about control and
            messages
          </button>
        )}
      </Group>
      <Map picked={picked} onPick={setPicked} worst={worst} />
      <table className="sheet-table figures common-gap-3" data-table="midi">
        <thead>
          <tr>
            <th>Device</th>
            <th>Channel</th>
            <th>What comes in, it</th>
            <th>Clock</th>
            <th>Told by</th>
            <th>Waits for</th>
            <th>Reached by</th>
            <th>Answers after</th>
            <th>Sockets</th>
          </tr>
        </thead>
        <tbody>
          {[...wired]
            .sort(
              (a, b) =>
                Number(b.commands) - Number(a.commands) ||
                (a.sends.length ? 0 : 1) - (b.sends.length ? 0 : 1),
            )
            .map((m) => (
              <Row
                key={m.device.id}
                m={m}
                orders={orders}
                severity={worst(m.device.id)}
                current={picked === m.device.id}
                onPick={setPicked}
              />
            ))}
        </tbody>
      </table>
      {wired.length === 0 && (
        <div className="empty">
          No device of this rig is wired for MIDI yet. Connect a MIDI out to a MIDI in below, or add
          a foot controller.
        </div>
      )}
      <ControlLeads />
      <details className="safe-order" open={wired.length === 0}>
        <summary>Connect jacks for messages and controls</summary>
        <div className="midi-wiring-width">
          <ConnectForm rig={rig} only={(j) => isControlJack(j) || j.carriesControl === true} />
        </div>
      </details>
    </div>
  );
}

/** Pedals and switches by the jack that reads them: how each is made, and what the jack expects. */
function ControlLeads() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const leads = rig.leads.filter((l) => l.type === 'control');
  if (!leads.length) return null;
  return (
    <>
      <h3>Pedals and switches on leads</h3>
      <table className="sheet-table figures" data-table="control-leads">
        <thead>
          <tr>
            <th>Pedal or switch</th>
            <th>Is made so</th>
            <th>Goes into</th>
            <th>Which expects</th>
          </tr>
        </thead>
        <tbody>
          {leads.map((l) => {
            const [from, to] = [
              sure(deviceOf(rig, l.from.device)),
              sure(deviceOf(rig, l.to.device)),
            ];
            const jack = jackOf(to, l.to.jack);
            const expects = to.expects?.[l.to.jack];
            const reads = jack?.reads && { ...jack.reads, ...expects };
            const set = (change: Expects) =>
              edit({
                edit: 'setExpects',
                device: to.id,
                jack: l.to.jack,
                expects: { ...expects, ...change },
              });
            const made = kindOf(from.kind).parameters.filter(
              (p) => p.role === 'wiper' || p.role === 'action' || p.role === 'contact',
            );
            return (
              <tr key={l.id} data-control-lead={l.id}>
                <td>
                  <strong>{from.name}</strong>
                </td>
                <td>
                  <Group gap={6}>
                    {made.map(
                      (p) =>
                        p.type === 'choice' && (
                          <Select
                            key={p.id}
                            size="xs"
                            w={112}
                            aria-label={`${p.label} of ${from.name}`}
                            data={p.options}
                            value={String(settingOf(kindOf(from.kind), from, undefined, p.id))}
                            allowDeselect={false}
                            onChange={(v) =>
                              v &&
                              edit({ edit: 'setSetting', device: from.id, setting: p.id, value: v })
                            }
                          />
                        ),
                    )}
                  </Group>
                </td>
                <td>
                  {to.name}, {jack?.label}
                </td>
                <td>
                  <Group gap={6}>
                    {reads?.what === 'expression' ? (
                      <Select
                        size="xs"
                        w={130}
                        aria-label={`Wiper that ${to.name} expects`}
                        data={[
                          { value: 'tip', label: 'wiper on the tip' },
                          { value: 'ring', label: 'wiper on the ring' },
                        ]}
                        value={reads.wiper ?? null}
                        onChange={(v) => v && set({ wiper: v })}
                      />
                    ) : (
                      reads && (
                        <>
                          <Select
                            size="xs"
                            w={120}
                            aria-label={`Action that ${to.name} expects`}
                            data={['momentary', 'latching', 'any']}
                            value={reads.action ?? 'any'}
                            allowDeselect={false}
                            onChange={(v) => v && set({ action: v })}
                          />
                          <Select
                            size="xs"
                            w={130}
                            aria-label={`Contact that ${to.name} expects`}
                            data={[
                              { value: 'open', label: 'open at rest' },
                              { value: 'closed', label: 'closed at rest' },
                              { value: 'any', label: 'either' },
                            ]}
                            value={reads.contact ?? 'any'}
                            allowDeselect={false}
                            onChange={(v) => v && set({ contact: v })}
                          />
                        </>
                      )
                    )}
                  </Group>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

function Map({
  picked,
  onPick,
  worst,
}: {
  picked: string | null;
  onPick: (id: string) => void;
  worst: (id: string) => Severity | undefined;
}) {
  const rig = useDocument();
  const map = useMemo(() => midiMap(rig), [rig]);
  if (!map.boxes.length) return null;
  return (
    <svg
      className="wiring midi-map map-box"
      viewBox={`0 0 ${map.width} ${map.height}`}
      style={{ width: Math.min(map.width, 1240) }}
      role="img"
      aria-label={`${map.boxes.length} devices joined by ${map.lines.length} leads for messages and controls`}
    >
      {map.lines.map(({ lead, d, tag, broken, from, to }) => (
        <g key={lead.id} data-way={lead.id} data-broken={broken}>
          <title>
            {`${nameOf(rig, lead.from.device)}, ${from} ` +
              `to ${nameOf(rig, lead.to.device)}, ${to}${broken ? ': carries nothing' : ''}`}
          </title>
          <path
            d={d}
            fill="none"
            stroke={broken ? 'var(--fault)' : 'var(--ink)'}
            strokeWidth={broken ? 2.4 : 1.6}
            strokeDasharray={LEAD_DASH[lead.type]}
            markerEnd="url(#arrow)"
          />
          <text className="waytag" x={tag.x} y={tag.y - 4} textAnchor="middle">
            {broken ? '✕ ' : ''}
            {LEAD_TAGS[lead.type]}
          </text>
        </g>
      ))}
      <defs>
        <marker
          id="arrow"
          viewBox="0 0 8 8"
          refX="7"
          refY="4"
          markerWidth="7"
          markerHeight="7"
          orient="auto"
        >
          <path d="M0 0 L8 4 L0 8 z" fill="var(--ink)" />
        </marker>
      </defs>
      {map.boxes.map(({ device, x, y, width, height }) => {
        const severity = worst(device.id);
        return (
          <g
            key={device.id}
            className="box"
            data-on={picked === device.id}
            tabIndex={0}
            role="button"
            aria-label={device.name}
            onClick={() => onPick(device.id)}
            onKeyDown={(e) => e.key === 'Enter' && onPick(device.id)}
          >
            <rect x={x} y={y} width={width} height={height} rx={2} />
            <foreignObject x={x + 2} y={y + 2} width={width - 4} height={height - 4}>
              <div className="boxname map-columns">
                {device.name}
                {severity && (
                  <span className="map-span">
                    <SeverityMark severity={severity} quiet />
                  </span>
                )}
              </div>
            </foreignObject>
          </g>
        );
      })}
    </svg>
  );
}

function Row({
  m,
  orders,
  severity,
  current,
  onPick,
}: {
  m: MidiDevice;
  orders: ReturnType<typeof ordersOf>;
  severity: Severity | undefined;
  current: boolean;
  onPick: (id: string) => void;
}) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const device: Device = m.device;
  const set = (change: Partial<MidiSetup>) =>
    edit({ edit: 'setMidi', device: device.id, midi: { ...device.midi, ...change } });
  const needs = needsOf(orders, m);
  const by = [...orders.graph.devices.values()].filter(
    (s) =>
      s.sends.length &&
      s.device.id !== device.id &&
      reachIn(orders.graph, s.device.id).has(device.id),
  );
  const thrus = m.kind.midi!.thrus;
  const midiJack = m.kind.jacks.find((j) => j.midi);
  const listens = m.programs || m.mapped.length > 0 || m.kind.midi!.clock;
  return (
    <tr data-midi={device.id} aria-current={current} onClick={() => onPick(device.id)}>
      <td>
        <strong>{device.name}</strong> {severity && <SeverityMark severity={severity} />}
        <div className="faint common-text">{m.kind.name}</div>
      </td>
      <td>
        {listens ? (
          <Select
            size="xs"
            w={76}
            aria-label={`Channel of ${device.name}`}
            data={[...Array.from({ length: 16 }, (_, i) => String(i + 1)), 'all']}
            value={String(m.channel)}
            allowDeselect={false}
            onChange={(v) => v && set({ channel: v === 'all' ? 'all' : Number(v) })}
          />
        ) : (
          <span className="faint">–</span>
        )}
      </td>
      <td>
        {m.kind.jacks.some((j) => j.midi === 'out' || j.usb) && thrus.length > 1 ? (
          <Select
            size="xs"
            w={190}
            aria-label={`Thru of ${device.name}`}
            data={THRUS.filter((t) => thrus.includes(t)).map((t) => ({
              value: t,
              label: THRU_WORDS[t],
            }))}
            value={m.thru}
            allowDeselect={false}
            onChange={(v) => v && set({ thru: v })}
          />
        ) : (
          THRU_WORDS[m.thru]
        )}
      </td>
      <td>
        {m.kind.midi!.clock || m.sends.includes('clock') ? (
          <Select
            size="xs"
            w={104}
            aria-label={`Clock of ${device.name}`}
            data={[
              ...(m.sends.includes('clock') ? [{ value: 'send', label: 'leads' }] : []),
              ...(m.kind.midi!.clock ? [{ value: 'follow', label: 'follows' }] : []),
              { value: 'ignore', label: 'ignores it' },
            ]}
            value={m.clock}
            allowDeselect={false}
            onChange={(v) => v && set({ clock: v as MidiSetup['clock'] })}
          />
        ) : (
          <span className="faint">–</span>
        )}
      </td>
      <td>
        {listens ? (
          <Select
            size="xs"
            w={140}
            aria-label={`Who tells ${device.name}`}
            clearable
            placeholder={
              orders.commanderOf.has(device.id)
                ? `${nameOf(rig, sure(orders.commanderOf.get(device.id)))} (nearest)`
                : 'nobody'
            }
            data={by
              .filter((s) => s.commands || s.recalls)
              .map((s) => ({ value: s.device.id, label: s.device.name }))}
            value={device.midi?.commander ?? null}
            onChange={(v) => set({ commander: v ?? undefined })}
          />
        ) : (
          <span className="faint">–</span>
        )}
      </td>
      <td>
        {needs.join(', ') || <span className="faint">nothing</span>}
        {wantsClock(m) && device.tempo ? (
          <span className="faint"> ({device.tempo.division ?? 'quarter'})</span>
        ) : null}
      </td>
      <td>{by.map((s) => s.device.name).join(', ') || <span className="faint">nobody</span>}</td>
      <td>
        {m.programs
          ? `${m.programMs} ms program${m.gapMs ? `, ${m.gapMs} ms of it silent` : ''}`
          : ''}
        {m.mapped.length ? `${m.programs ? '; ' : ''}${m.controlMs} ms control` : ''}
        {m.reports ? <div className="faint common-text">reports back</div> : null}
        {listens && (
          <div>
            <Reception m={m} />
          </div>
        )}
      </td>
      <td>
        {midiJack ? (
          <Select
            size="xs"
            w={92}
            aria-label={`Sockets of ${device.name}`}
            data={[
              { value: 'DIN', label: 'DIN' },
              { value: 'TRS-A', label: 'TRS A' },
              { value: 'TRS-B', label: 'TRS B' },
            ]}
            value={device.midi?.socket ?? midiJack.connector}
            allowDeselect={false}
            onChange={(v) => v && set({ socket: v as MidiSetup['socket'] })}
          />
        ) : (
          <span className="faint">USB</span>
        )}
        {m.sends.some((s) => s === 'program' || s === 'control') && midiJack && (
          <Checkbox
            size="xs"
            mt={4}
            label="running status"
            checked={m.runningStatus}
            onChange={(e) => set({ runningStatus: e.currentTarget.checked })}
          />
        )}
      </td>
    </tr>
  );
}
