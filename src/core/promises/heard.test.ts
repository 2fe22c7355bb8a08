import fc from 'fast-check';
import { kindOf } from '../kinds';
import { HAND_WIRED } from '../testing/hand-wired';
import { showRig } from '../testing/show-rigs';
import { cases } from '../testing/cases';
import { variants } from '../testing/variants';
import type { Rig, SettingValue, Sound } from '../rig/schema';
import { heardIn, heardInCircuit } from './heard';

/** Rigs of every sort: the demo rigs changed, those wired by hand, and random ones. */
const RIGS: Rig[] = [
  ...[...variants(2, 12)].map((v) => v.rig),
  ...Object.values(HAND_WIRED),
  ...fc.sample(showRig, { numRuns: cases(12, 200), seed: 7 }),
];

/** The sound with a parameter of a device at one of its values. */
const set = (sound: Sound, device: string, setting: string, value: SettingValue): Sound => ({
  ...sound,
  states: {
    ...sound.states,
    [device]: {
      ...sound.states[device],
      settings: { ...sound.states[device]?.settings, [setting]: value },
    },
  },
});

test('ways that are followed end where the circuit says, whatever is dead, shut or pressed', () => {
  let reached = 0;
  for (const rig of RIGS)
    for (const [i, device] of rig.devices.entries()) {
      const without = {
        ...rig,
        leads: i % 2 ? rig.leads : rig.leads.filter((l) => l.from.device !== device.id),
      };
      for (const sound of rig.sounds) {
        const turned = kindOf(device.kind).parameters.flatMap((p) => {
          if (p.type === 'switch')
            return [set(sound, device.id, p.id, true), set(sound, device.id, p.id, false)];
          if (p.type === 'choice')
            return p.options.map((o) => set(sound, device.id, p.id, o.value));
          if (!('min' in p)) return [];
          return [set(sound, device.id, p.id, p.min), set(sound, device.id, p.id, p.max)];
        });
        for (const tried of [sound, ...turned.slice(0, 4)]) {
          const heard = heardIn(without, tried);
          reached += heard.size;
          expect({ rig: rig.id, device: device.id, heard: [...heard].sort() }).toEqual({
            rig: rig.id,
            device: device.id,
            heard: [...heardInCircuit(without, tried)].sort(),
          });
        }
      }
    }
  expect(reached).toBeGreaterThan(1000);
}, 120_000);
