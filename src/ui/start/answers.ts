import { kindOf } from '../../core/kinds';
import {
  type Brief,
  freeName,
  freshId,
  type Limits,
  type Means,
  type Sheet,
  type Way,
} from '../../core/rig';
import { isFeed, type StartChoice } from '../../core/start';
import { WAY_NAMES } from '../brief/words';

/** What was answered on the page of a new rig so far. */
export interface Answers {
  name: string;
  sources: Brief['sources'];
  /** How many of each way to be heard. */
  ways: Partial<Record<Way, number>>;
  /** Sources that must not be heard somewhere, by the way. */
  not: Partial<Record<Way, string[]>>;
  /** Pedals by kind; two of one kind twice. */
  owned: string[];
  sounds: Brief['sounds'];
  other: string[];
  means: Means;
  limits: Limits;
}

const sound = (name: string) => ({ id: freshId(name, []), name });

export const NOTHING_YET: Answers = {
  name: '',
  sources: [],
  ways: {},
  not: {},
  owned: [],
  other: [],
  limits: {},
  sounds: ['Clean', 'Crunch', 'Lead'].map(sound),
  means: {},
};

/** Said where a rig has no name yet. */
export const A_NAME = 'a name';

/** What still has to be answered, in words. */
export const missingIn = ({ name, sources, ways, sounds, owned }: Answers): string[] => [
  ...(name.trim() ? [] : [A_NAME]),
  ...(sources.length ? [] : ['an instrument']),
  ...(sources.length && sources.every(isFeed) && (owned.length > 0 || ways.head || ways.combo)
    ? ['an instrument for the pedals and amplifiers']
    : []),
  ...(Object.keys(ways).length ? [] : ['where it is heard']),
  ...(sounds.length ? [] : ['a sound']),
];

/** Sources for a list of kinds: those that are there stay as they are, new ones get names that differ. */
export function sourcesFor(kinds: readonly string[], before: Brief['sources']): Brief['sources'] {
  const kept: Brief['sources'] = [];
  for (const kind of kinds) {
    const old = before.find((s) => s.kind === kind && !kept.includes(s));
    const [ids, names] = [kept.map((s) => s.id), kept.map((s) => s.name)];
    kept.push(old ?? { id: freshId(kind, ids), kind, name: freeName(kindOf(kind).name, names) });
  }
  return kept;
}

/** Sounds for a list of names: those that are there keep their character. */
export const soundsFor = (names: readonly string[], before: Brief['sounds']): Brief['sounds'] =>
  names.reduce<Brief['sounds']>((list, name) => {
    const ids = list.map((s) => s.id);
    const old = before.find((s) => s.name === name && !ids.includes(s.id));
    return [...list, old ?? { id: freshId(name, ids), name }];
  }, []);

/** The brief that the answers make; nothing while too little is answered. */
export function briefOfAnswers(answers: Answers): Brief | null {
  const { sources, ways, not, owned, sounds, means } = answers;
  if (!sources.length || !Object.keys(ways).length || !sounds.length) return null;
  const names: string[] = [];
  const named = (base: string): string => {
    const name = freeName(base, names);
    names.push(name);
    return name;
  };
  return {
    sources,
    sounds,
    means,
    destinations: (Object.keys(ways) as Way[]).flatMap((way) =>
      Array.from({ length: ways[way] ?? 1 }, (_, n) => ({
        id: n ? `${way}-${n + 1}` : way,
        way,
        name: named(WAY_NAMES[way]),
        ...(not[way]?.length && { not: not[way] }),
      })),
    ),
    gear: owned.map((kind, n) => ({ id: `gear-${n + 1}`, kind, name: named(kindOf(kind).name) })),
  };
}

/** What the rig is called, and an id of that. */
export const calledAs = ({ name }: Pick<Answers, 'name'>): { id: string; name: string } => ({
  id: freshId(name || 'rig', []),
  name: name.trim() || 'New rig',
});

/** What goes with the brief into a proposal. */
export const choiceOf = (
  { name, other, limits }: Answers,
  sheets: readonly Sheet[],
): StartChoice => ({
  ...calledAs({ name }),
  otherSchool: other,
  limits,
  ...(sheets.length > 0 && { sheets }),
});
