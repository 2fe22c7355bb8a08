import { Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import { messageSchema, TIMECODE_RATES } from '../../../core/rig/midi-schema';
import type { WrittenMessage } from '../../../core/rig/schema';
import { CommitNumber } from '../../look/commit-number';

/** A number of a message: what it is called, and from where to where it goes. */
interface Field {
  field: string;
  label: string;
  /** What stands over the field, where its whole name is too long. */
  short?: string;
  min?: number;
  max: number;
  /** What an empty field means, where it may be empty. */
  empty?: string;
}

const CHANNEL: Field = { field: 'channel', label: 'Channel', min: 1, max: 16 };
const NOTE: Field = { field: 'note', label: 'Note, 60 is C4', max: 127 };
const FINE: Field = { field: 'value', label: 'Value of 14 bits', short: 'Value', max: 16383 };

/** Every message that a person can write: what it is called, how it begins, and its numbers. */
export const WRITTEN: {
  [T in WrittenMessage['type']]: {
    label: string;
    fresh: Extract<WrittenMessage, { type: T }>;
    fields: readonly Field[];
  };
} = {
  program: {
    label: 'program',
    fresh: { type: 'program', channel: 1, number: 0 },
    fields: [
      CHANNEL,
      { field: 'bank', label: 'Bank', max: 16383, empty: 'no bank' },
      { field: 'number', label: 'Program on the wire', short: 'Program', max: 127 },
    ],
  },
  control: {
    label: 'control',
    fresh: { type: 'control', channel: 1, cc: 80, value: 127 },
    fields: [
      CHANNEL,
      { field: 'cc', label: 'Control', max: 127 },
      { field: 'value', label: 'Value', max: 127 },
    ],
  },
  fine: {
    label: 'control of 14 bits',
    fresh: { type: 'fine', channel: 1, cc: 16, value: 0 },
    fields: [CHANNEL, { field: 'cc', label: 'Control, the upper half', max: 31 }, FINE],
  },
  nrpn: {
    label: 'parameter (NRPN)',
    fresh: { type: 'nrpn', channel: 1, parameter: 0, value: 0 },
    fields: [CHANNEL, { field: 'parameter', label: 'Parameter', max: 16383 }, FINE],
  },
  'note-on': {
    label: 'note',
    fresh: { type: 'note-on', channel: 1, note: 60, velocity: 100 },
    fields: [CHANNEL, NOTE, { field: 'velocity', label: 'Velocity', min: 1, max: 127 }],
  },
  'note-off': {
    label: 'end of a note',
    fresh: { type: 'note-off', channel: 1, note: 60 },
    fields: [CHANNEL, NOTE],
  },
  bend: {
    label: 'pitch bend',
    fresh: { type: 'bend', channel: 1, bend: 0 },
    fields: [CHANNEL, { field: 'bend', label: 'Bend, 0 is none', min: -8192, max: 8191 }],
  },
  pressure: {
    label: 'pressure',
    fresh: { type: 'pressure', channel: 1, pressure: 0 },
    fields: [CHANNEL, { field: 'pressure', label: 'Pressure', max: 127 }],
  },
  start: { label: 'start', fresh: { type: 'start' }, fields: [] },
  stop: { label: 'stop', fresh: { type: 'stop' }, fields: [] },
  continue: { label: 'continue', fresh: { type: 'continue' }, fields: [] },
  position: {
    label: 'song position',
    fresh: { type: 'position', sixteenths: 0 },
    fields: [
      {
        field: 'sixteenths',
        label: 'Sixteenth notes from the start',
        short: 'Sixteenths',
        max: 16383,
      },
    ],
  },
  exclusive: {
    label: 'system exclusive',
    fresh: { type: 'exclusive', data: '7D 00' },
    fields: [],
  },
  timecode: {
    label: 'time code (MTC)',
    fresh: { type: 'timecode', hours: 1, minutes: 0, seconds: 0, frames: 0, rate: 25 },
    fields: [
      { field: 'hours', label: 'Hours', max: 23 },
      { field: 'minutes', label: 'Minutes', max: 59 },
      { field: 'seconds', label: 'Seconds', max: 59 },
      { field: 'frames', label: 'Frames', max: 29 },
    ],
  },
};

export const WRITTEN_TYPES = Object.keys(WRITTEN) as WrittenMessage['type'][];

/** The numbers of one message that was written by hand; system exclusive is bytes, time code has a rate. */
export function WrittenFields({
  message,
  onChange,
}: {
  message: WrittenMessage;
  onChange: (message: WrittenMessage) => void;
}) {
  const values = message as Record<string, unknown>;
  const set = (field: string, value: unknown) => {
    const changed = messageSchema.safeParse({ ...message, [field]: value });
    if (changed.success) onChange(changed.data);
  };
  return (
    <>
      {WRITTEN[message.type].fields.map(({ field, label, short, min = 0, max, empty }) => (
        <div key={field}>
          <div className="faint small-print" aria-hidden>
            {short ?? label.split(',')[0]}
          </div>
          <CommitNumber
            w={max > 999 ? 84 : 64}
            aria-label={label}
            title={label}
            min={min}
            max={max}
            allowDecimal={false}
            placeholder={empty}
            value={values[field] as number | undefined}
            onCommit={(v) => (v !== undefined || empty) && set(field, v)}
          />
        </div>
      ))}
      {message.type === 'exclusive' && (
        <Bytes value={message.data} onCommit={(data) => set('data', data)} />
      )}
      {message.type === 'timecode' && (
        <Select
          size="xs"
          w={84}
          aria-label="Frames a second"
          data={TIMECODE_RATES.map(String)}
          value={String(message.rate)}
          allowDeselect={false}
          onChange={(rate) => rate && set('rate', Number(rate))}
        />
      )}
    </>
  );
}

/** Bytes of a system exclusive message; what is none is told where it is typed and not taken. */
function Bytes({ value, onCommit }: { value: string; onCommit: (data: string) => void }) {
  const [typed, setTyped] = useState(value);
  const checked = messageSchema.safeParse({ type: 'exclusive', data: typed });
  const commit = () => checked.success && typed !== value && onCommit(typed.trim());
  return (
    <TextInput
      size="xs"
      w={300}
      aria-label="Bytes between F0 and F7"
      value={typed}
      error={checked.success ? undefined : checked.error.issues[0]?.message}
      onChange={(e) => setTyped(e.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(e) => e.key === 'Enter' && commit()}
    />
  );
}
