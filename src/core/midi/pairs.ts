import type { Scene } from '../control/scene';
import { sure } from '../outcome';
import { type Because, type Mismatch, programKey } from './mismatch';
import { type Change, runChange } from './change';
import { record, type Recording, replay } from './replay';
import { type Stage } from './stage';
import { begin, isIdle, type Rehearsal, whatIsOff } from './rehearsal';
import { type Cure, Cures } from './tried-cure';

/** What goes wrong with one device in one way, over all changes in which it does. */
export interface PairFault {
  device: string;
  because: Because;
  cure: Cure;
  keys: string[];
  pairs: { from: string; to: string }[];
  count: number;
}

/** Every ordered pair of scenes, simulated from the states of the first. */
export interface PairReport {
  pairs: number;
  /** Changes after which everything that the scene speaks of is as meant, without a hand. */
  good: number;
  /** Changes after which all is as meant but for what hands and feet do: what no message moves. */
  byHand: number;
  faults: PairFault[];
  /** The change after which it takes longest until everything is in place. */
  slowest: { from: string; to: string; ms: number } | null;
  /** Times until all is in place, in ms, by the scene that is called. */
  doneMs: Record<string, number>;
}

/** Messages that go round without end, as something that is not as meant: of the device that was pressed. */
function endlessAt({ pressed, traffic }: Change): Mismatch {
  const device = pressed[0] ?? traffic.received[0]?.device ?? '';
  return { device, key: `${device} messages`, wanted: 'an end', got: 'none', because: 'endless' };
}

/** Pairs that are named for each fault; all are counted. */
const NAMED = 12;

/**
 * Simulates changes from every scene to every other, one row at a time, so that the caller can say
 * how far it is between rows.
 */
export function* pairRows(stage: Stage): Generator<number, PairReport> {
  const { scenes } = stage.orders;
  const faults = new Map<string, PairFault>();
  const doneMs: Record<string, number> = {};
  const hands = new Hands(stage);
  const cures = new Cures(stage);
  let [pairs, good, byHand] = [0, 0, 0];
  let slowest: PairReport['slowest'] = null;
  for (const [row, to] of scenes.entries()) {
    let recording: Recording | undefined;
    for (const from of scenes) {
      if (from === to) continue;
      pairs++;
      let ended = recording && replay(stage, from, to, recording);
      if (!ended) {
        const change = runChange(stage, from, to, { quiet: true });
        if (change.traffic.endless) {
          // From wherever it is called: what goes round hangs on the leads.
          const rest = scenes.filter((s) => s !== to);
          pairs += rest.length - 1;
          for (const other of rest) gather(faults, [endlessAt(change)], other, to, cures);
          break;
        }
        ended = change;
        recording = record(stage, change);
        if (change.doneMs > (slowest?.ms ?? -1))
          slowest = { from: from.id, to: to.id, ms: change.doneMs };
        doneMs[to.id] = Math.max(doneMs[to.id] ?? 0, change.doneMs);
      }
      const left = hands.left(ended, from, to);
      const intended = (m: Mismatch) => stage.memory.intent(to, m.device);
      const told = ended.mismatches.filter(
        (m) => m.key === programKey(m.device) || !isIdle(intended(m), m.key),
      );
      if (!told.length) {
        if (left.length) byHand++;
        else good++;
      }
      gather(faults, [...told, ...left], from, to, cures);
    }
    yield (row + 1) / scenes.length;
  }
  return {
    pairs,
    good,
    byHand,
    slowest,
    doneMs,
    faults: [...faults.values()].sort((a, b) => b.count - a.count),
  };
}

function gather(
  faults: Map<string, PairFault>,
  mismatches: readonly Mismatch[],
  from: Scene,
  to: Scene,
  cures: Cures,
): void {
  const seen = new Set<PairFault>();
  for (const m of mismatches) {
    const key = `${m.device} ${m.because}`;
    let fault = faults.get(key);
    if (!fault)
      faults.set(
        key,
        (fault = {
          device: m.device,
          because: m.because,
          cure: cures.of(m, from, to),
          keys: [],
          pairs: [],
          count: 0,
        }),
      );
    if (!fault.keys.includes(m.key)) fault.keys.push(m.key);
    if (seen.has(fault)) continue;
    seen.add(fault);
    fault.count++;
    if (fault.pairs.length < NAMED) fault.pairs.push({ from: from.id, to: to.id });
  }
}

/** What is left once messages have landed: what no message moves, on devices that know MIDI and on all others. */
class Hands {
  private readonly begun: Map<string, Rehearsal>;

  constructor(private readonly stage: Stage) {
    const { scenes, rig } = stage.orders;
    this.begun = new Map(scenes.map((s) => [s.id, begin(rig, stage, s)]));
  }

  left(
    { mismatches, end }: Pick<Change, 'mismatches' | 'end'>,
    from: Scene,
    to: Scene,
  ): Mismatch[] {
    const { rig } = this.stage.orders;
    const feet = sure(this.begun.get(from.id)).feet;
    return whatIsOff(rig, this.stage, { machine: end, feet }, to)
      .filter((o) => !mismatches.some((m) => m.device === o.device && m.key === o.key))
      .map(({ midi, device, key, wanted, got }) => ({
        device,
        key,
        wanted,
        got,
        because: midi && this.isTold(device) ? 'not sent' : 'by hand',
      }));
  }

  /** Whether somebody tells a device what a scene is. */
  private isTold(device: string): boolean {
    return this.stage.orders.commanderOf.has(device);
  }
}

/** All pairs in one go. */
export function allPairs(stage: Stage): PairReport {
  const rows = pairRows(stage);
  for (;;) {
    const { done, value } = rows.next();
    if (done) return value;
  }
}
