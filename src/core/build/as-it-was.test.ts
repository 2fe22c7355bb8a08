import { DEMO_RIGS } from '../demo';
import { heardOf } from '../signal';
import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import * as build from '.';

test('what is built and carried comes to what it came to', () => {
  const now: Record<string, unknown> = {};
  for (const { name, rig } of variants(2, 6)) {
    const list = build.cutList(rig);
    now[name] = [
      build.buildRemarks(rig),
      build.powerRemarks(rig),
      list,
      build.billOf(rig, list),
      build.budgetOf(rig, list),
      build.checkCountries(rig),
      build.checklist(rig),
      build.inputList(
        rig,
        rig.sounds.map((s) => heardOf(rig, s)),
      ),
      build.loadsOf(rig),
      build.mainsSums(rig, 230),
      build.mainsSums(rig, 120),
      build.packingOf(rig),
      build.panelPlan(rig),
      build.powerLeadsByPlugs(rig),
    ]
      .map(digest)
      .join(' ');
  }
  expect(now).toMatchSnapshot();
}, 120_000);

test('boards and racks stand as they stood, and judge as they judged', () => {
  const now: Record<string, string> = {};
  for (const rig of DEMO_RIGS) {
    for (const board of rig.boards ?? []) {
      const model = build.boardModel(rig, board, build.pressedDevices(rig));
      const places = build.placesNow(model);
      // As it is, and each device pushed a little and a lot.
      const pushed = places.flatMap((p, i) =>
        [7, 55, 240].map((mm) =>
          places.map((q, k) => (k === i ? { ...q, x: p.x + mm, y: p.y + mm / 2 } : q)),
        ),
      );
      now[`${rig.id} ${board.id}`] = digest(
        [places, ...pushed].map((at) => build.judge(model, at)),
      );
    }
    for (const rack of rig.racks ?? []) {
      const moved = rig.devices.flatMap((d) =>
        d.rack?.rack === rack.id
          ? [1, 2].map((up) => ({
              ...rig,
              devices: rig.devices.map((x) =>
                x === d && d.rack ? { ...x, rack: { ...d.rack, unit: d.rack.unit + up } } : x,
              ),
            }))
          : [],
      );
      now[`${rig.id} ${rack.id}`] = digest(
        [rig, ...moved].map((r) => [
          build.rackSums(r, rack),
          build.rackClashes(r, rack),
          build.mountedIn(r, rack),
          build.buildRemarks(r),
        ]),
      );
    }
  }
  expect(now).toMatchSnapshot();
}, 120_000);
