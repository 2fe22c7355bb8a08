import fc from 'fast-check';
import { touringRig } from '../demo';
import { analyse } from '../report';
import { applyEdits, type Rig } from '../rig';
import { cases } from '../testing/cases';
import { valueOf } from '../testing/value-of';
import { BUILD_REMARKS } from './build-remarks';

const told = (rig: Rig) => BUILD_REMARKS.racks(rig).filter((r) => r.severity === 'fault');
const moved = (id: string, at: object): Rig => ({
  ...touringRig,
  devices: touringRig.devices.map((d) =>
    d.id === id && d.rack ? { ...d, rack: { ...d.rack, ...at } } : d,
  ),
});

test('what takes the room of another is mounted where there is room, between others too', () => {
  const rig = moved('sim', { x: 100 });
  const [clash] = told(rig);
  expect(clash!.what).toBe('Dry-dock Simulator and Drift Chorus take the same room in Tide rack.');
  // It came out of the gap that is left there; for the other one there is none.
  expect(clash!.fix!.words).toBe(
    'Mount Dry-dock Simulator at unit 6 of Tide rack, 0 mm from the left rail',
  );
  expect(clash!.others).toBeUndefined();
  const back = valueOf(applyEdits(rig, clash!.fix!.edits)).rig;
  expect(back.devices).toEqual(touringRig.devices);
});

test('either of two is offered where there is room for either', () => {
  const rig = moved('sim', { x: 100 });
  const high = { ...rig, racks: rig.racks!.map((r) => ({ ...r, units: 20 })) };
  const clash = told(high).find((r) => r.rule === 'rack-overlap')!;
  const ways = [clash.fix!, ...(clash.others ?? [])];
  expect(ways.map((w) => w.words)).toEqual([
    'Mount Drift Chorus at unit 12 of Tide rack, 0 mm from the left rail',
    'Mount Dry-dock Simulator at unit 6 of Tide rack, 0 mm from the left rail',
  ]);
  for (const way of ways) expect(told(valueOf(applyEdits(high, way.edits)).rig)).toEqual([]);
});

test('nothing is offered where the rack is full', () => {
  const rig = moved('ears', { unit: 14 });
  expect(told(rig).map((r) => r.what)).toEqual([
    'Iseult’s in-ears goes over the top of Tide rack.',
  ]);
  const low = { ...rig, racks: rig.racks!.map((r) => ({ ...r, units: 11 })) };
  const full = {
    ...low,
    devices: low.devices.map((d) =>
      d.id === 'hatch' || !d.rack || d.id === 'ears'
        ? d
        : { ...d, units: 11, rack: { rack: 'tide-rack', unit: 1 } },
    ),
  };
  const over = told(full).find((r) => r.rule === 'rack-too-high' && r.subjects[0] === 'ears');
  expect(over!.fix).toBeUndefined();
});

const mounted = touringRig.devices.filter((d) => d.rack && !d.rack.rear).map((d) => d.id);

test('wherever something is mounted: a way out cures what it is offered for and makes nothing else wrong', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...mounted),
      fc.integer({ min: 1, max: 16 }),
      fc.integer({ min: 0, max: 60 }),
      (id, unit, x) => {
        const rig = moved(id, { unit, x: x * 5 });
        const keys = (r: Rig) => told(r).map((f) => `${f.rule} ${f.about}`);
        const before = keys(rig);
        for (const remark of told(rig))
          for (const way of [remark.fix, ...(remark.others ?? [])]) {
            if (!way) continue;
            const after = keys(valueOf(applyEdits(rig, way.edits)).rig);
            expect(after).not.toContain(`${remark.rule} ${remark.about}`);
            expect(after.filter((k) => !before.includes(k))).toEqual([]);
          }
      },
    ),
    { numRuns: cases(60, 1000) },
  );
});

test('it stands among the findings', () => {
  const finding = analyse(moved('sim', { x: 100 })).findings.find((f) => f.rule === 'rack-overlap');
  expect(finding?.fix?.words).toMatch(/^Mount Dry-dock Simulator/);
});
