'use client';
import { at } from '../../core/outcome';
import { ActionIcon, Button, Group, Select, Textarea, TextInput, Tooltip } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconCopy, IconTrash } from '@tabler/icons-react';
import { useState } from 'react';
import { isEngaged, resolveState, settingOf } from '../../core/rig/device-state';
import { kindOf } from '../../core/kinds';
import { bothNumbers, midiOf } from '../../core/midi';
import {
  type Address,
  type Device,
  freshId,
  type Meter,
  nameOf,
  type Section,
  type Song,
  type State,
} from '../../core/rig';
import { clockTime, COMMON_TIME, cueSheet, meterWords, timelineOf } from '../../core/songs';
import { CommitNumber } from '../look/commit-number';
import { Knob } from '../signal/knob';
import { useDocument, useRig } from '../store/use-rig';
import { FileMenu } from './file-menu';

/** All songs, and the one that is chosen: tempo, key, tuning, instrument, its sections, and what differs in it. */
export function SongsView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const songs = rig.songs ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const [find, setFind] = useState('');
  const song = songs.find((s) => s.id === chosen) ?? songs[0];
  const shown = songs.filter((s) => s.title.toLowerCase().includes(find.trim().toLowerCase()));
  const add = () => {
    const id = freshId(
      'song',
      songs.map((s) => s.id),
    );
    const sound = rig.sounds[0]?.id;
    if (
      sound &&
      edit({
        edit: 'addSong',
        song: {
          id,
          title: `Song ${songs.length + 1}`,
          bpm: 120,
          sections: [{ id: 's1', name: 'Intro', bars: 4, sound }],
        },
      }).ok
    )
      setChosen(id);
  };
  return (
    <div className="songs-place">
      <aside className="song-list scroll no-print">
        <Group gap={6} mb={6}>
          <Button size="compact-sm" onClick={add} disabled={!rig.sounds.length}>
            Add a song
          </Button>
          <FileMenu song={song} />
        </Group>
        {songs.length > 8 && (
          <TextInput
            size="xs"
            placeholder="Find a song"
            aria-label="Find a song"
            value={find}
            onChange={(e) => setFind(e.currentTarget.value)}
            mb={4}
          />
        )}
        {shown.map((s) => (
          <button
            key={s.id}
            type="button"
            className="song-row"
            data-song={s.id}
            aria-current={s === song}
            onClick={() => setChosen(s.id)}
          >
            {s.title}
            <span>
              {s.bpm} bpm · {clockTime(timelineOf(s).lengthMs)}
            </span>
          </button>
        ))}
        {!songs.length && (
          <div className="empty">
            No songs yet. Add one, or read them in from a CSV, a ChordPro sheet or a MIDI file: each
            song then says its sounds, its delay times and its programs.
          </div>
        )}
      </aside>
      {song ? <SongEditor key={song.id} song={song} onGone={() => setChosen(null)} /> : <div />}
    </div>
  );
}

const METERS = ['2/4', '3/4', '4/4', '5/4', '6/8', '7/8', '9/8', '12/8'];
const meterOf = (text: string): Meter => ({
  beats: Number(text.split('/')[0]),
  unit: Number(text.split('/')[1]) as Meter['unit'],
});

function SongEditor({ song, onGone }: { song: Song; onGone: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const setSound = useRig((s) => s.setSound);
  const set = (change: Partial<Song>) => edit({ edit: 'setSong', song: { ...song, ...change } });
  const setSection = (id: string, change: Partial<Section>) =>
    set({ sections: song.sections.map((s) => (s.id === id ? { ...s, ...change } : s)) });
  const instruments = rig.devices.filter((d) => kindOf(d.kind).job === 'instrument');
  const cues = cueSheet(rig, song);
  const line = timelineOf(song);
  const move = (i: number, by: number) => {
    const next = [...song.sections];
    const [taken] = next.splice(i, 1);
    next.splice(i + by, 0, taken!);
    set({ sections: next });
  };
  const add = () => {
    const last = song.sections.at(-1);
    set({
      sections: [
        ...song.sections,
        {
          id: freshId(
            'section',
            song.sections.map((s) => s.id),
          ),
          name: `Section ${song.sections.length + 1}`,
          bars: 8,
          sound: last?.sound ?? at(rig.sounds, 0).id,
        },
      ],
    });
  };
  return (
    <div className="scroll common-box" data-editor="song">
      <Group gap={8} align="end">
        <TextInput
          size="sm"
          w={210}
          label="Title"
          key={`t ${song.title}`}
          defaultValue={song.title}
          onBlur={(e) =>
            e.currentTarget.value.trim() &&
            e.currentTarget.value !== song.title &&
            set({ title: e.currentTarget.value.trim() })
          }
        />
        <CommitNumber
          size="sm"
          w={88}
          label="Tempo, bpm"
          min={20}
          max={400}
          decimalScale={2}
          value={song.bpm}
          onCommit={(bpm) => bpm !== undefined && set({ bpm })}
        />
        <Select
          size="sm"
          w={78}
          label="Meter"
          data={
            METERS.includes(meterWords(song.meter)) ? METERS : [...METERS, meterWords(song.meter)]
          }
          value={meterWords(song.meter ?? COMMON_TIME)}
          allowDeselect={false}
          onChange={(v) => v && set({ meter: meterOf(v) })}
        />
        <TextInput
          size="sm"
          w={110}
          label="Key"
          key={`k ${song.key ?? ''}`}
          defaultValue={song.key ?? ''}
          onBlur={(e) =>
            e.currentTarget.value !== (song.key ?? '') &&
            set({ key: e.currentTarget.value || undefined })
          }
        />
        <TextInput
          size="sm"
          w={112}
          label="Tuning"
          key={`u ${song.tuning ?? ''}`}
          defaultValue={song.tuning ?? ''}
          onBlur={(e) =>
            e.currentTarget.value !== (song.tuning ?? '') &&
            set({ tuning: e.currentTarget.value || undefined })
          }
        />
        <Select
          size="sm"
          w={150}
          label="Instrument"
          clearable
          placeholder="not said"
          data={instruments.map((d) => ({ value: d.id, label: d.name }))}
          value={song.instrument ?? null}
          onChange={(v) => set({ instrument: v ?? undefined })}
        />
        <Tooltip label="Copy">
          <ActionIcon
            size="lg"
            variant="default"
            aria-label={`Copy ${song.title}`}
            onClick={() =>
              edit({
                edit: 'addSong',
                song: {
                  ...song,
                  id: freshId(
                    song.id,
                    (rig.songs ?? []).map((s) => s.id),
                  ),
                  title: `${song.title.slice(0, 110)} copy`,
                },
              })
            }
          >
            <IconCopy size={16} />
          </ActionIcon>
        </Tooltip>
        <Tooltip label="Remove (can be undone)">
          <ActionIcon
            size="lg"
            variant="default"
            aria-label={`Remove ${song.title}`}
            onClick={() => {
              onGone();
              edit({ edit: 'removeSong', song: song.id });
            }}
          >
            <IconTrash size={16} />
          </ActionIcon>
        </Tooltip>
      </Group>
      <table className="sheet-table figures common-gap-6" data-table="sections">
        <thead>
          <tr>
            <th>Bar</th>
            <th>Time</th>
            <th>Section</th>
            <th>Bars</th>
            <th>Meter</th>
            <th>Sound</th>
            <th>Tempo from here</th>
            <th>Programs shown</th>
            <th>Notes</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {song.sections.map((s, i) => {
            const tempos = tempoText(s.tempos);
            return (
              <tr key={s.id} data-section={s.id}>
                <td>{at(cues, i).bar}</td>
                <td>{clockTime(at(cues, i).atMs)}</td>
                <td>
                  <TextInput
                    size="xs"
                    w={120}
                    aria-label={`Name of section ${i + 1}`}
                    key={s.name}
                    defaultValue={s.name}
                    onBlur={(e) =>
                      e.currentTarget.value.trim() &&
                      e.currentTarget.value !== s.name &&
                      setSection(s.id, { name: e.currentTarget.value.trim() })
                    }
                  />
                </td>
                <td>
                  <CommitNumber
                    w={62}
                    aria-label={`Bars of ${s.name}`}
                    min={1}
                    max={999}
                    allowDecimal={false}
                    value={s.bars}
                    onCommit={(bars) => bars !== undefined && setSection(s.id, { bars })}
                  />
                </td>
                <td>
                  <Select
                    size="xs"
                    w={74}
                    aria-label={`Meter of ${s.name}`}
                    clearable={s.meter !== undefined}
                    placeholder={meterWords(song.meter)}
                    data={METERS}
                    value={s.meter ? meterWords(s.meter) : null}
                    onChange={(v) => setSection(s.id, { meter: v ? meterOf(v) : undefined })}
                  />
                </td>
                <td>
                  <Select
                    size="xs"
                    w={140}
                    searchable
                    aria-label={`Sound of ${s.name}`}
                    data={rig.sounds.map((x) => ({ value: x.id, label: x.name }))}
                    value={rig.sounds.some((x) => x.id === s.sound) ? s.sound : null}
                    placeholder={`"${s.sound}" is gone`}
                    allowDeselect={false}
                    onChange={(v) => {
                      if (!v) return;
                      setSection(s.id, { sound: v });
                      setSound(v);
                    }}
                  />
                </td>
                <td>
                  <TempoField
                    key={tempos}
                    section={s}
                    going={at(line.sections, i).bpm}
                    onChange={(t) => setSection(s.id, { tempos: t })}
                  />
                </td>
                <td>{at(cues, i).programs}</td>
                <td>
                  <TextInput
                    size="xs"
                    w={120}
                    aria-label={`Notes of ${s.name}`}
                    key={s.notes ?? ''}
                    defaultValue={s.notes ?? ''}
                    onBlur={(e) =>
                      e.currentTarget.value !== (s.notes ?? '') &&
                      setSection(s.id, { notes: e.currentTarget.value || undefined })
                    }
                  />
                </td>
                <td>
                  <Group gap={3} wrap="nowrap">
                    <ActionIcon
                      size="sm"
                      variant="default"
                      aria-label={`Move ${s.name} up`}
                      disabled={i === 0}
                      onClick={() => move(i, -1)}
                    >
                      <IconArrowUp size={14} />
                    </ActionIcon>
                    <ActionIcon
                      size="sm"
                      variant="default"
                      aria-label={`Move ${s.name} down`}
                      disabled={i === song.sections.length - 1}
                      onClick={() => move(i, 1)}
                    >
                      <IconArrowDown size={14} />
                    </ActionIcon>
                    <ActionIcon
                      size="sm"
                      variant="default"
                      aria-label={`Remove ${s.name}`}
                      onClick={() => set({ sections: song.sections.filter((x) => x !== s) })}
                    >
                      <IconTrash size={14} />
                    </ActionIcon>
                  </Group>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Group gap={8} mt={6}>
        <Button size="compact-sm" variant="default" onClick={add}>
          Add a section
        </Button>
        <span className="faint small-print">
          {line.bars.length} bars, {clockTime(line.lengthMs)}.{' '}
          {new Set(song.sections.map((s) => s.sound)).size} different sounds.
        </span>
      </Group>
      <Differs song={song} />
      <Textarea
        size="xs"
        mt={10}
        label="Notes"
        autosize
        minRows={1}
        maxRows={5}
        key={song.notes ?? ''}
        defaultValue={song.notes ?? ''}
        onBlur={(e) =>
          e.currentTarget.value !== (song.notes ?? '') &&
          set({ notes: e.currentTarget.value || undefined })
        }
      />
    </div>
  );
}

const tempoText = (tempos: Section['tempos']): string =>
  (tempos ?? []).map((t) => (t.bar === 1 ? String(t.bpm) : `${t.bpm}@${t.bar}`)).join(' ');

/** Tempo changes of a section as they are written: "66", or "66 72@5" for another from its fifth bar. */
function TempoField({
  section,
  going,
  onChange,
}: {
  section: Section;
  going: number;
  onChange: (tempos: Section['tempos']) => void;
}) {
  const [wrong, setWrong] = useState(false);
  const read = (text: string) => {
    const parts = text
      .trim()
      .split(/\s+/)
      .filter(Boolean)
      .map((t) => /^(\d+(?:\.\d+)?)(?:@(\d+))?$/.exec(t));
    const tempos = parts.flatMap((m) => (m ? [{ bar: Number(m[2] ?? 1), bpm: Number(m[1]) }] : []));
    const fine =
      parts.every((m) => m !== null) &&
      tempos.every((t) => t.bpm >= 20 && t.bpm <= 400 && t.bar >= 1 && t.bar <= section.bars);
    setWrong(!fine);
    if (fine && text.trim() !== tempoText(section.tempos))
      onChange(tempos.length ? tempos : undefined);
  };
  return (
    <TextInput
      size="xs"
      w={84}
      aria-label={`Tempo of ${section.name}`}
      placeholder={String(going)}
      title="66, or 66 72@5 for another tempo from the fifth bar"
      error={wrong && '66 or 72@5'}
      defaultValue={tempoText(section.tempos)}
      onBlur={(e) => read(e.currentTarget.value)}
    />
  );
}

/** What differs from the sounds in this song, or in one section of it: devices on or off, knobs by the clock. */
function Differs({ song }: { song: Song }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [where, setWhere] = useState<string>('song');
  const section = song.sections.find((s) => s.id === where);
  const states = (section ? section.states : song.states) ?? {};
  const save = (next: Record<string, State>) =>
    edit({
      edit: 'setSong',
      song: section
        ? {
            ...song,
            sections: song.sections.map((s) => (s === section ? { ...s, states: next } : s)),
          }
        : { ...song, states: next },
    });
  const set = (device: string, change: Partial<State>) =>
    save({ ...states, [device]: { ...states[device], ...change } });
  return (
    <>
      <h3 className="differs-gap">
        What differs{' '}
        <Select
          size="xs"
          w={190}
          className="program-map-view-select"
          aria-label="Where it differs"
          data={[
            { value: 'song', label: 'in the whole song' },
            ...song.sections.map((s) => ({ value: s.id, label: `in ${s.name}` })),
          ]}
          value={section ? where : 'song'}
          allowDeselect={false}
          onChange={(v) => v && setWhere(v)}
        />
      </h3>
      {Object.keys(states).length === 0 && (
        <p className="faint differs-text">Nothing: the sounds are played as they are.</p>
      )}
      <div className="differs-row">
        {Object.entries(states).map(([id, state]) => {
          const device = rig.devices.find((d) => d.id === id);
          if (!device) return null;
          const kind = kindOf(device.kind);
          const own = (p: string) =>
            state.settings !== undefined && Object.hasOwn(state.settings, p);
          return (
            <div key={id} data-differs={id} className="differs-box">
              <Group gap={6}>
                <strong>{device.name}</strong>
                {!kind.alwaysOn && (
                  <Select
                    size="xs"
                    w={118}
                    aria-label={`${device.name} is`}
                    data={[
                      { value: 'as', label: 'as the sound' },
                      { value: 'on', label: 'on' },
                      { value: 'off', label: 'off' },
                    ]}
                    value={state.engaged === undefined ? 'as' : state.engaged ? 'on' : 'off'}
                    allowDeselect={false}
                    onChange={(v) => set(id, { engaged: v === 'as' ? undefined : v === 'on' })}
                  />
                )}
                {kind.midi?.programs && device.host === undefined && (
                  <ProgramField
                    device={device}
                    program={state.program}
                    onChange={(program) => set(id, { program })}
                  />
                )}
                <ActionIcon
                  size="sm"
                  variant="default"
                  aria-label={`${device.name} as the sounds have it`}
                  onClick={() =>
                    save(Object.fromEntries(Object.entries(states).filter(([k]) => k !== id)))
                  }
                >
                  <IconTrash size={13} />
                </ActionIcon>
              </Group>
              <div className="knobs">
                {kind.parameters.map((p) =>
                  p.type === 'knob' ? (
                    <Knob
                      key={p.id}
                      parameter={p}
                      value={Number(settingOf(kind, device, state, p.id) ?? p.initial)}
                      figure={(f) => resolveState(kind, device, state).figure(f)}
                      own={own(p.id)}
                      onChange={(v) => set(id, { settings: { ...state.settings, [p.id]: v } })}
                    />
                  ) : p.type === 'choice' ? (
                    <Select
                      key={p.id}
                      size="xs"
                      w={120}
                      label={p.label}
                      data={p.options}
                      value={String(settingOf(kind, device, state, p.id))}
                      allowDeselect={false}
                      onChange={(v) => v && set(id, { settings: { ...state.settings, [p.id]: v } })}
                    />
                  ) : null,
                )}
              </div>
            </div>
          );
        })}
      </div>
      <Select
        mt={6}
        size="xs"
        w={250}
        searchable
        placeholder="Add a device that differs …"
        aria-label="Add a device that differs"
        value={null}
        data={rig.devices
          .filter(
            (d) =>
              !Object.hasOwn(states, d.id) &&
              (!kindOf(d.kind).alwaysOn || kindOf(d.kind).parameters.length),
          )
          .map((d) => ({ value: d.id, label: nameOf(rig, d.id) }))}
        onChange={(v) => {
          const device = rig.devices.find((d) => d.id === v);
          if (device)
            set(
              device.id,
              kindOf(device.kind).alwaysOn
                ? { settings: {} }
                : { engaged: isEngaged(kindOf(device.kind), device) },
            );
        }}
      />
    </>
  );
}

/** The program that keeps a device as it is in this song: on the wire, with what its screen shows. */
function ProgramField({
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
      {program && <span className="faint common-text-2">{bothNumbers(m.shows, program)}</span>}
    </Group>
  );
}
