'use client';
import { Checkbox, MultiSelect, Select } from '@mantine/core';
import type { ReactNode } from 'react';
import { kindOf, KINDS } from '../../core/kinds';
import { type Outcome, sure } from '../../core/outcome';
import { type Brief, CHARACTERS, freshId, type Rig, WAYS } from '../../core/rig';
import { type BriefState, canBeWireless, START_INSTRUMENTS } from '../../core/start';
import { useDocument, useRig } from '../store/use-rig';
import { CHARACTER_WORDS, kindOptions, WAY_NAMES, WAY_WORDS } from './words';
import { AddKind, AddText, Line, Part, Remove } from './brief-line';

const INSTRUMENTS = kindOptions(START_INSTRUMENTS);
const GEAR = kindOptions(KINDS.filter((k) => k.size && k.job !== 'instrument' && !k.destination));

/** What every list of the brief works on. */
interface ListProps {
  set: (change: Partial<Brief>) => Outcome<Rig>;
  brief: Brief;
  /** An id for something of a name, which nothing of the brief has. */
  id: (name: string) => string;
  state: BriefState;
}
type AddDevice = (kind: string, name: string) => Outcome<Rig>;
type Listed = 'sources' | 'destinations' | 'sounds' | 'gear';

/** What the name and the cross of a line do, in whichever list it is. */
function lineEdits<P extends Listed>(
  { set, brief }: Pick<ListProps, 'set' | 'brief'>,
  part: P,
  id: string,
) {
  const list: readonly { id: string }[] = brief[part];
  const put = (changed: readonly { id: string }[]) => set({ [part]: changed });
  return {
    onName: (name: string) => put(list.map((x) => (x.id === id ? { ...x, name } : x))),
    onRemove: () => put(list.filter((x) => x.id !== id)),
  };
}

/** Devices of a kind, each added by its kind: instruments, or gear on hand. */
function KindList<P extends 'sources' | 'gear'>({
  part,
  title,
  label,
  data,
  beside,
  addDevice,
  ...lists
}: ListProps & {
  part: P;
  title: string;
  label: string;
  data: ReturnType<typeof kindOptions>;
  beside?: (line: Brief[P][number]) => ReactNode;
  addDevice: AddDevice;
}) {
  const { set, brief, id, state } = lists;
  const lines: readonly Brief[P][number][] = brief[part];
  const add = (kind: string) => {
    const { name } = kindOf(kind);
    set({ [part]: [...lines, { id: id(name), kind, name }] });
  };
  return (
    <Part title={title} add={<AddKind label={label} data={data} onAdd={add} />}>
      {lines.map((l) => (
        <Line
          key={l.id}
          part={part}
          line={l}
          state={state}
          what={kindOf(l.kind).name}
          {...lineEdits(lists, part, l.id)}
          onMake={() => addDevice(l.kind, l.name)}
        >
          {beside?.(l)}
        </Line>
      ))}
    </Part>
  );
}

/** What comes in. */
export function Instruments(props: ListProps & { addDevice: AddDevice }) {
  const { set, brief } = props;
  return (
    <KindList
      {...props}
      part="sources"
      title="What comes in"
      label="Add an instrument"
      data={INSTRUMENTS}
      beside={(l) =>
        canBeWireless(l) && (
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
        )
      }
    />
  );
}

/** Who must hear it. */
export function Destinations({ set, brief, id, state }: ListProps) {
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
          {...lineEdits({ set, brief }, 'destinations', l.id)}
        >
          {brief.sources.length > 1 && (
            <MultiSelect
              searchable
              size="xs"
              w={190}
              aria-label={`What ${l.name} must not hear`}
              placeholder={l.not?.length ? '' : 'may hear everything'}
              data={brief.sources.map((s) => ({ value: s.id, label: `not ${s.name}` }))}
              value={l.not ?? []}
              onChange={(not) =>
                set({
                  destinations: brief.destinations.map((x) => (x.id === l.id ? { ...x, not } : x)),
                })
              }
            />
          )}
        </Line>
      ))}
    </Part>
  );
}

/** The sounds that are wanted, each with its character. */
export function SoundsWanted({ set, brief, id, state }: ListProps) {
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
          {...lineEdits({ set, brief }, 'sounds', l.id)}
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

/** The gear that is there already. */
export const GearOnHand = (props: ListProps & { addDevice: AddDevice }) => (
  <KindList {...props} part="gear" title="Gear on hand" label="Add a piece of gear" data={GEAR} />
);

/** What must never happen, in words. */
export function Nevers({ set, brief, id }: Omit<ListProps, 'state'>) {
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
