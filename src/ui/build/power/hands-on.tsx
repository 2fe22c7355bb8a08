import { Select } from '@mantine/core';
import type { Taker } from '../../../core/build/power';
import { outletsOf } from '../../../core/rig';
import { useRig } from '../../store/use-rig';

/** What an outlet of a pedal gives until its label is written in, in mA. */
const USUAL_MILLIAMPS = 100;

/** Names a device that hands its power on: it gets an outlet, which is then written in as its label has it. */
export function HandsOn({ takers }: { takers: readonly Taker[] }) {
  const edit = useRig((s) => s.edit);
  const could = takers.filter((t) => !outletsOf(t.device));
  if (!could.length) return null;
  return (
    <Select
      size="xs"
      w={210}
      searchable
      placeholder="A device hands power on …"
      aria-label="A device that hands power on"
      value={null}
      data={could.map((t) => ({ value: t.device.id, label: t.device.name }))}
      onChange={(id) => {
        const taker = could.find((t) => t.device.id === id);
        if (!taker) return;
        const { device, need } = taker;
        const outlet = { id: '1', label: 'handed on', volts: need.volts };
        edit({
          edit: 'setDevice',
          device: device.id,
          gives: { outlets: [{ ...outlet, milliamps: USUAL_MILLIAMPS, isolated: false }] },
        });
      }}
    />
  );
}
