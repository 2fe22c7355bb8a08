import { atEar, effectsOf, Listener, symptomWords } from '../../core/show';
import { nameOf, type Rig, soundOf } from '../../core/rig';
import { command } from '../command';

/** Every single fault, and what would be noticed of it where. */
export const faults = command({
  name: 'faults',
  about:
    'every single fault that the rig can have, and what would be noticed of it, where and when',
  options: [],
  run: async (rig) => {
    const effects = await effectsOf(new Listener(rig));
    const found = effects.faults.map((fault, f) => ({
      ...fault,
      noticed: effects.sounds.flatMap((sound, s) =>
        effects.ears.flatMap((ear, e) => {
          const bits = atEar(effects, f, s, e);
          return bits ? [{ sound: sound.id, at: ear.device, what: symptomWords(bits) }] : [];
        }),
      ),
    }));
    return {
      json: found,
      lines: found.flatMap((f) => [
        `${f.words} (${f.perThousand} in 1000 shows)`,
        ...told(rig, f.noticed).map((t) => `    ${t}`),
      ]),
    };
  },
});

/** What is noticed, the same in several sounds told once. */
function told(rig: Rig, list: readonly { sound: string; at: string; what: string }[]): string[] {
  const by = new Map<string, string[]>();
  for (const { sound, at, what } of list) {
    const key = `${nameOf(rig, at)}: ${what}`;
    by.set(key, [...(by.get(key) ?? []), soundOf(rig, sound)?.name ?? sound]);
  }
  return by.size
    ? [...by].map(([what, sounds]) => `${what}, in ${sounds.join(', ')}`)
    : ['nobody notices anything'];
}
