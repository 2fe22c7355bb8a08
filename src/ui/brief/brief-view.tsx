'use client';
import { ActionIcon, Button, Checkbox, Group, Select, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { type ReactNode, useMemo, useState } from 'react';
import { kindOf, KINDS } from '../../core/kinds';
import { type Outcome, sure } from '../../core/outcome';
import { type Brief, CHARACTERS, freshId, type Rig, WAYS } from '../../core/rig';
import { briefOf, briefState, type BriefState, START_INSTRUMENTS } from '../../core/start';
import { useDocument, useRig } from '../store/use-rig';
import { Budget } from './budget';
import { Promises } from './promises';
import { StartAgain } from './start-again';
import { CHARACTER_WORDS, kindOptions, WAY_NAMES, WAY_WORDS } from './words';
import { CommitText } from '../look/commit-text';

const EMPTY: Brief = { sources: [], destinations: [], sounds: [], gear: [], never: [] };
const INSTRUMENTS = kindOptions(START_INSTRUMENTS);
const GEAR = kindOptions(KINDS.filter((k) => k.size && k.job !== 'instrument' && !k.destination));

/** What is asked of the rig, line by line, each held against what is there; and what it must keep. */
export function BriefView() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const brief = rig.brief ?? EMPTY;
  const state = useMemo(() => briefState(rig, brief), [rig, brief]);
  const [starting, setStarting] = useState(false);
  const set = (change: Partial<Brief>) =>
    edit({ edit: 'setBrief', brief: { ...brief, ...change } });
  const id = (name: string) =>
    freshId(
      name,
      [
        ...brief.sources,
        ...brief.destinations,
        ...brief.sounds,
        ...brief.gear,
        ...(brief.never ?? []),
      ].map((x) => x.id),
    );
  const isEmpty =
    !brief.sources.length &&
    !brief.destinations.length &&
    !brief.sounds.length &&
    !brief.gear.length;
  const addDevice = (kind: string, name: string) =>
    edit({
      edit: 'addDevice',
      device: {
        id: freshId(
          name,
          rig.devices.map((d) => d.id),
        ),
        kind,
        name,
      },
    });
  const can = brief.sources.length > 0 && brief.destinations.length > 0 && brief.sounds.length > 0;
  return (
    <div className="scroll">
      <div className="brief">
        <div>
          {isEmpty && <NoBrief set={set} />}
          <Instruments set={set} brief={brief} id={id} state={state} addDevice={addDevice} />
          <Destinations set={set} brief={brief} id={id} state={state} />
          <SoundsWanted set={set} brief={brief} id={id} state={state} />
          <GearOnHand set={set} brief={brief} id={id} state={state} addDevice={addDevice} />
          <Group mt={12} gap={8}>
            <Button size="xs" variant="default" disabled={!can} onClick={() => setStarting(true)}>
              Propose a rig from this brief …
            </Button>
            {!can && (
              <span className="faint small-print">
                It needs an instrument, a destination and a sound.
              </span>
            )}
          </Group>
        </div>
        <div>
          <Promises />
          <Budget />
          <Nevers set={set} brief={brief} id={id} />
        </div>
      </div>
      {starting && <StartAgain brief={brief} onClose={() => setStarting(false)} />}
    </div>
  );
}

/** What must never happen, in words. */
function Nevers({
  set,
  brief,
  id,
}: {
  set: (change: Partial<Brief>) => Outcome<Rig>;
  brief: Brief;
  id: (name: string) => string;
}) {
  return (
    <Part
      title="And never, in words"
      add={
        <AddText
          label="Add what must never happen"
          onAdd={(words) => set({ never: [...(brief.never ?? []), { id: id('never'), words }] })}
        />
      }
    >
      {(brief.never ?? []).map((n) => (
        <div key={n.id} className="brief-line">
          <span className="fills">{n.words}</span>
          <Remove
            words={n.words}
            onRemove={() => set({ never: (brief.never ?? []).filter((x) => x.id !== n.id) })}
          />
        </div>
      ))}
    </Part>
  );
}

/** The gear that is there already. */
function GearOnHand({
  set,
  brief,
  id,
  state,
  addDevice,
}: {
  set: (change: Partial<Brief>) => Outcome<Rig>;
  brief: Brief;
  id: (name: string) => string;
  state: BriefState;
  addDevice: (kind: string, name: string) => Outcome<Rig>;
}) {
  return (
    <Part
      title="Gear on hand"
      add={
        <AddKind
          label="Add a piece of gear"
          data={GEAR}
          onAdd={(kind) =>
            set({
              gear: [...brief.gear, { id: id(kindOf(kind).name), kind, name: kindOf(kind).name }],
            })
          }
        />
      }
    >
      {brief.gear.map((l) => (
        <Line
          key={l.id}
          part="gear"
          line={l}
          state={state}
          what={kindOf(l.kind).name}
          onName={(name) =>
            set({ gear: brief.gear.map((x) => (x.id === l.id ? { ...x, name } : x)) })
          }
          onRemove={() => set({ gear: brief.gear.filter((x) => x.id !== l.id) })}
          onMake={() => addDevice(l.kind, l.name)}
        />
      ))}
    </Part>
  );
}

/** The sounds that are wanted, each with its character. */
function SoundsWanted({
  set,
  brief,
  id,
  state,
}: {
  set: (change: Partial<Brief>) => Outcome<Rig>;
  brief: Brief;
  id: (name: string) => string;
  state: BriefState;
}) {
  const edit = useRig((s) => s.edit);
  const rig = useDocument();
  return (
    <Part
      title="Sounds wanted"
      add={
        <AddText
          label="Add a sound"
          onAdd={(name) => set({ sounds: [...brief.sounds, { id: id(name), name }] })}
        />
      }
    >
      {brief.sounds.map((l) => (
        <Line
          key={l.id}
          part="sounds"
          line={l}
          state={state}
          onName={(name) =>
            set({ sounds: brief.sounds.map((x) => (x.id === l.id ? { ...x, name } : x)) })
          }
          onRemove={() => set({ sounds: brief.sounds.filter((x) => x.id !== l.id) })}
          onMake={() =>
            edit({
              edit: 'addSound',
              sound: {
                id: freshId(
                  l.name,
                  rig.sounds.map((s) => s.id),
                ),
                name: l.name,
                ...(l.notes && { notes: l.notes }),
                states: {},
              },
            })
          }
        >
          <Select
            size="xs"
            w={158}
            aria-label={`Character of ${l.name}`}
            placeholder="character"
            clearable
            value={l.character ?? null}
            data={CHARACTERS.map((c) => ({ value: c, label: CHARACTER_WORDS[c] }))}
            onChange={(v) =>
              set({
                sounds: brief.sounds.map((x) =>
                  x.id === l.id ? { ...x, character: CHARACTERS.find((c) => c === v) } : x,
                ),
              })
            }
          />
        </Line>
      ))}
    </Part>
  );
}

/** Who must hear it. */
function Destinations({
  set,
  brief,
  id,
  state,
}: {
  set: (change: Partial<Brief>) => Outcome<Rig>;
  brief: Brief;
  id: (name: string) => string;
  state: BriefState;
}) {
  return (
    <Part
      title="Who must hear it"
      add={
        <Select
          size="xs"
          w={230}
          placeholder="Add a destination"
          aria-label="Add a destination"
          value={null}
          data={WAYS.map((w) => ({ value: w, label: WAY_WORDS[w] }))}
          onChange={(v) =>
            v &&
            set({
              destinations: [
                ...brief.destinations,
                {
                  id: id(v),
                  way: sure(WAYS.find((w) => w === v)),
                  name: WAY_NAMES[sure(WAYS.find((w) => w === v))],
                },
              ],
            })
          }
        />
      }
    >
      {brief.destinations.map((l) => (
        <Line
          key={l.id}
          part="destinations"
          line={l}
          state={state}
          what={WAY_WORDS[l.way]}
          onName={(name) =>
            set({
              destinations: brief.destinations.map((x) => (x.id === l.id ? { ...x, name } : x)),
            })
          }
          onRemove={() => set({ destinations: brief.destinations.filter((x) => x.id !== l.id) })}
        />
      ))}
    </Part>
  );
}

/** What comes in. */
function Instruments({
  set,
  brief,
  id,
  state,
  addDevice,
}: {
  set: (change: Partial<Brief>) => Outcome<Rig>;
  brief: Brief;
  id: (name: string) => string;
  state: BriefState;
  addDevice: (kind: string, name: string) => Outcome<Rig>;
}) {
  return (
    <Part
      title="What comes in"
      add={
        <AddKind
          label="Add an instrument"
          data={INSTRUMENTS}
          onAdd={(kind) =>
            set({
              sources: [
                ...brief.sources,
                { id: id(kindOf(kind).name), kind, name: kindOf(kind).name },
              ],
            })
          }
        />
      }
    >
      {brief.sources.map((l) => (
        <Line
          key={l.id}
          part="sources"
          line={l}
          state={state}
          what={kindOf(l.kind).name}
          onName={(name) =>
            set({ sources: brief.sources.map((x) => (x.id === l.id ? { ...x, name } : x)) })
          }
          onRemove={() => set({ sources: brief.sources.filter((x) => x.id !== l.id) })}
          onMake={() => addDevice(l.kind, l.name)}
        >
          <Checkbox
            size="xs"
            label="wireless"
            checked={l.wireless === true}
            onChange={(e) =>
              set({
                sources: brief.sources.map((x) =>
                  x.id === l.id ? { ...x, wireless: e.currentTarget.checked } : x,
                ),
              })
            }
          />
        </Line>
      ))}
    </Part>
  );
}

/** Said while the brief is empty: it can be read from the rig. */
function NoBrief({ set }: { set: (change: Partial<Brief>) => Outcome<Rig> }) {
  const rig = useDocument();
  return (
    <div className="empty brief-view-gap">
      No brief yet. Write down who plays what, who must hear it and which sounds are wanted; or read
      it from the rig as it is.{' '}
      <Button size="compact-xs" ml={6} onClick={() => set(briefOf(rig))}>
        Read it from the rig
      </Button>
    </div>
  );
}

function Part({ title, add, children }: { title: string; add: ReactNode; children: ReactNode }) {
  return (
    <section className="brief-part" aria-label={title}>
      <div className="brief-head">
        <h2>{title}</h2>
        {add}
      </div>
      {children}
    </section>
  );
}

interface LineProps {
  part: keyof BriefState;
  line: { id: string; name: string };
  state: BriefState;
  what?: string;
  onName: (name: string) => void;
  onRemove: () => void;
  onMake?: () => void;
  children?: ReactNode;
}

/** One line of the brief: its name, what it is, and what in the rig answers it. */
function Line({ part, line, state, what, onName, onRemove, onMake, children }: LineProps) {
  const rig = useDocument();
  const found = state[part][line.id];
  const called =
    part === 'sounds'
      ? rig.sounds.find((s) => s.id === found)?.name
      : rig.devices.find((d) => d.id === found)?.name;
  return (
    <div className="brief-line" data-line={line.id} data-answered={found !== undefined}>
      <CommitText
        w={170}
        aria-label={`Name of ${line.name}`}
        needed
        value={line.name}
        onCommit={(name) => name && onName(name)}
      />
      {children}
      <span className="faint line-text">
        {what && what !== line.name ? `${what}. ` : ''}
        {found !== undefined
          ? called === line.name
            ? 'In the rig.'
            : `In the rig as ${called}.`
          : 'Not in the rig yet.'}
      </span>
      {found === undefined && onMake && (
        <Button size="compact-xs" variant="default" onClick={onMake}>
          {part === 'sounds' ? 'Make it' : 'Add it'}
        </Button>
      )}
      <Remove words={line.name} onRemove={onRemove} />
    </div>
  );
}

const Remove = ({ words, onRemove }: { words: string; onRemove: () => void }) => (
  <ActionIcon size="sm" variant="subtle" aria-label={`Strike out ${words}`} onClick={onRemove}>
    <IconX size={14} />
  </ActionIcon>
);

function AddKind({
  label,
  data,
  onAdd,
}: {
  label: string;
  data: ReturnType<typeof kindOptions>;
  onAdd: (kind: string) => void;
}) {
  return (
    <Select
      size="xs"
      w={230}
      searchable
      placeholder={label}
      aria-label={label}
      value={null}
      data={data}
      onChange={(v) => v && onAdd(v)}
    />
  );
}

function AddText({ label, onAdd }: { label: string; onAdd: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <form
      className="add-text-row"
      onSubmit={(e) => {
        e.preventDefault();
        if (!text.trim()) return;
        onAdd(text.trim());
        setText('');
      }}
    >
      <TextInput
        size="xs"
        w={180}
        placeholder={label}
        aria-label={label}
        maxLength={120}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      <Button size="xs" variant="default" type="submit">
        Add
      </Button>
    </form>
  );
}
