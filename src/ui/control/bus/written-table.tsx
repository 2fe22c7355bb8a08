import { ActionIcon, Button, Group, Tooltip } from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';
import type { ComponentProps } from 'react';
import { addressProblem, midiDevices, shownOn } from '../../../core/midi';
import { nameOf } from '../../../core/rig/find';
import type { Send, Sound, WrittenMessage } from '../../../core/rig/schema';
import { CommitNumber } from '../../look/commit-number';
import { useDocument, useRig } from '../../store/use-rig';

const NEW: Record<'program' | 'control', WrittenMessage> = {
  program: { type: 'program', channel: 1, number: 0 },
  control: { type: 'control', channel: 1, cc: 80, value: 127 },
};

/** The messages that a sender gives for a sound, written by hand. */
export function WrittenTable({
  sound,
  from,
  written,
}: {
  sound: Sound;
  from: string;
  written: readonly Send[];
}) {
  const edit = useRig((s) => s.edit);
  const save = (sends: Send[] | null) => edit({ edit: 'setSends', sound: sound.id, from, sends });
  const add = (message: WrittenMessage) => save([...written, { from, message }]);
  return (
    <>
      <table className="sheet-table figures" data-table="written">
        <tbody>
          {written.map((x, i) => (
            <WrittenRow
              key={i}
              send={x}
              onChange={(part) => save(written.map((y, k) => (k === i ? { ...y, ...part } : y)))}
              onRemove={() => save(written.filter((_, k) => k !== i))}
            />
          ))}
        </tbody>
      </table>
      <Group gap={6} mt={6}>
        <Button size="compact-xs" variant="default" onClick={() => add(NEW.program)}>
          Add a program
        </Button>
        <Button size="compact-xs" variant="default" onClick={() => add(NEW.control)}>
          Add a control change
        </Button>
        <Button size="compact-xs" variant="default" onClick={() => save(null)}>
          Let it follow from the programs again
        </Button>
      </Group>
    </>
  );
}

function WrittenRow({
  send: { to, message, waitMs },
  onChange: change,
  onRemove,
}: {
  send: Send;
  onChange: (part: Partial<Pick<Send, 'message' | 'waitMs'>>) => void;
  onRemove: () => void;
}) {
  const onChange = (changed: WrittenMessage) => change({ message: changed });
  const rig = useDocument();
  const receiver = to === undefined ? undefined : midiDevices(rig).get(to);
  return (
    <tr>
      <td>{message.type}</td>
      <td>
        <WireNumber
          w={64}
          label="Channel"
          min={1}
          max={16}
          value={message.channel}
          onCommit={(v) => v !== undefined && onChange({ ...message, channel: v })}
        />
      </td>
      {message.type === 'program' ? (
        <>
          <td>
            <WireNumber
              label="Bank"
              placeholder="no bank"
              max={16383}
              value={message.bank}
              onCommit={(bank) => onChange({ ...message, bank })}
            />
          </td>
          <td>
            <WireNumber
              label="Program on the wire"
              value={message.number}
              onCommit={(v) => onChange({ ...message, number: v ?? 0 })}
            />
          </td>
        </>
      ) : (
        <>
          <td>
            <WireNumber
              label="Control"
              value={message.cc}
              onCommit={(v) => onChange({ ...message, cc: v ?? 0 })}
            />
          </td>
          <td>
            <WireNumber
              label="Value"
              value={message.value}
              onCommit={(v) => onChange({ ...message, value: v ?? 0 })}
            />
          </td>
        </>
      )}
      <td>
        <CommitNumber
          w={84}
          aria-label="Waits so many ms behind the one before"
          placeholder="no wait"
          suffix=" ms"
          min={0}
          max={60_000}
          value={waitMs}
          onCommit={(v) => change({ waitMs: v || undefined })}
        />
      </td>
      <td className="faint">
        {to ? `for ${nameOf(rig, to)}` : ''}
        {message.type === 'program' && receiver
          ? `, screen ${shownOn(receiver.shows, message)}`
          : ''}
        {message.type === 'program' && receiver && addressProblem(receiver, message) && (
          <div role="alert">{addressProblem(receiver, message)}</div>
        )}
      </td>
      <td>
        <Tooltip label="Take out">
          <ActionIcon
            size="sm"
            variant="default"
            aria-label="Take this message out"
            onClick={onRemove}
          >
            <IconTrash size={14} />
          </ActionIcon>
        </Tooltip>
      </td>
    </tr>
  );
}

/** A whole number of seven bits, unless it says otherwise. */
function WireNumber({ label, ...rest }: ComponentProps<typeof CommitNumber> & { label: string }) {
  return (
    <CommitNumber w={72} aria-label={label} min={0} max={127} allowDecimal={false} {...rest} />
  );
}
