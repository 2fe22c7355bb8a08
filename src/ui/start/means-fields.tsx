'use client';
import { Checkbox, MultiSelect, Select } from '@mantine/core';
import { KINDS } from '../../core/kinds';
import type { Brief, Means } from '../../core/rig';
import { isDigital, isFeed, voiceOf } from '../../core/start';

const SUPPLIES = KINDS.filter((k) => k.job === 'supply' && k.outlets).map((k) => ({
  value: k.id,
  label: k.name,
}));

const VOICE_WORDS: Record<NonNullable<Means['voice']>, string> = {
  amplifiers: 'amplifiers on stage',
  modeler: 'a modeler',
  simulator: 'a simulator on the board',
  none: 'nothing, it goes in as it is',
};
/** Nothing else takes a digital line. */
const ONLY_MODELER = { modeler: 'a modeler, as it takes the digital line' } as typeof VOICE_WORDS;
const SWITCHING_WORDS: Record<NonNullable<Means['switching']>, string> = {
  foot: 'each by its own foot switch',
  'loops-fixed': 'a loop switcher, fixed order',
  'loops-free': 'a loop switcher, free order',
};
const CALLER_WORDS: Record<NonNullable<Means['calls']>, string> = {
  none: 'nothing',
  own: 'what switches or models',
  controller: 'a foot controller',
  tablet: 'a set list on a tablet',
};

const options = <V extends string>(words: Record<V, string>) =>
  (Object.entries(words) as [V, string][]).map(([value, label]) => ({ value, label }));

/** Kinds of which there may be several, each told apart by its number: "supply-large#2". */
function counted(kinds: readonly string[]): string[] {
  const count = new Map<string, number>();
  return kinds.map((kind) => {
    const n = (count.get(kind) ?? 0) + 1;
    count.set(kind, n);
    return `${kind}#${n}`;
  });
}

/** Supplies to choose: what is taken, and one more of each kind. */
const suppliesFor = (taken: readonly string[]) =>
  SUPPLIES.flatMap(({ value, label }) =>
    Array.from({ length: taken.filter((k) => k === value).length + 1 }, (_, n) => ({
      value: `${value}#${n + 1}`,
      label: n === 0 ? label : `${label}, number ${n + 1}`,
    })),
  );

/** A question with a few answers, one of which is always taken. */
function Question<V extends string>({
  label,
  words,
  value,
  onAnswer,
}: {
  label: string;
  words: Record<V, string>;
  value: V;
  onAnswer: (value: V) => void;
}) {
  return (
    <Select
      size="xs"
      label={label}
      data={options(words)}
      value={value}
      allowDeselect={false}
      onChange={(v) => v && onAnswer(v)}
    />
  );
}

/** What decides the wiring beside who plays and who hears: only what matters for this brief is asked. */
export function MeansFields({
  brief,
  onMeans,
}: {
  brief: Pick<Brief, 'sources' | 'destinations' | 'means'>;
  onMeans: (means: Means) => void;
}) {
  const means = brief.means ?? {};
  const set = (part: Partial<Means>) => onMeans({ ...means, ...part });
  const voice = voiceOf(brief);
  const amps = brief.destinations.filter((d) => d.way === 'head' || d.way === 'combo').length;
  return (
    <div className="start-row" role="group" aria-label="What decides the wiring">
      <Question
        label="What makes the sound of an amplifier?"
        words={brief.sources.some(isDigital) ? ONLY_MODELER : VOICE_WORDS}
        value={voice}
        onAnswer={(v) => set({ voice: v })}
      />
      {brief.sources.filter((s) => !isFeed(s)).length > 1 && (
        <Question
          label="The instruments are"
          words={{ changed: 'changed', together: 'played together' }}
          value={means.together ? 'together' : 'changed'}
          onAnswer={(v) => set({ together: v === 'together' })}
        />
      )}
      {amps > 1 && voice === 'amplifiers' && (
        <Question
          label="The amplifiers sound"
          words={{ together: 'all at once', one: 'one in each sound' }}
          value={means.amps ?? 'together'}
          onAnswer={(v) => set({ amps: v })}
        />
      )}
      {brief.destinations.some((d) => d.way === 'house') && (
        <Question
          label="The house is"
          words={{ stereo: 'stereo', mono: 'mono' }}
          value={means.house ?? 'stereo'}
          onAnswer={(v) => set({ house: v })}
        />
      )}
      <Question
        label="What switches the pedals?"
        words={SWITCHING_WORDS}
        value={means.switching ?? 'foot'}
        onAnswer={(v) => set({ switching: v })}
      />
      <Question
        label="What calls sounds by MIDI?"
        words={CALLER_WORDS}
        value={means.calls ?? 'none'}
        onAnswer={(v) => set({ calls: v })}
      />
      <Checkbox
        className="start-narrow"
        size="xs"
        label="Choose power and a board, too"
        checked={means.built ?? false}
        onChange={(e) => set({ built: e.currentTarget.checked })}
      />
      {means.built && (
        <MultiSelect
          size="xs"
          label="Supplies on hand"
          placeholder={means.supplies?.length ? '' : 'none named: the smallest that would do'}
          data={suppliesFor(means.supplies ?? [])}
          value={counted(means.supplies ?? [])}
          onChange={(supplies) => set({ supplies: supplies.map((s) => s.replace(/#\d+$/, '')) })}
        />
      )}
    </div>
  );
}
