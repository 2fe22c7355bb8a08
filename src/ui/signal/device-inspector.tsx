'use client';
import { Button, Group } from '@mantine/core';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { kindOf } from '../../core/kinds';
import type { Kind } from '../../core/kinds/kind';
import { type Device, sheetIdOf } from '../../core/rig';
import { deviceOf } from '../../core/rig/find';
import { pathOf } from '../frame/place-list';
import { CommitText } from '../look/commit-text';
import { SeverityMark } from '../look/severity';
import { useDrawn, useRig, useSoundReport } from '../store/use-rig';
import { ControlsHere } from './device-controls';
import { RecordFields } from './device-record';
import { FigureEditor } from './figure-editor';
import { HostPanel, MoveButtons } from './host-panel';
import { LoopsPanel, PlaceSteps } from './loops-panel';
import { InThisSound } from './in-this-sound';
import { waysIn, waysOut } from './place-edits';
import { SpeakerPanel } from './speaker-panel';
import type { Picking } from './view/use-signal-keys';

// Charts are large; this one is fetched when an instrument is first chosen.
const ToneChart = dynamic(() => import('./tone-chart').then((m) => m.ToneChart), { ssr: false });

/**
 * Everything about one device: its controls in this sound, what it does here, its figures, and what
 * is known against it.
 */
export function DeviceInspector({
  device,
  station,
  canAppend,
  onPick,
  onRemove,
  onMove,
}: Pick<Tools, 'canAppend' | 'onPick' | 'onRemove' | 'onMove'> & {
  device: Device;
  station?: string;
}) {
  const report = useSoundReport();
  const allFindings = useRig((s) => s.report.findings);
  const openFindings = useRig((s) => s.openFindings);
  const kind = kindOf(device.kind);
  const passes = report?.stations.filter((s) => s.device === device.id) ?? [];
  const shown = passes.find((s) => s.id === station) ?? passes[0];
  const findings = allFindings.filter(
    (f) => f.subjects.includes(device.id) && f.accepted === undefined,
  );
  return (
    <div data-inspector={device.id}>
      <NameField device={device} />
      <div className="faint small-print">
        {kind.name}
        {device.maker ? `, ${device.maker}` : ''}. {kind.about}
      </div>
      <OwnSheet device={device} />
      <DeviceTools device={device.id} {...{ kind, canAppend, onPick, onRemove, onMove }} />
      <ControlsHere device={device} />
      {kind.hosts && <HostPanel device={device} />}
      <LoopsPanel device={device} onAdd={onPick} />
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
      <FigureEditor device={device} />
      {kind.power && (
        <p className="faint common-text-2">
          Power, typical: {kind.power.volts} V, {kind.power.milliamps} mA.
          {kind.size
            ? ` Size ${kind.size.width} × ${kind.size.depth} × ${kind.size.height} mm.`
            : ''}
        </p>
      )}
      <RecordFields key={`record ${device.id}`} device={device} />
    </div>
  );
}

/** Of gear of one's own: its notes, and the way to its sheet. */
function OwnSheet({ device }: { device: Device }) {
  const sheet = useRig((s) => s.history.rig.sheets?.find((x) => x.id === sheetIdOf(device.kind)));
  const rig = useRig((s) => s.history.rig.id);
  if (!sheet) return null;
  return (
    <p className="small-print" data-own-sheet={sheet.id}>
      <Link href={pathOf(rig, 'build', 'own')}>The sheet of {sheet.name}</Link>
      {sheet.notes && `: ${sheet.notes}`}
    </p>
  );
}

interface Tools {
  kind: Kind;
  device: string;
  /** Whether an output of it is free. */
  canAppend: boolean;
  onPick: (picking: Picking) => void;
  onRemove: () => void;
  onMove: () => void;
}

/** What can be done with the device. */
function DeviceTools({ kind, device, canAppend, onPick, onRemove, onMove }: Tools) {
  const ways = useDrawn((rig) => {
    const one = deviceOf(rig, device);
    return one ? [...waysOut(rig, one), ...waysIn(rig, one)] : [];
  });
  return (
    <Group gap={6} mt={10}>
      {kind.through && (
        <Button size="compact-sm" variant="default" onClick={onMove}>
          Move (M)
        </Button>
      )}
      <MoveButtons ways={ways} />
      <PlaceSteps device={device} />
      <Button size="compact-sm" variant="default" onClick={() => onPick('connect')}>
        Connect (C)
      </Button>
      {canAppend && (
        <Button size="compact-sm" variant="default" onClick={() => onPick('append')}>
          Add behind (A)
        </Button>
      )}
      <Button size="compact-sm" variant="default" onClick={() => onPick('replace')}>
        Replace (R)
      </Button>
      <Button size="compact-sm" variant="default" onClick={onRemove}>
        Remove (Del)
      </Button>
    </Group>
  );
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
