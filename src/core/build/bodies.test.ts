import fc from 'fast-check';
import { KINDS, kindOf } from '../kinds';
import type { Board, Device, Rig } from '../rig';
import { chainOf, device, lead, rigOf } from '../testing/rigs';
import { judge } from './board';
import { boardModel, type XY } from './board-model';
import { cutLength, cutList, makingOf } from './cut-list';
import {
  PLUG_CLEARANCE,
  PLUG_WIDTH,
  plugShape,
  sizeOf,
  spotPoint,
  spotsOf,
  switchesOf,
  turned,
  turnedWay,
} from './footprint';
import { gramsOf } from './gear';
import { leadNeeds } from './lead-needs';
import { mainsOf } from './mains';
import { unitsOf } from './rack';

const bodied = KINDS.filter((k) => k.size);

describe('every kind with a body', () => {
  test.each(bodied.map((k) => [k.id]))('%s has a believable size and weight', (id) => {
    const { width, depth, height, grams } = kindOf(id).size!;
    expect(width).toBeGreaterThanOrEqual(20);
    expect(width).toBeLessThanOrEqual(1100);
    expect(depth).toBeLessThanOrEqual(600);
    expect(height).toBeLessThanOrEqual(700);
    // From a hollow box to solid metal, in grams a litre.
    const litres = (width * depth * height) / 1e6;
    expect(grams / litres).toBeGreaterThan(30);
    expect(grams / litres).toBeLessThan(2700);
  });
  test.each(bodied.map((k) => [k.id]))('%s has its jacks on its edges', (id) => {
    const body = device('x', id, 'X');
    const size = sizeOf(body)!;
    for (const spot of spotsOf(body)) {
      const p = spotPoint(spot, size);
      expect(p.x === 0 || p.x === size.width || p.y === 0 || p.y === size.depth).toBe(true);
      expect(p.x >= 0 && p.x <= size.width && p.y >= 0 && p.y <= size.depth).toBe(true);
      // A plug leaves outwards.
      expect(Math.abs(p.nx) + Math.abs(p.ny)).toBe(1);
      const out = { x: p.x + p.nx, y: p.y + p.ny };
      expect(out.x < 0 || out.x > size.width || out.y < 0 || out.y > size.depth).toBe(true);
    }
  });
  test.each(bodied.map((k) => [k.id]))('%s has each jack once, and switches on it', (id) => {
    const body = device('x', id, 'X');
    const spots = spotsOf(body);
    const jacks = kindOf(id).jacks.filter((j) => !j.inside && j.signal !== 'air');
    expect(spots.map((s) => s.jack.id).sort()).toEqual(jacks.map((j) => j.id).sort());
    const places = spots.map((s) => `${s.edge} ${s.mm}`);
    expect(new Set(places).size).toBe(places.length);
    const size = sizeOf(body)!;
    for (const s of switchesOf(body))
      expect(s.x > 0 && s.x < size.width && s.y > 0 && s.y <= size.depth).toBe(true);
  });
  test.each(KINDS.filter((k) => k.rackUnits).map((k) => [k.id]))(
    '%s is as high as its units and goes between the rails',
    (id) => {
      const k = kindOf(id);
      expect(k.size!.height).toBeLessThanOrEqual(k.rackUnits! * 44.45);
      expect(k.size!.height).toBeGreaterThan((k.rackUnits! - 1) * 44.45);
      expect(k.size!.width).toBeLessThanOrEqual(483);
      expect(unitsOf(device('x', id, 'X')).units).toBe(k.rackUnits);
    },
  );
  test.each(KINDS.filter((k) => k.mains).map((k) => [k.id]))('%s takes mains that exist', (id) => {
    const need = kindOf(id).mains!;
    for (const [low, high] of need.volts) {
      expect(low).toBeLessThanOrEqual(high);
      expect(low).toBeGreaterThanOrEqual(100);
      expect(high).toBeLessThanOrEqual(240);
    }
    // A plain connector takes nothing itself; what hangs behind it counts.
    if (kindOf(id).mainsOutlets) expect(need.watts).toBeGreaterThanOrEqual(0);
    else expect(need.watts).toBeGreaterThan(0);
    expect(need.hz.length).toBeGreaterThan(0);
  });
});

describe('what was said of a unit takes the place of what is usual', () => {
  const rest: Partial<Device> = {
    size: { width: 99, depth: 88, height: 77 },
    gear: { grams: 1234 },
    units: 5,
    mains: { watts: 7, volts: [[110, 120]], hz: [60] },
  };
  test('size', () =>
    expect(sizeOf(device('x', 'boost', 'X', rest))).toEqual({ width: 99, depth: 88, height: 77 }));
  test('weight', () => expect(gramsOf(device('x', 'boost', 'X', rest))).toBe(1234));
  test('units', () => expect(unitsOf(device('x', 'modeler-rack', 'X', rest)).units).toBe(5));
  test('mains', () =>
    expect(mainsOf(device('x', 'head-tube', 'X', rest))).toMatchObject({
      watts: 7,
      volts: [[110, 120]],
      hz: [60],
      inrushAmps: 20,
    }));
  test('mains of something that usually takes none', () =>
    expect(mainsOf(device('x', 'boost', 'X', rest))).toMatchObject({ watts: 7 }));
  test('a block has no body, no weight to carry and no plug in the wall', () => {
    const block = device('x', 'delay', 'X', { host: 'm', mains: { watts: 9 } });
    expect(sizeOf(block)).toBeNull();
    expect(spotsOf(block)).toEqual([]);
    expect(mainsOf(block)).toBeUndefined();
  });
});

describe('turning', () => {
  test.each([
    [0, 1, 0],
    [90, 0, 1],
    [180, -1, 0],
    [270, 0, -1],
  ] as const)('by %d degrees, what looked right looks (%d, %d)', (turn, nx, ny) =>
    expect(turnedWay(1, 0, turn)).toEqual({ nx, ny }),
  );
  test.each([
    [0, 0, 0],
    [90, 120, 0],
    [180, 70, 120],
    [270, 0, 70],
  ] as const)('by %d degrees, the rear left corner comes to (%d, %d)', (turn, x, y) =>
    expect(turned(0, 0, { width: 70, depth: 120 }, turn)).toEqual({ x, y }),
  );
});

describe('plugs', () => {
  test('stand out as the trade measures them, in mm', () =>
    expect(PLUG_CLEARANCE).toEqual({ straight: 45, 'right-angle': 25, flat: 16 }));
  test.each([
    ['skeg.midiOut', 'echo.midiIn', 'midi', 'straight'],
    ['a.out', 'b.in', 'instrument', 'right-angle'],
  ] as const)('%s to %s (%s) is %s on one board', (from, to, type, shape) => {
    const at = { board: 'b', x: 0, y: 0 };
    const rig: Rig = {
      ...rigOf(
        [
          device('skeg', 'foot-controller', 'H', { at }),
          device('echo', 'delay', 'E', { at }),
          device('a', 'boost', 'A', { at }),
          device('b', 'boost', 'B', { at }),
        ],
        [lead('1', from, to, 1, type)],
      ),
      boards: [{ id: 'b', name: 'B', width: 900, depth: 400, rails: [] }],
    };
    expect(plugShape(rig, rig.leads[0]!, 'from')).toBe(shape);
  });
});

const board: Board = { id: 'b', name: 'B', width: 900, depth: 420, rails: [{ y: 190, depth: 40 }] };
const kinds = ['boost', 'delay', 'compressor', 'chorus', 'drive-low'] as const;
const anyPlaces = fc.array(
  fc.record({ x: fc.integer({ min: 0, max: 780 }), y: fc.integer({ min: 0, max: 300 }) }),
  { minLength: 5, maxLength: 5 },
);

/** Five pedals in a chain at given places on a board. */
const standing = (at: readonly XY[], on: Board = board): Rig => {
  const rig = chainOf(['guitar-active', ...kinds, 'console-input'], 0.5);
  return {
    ...rig,
    boards: [on],
    devices: rig.devices.map((d, i) =>
      at[i - 1] ? { ...d, at: { board: 'b', ...at[i - 1]! } } : d,
    ),
  };
};
const modelOf = (rig: Rig) => boardModel(rig, rig.boards![0]!, new Map());

describe('laws of a layout', () => {
  test('overlaps are those that a raster of the board shows', () => {
    fc.assert(
      fc.property(anyPlaces, (at) => {
        const model = modelOf(standing(at));
        const said = new Set(
          judge(model, at)
            .clashes.filter((c) => c.what === 'overlap')
            .map((c) => `${c.a} ${c.b}`),
        );
        const seen = new Set<string>();
        for (let x = 0.5; x < 900; x += 1) {
          const columns = model.items.flatMap((item, i) =>
            x > at[i]!.x && x < at[i]!.x + item.width ? [i] : [],
          );
          for (const i of columns)
            for (const j of columns)
              if (
                i < j &&
                Math.min(at[i]!.y + model.items[i]!.depth, at[j]!.y + model.items[j]!.depth) -
                  Math.max(at[i]!.y, at[j]!.y) >
                  0.5
              )
                seen.add(`${i} ${j}`);
        }
        return said.size === seen.size && [...said].every((k) => seen.has(k));
      }),
      { numRuns: 60 },
    );
  });
  test('nothing that does not concern the edges changes when all is moved together', () => {
    fc.assert(
      fc.property(anyPlaces, fc.integer({ min: -40, max: 40 }), (at, dx) => {
        const model = modelOf(standing(at));
        const told = (places: readonly XY[]) =>
          judge(model, places)
            .clashes.filter((c) => c.what !== 'outside' && c.what !== 'edge')
            .map((c) => `${c.what} ${c.a} ${c.b} ${c.mm.toFixed(3)}`)
            .sort();
        return (
          JSON.stringify(told(at)) ===
          JSON.stringify(told(at.map((p) => ({ x: p.x + dx, y: p.y }))))
        );
      }),
      { numRuns: 80 },
    );
  });
  test(
    'a way is never shorter than from plug to plug as the crow walks, and below the ' +
      'deck never shorter than on it',
    () => {
      fc.assert(
        fc.property(anyPlaces, (at) => {
          const model = modelOf(standing(at));
          const { paths } = judge(model, at);
          return model.runs.every((run, k) => {
            const path = paths[k]!;
            if (run.b < 0) return path.mm >= 0;
            const [a, b] = [
              model.items[run.a]!.sockets[run.aSocket]!,
              model.items[run.b]!.sockets[run.bSocket]!,
            ];
            const crow =
              Math.abs(at[run.a]!.x + a.tipX - at[run.b]!.x - b.tipX) +
              Math.abs(at[run.a]!.y + a.tipY - at[run.b]!.y - b.tipY);
            // Facing jacks whose plugs fill the gap: four corners, no shorter than the plugs lie apart.
            if (path.points.length === 4) return path.mm >= crow - 1e-6;
            return path.below ? path.mm >= crow + 40 - 1e-6 : Math.abs(path.mm - crow) < 1e-6;
          });
        }),
        { numRuns: 80 },
      );
    },
  );
  test('a way begins at one jack and ends at the other, with square corners', () => {
    fc.assert(
      fc.property(anyPlaces, (at) => {
        const model = modelOf(standing(at));
        const { paths } = judge(model, at);
        return model.runs.every((run, k) => {
          if (run.b < 0) return true;
          const { points } = paths[k]!;
          const [a, b] = [
            model.items[run.a]!.sockets[run.aSocket]!,
            model.items[run.b]!.sockets[run.bSocket]!,
          ];
          const square = points
            .slice(1)
            .every(
              (p, i) => Math.abs(p.x - points[i]!.x) < 1e-9 || Math.abs(p.y - points[i]!.y) < 1e-9,
            );
          return (
            square && points[0]!.x === at[run.a]!.x + a.x && points.at(-1)!.y === at[run.b]!.y + b.y
          );
        });
      }),
      { numRuns: 80 },
    );
  });
  test('crossings do not depend on which lead is looked at first', () => {
    fc.assert(
      fc.property(anyPlaces, (at) => {
        const model = modelOf(standing(at));
        const turned = { ...model, runs: [...model.runs].reverse() };
        return judge(model, at).crossings === judge(turned, at).crossings;
      }),
      { numRuns: 60 },
    );
  });
  test('a plug clash says how far to move: moved apart by that much, it is gone', () => {
    for (let gap = 0; gap < 60; gap += 3) {
      const at = [
        { x: 600, y: 200 },
        { x: 400, y: 200 },
        { x: 400 - 70 - gap, y: 200 },
        { x: 100, y: 20 },
        { x: 0, y: 20 },
      ];
      const model = modelOf(standing(at));
      const clash = judge(model, at).clashes.find(
        (c) => c.what.startsWith('plug') && [c.a, c.b].sort().join() === '1,2',
      );
      if (!clash) continue;
      // The plugs of both face each other: what is missing is at most the room of both.
      expect(clash.mm).toBeLessThanOrEqual(2 * PLUG_CLEARANCE['right-angle']);
      const apart = at.map((p, i) =>
        i === 2 ? { x: p.x - 2 * PLUG_CLEARANCE['right-angle'], y: p.y } : p,
      );
      expect(
        judge(model, apart).clashes.some(
          (c) => c.what.startsWith('plug') && [c.a, c.b].sort().join() === '1,2',
        ),
      ).toBe(false);
    }
  });
  test('a plug is as wide as it is said to be', () => {
    // Two boxes above each other, jacks 120 mm apart: never in line.
    const at = [
      { x: 600, y: 40 },
      { x: 600, y: 170 },
      { x: 300, y: 40 },
      { x: 300, y: 170 },
      { x: 45, y: 40 },
    ];
    expect(judge(modelOf(standing(at)), at).clashes).toEqual([]);
    expect(PLUG_WIDTH).toBe(16);
  });
});

describe('lengths', () => {
  const anyMaking = fc
    .record({
      slack: fc.integer({ min: 0, max: 40 }),
      loop: fc.integer({ min: 0, max: 100 }),
      step: fc.integer({ min: 1, max: 50 }),
    })
    .map((m) => ({ slack: m.slack / 100, loop: m.loop / 100, step: m.step / 100 }));
  test('a cut lead reaches, with its slack and its loop, and is a whole number of steps', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3000 }), anyMaking, (cm, making) => {
        const cut = cutLength(cm / 100, making);
        const steps = cut / making.step;
        return (
          cut >= cm / 100 + 2 * making.slack + making.loop - 1e-6 &&
          Math.abs(steps - Math.round(steps)) < 1e-6 &&
          cut < cm / 100 + 2 * making.slack + making.loop + making.step + 1e-6
        );
      }),
    );
  });
  test('every lead on a board has a way, and a lead as long as it is cut is never told', () => {
    fc.assert(
      fc.property(anyPlaces, (at) => {
        const rig = standing(at);
        const needs = leadNeeds(rig);
        const inner = rig.leads.slice(1, -1);
        if (!inner.every((l) => needs.has(l.id))) return false;
        const made: Rig = {
          ...rig,
          leads: rig.leads.map((l) => ({
            ...l,
            metres: cutList(rig).cuts.find((c) => c.lead.id === l.id)!.cut,
          })),
        };
        return cutList(made).cuts.every(
          (c) => c.short === 0 && c.metres >= (c.routed ?? 0) + 2 * makingOf(rig).slack - 1e-6,
        );
      }),
      { numRuns: 40 },
    );
  });
  test('the further apart on the stage, the longer; turned round, the same', () => {
    const rig = (x: number, y: number): Rig => ({
      ...rigOf(
        [device('h', 'head-tube', 'H'), device('c', 'cabinet', 'C')],
        [lead('1', 'h.speaker', 'c.in', 5, 'speaker')],
      ),
      stage: {
        width: 10,
        depth: 8,
        spots: [
          { id: 'h', x: 2, y: 2 },
          { id: 'c', x, y },
        ],
        marks: [],
      },
    });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 80 }), fc.integer({ min: 0, max: 80 }), (x, y) => {
        const mm = leadNeeds(rig(x / 10, y / 10)).get('1')!.mm;
        return Math.abs(mm - 1000 * (Math.abs(x / 10 - 2) + Math.abs(y / 10 - 2))) < 1e-6;
      }),
    );
  });
});
