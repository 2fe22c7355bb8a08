'use client';
import { Button, Menu } from '@mantine/core';
import { save, toPng } from '../look/save-file';
import { useRig } from '../store/use-rig';

/** A drawing as a file: vectors, or a picture. */
export function DrawingFiles({ name, svg }: { name: string; svg: () => string }) {
  const setNotice = useRig((s) => s.setNotice);
  const failed = (e: unknown) =>
    setNotice(`The file could not be written: ${e instanceof Error ? e.message : String(e)}.`);
  return (
    <Menu>
      <Menu.Target>
        <Button size="xs" variant="default">
          Drawing as a file
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => save(`${name}.svg`, svg(), 'image/svg+xml')}>SVG</Menu.Item>
        <Menu.Item
          onClick={() =>
            void toPng(svg())
              .then((blob) => save(`${name}.png`, blob, 'image/png'))
              .catch(failed)
          }
        >
          PNG
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
