import fc from 'fast-check';
import { DEMO_RIGS, touringRig } from '../demo';
import { kindOf } from '../kinds';
import { device, lead, rigOf } from '../testing/rigs';
import {
  blocksOf,
  byId,
  deviceOf,
  endWords,
  isPlugged,
  leadFrom,
  leadInto,
  leadOf,
  leadPf,
  leadsFrom,
  leadsInto,
  nameOf,
  settle,
} from './find';
import { isFreeLoop } from './loop-edits';
import { loopAround, loopState } from './loop-holding';

test('things are in the same order by their ids, whatever the order of the file', () => {
  const ids = fc.uniqueArray(fc.string({ minLength: 1, maxLength: 4 }), { maxLength: 12 });
  fc.assert(
    fc.property(
      ids.chain((all) =>
        fc.tuple(fc.constant(all), fc.shuffledSubarray(all, { minLength: all.length })),
      ),
      ([all, other]) => {
        const sorted = (list: string[]) =>
          list
            .map((id) => ({ id }))
            .sort(byId)
            .map((x) => x.id);
        expect(sorted(other)).toEqual(sorted(all));
        for (const [i, id] of sorted(all).entries())
          if (i) expect(sorted(all)[i - 1]! < id).toBe(true);
      },
    ),
  );
  expect(byId({ id: 'a' }, { id: 'a' })).toBe(0);
});

test('the capacitance of a lead: as measured, else its metres times what is stated, else times 100', () => {
  const one = lead('l', 'a.out', 'b.in', 3, 'instrument');
  expect(leadPf(one)).toBe(300);
  expect(leadPf({ ...one, pfPerMetre: 80 })).toBe(240);
  expect(leadPf({ ...one, pfPerMetre: 80, pF: 270 })).toBe(270);
  expect(leadPf({ ...one, metres: 0 })).toBe(0);
});

test('a jack in words is the device and the label; what is not there is called by its ids', () => {
  const rig = rigOf(
    [device('g', 'guitar-humbucker', 'Guitar'), device('b', 'boost', 'Boost')],
    [lead('l', 'g.out', 'b.in', 3)],
  );
  expect(endWords(rig, { device: 'b', jack: 'in' })).toBe('Boost, in');
  expect(endWords(rig, { device: 'b', jack: 'nowhere' })).toBe('Boost, nowhere');
  expect(endWords(rig, { device: 'gone', jack: 'in' })).toBe('gone, in');
  expect([nameOf(rig, 'g'), nameOf(rig, 'g/piezo'), nameOf(rig, 'gone')]).toEqual([
    'Guitar',
    'Guitar, piezo',
    'gone',
  ]);
  expect(leadFrom(rig, 'g', 'out')?.id).toBe('l');
  expect(leadInto(rig, 'b', 'in')?.id).toBe('l');
  expect([leadFrom(rig, 'b', 'out'), leadInto(rig, 'g', 'out')]).toEqual([undefined, undefined]);
});

test('every block of a host is found, and only those', () => {
  for (const host of touringRig.devices) {
    const blocks = blocksOf(touringRig, host.id);
    expect(blocks.every((b) => b.host === host.id)).toBe(true);
    expect(blocks.length).toBe(touringRig.devices.filter((d) => d.host === host.id).length);
  }
  expect(deviceOf(touringRig, 'nobody')).toBeUndefined();
});

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
      expect(blocksOf(settled, id)).toEqual(blocksOf(loose, id));
      expect(loopAround(settled, id)).toEqual(loopAround(loose, id));
    }
    for (const { id, kind } of loose.devices)
      for (const loop of kindOf(kind).loops ?? []) {
        expect(loopState(settled, id, loop)).toEqual(loopState(loose, id, loop));
        expect(isFreeLoop(settled, id, loop)).toBe(isFreeLoop(loose, id, loop));
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
