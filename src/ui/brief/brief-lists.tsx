'use client';
import { Checkbox, Select } from '@mantine/core';
import { kindOf, KINDS } from '../../core/kinds';
import { type Outcome, sure } from '../../core/outcome';
import { type Brief, CHARACTERS, freshId, type Rig, WAYS } from '../../core/rig';
import { type BriefState, START_INSTRUMENTS } from '../../core/start';
import { useDocument, useRig } from '../store/use-rig';
import { CHARACTER_WORDS, kindOptions, WAY_NAMES, WAY_WORDS } from './words';
import { AddKind, AddText, Line, Part, Remove } from './brief-line';

const INSTRUMENTS = kindOptions(START_INSTRUMENTS);
const GEAR = kindOptions(KINDS.filter((k) => k.size && k.job !== 'instrument' && !k.destination));

/** What comes in. */
export function Instruments({
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

/** Who must hear it. */
export function Destinations({
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

/** The sounds that are wanted, each with its character. */
export function SoundsWanted({
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

/** The gear that is there already. */
export function GearOnHand({
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

/** What must never happen, in words. */
export function Nevers({
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
