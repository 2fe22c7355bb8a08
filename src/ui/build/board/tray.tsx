import { Button, Group } from '@mantine/core';
import { sizeOf } from '../../../core/build';
import { sure } from '../../../core/outcome';
import type { Device } from '../../../core/rig';

/** Devices for the floor that stand nowhere yet. */
export function Tray({
  loose,
  onPlace,
}: {
  loose: readonly Device[];
  onPlace: (list: readonly Device[]) => void;
}) {
  if (!loose.length) return null;
  return (
    <section data-tray>
      <Group justify="space-between" mt={10}>
        <h3 className="no-margin">Stand nowhere yet</h3>
        {loose.length > 1 && (
          <Button size="compact-xs" variant="default" onClick={() => onPlace(loose)}>
            Place all {loose.length}
          </Button>
        )}
      </Group>
      {loose.map((d) => (
        <Group key={d.id} gap={6} my={2} wrap="nowrap">
          <span className="tape tray-box">{d.name}</span>
          <span className="faint tray-text">
            {sure(sizeOf(d) ?? undefined).width} by {sure(sizeOf(d) ?? undefined).depth}
          </span>
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`Place ${d.name}`}
            onClick={() => onPlace([d])}
          >
            Place
          </Button>
        </Group>
      ))}
    </section>
  );
}
