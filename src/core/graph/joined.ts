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
