import type { Device, Lead } from '../../../core/rig/schema';
import { ConnectPicker } from './connect-picker';
import { AppendPicker, InsertPicker, LoopPicker, ReplacePicker } from './pickers';
import type { Picking } from './use-signal-keys';

/** What is being picked for the device or the lead that is chosen: a kind, or an end to connect. */
export function Picked({
  picking,
  device,
  lead,
  onClose,
}: {
  picking: NonNullable<Picking>;
  device: Device | undefined;
  lead: Lead | undefined;
  onClose: () => void;
}) {
  if (picking === 'insert') return lead && <InsertPicker on={lead} onClose={onClose} />;
  if (!device) return null;
  if (picking === 'append') return <AppendPicker on={device} onClose={onClose} />;
  if (picking === 'connect') return <ConnectPicker on={device} onClose={onClose} />;
  if (picking === 'replace') return <ReplacePicker on={device} onClose={onClose} />;
  return <LoopPicker on={{ host: device, loop: picking.loop }} onClose={onClose} />;
}
