import { placeWalk, walkView } from '../../core/draw';
import { analyse } from '../../core/report';
import { touringRig } from '../../core/demo';
import { sure } from '../../core/outcome';
import { nearFirst } from './far-later';

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
