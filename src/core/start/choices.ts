/** Something that a start decided: what was taken, why, and what else can be. */
export interface Choice {
  id: string;
  /** What is decided, as the label of a list. */
  about: string;
  taken: string;
  /** `brings`: what is worse with it, tried on a copy; left out where that was not tried. */
  options: readonly { value: string; label: string; brings?: readonly string[] }[];
  /** Why what was taken was taken. */
  why: string;
  /** It decides the wiring, so that another way of it can be tried by wiring anew. */
  isWired?: boolean;
}

/** The decisions of a start, in the order in which they were taken. */
export class Choices {
  readonly all: Choice[] = [];

  /** What was decided of something, where it was asked. */
  taken = (id: string): string | undefined => this.all.find((c) => c.id === id)?.taken;

  constructor(private readonly changed: Readonly<Record<string, string>>) {}

  /**
   * Decides: what was asked for, where it can be; else what is usual. A decision that leaves nothing
   * to choose is told all the same; what was decided already stays so.
   */
  take<const V extends string>(
    id: string,
    about: string,
    options: readonly (readonly [value: V, label: string])[],
    usual: NoInfer<V>,
    why: (taken: V) => string,
  ): V {
    const before = this.all.find((c) => c.id === id);
    const known = options.find(([value]) => value === before?.taken)?.[0];
    if (known !== undefined) return known;
    const asked = options.find(([value]) => value === this.changed[id])?.[0];
    const taken = asked ?? usual;
    this.all.push({
      id,
      about,
      taken,
      why: why(taken),
      isWired: true,
      options: options.map(([value, label]) => ({ value, label })),
    });
    return taken;
  }
}
