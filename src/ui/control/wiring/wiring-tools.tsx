import { Button, Group, Menu } from '@mantine/core';
import { KINDS } from '../../../core/kinds';
import { freshId } from '../../../core/rig';
import { useDocument, useRig } from '../../store/use-rig';

/** Adds a control device, and leads to what is found about control and messages. */
export function WiringTools({
  matters,
  onAdded,
}: {
  matters: number;
  onAdded: (device: string) => void;
}) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const openFindings = useRig((s) => s.openFindings);
  const add = (kind: string, name: string) => {
    const id = freshId(
      name,
      rig.devices.map((d) => d.id),
    );
    if (edit({ edit: 'addDevice', device: { id, kind, name, place: 'floor' } }).ok) onAdded(id);
  };
  return (
    <Group gap={8} mb={6}>
      <Menu>
        <Menu.Target>
          <Button size="compact-sm" variant="default">
            Add a control device
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {KINDS.filter((k) => k.family === 'Control').map((k) => (
            <Menu.Item key={k.id} onClick={() => add(k.id, k.name)}>
              {k.name}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      {matters > 0 && (
        <button type="button" className="sound" onClick={() => openFindings(true)}>
          {matters} {matters === 1 ? 'finding' : 'findings'} about control and messages
        </button>
      )}
    </Group>
  );
}
