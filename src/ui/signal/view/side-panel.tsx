import { SegmentedControl } from '@mantine/core';
import dynamic from 'next/dynamic';
import type { Device, Lead } from '../../../core/rig/schema';
import { later } from '../../look/later';
import { useDocument, useRig } from '../../store/use-rig';
import { DeviceInspector } from '../device-inspector';
import { LeadInspector } from '../lead-inspector';
import { freeOutput } from '../place-edits';
import { Guide } from './guide';
import type { Picking, Side } from './use-signal-keys';

// What a choice of several things and the list of leads need comes after the walk. The inspectors are there at
// once: work goes on where the network goes away as soon as the page stands.
const WiringList = dynamic(
  later(() => import('../wiring-list').then((m) => m.WiringList)),
  { ssr: false },
);
const ManyPanel = dynamic(
  later(() => import('./many-panel').then((m) => m.ManyPanel)),
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
