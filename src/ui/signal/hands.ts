import type { PointerEvent } from 'react';

type Press = (e: PointerEvent<HTMLElement>) => void;

/** Whom a press on a strip is told: nobody until what drags strips is there. */
export class Hands {
  private readonly taken = new Map<string, Press>();

  /** @returns what ends it */
  take(station: string, press: Press): () => void {
    this.taken.set(station, press);
    return () => {
      if (this.taken.get(station) === press) this.taken.delete(station);
    };
  }

  press(station: string, e: PointerEvent<HTMLElement>): void {
    this.taken.get(station)?.(e);
  }
}
