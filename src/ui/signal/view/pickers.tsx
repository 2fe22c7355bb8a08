import { useCallback } from 'react';
import { type Kind, kindOf } from '../../../core/kinds';
import { type Edit, loopWords } from '../../../core/rig';
import { insideOf, nameOf } from '../../../core/rig/find';
import type { Device, Lead } from '../../../core/rig/schema';
import { useDocument, useRig } from '../../store/use-rig';
import { KindPicker } from '../kind-picker';
import { appendEdits, freshName, insertEdits, intoLoopEdits } from '../place-edits';

const hasThrough = (k: Kind) =>
  k.through !== undefined && !k.jacks.every((j) => j.connector === 'inside');
const isBlock = (k: Kind) =>
  k.through !== undefined && (k.block !== undefined || k.hosts !== undefined);
const hasInput = (k: Kind) => k.jacks.some((j) => j.direction !== 'out' && !j.inside);
const anyKind = () => true;

interface Picker<T> {
  on: T;
  onClose: () => void;
}

/** A kind to insert into a lead, with what it would change. */
export function InsertPicker({ on: lead, onClose }: Picker<Lead>) {
  const rig = useDocument();
  const sound = useSoundId();
  const take = useTake(onClose);
  const editsFor = useCallback(
    (k: Kind) => insertEdits(rig, k, lead.id, sound),
    [rig, lead, sound],
  );
  return (
    <KindPicker
      title={`Insert between ${nameOf(rig, lead.from.device)} and ${nameOf(rig, lead.to.device)}`}
      fits={insideOf(rig, lead.from) === undefined ? hasThrough : isBlock}
      editsFor={editsFor}
      onClose={onClose}
      onPick={(k) => take(editsFor(k))}
    />
  );
}

/** A kind to add behind a device. */
export function AppendPicker({ on: device, onClose }: Picker<Device>) {
  const rig = useDocument();
  const sound = useSoundId();
  const take = useTake(onClose);
  const editsFor = useCallback(
    (k: Kind) => appendEdits(rig, k, device, sound),
    [rig, device, sound],
  );
  return (
    <KindPicker
      title={`Add behind ${device.name}`}
      fits={device.host === undefined ? hasInput : isBlock}
      editsFor={editsFor}
      onClose={onClose}
      onPick={(k) => take(editsFor(k))}
    />
  );
}

/** A kind to put into a loop of a device, behind what hangs there. */
export function LoopPicker({
  on: { host, loop },
  onClose,
}: Picker<{ host: Device; loop: string }>) {
  const rig = useDocument();
  const sound = useSoundId();
  const take = useTake(onClose);
  const editsFor = useCallback(
    (k: Kind) => intoLoopEdits(rig, k, host, loop, sound),
    [rig, host, loop, sound],
  );
  return (
    <KindPicker
      title={`Add into ${loopWords(rig, host.id, loop)}`}
      fits={hasThrough}
      editsFor={editsFor}
      onClose={onClose}
      onPick={(k) => take(editsFor(k))}
    />
  );
}

/** A kind to put in a device's place; a name that was its kind's becomes the new kind's. */
export function ReplacePicker({ on: device, onClose }: Picker<Device>) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const editsFor = useCallback(
    (k: Kind): Edit[] => [{ edit: 'replaceDevice', device: device.id, kind: k.id }],
    [device],
  );
  return (
    <KindPicker
      title={`Replace ${device.name}`}
      fits={anyKind}
      editsFor={editsFor}
      onClose={onClose}
      onPick={(k) => {
        onClose();
        edit({
          edit: 'replaceDevice',
          device: device.id,
          kind: k.id,
          name: device.name === kindOf(device.kind).name ? freshName(rig, k.name) : undefined,
        });
      }}
    />
  );
}

function useSoundId(): string | undefined {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  return rig.sounds.find((s) => s.id === sound)?.id;
}

/** Takes the edits that put a new device in, and chooses it. */
function useTake(onClose: () => void) {
  const edit = useRig((s) => s.edit);
  const select = useRig((s) => s.select);
  return (
    edits:
      | ReturnType<typeof insertEdits>
      | ReturnType<typeof appendEdits>
      | ReturnType<typeof intoLoopEdits>,
  ) => {
    onClose();
    if (edit(edits).ok) select({ kind: 'device', id: edits[0].device.id });
  };
}
