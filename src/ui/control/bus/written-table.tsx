import { Button, Group, Select } from '@mantine/core';
import { addressProblem, midiDevices, screenOn, WHEN_WORDS } from '../../../core/midi';
import { SEND_WHEN } from '../../../core/rig/midi-schema';
import { nameOf } from '../../../core/rig/find';
import type { Send, Sound, WrittenMessage } from '../../../core/rig/schema';
import { CommitNumber } from '../../look/commit-number';
import { useDocument, useRig } from '../../store/use-rig';
import { WRITTEN, WRITTEN_TYPES, WrittenFields } from './written-fields';
import { TakeOut } from '../../look/take-out';

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
        <Button size="compact-xs" variant="default" onClick={() => add(WRITTEN.program.fresh)}>
          Add a program
        </Button>
        <Button size="compact-xs" variant="default" onClick={() => add(WRITTEN.control.fresh)}>
          Add a control change
        </Button>
        <Select
          size="xs"
          w={230}
          searchable
          placeholder="Add another message …"
          aria-label="Add another message"
          data={WRITTEN_TYPES.map((t) => ({ value: t, label: WRITTEN[t].label }))}
          value={null}
          onChange={(t) => t && add(WRITTEN[t].fresh)}
        />
        <Button size="compact-xs" variant="default" onClick={() => save(null)}>
          Let it follow from the programs again
        </Button>
      </Group>
    </>
  );
}

function WrittenRow({
  send: { to, message, waitMs, times, when },
  onChange: change,
  onRemove,
}: {
  send: Send;
  onChange: (part: Partial<Pick<Send, 'message' | 'waitMs' | 'times' | 'when'>>) => void;
  onRemove: () => void;
}) {
  const rig = useDocument();
  const receiver = to === undefined ? undefined : midiDevices(rig).get(to);
  return (
    <tr>
      <td>{WRITTEN[message.type].label}</td>
      <td>
        <Group gap={4} wrap="nowrap" align="end">
          <WrittenFields message={message} onChange={(m) => change({ message: m })} />
        </Group>
      </td>
      <td>
        <Group gap={4} w={156}>
          <CommitNumber
            w={88}
            aria-label="Waits so many ms behind the one before"
            placeholder="no wait"
            suffix=" ms"
            min={0}
            max={60_000}
            value={waitMs}
            onCommit={(v) => change({ waitMs: v || undefined })}
          />
          <CommitNumber
            w={64}
            aria-label="Goes out so often"
            placeholder="once"
            suffix=" ×"
            min={1}
            max={20}
            value={times}
            onCommit={(v) => change({ times: v && v > 1 ? v : undefined })}
          />
          <Select
            size="xs"
            w={156}
            aria-label="What the foot does that sends it"
            data={SEND_WHEN.map((w) => ({ value: w, label: `on ${WHEN_WORDS[w]}` }))}
            value={when ?? 'press'}
            allowDeselect={false}
            onChange={(w) => change({ when: SEND_WHEN.find((x) => x === w && x !== 'press') })}
          />
        </Group>
      </td>
      <td className="faint">
        {to ? `for ${nameOf(rig, to)}` : ''}
        {message.type === 'program' && receiver ? `, screen ${screenOn(receiver, message)}` : ''}
        {message.type === 'program' && receiver && addressProblem(receiver, message) && (
          <div role="alert">{addressProblem(receiver, message)}</div>
        )}
      </td>
      <td>
        <TakeOut what="Take this message out" onClick={onRemove} />
      </td>
    </tr>
  );
}
