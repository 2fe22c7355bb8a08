'use client';
import { Checkbox, Group, MultiSelect, NumberInput, Select, TagsInput } from '@mantine/core';
import { useMemo } from 'react';
import { kindOf } from '../../core/kinds';
import { ORDER_RULES } from '../../core/order';
import { type Brief, CHARACTERS, kindOfSheet, type Sheet, type Way, WAYS } from '../../core/rig';
import { canBeWireless, isPedal, START_INSTRUMENTS, START_PEDALS } from '../../core/start';
import { CHARACTER_WORDS, kindOptions, WAY_NAMES, WAY_WORDS } from '../brief/words';
import { type Answers, briefOfAnswers, soundsFor, sourcesFor } from './answers';
import { MeansFields } from './means-fields';

/** Rules on which a start can follow either school. */
const CHOOSABLE = [
  'compressor-early',
  'filter-before-dirt',
  'boost-place',
  'volume-place',
  'gain-low-to-high',
  'tuner-place',
  'pitch-early',
  'time-after-dirt',
];

const instruments = kindOptions(START_INSTRUMENTS);
const pedals = kindOptions(START_PEDALS);

interface Asked {
  answers: Answers;
  /** Sheets of the locker, whose kinds are known. */
  own: readonly Sheet[];
  onAnswer: (part: Partial<Answers>) => void;
}

/** What is asked before a rig is proposed: what decides the wiring, and nothing else. */
export function Questions({ answers, own, onAnswer }: Asked) {
  const brief = briefOfAnswers(answers);
  return (
    <>
      <Instruments answers={answers} onAnswer={onAnswer} />
      <Listeners answers={answers} onAnswer={onAnswer} />
      <Pedals answers={answers} own={own} onAnswer={onAnswer} />
      {brief && <MeansFields brief={brief} onMeans={(means) => onAnswer({ means })} />}
      <SoundsAsked answers={answers} onAnswer={onAnswer} />
      <MultiSelect
        searchable
        size="xs"
        label="Where do you follow the other school?"
        data={ORDER_RULES.filter((r) => CHOOSABLE.includes(r.id)).map((r) => ({
          value: r.id,
          label: `${r.thing}: ${r.other}`,
        }))}
        value={answers.other}
        onChange={(other) => onAnswer({ other })}
      />
      <LimitFields answers={answers} onAnswer={onAnswer} />
    </>
  );
}

/** What comes in, each with its own wireless, and where it must not be heard. */
function Instruments({ answers, onAnswer }: Omit<Asked, 'own'>) {
  const { sources, ways, not } = answers;
  const direct = (Object.keys(ways) as Way[]).filter((w) => w !== 'head' && w !== 'combo');
  const put = (id: string, wireless: boolean) =>
    onAnswer({ sources: sources.map((s) => (s.id === id ? { ...s, wireless } : s)) });
  const bar = (id: string, chosen: string[]) =>
    onAnswer({
      not: Object.fromEntries(
        direct.map((way) => {
          const others = (not[way] ?? []).filter((s) => s !== id);
          return [way, chosen.includes(way) ? [...others, id] : others];
        }),
      ),
    });
  return (
    <>
      <MultiSelect
        size="xs"
        label="What comes in?"
        placeholder={sources.length ? '' : 'choose instruments'}
        searchable
        data={instruments}
        value={[...new Set(sources.map((s) => s.kind))]}
        onChange={(kinds) => onAnswer({ sources: sourcesFor(withTwins(kinds, sources), sources) })}
        hidePickedOptions
      />
      {sources.map((s) => (
        <div key={s.id} className="start-row start-source" data-source={s.id}>
          {canBeWireless(s) ? (
            <Checkbox
              className="start-narrow"
              size="xs"
              label={`${s.name} comes by wireless`}
              checked={s.wireless === true}
              onChange={(e) => put(s.id, e.currentTarget.checked)}
            />
          ) : (
            <span className="start-narrow start-named">{s.name}</span>
          )}
          {sources.length > 1 && direct.length > 0 && (
            <MultiSelect
              searchable
              size="xs"
              aria-label={`Who must not hear ${s.name}`}
              placeholder={
                direct.some((w) => not[w]?.includes(s.id)) ? '' : 'everybody may hear it'
              }
              data={direct.map((w) => ({ value: w, label: `not ${WAY_NAMES[w]}` }))}
              value={direct.filter((w) => not[w]?.includes(s.id))}
              onChange={(chosen) => bar(s.id, chosen)}
            />
          )}
        </div>
      ))}
      <Again
        label="Another instrument of a kind"
        kinds={sources.map((s) => s.kind)}
        onAdd={(kind) =>
          onAnswer({ sources: sourcesFor([...sources.map((s) => s.kind), kind], sources) })
        }
      />
    </>
  );
}

/** Kinds that are chosen, those of which there are several as often as they are there. */
const withTwins = (kinds: readonly string[], before: Brief['sources']): string[] =>
  kinds.flatMap((kind) =>
    Array<string>(Math.max(1, before.filter((s) => s.kind === kind).length)).fill(kind),
  );

/** One more of something that was chosen. */
function Again({
  label,
  kinds,
  onAdd,
}: {
  label: string;
  kinds: readonly string[];
  onAdd: (kind: string) => void;
}) {
  if (!kinds.length) return null;
  return (
    <Select
      searchable
      size="xs"
      w={260}
      aria-label={label}
      placeholder={`${label} …`}
      value={null}
      data={[...new Set(kinds)].map((k) => ({ value: k, label: kindOf(k).name }))}
      onChange={(v) => v && onAdd(v)}
    />
  );
}

/** Where it must be heard, and of amplifiers and loudspeakers how many. */
function Listeners({ answers, onAnswer }: Omit<Asked, 'own'>) {
  const { ways } = answers;
  return (
    <>
      <Checkbox.Group
        label="Where must it be heard?"
        value={Object.keys(ways)}
        onChange={(chosen) =>
          onAnswer({
            ways: Object.fromEntries(
              WAYS.filter((w) => chosen.includes(w)).map((w) => [w, ways[w] ?? 1]),
            ),
          })
        }
      >
        <Group gap={12} mt={4}>
          {Object.entries(WAY_WORDS).map(([value, label]) => (
            <Checkbox key={value} value={value} label={label} />
          ))}
        </Group>
      </Checkbox.Group>
      <div className="start-row">
        {(['head', 'combo'] as const)
          .filter((w) => ways[w])
          .map((w) => (
            <NumberInput
              key={w}
              className="start-number"
              size="xs"
              label={w === 'head' ? 'How many heads?' : 'How many combos?'}
              min={1}
              max={4}
              value={ways[w] ?? 1}
              onChange={(v) => onAnswer({ ways: { ...ways, [w]: Number(v) || 1 } })}
            />
          ))}
      </div>
    </>
  );
}

function Pedals({ answers, own, onAnswer }: Asked) {
  const { owned } = answers;
  const mine = useMemo(() => kindOptions(own.map(kindOfSheet).filter(isPedal)), [own]);
  return (
    <>
      <MultiSelect
        size="xs"
        label="Which pedals are on hand?"
        searchable
        data={[...mine.map((g) => ({ ...g, group: `Of your own: ${g.group}` })), ...pedals]}
        value={[...new Set(owned)]}
        onChange={(kinds) =>
          onAnswer({
            owned: kinds.flatMap((k) =>
              Array<string>(Math.max(1, owned.filter((o) => o === k).length)).fill(k),
            ),
          })
        }
        hidePickedOptions
      />
      <Again
        label="Another pedal of a kind"
        kinds={owned}
        onAdd={(kind) => onAnswer({ owned: [...owned, kind] })}
      />
    </>
  );
}

function SoundsAsked({ answers, onAnswer }: Omit<Asked, 'own'>) {
  const { sounds } = answers;
  return (
    <>
      <TagsInput
        size="xs"
        label="Which sounds, the quietest first?"
        value={sounds.map((s) => s.name)}
        onChange={(names) => onAnswer({ sounds: soundsFor(names, sounds) })}
        maxTags={30}
      />
      <div className="start-row">
        {sounds.map((s) => (
          <Select
            key={s.id}
            size="xs"
            label={`${s.name} is`}
            placeholder="as its place says"
            clearable
            value={s.character ?? null}
            data={CHARACTERS.map((c) => ({ value: c, label: CHARACTER_WORDS[c] }))}
            onChange={(v) =>
              onAnswer({
                sounds: sounds.map((x) =>
                  x.id === s.id ? { ...x, character: CHARACTERS.find((c) => c === v) } : x,
                ),
              })
            }
          />
        ))}
      </div>
    </>
  );
}

/** What the rig has to keep to: weight in kg, price in the crew's money, the board's size in mm. */
function LimitFields({ answers, onAnswer }: Omit<Asked, 'own'>) {
  const { limits } = answers;
  const field = (
    id: 'grams' | 'price' | 'boardWidth' | 'boardDepth',
    label: string,
    unit: number,
  ) => (
    <NumberInput
      key={id}
      size="xs"
      label={label}
      placeholder="none"
      min={0}
      value={typeof limits[id] === 'number' ? limits[id] / unit : ''}
      onChange={(v) => {
        const { [id]: _, ...others } = limits;
        const figure = Number(v);
        onAnswer({ limits: figure > 0 ? { ...others, [id]: figure * unit } : others });
      }}
    />
  );
  return (
    <div className="start-row" role="group" aria-label="Limits">
      {field('grams', 'At most, kg', 1000)}
      {field('price', 'At most, in money', 1)}
      {field('boardWidth', 'Board at most, mm wide', 1)}
      {field('boardDepth', 'Board at most, mm deep', 1)}
    </div>
  );
}
