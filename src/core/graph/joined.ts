/** Groups of things that were joined pairwise. Groups are told apart by one of their members. */
export class Joined<T> {
  private readonly above = new Map<T, T>();

  /** Makes one group of the groups of two things. */
  join(a: T, b: T): void {
    this.above.set(this.root(a), this.root(b));
  }

  /** The member that stands for a thing's group; a thing that was never joined stands for itself. */
  root(thing: T): T {
    let root = thing;
    for (let up = this.above.get(root); up !== undefined && up !== root; up = this.above.get(root))
      root = up;
    // What was walked is tied to the root at once, so that the next walk is short.
    for (let at = thing; at !== root;) {
      const up = this.above.get(at) ?? root;
      this.above.set(at, root);
      at = up;
    }
    return root;
  }

  isJoined(a: T, b: T): boolean {
    return this.root(a) === this.root(b);
  }
}

/** Groups of numbers from 0 on, such as places in a list: what {@link Joined} does, without looking each up. */
export class JoinedNumbers {
  constructor(private readonly above: number[] = []) {}

  /** The same groups, to join further without touching these. */
  copy(): JoinedNumbers {
    return new JoinedNumbers(this.above.slice());
  }

  /** Makes one group of the groups of two numbers. */
  join(a: number, b: number): void {
    const root = this.root(a);
    while (this.above.length <= root) this.above.push(this.above.length);
    this.above[root] = this.root(b);
  }

  /** The number that stands for a number's group; one that was never joined stands for itself. */
  root(number: number): number {
    const { above } = this;
    let root = number;
    for (let up = above[root]; up !== undefined && up !== root; up = above[root]) root = up;
    for (let at = number; at !== root;) {
      const up = above[at] ?? root;
      above[at] = root;
      at = up;
    }
    return root;
  }
}
