'use client';
import { sure } from '../../../core/outcome';
import { useMemo, useState } from 'react';
import { SEVERITIES, type Severity } from '../../../core/findings/finding';
import { isControlJack } from '../../../core/kinds';
import { midiDevices } from '../../../core/midi';
import { ordersOf } from '../../../core/midi/commands';
import { midiGraph } from '../../../core/midi/graph';
import type { MidiDevice } from '../../../core/midi/setup';
import type { Rig } from '../../../core/rig/schema';
import { allScenes } from '../../../core/songs';
import { ConnectForm } from '../../signal/wiring-list';
import { useDocument, useRig } from '../../store/use-rig';
import { ControlLeads } from './control-leads';
import { WiringMap } from './wiring-map';
import { WiringRow } from './wiring-row';
import { WiringTools } from './wiring-tools';

/**
 * How messages are wired: a map, and every device with its channel, thru, clock, what it waits for
 * and who brings it.
 */
export function MidiWiring() {
  const rig = useDocument();
  const findings = useRig((s) => s.report.findings);
  const [picked, setPicked] = useState<string | null>(null);
  const orders = useMemo(() => ordersOf(rig, allScenes(rig)), [rig]);
  const wired = wiredFirst(rig);
  const matters = findings.filter(
    (f) => /^(midi|control)-/.test(f.rule) && f.accepted === undefined,
  );
  const worst = (id: string): Severity | undefined =>
    SEVERITIES.find((s) => matters.some((f) => f.severity === s && f.subjects.includes(id)));
  return (
    <div className="scroll midi-wiring-box">
      <WiringTools matters={matters.length} onAdded={setPicked} />
      <WiringMap picked={picked} onPick={setPicked} worst={worst} />
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
          {wired.map((m) => (
            <WiringRow
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

/** The devices that messages concern: senders of commands first, then other senders. */
function wiredFirst(rig: Rig): MidiDevice[] {
  const { ways } = midiGraph(rig);
  const joined = new Set(ways.flatMap(({ lead }) => [lead.from.device, lead.to.device]));
  return [...midiDevices(rig).values()]
    .filter(
      (m) =>
        joined.has(m.device.id) ||
        m.device.midi ||
        sure(m.kind.midi).sends?.length ||
        rig.sounds.some((s) => s.states[m.device.id]?.program),
    )
    .sort(
      (a, b) =>
        Number(b.commands) - Number(a.commands) ||
        (a.sends.length ? 0 : 1) - (b.sends.length ? 0 : 1),
    );
}
