/** Groups of things that were joined pairwise; groups are told apart by a number. */
export class Joined {
  private readonly parent: number[] = [];

  add(): number {
    return this.parent.push(this.parent.length) - 1;
  }

  join(a: number, b: number): void {
    this.parent[this.root(a)] = this.root(b);
  }

  root(a: number): number {
    let r = a;
    while (this.parent[r] !== r) r = this.parent[r]!;
    while (this.parent[a] !== r) [a, this.parent[a]] = [this.parent[a]!, r];
    return r;
  }
}
