/** A song's way over the pages: which things lie on one page, and how often the page changes. */
export interface Paged {
  /** Pages of things by number, in the order in which they are first called. */
  pages: number[][];
  changes: number;
}

/** More steps than this are not searched; what was best until then is taken. */
const MOST_STEPS = 200_000;

/** How often a way over numbered things leads from one page to another. */
export function changesOf(way: readonly number[], pages: readonly (readonly number[])[]): number {
  const pageOf = new Map(pages.flatMap((page, p) => page.map((thing) => [thing, p] as const)));
  return way.filter((thing, i) => i > 0 && pageOf.get(thing) !== pageOf.get(way[i - 1] ?? thing))
    .length;
}

/**
 * Puts the things that a way calls on pages of at most `room`, each on one page, so that the page
 * changes as rarely as can be, and on as few pages as that allows. Exact up to a dozen things or so;
 * with more, the best that was found in 200,000 steps.
 *
 *     fewestChanges([0, 1, 0, 1, 2, 3, 2, 3], 2).pages // [[0, 1], [2, 3]]
 */
export function fewestChanges(way: readonly number[], room: number): Paged {
  const things = [...new Set(way)];
  return new PageSearch(way, things, Math.max(1, room)).found();
}

/**
 * The idea: things are put on pages in the order in which they are called, each on a page that has
 * room or on a new one. What a choice costs is known at once: the steps between it and what lies on
 * other pages. A branch that costs as much as the best one is left.
 */
class PageSearch {
  private readonly between: number[][];
  private best: Paged;
  private steps = 0;

  constructor(
    way: readonly number[],
    private readonly things: readonly number[],
    private readonly room: number,
  ) {
    const at = new Map(things.map((t, i) => [t, i]));
    this.between = things.map(() => things.map(() => 0));
    way.forEach((thing, i) => {
      const [a, b] = [at.get(thing), at.get(way[i - 1] ?? thing)];
      if (a === undefined || b === undefined || a === b) return;
      for (const [x, y] of [
        [a, b],
        [b, a],
      ] as const) {
        const row = this.between[x];
        if (row) row[y] = (row[y] ?? 0) + 1;
      }
    });
    // As they come, page after page: there is always that.
    const pages: number[][] = [];
    things.forEach((_, i) => {
      const last = pages.at(-1);
      if (last && last.length < room) last.push(i);
      else pages.push([i]);
    });
    this.best = { pages, changes: this.costOf(pages) };
  }

  found(): Paged {
    this.place(0, [], 0);
    const pages = this.best.pages
      .map((page) => page.toSorted((a, b) => a - b))
      .sort((a, b) => (a[0] ?? 0) - (b[0] ?? 0))
      .map((page) => page.map((i) => this.things[i] ?? 0));
    return { pages, changes: this.best.changes };
  }

  private costOf(pages: readonly (readonly number[])[]): number {
    const pageOf = new Map(pages.flatMap((page, p) => page.map((i) => [i, p] as const)));
    let cost = 0;
    this.between.forEach((row, a) =>
      row.forEach((n, b) => {
        if (a < b && pageOf.get(a) !== pageOf.get(b)) cost += n;
      }),
    );
    return cost;
  }

  private place(i: number, pages: number[][], cost: number): void {
    if (++this.steps > MOST_STEPS) return;
    const { best } = this;
    if (cost > best.changes || (cost === best.changes && pages.length >= best.pages.length)) return;
    if (i === this.things.length) {
      this.best = { pages: pages.map((p) => [...p]), changes: cost };
      return;
    }
    const steps = this.between[i] ?? [];
    const placed = steps.slice(0, i).reduce((sum, n) => sum + n, 0);
    const ways = pages
      .filter((page) => page.length < this.room)
      .map((page) => ({ page, near: page.reduce((sum, j) => sum + (steps[j] ?? 0), 0) }))
      .sort((a, b) => b.near - a.near);
    for (const { page, near } of ways) {
      page.push(i);
      this.place(i + 1, pages, cost + placed - near);
      page.pop();
    }
    pages.push([i]);
    this.place(i + 1, pages, cost + placed);
    pages.pop();
  }
}
