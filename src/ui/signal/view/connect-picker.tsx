import { Modal } from '@mantine/core';
import { useMemo } from 'react';
import { kindOf } from '../../../core/kinds';
import { endWords, type Joint, jackOf, jointsOf, leadsOfJoint, type Rig } from '../../../core/rig';
import type { Device } from '../../../core/rig/schema';
import { useDocument, useRig } from '../../store/use-rig';
import { TypedList } from '../../look/typed-list';

/** Connects a device: its free jacks and those of the others that fit, found by typing the other end. */
export function ConnectPicker({ on: device, onClose }: { on: Device; onClose: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const items = useMemo(
    () => jointsOf(rig, device.id).map((joint) => asTyped(rig, device.id, joint)),
    [rig, device.id],
  );
  const connect = (joint: Joint) => {
    onClose();
    edit(leadsOfJoint(rig, joint).map((lead) => ({ edit: 'connect', lead })));
  };
  return (
    <Modal opened onClose={onClose} title={`Connect ${device.name}`} size="lg" centered>
      <TypedList
        label="Find the other end"
        list="Free jacks"
        placeholder="Type some of the other end: its device, its jack …"
        nothing="No free jack that fits is called that."
        items={items}
        attribute="data-joint"
        onPick={({ joint }) => connect(joint)}
      />
      <p className="faint">
        Only free jacks of the same sort are offered. The lead takes its type from its ends and the
        length that is usual between where they stand; press it to change that.
      </p>
    </Modal>
  );
}

function asTyped(rig: Rig, device: string, joint: Joint) {
  const { from, to, other } = joint;
  const isOut = from.device === device;
  const [mine, theirs] = isOut ? [from, to] : [to, from];
  const here = rig.devices.find((d) => d.id === device);
  const sides = other ? ', both sides' : '';
  const kind = rig.devices.find((d) => d.id === theirs.device)?.kind;
  return {
    joint,
    id: `${from.device}.${from.jack} ${to.device}.${to.jack}`,
    name: endWords(rig, theirs),
    words: `${kind ? kindOf(kind).name : ''} ${endWords(rig, mine)}`,
    shown: (
      <>
        <span className="faint">
          {(here && jackOf(here, mine.jack)?.label) ?? mine.jack} {isOut ? 'to' : 'from'}
        </span>{' '}
        <strong>{endWords(rig, theirs)}</strong>
        {sides}
      </>
    ),
  };
}
