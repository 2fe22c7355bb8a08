import { sure } from '../outcome';
import { buildCircuit, type Circuit, type CircuitStage } from '../circuit';
import { nameOf } from '../rig/find';
import type { PromiseOf, Rig, Sound } from '../rig/schema';
import { carriedFrom, destinationsIn, isOpen, sectionOut } from './carried';
import type { Breach, Ground } from './ground';
import { allOf } from '../units';

/**
 * Destinations that a passive section reaches through stages that carry signal, and the gates on
 * the way there.
 */
function reachedFrom(
  circuit: Circuit,
  section: number,
): { destinations: Set<string>; gates: Set<string> } {
  const { sections, gates } = carriedFrom(circuit, [section]);
  return { destinations: destinationsIn(circuit, sections), gates };
}

const ringing = (circuit: Circuit): CircuitStage[] =>
  circuit.stages.filter((s) => s.stage.rings && isOpen(s.stage));

/** What rings in the first sound, is heard there, and would be cut off by changing to the second. */
export function cutTails(rig: Rig, from: Sound, to: Sound): { device: string; why: string }[] {
  const [before, after] = [buildCircuit(rig, from), buildCircuit(rig, to)];
  const cut: { device: string; why: string }[] = [];
  for (const id of new Set(ringing(before).map((s) => s.device))) {
    const heard = new Set(
      ringing(before)
        .filter((s) => s.device === id)
        .flatMap((s) => [...reachedFrom(before, sectionOut(before, s)).destinations]),
    );
    if (!heard.size) continue;
    const still = ringing(after).filter((s) => s.device === id);
    if (!still.length) {
      cut.push({
        device: id,
        why: `${nameOf(rig, id)} stops when it is switched off, and its tails with it.`,
      });
      continue;
    }
    const ways = still.map((s) => reachedFrom(after, sectionOut(after, s)));
    const lost = [...heard].filter((d) => !ways.some((w) => w.destinations.has(d)));
    if (lost.length)
      cut.push({
        device: id,
        why:
          `${nameOf(rig, id)} no longer ` +
          `reaches ${allOf(lost.map((d) => nameOf(rig, d)))}, so its tail is cut there.`,
      });
    else {
      const gates = [...new Set(ways.flatMap((w) => [...w.gates]))];
      if (gates.length)
        cut.push({
          device: id,
          why:
            `${allOf(gates.map((g) => nameOf(rig, g)))} ${gates.length > 1 ? 'stand' : 'stands'} behind ` +
            `${nameOf(rig, id)} and ${gates.length > 1 ? 'shut' : 'shuts'} on its tail.`,
        });
    }
  }
  return cut;
}

/** Echoes and reverberation that sound in one sound go on after the change to another. */
export function tailsSurvive(p: PromiseOf<'tails-survive'>, { rig, sound }: Ground): Breach[] {
  return cutTails(rig, sure(sound(p.from)), sure(sound(p.to))).map(({ device, why }) => ({
    sound: p.to,
    why,
    subjects: [device],
  }));
}
