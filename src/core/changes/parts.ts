/** Whether two parts of a rig are written alike. */
export const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Things of a list by their ids. */
export const byId = <T extends { id: string }>(list: readonly T[]): Map<string, T> =>
  new Map(list.map((x) => [x.id, x]));
