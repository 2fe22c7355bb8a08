import { Button, Checkbox, Group, Modal, Select } from '@mantine/core';
import { useState } from 'react';
import { needOf, USUAL_POWER_PLUG } from '../../../core/build';
import type { PowerNeed } from '../../../core/kinds/kind';
import { type Outcome, sure } from '../../../core/outcome';
import type { Device } from '../../../core/rig';
import type { Rig } from '../../../core/rig/schema';
import { CommitNumber } from '../../look/commit-number';
import { useRig } from '../../store/use-rig';
import { asCurrent, currentOf, CURRENTS, PLUGS } from './power-choices';

/** What the label of a device says about its power: everything that a plan looks at. */
export function PowerLabel({ device }: { device: Device }) {
  const edit = useRig((s) => s.edit);
  const [open, setOpen] = useState(false);
  const need = sure(needOf(device));
  const set = (power: Partial<NonNullable<Device['power']>>) =>
    edit({ edit: 'setDevice', device: device.id, power: { ...device.power, ...power } });
  return (
    <>
      <Button
        size="compact-xs"
        variant="default"
        aria-label={`What the label of ${device.name} says`}
        onClick={() => setOpen(true)}
      >
        Label …
      </Button>
      <Modal
        opened={open}
        onClose={() => setOpen(false)}
        title={`What the label of ${device.name} says`}
        data-power-label={device.id}
      >
        <LabelVoltage need={need} set={set} />
        <LabelPlug need={need} set={set} />
        <Checkbox
          size="xs"
          mt={12}
          label="Digital: it chops its current, keep it apart from high gain"
          checked={need.noisy ?? false}
          onChange={(e) => set({ noisy: e.currentTarget.checked })}
        />
        <Checkbox
          size="xs"
          mt={6}
          label="High gain: noise of its supply is heard"
          checked={need.sensitive ?? false}
          onChange={(e) => set({ sensitive: e.currentTarget.checked })}
        />
        <Checkbox
          size="xs"
          mt={6}
          label="Positive ground: its chassis is its plus, it shares with no other"
          checked={need.positiveGround ?? false}
          onChange={(e) => set({ positiveGround: e.currentTarget.checked })}
        />
        <Group mt={14} justify="space-between">
          <Button
            size="xs"
            variant="default"
            disabled={!device.power}
            onClick={() => edit({ edit: 'asUsual', device: device.id, what: ['power'] })}
          >
            As usual for its kind
          </Button>
          <Button size="xs" onClick={() => setOpen(false)}>
            Done
          </Button>
        </Group>
      </Modal>
    </>
  );
}

/** The plug and the polarity that the label asks for. */
function LabelPlug({
  need,
  set,
}: {
  need: PowerNeed;
  set: (power: Partial<NonNullable<Device['power']>>) => Outcome<Rig>;
}) {
  return (
    <Group gap={10} mt={8} align="end">
      <Select
        size="xs"
        w={190}
        label="Current"
        allowDeselect={false}
        data={CURRENTS}
        value={currentOf(need)}
        onChange={(v) => v && set(asCurrent(v))}
      />
      <Select
        size="xs"
        w={150}
        label="Jack"
        allowDeselect={false}
        data={PLUGS}
        value={need.plug ?? USUAL_POWER_PLUG}
        onChange={(v) => v && set({ plug: v })}
      />
    </Group>
  );
}

/** The voltage that the label asks for. */
function LabelVoltage({
  need,
  set,
}: {
  need: PowerNeed;
  set: (power: Partial<NonNullable<Device['power']>>) => Outcome<Rig>;
}) {
  return (
    <Group gap={10} align="end">
      <CommitNumber
        w={96}
        label="Volts"
        min={0.5}
        max={60}
        value={need.volts}
        onCommit={(v) => v !== undefined && set({ volts: v })}
      />
      <CommitNumber
        w={110}
        label="Bears up to, V"
        min={need.volts}
        max={60}
        value={need.maxVolts ?? need.volts}
        onCommit={(v) => v !== undefined && set({ maxVolts: v })}
      />
      <CommitNumber
        w={96}
        label="Takes, mA"
        min={1}
        max={20_000}
        value={need.milliamps}
        onCommit={(v) => v !== undefined && set({ milliamps: v })}
      />
    </Group>
  );
}
