import fc from 'fast-check';
import { analyse } from '../report';
import { touringRig } from '../demo';
import { applyEdits, type Board, type Rig } from '../rig';
import { chainOf, device, lead, rigOf } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { refused } from '../outcome';
import loadHighs from 'highs';
import { exactly, type MipSolver } from '../optimum';
import { judge } from './board';
import { boardModel, type Model, placesNow, TURNS } from './board-model';
import type { Clash } from './board-rules';
import { BoardState } from './board-state';
import { plugShape, spotsOf, turned } from './footprint';
import { proposeLayout } from './layout';
import { layoutBound } from './layout-bound';
import { leadNeeds } from './lead-needs';
import { packRows } from './layout-rows';
import { freePlace, snapped } from './place';
import { pressedDevices } from './pressed';
import { cases } from '../testing/cases';
import { between } from '../testing/between';

const board = (rest: Partial<Board> = {}): Board => ({
  id: 'b',
  name: 'Board',
  width: 600,
  depth: 320,
  rails: [{ y: 140, depth: 40 }],
  ...rest,
});
/** A chain of pedals on a board at given places; the guitar and the desk stand elsewhere. */
const stood = (
  kinds: string[],
  at: [number, number, (0 | 90 | 180 | 270)?][],
  b = board(),
): Rig => {
  const rig = chainOf(['guitar-active', ...kinds, 'console-input'], 0.5);
  return {
    ...rig,
    boards: [b],
    devices: rig.devices.map((d, i) =>
      at[i - 1]
        ? {
            ...d,
            at: {
              board: 'b',
              x: at[i - 1]![0],
              y: at[i - 1]![1],
              ...(at[i - 1]![2] && { turn: at[i - 1]![2] }),
            },
          }
        : d,
    ),
  };
};
const modelOf = (rig: Rig, pressed: [string, number][] = []) =>
  boardModel(rig, rig.boards![0]!, new Map(pressed));
const clashes = (rig: Rig, pressed: [string, number][] = []) => {
  const m = modelOf(rig, pressed);
  return judge(m, placesNow(m)).clashes;
};
const told = (list: Clash[]) => list.map((c) => `${c.what} ${Math.round(c.mm)}`);

describe('bodies, jacks and plugs', () => {
  test('audio in is on the right, out on the left, messages at the rear; a wide box has all at the rear', () => {
    expect(spotsOf(device('x', 'delay', 'X')).map((s) => [s.jack.id, s.edge])).toEqual([
      ['in', 'right'],
      ['inR', 'right'],
      ['out', 'left'],
      ['outR', 'left'],
      ['midiIn', 'rear'],
      ['midiThru', 'rear'],
      ['tap', 'rear'],
      ['exp', 'rear'],
    ]);
    expect(new Set(spotsOf(device('x', 'modeler-floor', 'X')).map((s) => s.edge))).toEqual(
      new Set(['rear']),
    );
    expect(
      spotsOf(device('x', 'boost', 'X', { jackSpots: { in: { edge: 'rear', mm: 12 } } }))[0],
    ).toMatchObject({ edge: 'rear', mm: 12 });
  });
  test('four quarter turns come back; a point stays on its body', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 70 }), fc.integer({ min: 0, max: 120 }), (x, y) => {
        let [p, size] = [
          { x, y },
          { width: 70, depth: 120 },
        ];
        for (let i = 0; i < 4; i++) {
          p = turned(p.x, p.y, size, 90);
          size = { width: size.depth, depth: size.width };
          if (p.x < 0 || p.y < 0 || p.x > size.width || p.y > size.depth) return false;
        }
        const half = turned(x, y, size, 180);
        return p.x === x && p.y === y && half.x === 70 - x && half.y === 120 - y;
      }),
    );
  });
  test('plugs: right-angle between neighbours on a board, straight elsewhere, as said where it is said', () => {
    const rig = stood(
      ['boost', 'boost'],
      [
        [300, 190],
        [100, 190],
      ],
    );
    expect(rig.leads.map((l) => [plugShape(rig, l, 'from'), plugShape(rig, l, 'to')])).toEqual([
      ['straight', 'straight'],
      ['right-angle', 'right-angle'],
      ['straight', 'straight'],
    ]);
    expect(plugShape(rig, { ...rig.leads[1]!, plugs: { from: 'flat' } }, 'from')).toBe('flat');
  });
});

describe('what hits what', () => {
  test('bodies, edges, plugs, with how much is missing', () => {
    expect(
      told(
        clashes(
          stood(
            ['boost', 'boost'],
            [
              [300, 190],
              [180, 190],
            ],
          ),
        ),
      ),
    ).toEqual([]);
    // 70 wide: 20 mm of overlap.
    expect(
      told(
        clashes(
          stood(
            ['boost', 'boost'],
            [
              [300, 190],
              [250, 190],
            ],
          ),
        ),
      ),
    ).toEqual(['overlap 20']);
    expect(told(clashes(stood(['boost'], [[560, 190]])))).toEqual(['outside 30']);
    // A gap of 20 mm: a right-angle plug of 25 on either side has no room; with flat plugs that are
    // not in line there is.
    const tight = stood(
      ['boost', 'boost'],
      [
        [300, 190],
        [210, 190],
      ],
    );
    expect(told(clashes(tight))).toEqual(['plug 5']);
    expect(
      told(
        clashes(
          applied(tight, [{ edit: 'setLead', lead: 'l1', plugs: { from: 'flat', to: 'flat' } }]),
        ),
      ),
    ).toEqual(['plugs 12']);
  });
  test('higher levels, under the deck, half on a strip', () => {
    const b = board({ raised: [{ y: 0, depth: 150, by: 40 }], under: 50 });
    expect(told(clashes(stood(['boost'], [[100, 90]], b)))).toEqual(['half 0']);
    expect(told(clashes(stood(['boost'], [[100, 10]], b)))).toEqual([]);
    const under: Rig = {
      ...stood(['boost'], [[100, 190]], b),
      devices: [
        ...stood(['boost'], [[100, 190]], b).devices,
        device('s', 'supply-isolated', 'S', { at: { board: 'b', x: 90, y: 180, under: true } }),
      ],
    };
    expect(clashes(under)).toEqual([]);
    expect(told(clashes({ ...under, boards: [{ ...b, under: 40 }] }))).toEqual(['too-high 5']);
  });
  test('switches: 60 mm between centres, in the front row or raised', () => {
    const rig = stood(
      ['boost', 'drive-low'],
      [
        [100, 190],
        [100, 40],
      ],
    );
    expect(told(clashes(rig, [['d2', 0.5]]))).toEqual(['reach 0']);
    expect(
      told(
        clashes({ ...rig, boards: [board({ raised: [{ y: 0, depth: 170, by: 40 }] })] }, [
          ['d2', 0.5],
        ]),
      ),
    ).toEqual([]);
    const close = stood(
      ['foot-controller', 'boost'],
      [
        [100, 160],
        [350, 20],
      ],
    );
    expect(
      clashes(close, [
        ['d1', 1],
        ['d2', 0.5],
      ]).map((c) => c.what),
    ).toContain('reach');
  });
  test('a plug over the edge, a thing on no rail, a switch turned away from the foot: each with its neighbour', () => {
    // 70 wide with a straight plug of 45 on its right: inside at 485, over by 10 at 495.
    expect(told(clashes(stood(['boost'], [[485, 190]])))).toEqual([]);
    expect(told(clashes(stood(['boost'], [[495, 190]])))).toEqual(['edge 10']);
    const railed = board({
      rails: [
        { y: 20, depth: 40 },
        { y: 60, depth: 10 },
      ],
    });
    expect(told(clashes(stood(['boost'], [[300, 55]], railed)))).toEqual([]);
    // Only 5 mm of it lie on the first rail and none on the second: 10 are missing.
    expect(told(clashes(stood(['boost'], [[300, 65]], railed)))).toEqual(['rail 10']);
    // A plate, with one opening or none, holds everything.
    expect(told(clashes(stood(['boost'], [[300, 190]])))).toEqual([]);
    expect(told(clashes(stood(['boost'], [[300, 190, 180]]), [['d1', 1]]))).toEqual(['reach 0']);
    expect(told(clashes(stood(['boost'], [[300, 190]]), [['d1', 1]]))).toEqual([]);
    const away = analyse(stood(['boost'], [[495, 190]])).findings;
    expect(away.find((f) => f.rule === 'board-edge')).toMatchObject({
      severity: 'advice',
      what: 'A plug of Device 1 stands over the edge of Board.',
    });
  });
  test('a radio beside high gain', () => {
    const rig = stood(['compressor'], [[300, 190]]);
    const radio: Rig = {
      ...rig,
      devices: [
        ...rig.devices,
        device('w', 'wireless', 'W', { at: { board: 'b', x: 400, y: 190 } }),
      ],
    };
    expect(told(clashes(radio))).toEqual(['plug 15', 'radio 70']);
  });
});

describe('ways of leads', () => {
  const path = (rig: Rig, id: string) => {
    const m = modelOf(rig);
    return judge(m, placesNow(m)).paths[m.runs.findIndex((r) => r.lead.id === id)]!;
  };
  test('straight across on the deck where it is free; below by a rail where a body is in the way', () => {
    // From the left side at 300 to the right side at 170, less 25 mm of plug at each: 80 mm.
    expect(
      path(
        stood(
          ['boost', 'boost'],
          [
            [300, 190],
            [100, 190],
          ],
        ),
        'l1',
      ),
    ).toMatchObject({ mm: 80, below: false });
    const over = stood(
      ['boost', 'boost', 'boost'],
      [
        [400, 190],
        [100, 190],
        [250, 190],
      ],
    );
    // d1 to d2 has d3 between: down 20, to the front edge at 314 and back (2 · 64, nearer than the
    // rail at 160), 400 − 25 − (170 + 25) = 180 across, up 20.
    expect(path(over, 'l1')).toMatchObject({ below: true, mm: 180 + 2 * 64 + 40 });
  });
  test('neighbours whose plugs fill the gap between them need the way of their plugs, not one around', () => {
    // Jacks 30 mm apart, plugs of 25 each: beside each other for 20 mm, and 7 mm out of line.
    const near = stood(
      ['boost', 'boost'],
      [
        [300, 190],
        [200, 183],
      ],
    );
    expect(path(near, 'l1')).toMatchObject({ mm: 7 + 30, below: false });
    expect(leadNeeds(near).get('l1')!.mm).toBe(40);
  });
  test('what leaves the board leaves by the nearest edge, and a raised end adds its height', () => {
    expect(path(stood(['boost'], [[500, 190]]), 'l0')).toMatchObject({ mm: 15 });
    const raised = stood(
      ['boost', 'boost'],
      [
        [300, 10],
        [100, 190],
      ],
      board({ raised: [{ y: 0, depth: 150, by: 40 }] }),
    );
    expect(path(raised, 'l1').mm).toBe(80 + 180 + 40);
  });
  test('a crossing is two ways at right angles on the same side of the deck', () => {
    // One lead lies between two boxes; another comes down from the rear and has to get past it.
    const crossed = (x: number) => {
      const rows = stood(
        ['boost', 'boost', 'boost', 'boost'],
        [
          [500, 300],
          [60, 300],
          [300, 20],
          [x, 460],
        ],
        board({ width: 700, depth: 620 }),
      );
      const leads = [lead('a', 'd1.out', 'd2.in', 1), lead('b', 'd3.out', 'd4.in', 1)];
      const model = modelOf({ ...rows, leads });
      return judge(model, placesNow(model));
    };
    expect(crossed(100).paths.map((p) => p.below)).toEqual([false, false]);
    expect(crossed(100).crossings).toBe(1);
  });
});

const applied = (rig: Rig, edits: Parameters<typeof applyEdits>[1]): Rig => {
  const r = applyEdits(rig, edits);
  if (!r.ok) throw new Error(r.problems[0]!.what);
  return r.value.rig;
};
const quiet = () => Promise.resolve();
const KINDS = [
  'tuner-buffered',
  'compressor',
  'drive-low',
  'drive-mid',
  'boost',
  'chorus',
  'delay',
  'reverb',
];

describe('the optimiser', () => {
  let solver: MipSolver;
  beforeAll(async () => {
    solver = exactly(await loadHighs({}));
  });
  /** The cheapest arrangement in rows: every order and every break. */
  const exhaustive = (model: Model): number => {
    let best = Infinity;
    const n = model.items.length;
    const orders: number[][] = [];
    const go = (left: number[], done: number[]) =>
      left.length
        ? left.forEach((i) =>
            go(
              left.filter((x) => x !== i),
              [...done, i],
            ),
          )
        : orders.push(done);
    go([...Array(n).keys()], []);
    for (const order of orders)
      for (let a = 1; a <= n; a++)
        for (let b = a; b <= n; b++) {
          const rows = [order.slice(0, a), order.slice(a, b), order.slice(b)].filter(
            (r) => r.length,
          );
          best = Math.min(best, judge(model, packRows(model, rows)).cost);
        }
    return best;
  };
  test.each([
    [['drive-low', 'delay', 'boost'], 500, 150],
    [['tuner-buffered', 'compressor', 'drive-low', 'chorus'], 420, 300],
    [['compressor', 'volume-active', 'drive-mid', 'delay', 'reverb'], 520, 420],
    [['tuner-buffered', 'compressor', 'drive-low', 'boost', 'delay', 'reverb'], 560, 320],
  ] as const)(
    'is no worse than every arrangement in rows of %j on %d by %d mm, turning or not',
    async (kinds, width, depth) => {
      const rig = {
        ...chainOf(['guitar-active', ...kinds, 'console-input'], 0.5),
        boards: [
          board({ width, depth, raised: depth > 400 ? [{ y: 0, depth: 130, by: 40 }] : undefined }),
        ],
      };
      const list = rig.devices.slice(1, -1).map((d) => d.id);
      const pressed = new Map([
        ['d2', 0.6],
        ['d3', 0.3],
      ]);
      const best = exhaustive(boardModel(rig, rig.boards[0]!, pressed, list));
      for (const mayTurn of [false, true]) {
        const { found, edits, leastMetres } = valueOf(
          await proposeLayout(rig, 'b', list, pressed, [], quiet, { mayTurn, effort: 0.3, solver }),
        );
        expect(found.cost).toBeLessThanOrEqual(best + 1);
        expect(leastMetres).toBeLessThanOrEqual(found.metres + 1e-9);
        const done = applied(rig, edits);
        const m = boardModel(done, done.boards![0]!, pressed);
        const judged = judge(m, placesNow(m));
        expect(judged.cost).toBeCloseTo(found.cost, 6);
        if (!mayTurn) expect(done.devices.every((d) => !d.at?.turn)).toBe(true);
        // Plugs and leads stay within the outline.
        expect(judged.clashes.filter((c) => c.what === 'edge' || c.what === 'outside')).toEqual([]);
        for (const { points } of judged.paths)
          for (const p of points) {
            expect(Math.max(-p.x, -p.y, p.x - width, p.y - depth)).toBeLessThanOrEqual(0.5);
          }
      }
    },
    120_000,
  );
  test('after any moves, kept or taken back, it costs what it costs when judged afresh', () => {
    const rig = {
      ...chainOf(['guitar-active', ...KINDS, 'console-input'], 0.5),
      boards: [
        board({
          under: 50,
          rails: [
            { y: 60, depth: 40 },
            { y: 220, depth: 40 },
          ],
          raised: [{ y: 0, depth: 150, by: 40 }],
        }),
      ],
    };
    const list = rig.devices.slice(1, -1).map((d) => d.id);
    const model = boardModel(
      { ...rig, devices: [...rig.devices, device('s', 'supply-isolated', 'S')] },
      rig.boards[0]!,
      new Map([
        ['d1', 0.4],
        ['d4', 0.7],
      ]),
      [...list, 's'],
    );
    const moves = fc.array(
      fc.record({
        i: fc.nat(model.items.length - 1),
        x: fc.integer({ min: -40, max: 620 }),
        y: fc.integer({ min: -40, max: 330 }),
        turn: fc.constantFrom(...TURNS),
      }),
      { minLength: 1, maxLength: 3 },
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(moves, fc.boolean()), { maxLength: 12 }), (all) => {
        const state = new BoardState(model, placesNow(model));
        for (const [some, stays] of all) {
          state.make(some);
          if (!stays) state.back();
        }
        const items = state.turns().map((turn, i) => model.asTurned(i, turn));
        const afresh = judge({ ...model, items }, state.places());
        return (
          Math.abs(afresh.cost - state.cost) < 1e-6 &&
          state.crossings() === afresh.crossings &&
          state.isRight === (afresh.clashes.length === 0)
        );
      }),
      { numRuns: cases(25, 60) },
    );
  });
  /** Boards of a few pedals, large enough that they could stand in one row without breaking anything. */
  const anyBoard = fc
    .record({
      kinds: fc.array(fc.constantFrom(...KINDS), { minLength: 3, maxLength: 5 }),
      deep: fc.integer({ min: 200, max: 400 }),
      steps: fc.array(between(0, 1), { minLength: 5, maxLength: 5 }),
    })
    .map(({ kinds, deep, steps }) => {
      const rig: Rig = {
        ...chainOf(['guitar-active', ...kinds, 'console-input'], 0.5),
        boards: [board({ width: kinds.length * 190 + 100, depth: deep, rails: [] })],
      };
      const list = rig.devices.slice(1, -1).map((d) => d.id);
      const pressed = new Map(list.map((id, i) => [id, steps[i]! > 0.5 ? steps[i]! : 0]));
      return { rig, list, pressed };
    });
  test('where a layout without a broken rule exists, none is broken', async () => {
    await fc.assert(
      fc.asyncProperty(anyBoard, async ({ rig, list, pressed }) => {
        const { found } = valueOf(
          await proposeLayout(rig, 'b', list, pressed, [], quiet, { effort: 0.15 }),
        );
        return found.clashes === 0;
      }),
      { numRuns: cases(5, 12) },
    );
  }, 120_000);
  test('it is within a tenth of what a plain annealing finds that was written on its own', async () => {
    const ratios: number[] = [];
    for (const { rig, list, pressed } of fc.sample(anyBoard, { numRuns: cases(3, 6), seed: 5 })) {
      const model = boardModel(rig, rig.boards![0]!, pressed, list);
      const { width, depth } = model.board;
      let seed = 1;
      const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
      let at = model.items.map((_, i) => ({ x: 100 + 190 * i, y: depth - model.items[i]!.depth }));
      let cost = judge(model, at).cost;
      let best = cost;
      for (let n = 0; n < 6000; n++) {
        const heat = 300 * 0.001 ** (n / 6000);
        const i = Math.floor(random() * at.length);
        const far = random() < 0.3 ? width : 40;
        const next = at.map((p, k) =>
          k === i
            ? {
                x: Math.round(Math.min(width, Math.max(0, p.x + (random() - 0.5) * far))),
                y: Math.round(Math.min(depth, Math.max(0, p.y + (random() - 0.5) * far))),
              }
            : p,
        );
        const price = judge(model, next).cost;
        if (price > cost - heat * Math.log(random())) continue;
        [at, cost] = [next, price];
        best = Math.min(best, cost);
      }
      const choice = { effort: 0.3, mayTurn: false };
      const { found } = valueOf(await proposeLayout(rig, 'b', list, pressed, [], quiet, choice));
      ratios.push(found.cost / best);
    }
    ratios.sort((a, b) => a - b);
    expect(ratios[Math.floor(ratios.length / 2)]).toBeLessThanOrEqual(1.1);
  }, 120_000);
  test('no layout has less lead than what is proven; a chain too long for its board has to fold', () => {
    const rig = {
      ...chainOf(['guitar-active', ...KINDS.slice(0, 5), 'console-input'], 0.5),
      boards: [board({ width: 400 })],
    };
    const model = boardModel(
      rig,
      rig.boards[0]!,
      new Map(),
      rig.devices.slice(1, -1).map((d) => d.id),
    );
    const bound = layoutBound(model, false, solver);
    // From plug to plug a box takes its width and both plugs along the board; what does not fit goes back.
    const taken = model.items.reduce((sum, item) => {
      const tips = item.sockets.map((s) => s.tipX);
      return sum + Math.max(...tips) - Math.min(...tips);
    }, 0);
    const ends = 2 * 45 - 2 * 25;
    expect(bound).toBeGreaterThanOrEqual(taken - ends - 400 - 2 * 45);
    expect(bound).toBeGreaterThan(0);
    expect(layoutBound(model, true, solver)).toBeLessThanOrEqual(bound + 1e-6);
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ x: fc.double({ min: 0, max: 1 }), y: fc.double({ min: 0, max: 1 }) }),
          { minLength: 5, maxLength: 5 },
        ),
        (share) => {
          const at = model.items.map((item, i) => ({
            x: share[i]!.x * (400 - item.width) || 0,
            y: share[i]!.y * (320 - item.depth) || 0,
          }));
          const inner = judge(model, at).paths.filter((_, k) => model.runs[k]!.b >= 0);
          return inner.reduce((mm, p) => mm + p.mm, 0) >= bound - 1e-6;
        },
      ),
    );
  });
  test('pinned devices stay, others stand clear of them; what cannot fit is said', async () => {
    const start = stood(
      ['compressor', 'drive-low', 'delay', 'boost'],
      [
        [265, 200],
        [0, 0],
        [100, 0],
        [200, 0],
      ],
    );
    const rig = applied(start, [
      { edit: 'placeOnBoard', device: 'd1', at: { board: 'b', x: 265, y: 200, pinned: true } },
    ]);
    const found = valueOf(await proposeLayout(rig, 'b', [], new Map(), [], quiet));
    const done = applied(rig, found.edits);
    expect(done.devices.find((d) => d.id === 'd1')!.at).toEqual({
      board: 'b',
      x: 265,
      y: 200,
      pinned: true,
    });
    expect(clashes(done)).toEqual([]);
    const small = {
      ...chainOf(['guitar-active', ...KINDS.slice(0, 5), 'console-input'], 0.5),
      boards: [board({ width: 200, depth: 130 })],
    };
    expect(
      await proposeLayout(
        small,
        'b',
        small.devices.slice(1, -1).map((d) => d.id),
        new Map(),
        [],
        quiet,
      ),
    ).toEqual(refused(expect.stringContaining('does not fit') as string));
    expect(await proposeLayout(small, 'b', [], new Map(), [], quiet)).toEqual(
      refused(expect.stringContaining('Nothing stands on this board') as string),
    );
    expect(await proposeLayout(small, 'gone', [], new Map(), [], quiet)).toEqual(
      refused('That board is not there any more.'),
    );
  }, 60_000);
  test('sixty devices: it says how far it is with the best so far, and ends with nothing that hits', async () => {
    const many = Array.from({ length: 60 }, (_, i) => KINDS[i % KINDS.length]!);
    const rig = {
      ...chainOf(['guitar-active', ...many, 'console-input'], 0.5),
      boards: [
        board({
          width: 2900,
          depth: 700,
          rails: [
            { y: 100, depth: 40 },
            { y: 330, depth: 40 },
          ],
        }),
      ],
    };
    const shares: number[] = [];
    const sizes: number[] = [];
    const found = valueOf(
      await proposeLayout(
        rig,
        'b',
        rig.devices.slice(1, -1).map((d) => d.id),
        new Map(),
        rig.devices.map((d) => d.id),
        (share, _, best) => {
          shares.push(share);
          if (best) sizes.push(best.edits.length);
          return Promise.resolve();
        },
        { effort: 0.02 },
      ),
    );
    expect(shares.length).toBeGreaterThan(3);
    expect(Math.max(...shares)).toBeLessThanOrEqual(1);
    expect(sizes.at(-1)).toBe(60);
    expect(
      clashes(applied(rig, found.edits)).filter((c) =>
        ['overlap', 'outside', 'plug', 'plugs'].includes(c.what),
      ),
    ).toEqual([]);
  }, 120_000);
  test('a better layout of the demo board breaks nothing, and has less of what counts', async () => {
    const found = valueOf(
      await proposeLayout(
        touringRig,
        'deck-board',
        [],
        pressedDevices(touringRig),
        touringRig.devices.map((d) => d.id),
        quiet,
        { effort: 0.1, mayTurn: false },
      ),
    );
    expect(found.now!.clashes).toBe(0);
    expect(found.better).toBe(found.found.cost < found.now!.cost - 0.5);
    expect(found.found).toMatchObject({ clashes: 0 });
    expect(found.found.cost).toBeLessThanOrEqual(found.now!.cost);
    expect(clashes(applied(touringRig, found.edits))).toEqual([]);
  }, 120_000);
});

describe('placing by hand', () => {
  test('edges are caught within 8 mm, else there is a grid of 5', () => {
    const model = modelOf(
      stood(
        ['boost', 'boost'],
        [
          [300, 190],
          [100, 190],
        ],
      ),
    );
    const at = placesNow(model);
    expect(snapped(model, 1, at, { x: 304, y: 183 })).toEqual({ x: 300, y: 190 });
    expect(snapped(model, 1, at, { x: 372, y: 92 })).toEqual({ x: 370, y: 90 });
    expect(snapped(model, 1, at, { x: 233, y: 61 })).toEqual({ x: 235, y: 60 });
  });
  test('a free place hits nothing, and there is none on a full board', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 0, max: 200 })), {
          minLength: 1,
          maxLength: 4,
        }),
        (at) => {
          const rig = stood(
            ['boost', ...at.map(() => 'drive-low')],
            [[0, 0], ...at.map(([x, y]): [number, number] => [x, y])],
          );
          const model = modelOf(rig);
          const to = freePlace(model, 0, placesNow(model));
          if (!to) return true;
          const after = judge(
            model,
            placesNow(model).map((p, i) => (i === 0 ? to : p)),
          );
          return after.clashes.every((c) => c.a !== 0 && c.b !== 0);
        },
      ),
      { numRuns: cases(15, 40) },
    );
    const full = stood(
      ['boost', 'boost'],
      [
        [0, 0],
        [0, 0],
      ],
      board({ width: 90, depth: 130 }),
    );
    expect(freePlace(modelOf(full), 0, placesNow(modelOf(full)))).toBeUndefined();
  });
});

test(
  'findings of a board say what, with whom, and how many millimetres; a longer lead ' +
    'cures one that is too short',
  () => {
    const rig = stood(
      ['boost', 'boost'],
      [
        [500, 190],
        [20, 190],
      ],
    );
    const finding = analyse(rig).findings.find((f) => f.rule === 'lead-short')!;
    // 500 − 25 − (90 + 25) mm = 36 cm with 50 cm at hand is enough; the board is widened until it is not.
    expect(finding).toBeUndefined();
    const wide = stood(
      ['boost', 'boost'],
      [
        [900, 190],
        [20, 190],
      ],
      board({ width: 1000 }),
    );
    const short = analyse(wide).findings.find((f) => f.rule === 'lead-short')!;
    expect(short.what).toBe('W02 from Device 1, out to Device 2, in is too short by 26 cm.');
    const cured = applied(wide, short.fix!.edits);
    expect(cured.leads[1]!.metres).toBeCloseTo(0.9, 9);
    expect(
      analyse(cured).findings.some((f) => f.rule === 'lead-short' || f.rule === 'lead-tight'),
    ).toBe(false);
    const over = analyse(
      stood(
        ['boost', 'boost'],
        [
          [300, 190],
          [250, 190],
        ],
      ),
    ).findings.find((f) => f.rule === 'board-overlap')!;
    expect(over).toMatchObject({
      severity: 'fault',
      what: 'Device 1 and Device 2 stand on the same place.',
      why: 'They overlap by 20 mm.',
      subjects: ['d1', 'd2'],
    });
  },
);

test('a measured lead takes the place of length times pF a metre in the tone', () => {
  const rig = rigOf(
    [device('g', 'guitar-single-coil', 'G'), device('b', 'buffer', 'B')],
    [lead('1', 'g.out', 'b.in', 3)],
  );
  const tone = (r: Rig) => analyse(r).sounds[0]!.tones[0]!;
  const measured = applied(rig, [{ edit: 'setLead', lead: '1', pF: 900 }]);
  expect(tone(rig).leadPf).toBeCloseTo(300, 9);
  expect(tone(measured).leadPf).toBeCloseTo(900, 9);
  expect(tone(measured).peakHz!).toBeLessThan(tone(rig).peakHz!);
  expect(tone(applied(measured, [{ edit: 'setLead', lead: '1', pF: null }]))).toEqual(tone(rig));
});
