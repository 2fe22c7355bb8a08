import { SegmentedControl } from '@mantine/core';
import dynamic from 'next/dynamic';
import type { Device, Lead } from '../../../core/rig/schema';
import { laterPart } from '../../look/later';
import { useDocument, useRig } from '../../store/use-rig';
import { freeOutput } from '../moving-edits';
import { Guide } from './guide';
import type { Picking, Side } from './use-signal-keys';

// What is chosen comes after the walk.
const DeviceInspector = dynamic(
  laterPart('device', () => import('../device-inspector').then((m) => m.DeviceInspector)),
  { ssr: false },
);
const LeadInspector = dynamic(
  laterPart('lead', () => import('../lead-inspector').then((m) => m.LeadInspector)),
  { ssr: false },
);
const WiringList = dynamic(
  laterPart('wiring list', () => import('../wiring-list').then((m) => m.WiringList)),
  { ssr: false },
);
const ManyPanel = dynamic(
  laterPart('many', () => import('./many-panel').then((m) => m.ManyPanel)),
  { ssr: false },
);

/** Beside the walk: the inspector of what is chosen, or the list of the wiring. */
export function SidePanel({
  side,
  onSide,
  device,
  lead,
  onPick,
  onRemove,
  onMove,
}: {
  side: Side;
  onSide: (side: Side) => void;
  device: Device | undefined;
  lead: Lead | undefined;
  onPick: (picking: Picking) => void;
  onRemove: () => void;
  onMove: () => void;
}) {
  const rig = useDocument();
  const many = useRig((s) => s.chosen).filter((id) => rig.devices.some((d) => d.id === id));
  const station = useRig((s) => (s.selection?.kind === 'device' ? s.selection.station : undefined));
  return (
    <aside className="signal-side" aria-label="Inspector and wiring">
      <SegmentedControl
        m={8}
        size="xs"
        value={side}
        onChange={(v) => onSide(v === 'wiring' ? 'wiring' : 'inspect')}
        data={[
          { value: 'inspect', label: 'Inspect' },
          { value: 'wiring', label: 'Wiring' },
        ]}
      />
      <div className="side-body">
        {side === 'wiring' ? (
          <WiringList />
        ) : many.length > 1 ? (
          <ManyPanel />
        ) : device ? (
          <DeviceInspector
            key={device.id}
            device={device}
            station={station}
            canAppend={freeOutput(rig, device) !== undefined}
            onPick={onPick}
            onRemove={onRemove}
            onMove={onMove}
          />
        ) : lead ? (
          <LeadInspector key={lead.id} lead={lead} onInsert={() => onPick('insert')} />
        ) : (
          <Guide />
        )}
      </div>
    </aside>
  );
}
