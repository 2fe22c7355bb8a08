import { DEMO_RIGS } from '../demo';
import { deviceOf, isPlugged, leadOf, leadsFrom, leadsInto, settle } from './find';

test.each(DEMO_RIGS.map((r) => [r.name, r] as const))(
  '%s: what is found in lists that can no longer change is what looking through them finds',
  (_, written) => {
    const loose = { ...written, devices: [...written.devices], leads: [...written.leads] };
    const settled = { ...loose, devices: [...loose.devices], leads: [...loose.leads] };
    settle(settled);
    expect(() => settled.leads.pop()).toThrow(TypeError);
    for (const { id } of [...loose.devices, { id: 'nobody' }]) {
      expect(deviceOf(settled, id)).toBe(loose.devices.find((d) => d.id === id));
      expect(leadsFrom(settled, id)).toEqual(loose.leads.filter((l) => l.from.device === id));
      expect(leadsInto(settled, id)).toEqual(leadsInto(loose, id));
      const ends = loose.leads.flatMap((l) => [l.from, l.to]).filter((e) => e.device === id);
      expect(isPlugged(settled, id)).toBe(ends.length > 0);
      for (const { jack } of ends) expect(isPlugged(settled, id, jack)).toBe(true);
      expect(isPlugged(settled, id, 'no jack of it')).toBe(false);
    }
    for (const l of loose.leads)
      expect([leadOf(settled, l.id), leadOf(loose, l.id)]).toEqual([l, l]);
  },
);

test('of two that share an id, as in a list that nobody checked, the first is meant', () => {
  const [rig] = DEMO_RIGS;
  const [one, other] = rig!.devices;
  const twice = { devices: [one!, { ...other!, id: one!.id }], leads: [] };
  expect(deviceOf(twice, one!.id)).toBe(one);
  settle(twice);
  expect(deviceOf(twice, one!.id)).toBe(one);
});
