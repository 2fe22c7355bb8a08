import { Group } from '@mantine/core';
import { numbersOn, midiOf } from '../../../core/midi';
import type { Address, Device } from '../../../core/rig/schema';
import { CommitNumber } from '../../look/commit-number';

/** The program that keeps a device as it is in this song: on the wire, with what its screen shows. */
export function ProgramField({
  device,
  program,
  onChange,
}: {
  device: Device;
  program: Address | undefined;
  onChange: (program: Address | undefined) => void;
}) {
  const m = midiOf(device);
  if (!m) return null;
  const banked = m.bank !== 'none';
  return (
    <Group gap={4} wrap="nowrap">
      {banked && program && (
        <CommitNumber
          w={70}
          aria-label={`Bank of ${device.name} in this song`}
          min={0}
          max={16383}
          allowDecimal={false}
          value={program.bank ?? 0}
          onCommit={(v) => onChange({ ...program, bank: v ?? 0 })}
        />
      )}
      <CommitNumber
        w={92}
        aria-label={`Program of ${device.name} in this song`}
        placeholder="its program"
        min={0}
        max={127}
        allowDecimal={false}
        value={program?.number}
        onCommit={(v) =>
          onChange(
            v === undefined
              ? undefined
              : { ...(banked && { bank: program?.bank ?? 0 }), number: v },
          )
        }
      />
      {program && <span className="faint common-text-2">{numbersOn(m, program)}</span>}
    </Group>
  );
}
