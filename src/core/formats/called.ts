/** Something of a rig that tables call by its name. */
interface Named {
  id: string;
  name: string;
}

/** Whether two texts are the same to a person: capitals and spaces around them do not count. */
export const same = (a: string, b: string): boolean =>
  a.trim().toLowerCase() === b.trim().toLowerCase();

/**
 * What a table calls one of several: its name, or its id where the name would mean another one too.
 * Empty where nobody is meant.
 */
export function calledIn(all: readonly Named[], id = ''): string {
  const one = all.find((x) => x.id === id);
  if (!one) return id;
  const isTaken = all.some((x) => x !== one && (same(x.name, one.name) || same(x.id, one.name)));
  return isTaken ? id : one.name;
}

type Say = (what: string) => void;

/** The only one that bears a name; nothing where none does, and where several do, which is said. */
export function namedSo<T extends Named>(all: readonly T[], name: string, say: Say): T | undefined {
  const named = all.filter((x) => same(x.name, name));
  if (named.length > 1)
    say(
      `"${name}" is what ${named.length} are called; write which by its id: ` +
        named.map((x) => x.id).join(', '),
    );
  return named.length === 1 ? named[0] : undefined;
}

/** Why a cell means nobody. `missing` is for what nothing is called. */
interface Why {
  say: Say;
  missing: (text: string) => string;
}

/** Whom a cell means, by id or by a name that one alone bears; else says why it is nobody. */
export function whoIs<T extends Named>(
  all: readonly T[],
  text: string,
  { say, missing }: Why,
): T | undefined {
  const byId = all.find((x) => x.id === text);
  if (byId) return byId;
  if (!all.some((x) => same(x.name, text))) say(missing(text));
  return namedSo(all, text, say);
}
