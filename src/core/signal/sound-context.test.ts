import { touringRig } from '../demo';
import type { Lead, Rig } from '../rig/schema';
import { sure } from '../outcome';
import { soundContext } from './sound-context';

const [sound] = touringRig.sounds;
const before = soundContext(touringRig, sure(sound));
const withLead = (change: Partial<Lead>): Rig => ({
  ...touringRig,
  leads: touringRig.leads.map((l, i) => (i === 6 ? { ...l, ...change } : l)),
});
const after = (rig: Rig) => soundContext(rig, sure(rig.sounds[0]), undefined, { before });

test('stations and steps are those of before while leads only get longer', () => {
  const { stations } = before;
  expect(after(withLead({ metres: 9 })).stations).toBe(stations);
  expect(after(withLead({ pfPerMetre: 220 })).stations).not.toBe(stations);
  expect(after({ ...touringRig, devices: [...touringRig.devices] }).stations).not.toBe(stations);
  const sounds = touringRig.sounds.map((s) => ({ ...s }));
  expect(after({ ...touringRig, sounds }).stations).not.toBe(stations);
});

test('figures are those of the longer lead all the same', () => {
  const longer = withLead({ metres: 9 });
  const fresh = soundContext(longer, sure(sound));
  const kept = after(longer);
  for (const { device, ins } of fresh.stations)
    for (const jack of ins) {
      expect(kept.at(device, jack).flows).toEqual(fresh.at(device, jack).flows);
    }
});
