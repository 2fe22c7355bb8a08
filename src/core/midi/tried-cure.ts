import type { Fix, Remark } from '../findings/finding';
import { applyEdits } from '../rig/apply';
import type { Edit } from '../rig/edits';
import type { Rig } from '../rig/schema';
import type { Scene } from '../control/scene';
import { runChange } from './change';
import { changeRemarks } from './change-remarks';
import { addressIn } from './commands';
import { freeAddress } from './free-address';
import { listenerRemarks } from './listeners';
import { messageReachRemarks } from './message-reach';
import type { Mismatch } from './mismatch';
import { begin, whatIsOff } from './rehearsal';
import { setStage, type Stage } from './stage';
import { wireRemarks } from './wire-remarks';
import { joinFix } from './wiring-fixes';

/** Who can put right what is not as meant. */
export type Cure = 'a hand' | 'a message' | 'a lead';

/** A way to put something right, and what it is about. */
interface Way {
  cure: Cure;
  edits: Edit[];
  subjects: readonly string[];
}

/**
 * Who can put right what is not as meant after a change: a lead or a message only where one of the
 * ways that the program knows, tried on a copy of the rig, does; else a hand, which always can.
 */
export class Cures {
  private ways: Way[] | undefined;

  constructor(private readonly stage: Stage) {}

  of(off: Mismatch, from: Scene, to: Scene): Cure {
    const { rig, graph } = this.stage.orders;
    if (!graph.devices.has(off.device)) return 'a hand';
    const told = this.known();
    // What goes round hangs on no one device; a plug that is pulled is the plainest way to end it.
    const known =
      off.because === 'endless'
        ? told.toSorted((a, b) => Number(b.cure === 'a lead') - Number(a.cure === 'a lead'))
        : told.filter((w) => w.subjects.includes(off.device));
    const ways = [...known, this.withoutLists(), ...this.own(off.device)];
    return ways.find((w) => cures(rig, w.edits, off, from, to))?.cure ?? 'a hand';
  }

  /** What follows from the programs, instead of lists that were written. */
  private withoutLists(): Way {
    const edits = this.stage.orders.rig.sounds.flatMap((sound) =>
      [...new Set((sound.sends ?? []).map((x) => x.from))].map((from): Edit => {
        return { edit: 'setSends', sound: sound.id, from, sends: null };
      }),
    );
    return { cure: 'a message', edits, subjects: [] };
  }

  /** Ways of one device: programs of its own, and leads from whoever calls sounds. */
  private own(device: string): Way[] {
    const { graph, rig, commanderOf } = this.stage.orders;
    const programs = this.programsFor(device);
    if (commanderOf.has(device)) return programs;
    const callers = [...graph.devices.values()].filter((m) => m.commands && m.device.id !== device);
    const leads = callers.flatMap((m) => joinFix(rig, m.device.id, device));
    return leads.flatMap(({ edits }) =>
      [edits, ...programs.map((p) => [...edits, ...p.edits])].map((all): Way => {
        return { cure: 'a lead', edits: all, subjects: [device] };
      }),
    );
  }

  /** The fixes of everything that is told of messages and the leads that carry them. */
  private known(): Way[] {
    if (this.ways) return this.ways;
    const { orders } = this.stage;
    const told: Remark[] = [
      ...changeRemarks(this.stage).map((r) => r.remark),
      ...listenerRemarks(orders),
      ...messageReachRemarks(orders),
      ...wireRemarks(orders.rig),
    ];
    return (this.ways = told.flatMap(({ fix, others = [], subjects }) =>
      [...(fix ? [fix] : []), ...others].map(({ edits }: Fix): Way => ({
        cure: cureBy(edits),
        edits,
        subjects,
      })),
    ));
  }

  /** A program of its own for every sound, where a device that takes programs keeps none yet. */
  private programsFor(device: string): Way[] {
    const { orders } = this.stage;
    const m = orders.graph.devices.get(device);
    if (!m?.programs || orders.scenes.some((s) => addressIn(s, device))) return [];
    const edits: Edit[] = [];
    for (const sound of orders.rig.sounds) {
      const taken = edits.flatMap((e) => (e.edit === 'setProgram' && e.program ? [e.program] : []));
      const program = freeAddress(this.stage, device, taken);
      if (program) edits.push({ edit: 'setProgram', device, sound: sound.id, program });
    }
    return [{ cure: 'a message', edits, subjects: [device] }];
  }
}

/** Plugs, boxes and leads are a lead's; what a device listens to, keeps and sends is a message's. */
const cureBy = (edits: readonly Edit[]): Cure =>
  edits.some((e) => !['setMidi', 'setSends', 'setProgram'].includes(e.edit))
    ? 'a lead'
    : 'a message';

/** Whether the same change, on a copy with these edits, ends as meant in what was off. */
function cures(rig: Rig, edits: Edit[], off: Mismatch, from: Scene, to: Scene): boolean {
  const made = applyEdits(rig, edits);
  if (!made.ok) return false;
  const copy = made.value.rig;
  const stage = setStage(copy);
  const [a, b] = [from, to].map((s) => stage.scene(s.id));
  if (!a || !b) return false;
  const { end, traffic } = runChange(stage, a, b, { quiet: true });
  if (off.because === 'endless') return !traffic.endless;
  const { feet } = begin(copy, stage, a);
  return !whatIsOff(copy, stage, { machine: end, feet }, b).some(
    (o) => o.device === off.device && o.key === off.key,
  );
}
