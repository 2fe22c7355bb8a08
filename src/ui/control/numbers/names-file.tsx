import { Button, Group } from '@mantine/core';
import type { MidiDevice } from '../../../core/midi';
import { ReadButton } from '../../look/read-button';
import { save } from '../../look/save-file';

/** Names of a device's programs, in and out of a CSV file. */
export function NamesFile({ m }: { m: MidiDevice }) {
  const write = async () => {
    const { namesToCsv } = await import('../../../core/formats');
    save(`${m.device.id}-programs.csv`, namesToCsv(m), 'text/csv;charset=utf-8');
  };
  return (
    <Group gap={4} mt={4}>
      <ReadButton
        size="compact-xs"
        label="Names from CSV …"
        things={`names of ${m.device.name}`}
        read={(_, text) => import('../../../core/formats').then((f) => f.namesFromCsv(m, text))}
      />
      {m.names.size > 0 && (
        <Button size="compact-xs" variant="default" onClick={() => void write()}>
          Names as CSV
        </Button>
      )}
    </Group>
  );
}
