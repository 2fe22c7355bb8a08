import { placeWalk, walkView } from '../../core/draw';
import { analyse } from '../../core/report';
import { touringRig } from '../../core/demo';
import { sure } from '../../core/outcome';
import { nearFirst, nearOnly } from './far-later';

const sound = sure(touringRig.sounds[0]).id;
const walked = (rig = touringRig) => {
  const report = sure(analyse(rig).sounds.find((s) => s.sound === sound));
  return placeWalk(walkView(rig, report), rig.leads, 4);
};
const before = walked();
/** The same strips with other figures, and one that was not there. */
const now = {
  ...before,
  stations: [
    ...before.stations.map((p) => ({ ...p, station: { ...p.station, headroomDb: 1 } })),
    {
      ...sure(before.stations[0]),
      x: 99_000,
      station: { ...sure(before.stations[0]).station, id: 'new' },
    },
  ],
};
const shown = { left: 0, top: 0, width: 500, height: 400 };

it('draws what is on screen as it is now, and what is far from it as it was', () => {
  const drawn = nearFirst(now, before, shown);
  const [near, far] = [drawn.stations[0], drawn.stations.find((p) => p.x > 1000)];
  expect(near).toBe(now.stations[0]);
  expect(before.stations).toContain(far);
});

it('leaves out nothing and keeps the order: what was not there before is drawn as it is now', () => {
  const drawn = nearFirst(now, before, shown);
  expect(drawn.stations.map((p) => p.station.id)).toEqual(now.stations.map((p) => p.station.id));
  expect(drawn.stations.at(-1)).toBe(now.stations.at(-1));
  expect(drawn.leads.map((l) => l.lead.id)).toEqual(now.leads.map((l) => l.lead.id));
});

it('draws all as it is now where all is on screen', () => {
  const drawn = nearFirst(now, before, { left: 0, top: 0, width: 100_000, height: 100_000 });
  expect(drawn.stations).toEqual(now.stations);
});

it('of a long walk draws only what is near, with the ways that cross it, and what is held', () => {
  const first = sure(before.stations[0]);
  const last = sure(before.stations.at(-1));
  const lead = sure(before.leads.findLast((l) => l.x > 1000)).lead.id;
  const drawn = nearOnly(before, shown, new Set([last.station.device, lead]));
  expect(drawn.stations).toContain(first);
  expect(drawn.stations).toContain(last);
  expect(drawn.stations.length).toBeLessThan(before.stations.length);
  for (const p of before.stations)
    if (p.x < shown.width && p.y < shown.height) expect(drawn.stations).toContain(p);
  expect(drawn.leads.map((l) => l.lead.id)).toContain(lead);
  expect(drawn.leads.length).toBeLessThan(before.leads.length);
  // A way that begins in sight is drawn to where it leads.
  for (const w of before.ways) if (w.from.x < shown.width) expect(drawn.ways).toContain(w);
  expect(drawn.ways.length).toBeLessThan(before.ways.length);
  expect(drawn).toMatchObject({ width: before.width, height: before.height, lanes: before.lanes });
});

it('scrolled to the end, draws the end', () => {
  const there = { left: before.width - 500, top: 0, width: 500, height: before.height };
  const drawn = nearOnly(before, there, new Set());
  for (const p of before.stations) if (p.x > there.left) expect(drawn.stations).toContain(p);
  expect(drawn.stations.map((p) => p.station.id)).not.toContain(
    sure(before.stations[0]).station.id,
  );
});
