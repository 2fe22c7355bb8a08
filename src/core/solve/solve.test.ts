import fc from 'fast-check';
import loadHighs from 'highs';
import { evidenceOf } from '../analysis';
import { orderRemarks } from '../order';
import { analyse, FixTrial } from '../report';
import { START_PEDALS } from '../start';
import { groundLoops } from '../analysis/ground';
import { isPair } from '../analysis/ground-remarks';
import { brokenRig, touringRig } from '../demo';
import { applyEdits, type Device, type Edit, type Lead, type Rig } from '../rig';
import { allOn, chainOf, device, lead, rigOf, sound } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { arrangementCost, cheapestArrangement, type Prices } from '../optimum/arrange';
import { proposeBuffers } from './buffers';
import { harmOf } from './harm';
import { proposeInside } from './inside';
import { proposeIsolation } from './isolate';
import { exactly, type MipSolver, solveMip, writeLp } from '../optimum/mip';
import { proposeOrder } from './order';
import { cases } from '../testing/cases';

let solver: MipSolver;
beforeAll(async () => {
  const highs = await loadHighs({});
  solver = exactly(highs);
});

const done = (rig: Rig, edits: Parameters<typeof applyEdits>[1]): Rig => {
  const r = applyEdits(rig, edits);
  if (!r.ok) throw new Error(r.problems[0]!.what);
  return r.value.rig;
};
const inside = (id: string, from: string, to: string) => lead(id, from, to, 0, 'inside');

describe('arranging', () => {
  const permutations = (list: number[]): number[][] =>
    list.length < 2
      ? [list]
      : list.flatMap((x, i) =>
          permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((rest) => [x, ...rest]),
        );
  /** Every way to cut an order into two segments. */
  const cuts = (order: number[]): number[][][] =>
    Array.from({ length: order.length + 1 }, (_, i) => [order.slice(0, i), order.slice(i)]);

  test('is as cheap as the cheapest of all orders and cuts', () => {
    const price = fc.integer({ min: 0, max: 20 });
    fc.assert(
      fc.property(
        fc.array(price, { minLength: 36, maxLength: 36 }),
        fc.array(price, { minLength: 12, maxLength: 12 }),
        fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }),
        (pairs, alone, may) => {
          const n = 5;
          const prices: Prices = {
            before: Array.from({ length: n }, (_, i) =>
              Array.from({ length: n }, (_, j) => (i === j ? 0 : pairs[i * n + j]!)),
            ),
            alone: Array.from({ length: n }, (_, i) => [alone[2 * i]!, alone[2 * i + 1]!]),
            allowed: Array.from({ length: n }, (_, i) => [
              may[2 * i]! || !may[2 * i + 1]!,
              may[2 * i + 1]!,
            ]),
          };
          const all = permutations([0, 1, 2, 3, 4])
            .flatMap(cuts)
            .filter((segs) => segs.every((seg, s) => seg.every((t) => prices.allowed[t]![s])));
          const least = Math.min(...all.map((segs) => arrangementCost(prices, segs)));
          return Math.abs(cheapestArrangement(prices, [[0, 1, 2, 3, 4], []]).cost - least) < 1e-9;
        },
      ),
      { numRuns: cases(25, 60) },
    );
  });
});

describe('order', () => {
  const END: [string, Partial<Device>] = ['console-input', { settings: { input: 'line' } }];
  const wild = chainOf(
    [
      'guitar-single-coil',
      'delay',
      'drive-high',
      'wah',
      'drive-low',
      'octave',
      'compressor',
      'tuner-buffered',
      END,
    ],
    0.3,
    [sound('a', 'A', ['d1', 'd2', 'd3', 'd4', 'd5', 'd6'])],
  );

  test(
    'a board in the wrong order: every rule is kept afterwards, and each move says why ' +
      'and what leaving it costs',
    async () => {
      const p = valueOf(await proposeOrder(wild, wild.sounds[0]!));
      const rules = (rig: Rig) =>
        analyse(rig)
          .findings.filter((f) => /early|before|after|low-to-high|tuner-place/.test(f.rule))
          .map((f) => f.rule);
      expect(rules(wild).length).toBeGreaterThan(5);
      expect(rules(done(wild, p.edits))).toEqual([]);
      expect(p.exact).toBe(true);
      expect(p.points).toBeLessThan(p.pointsNow);
      expect(p.order.indexOf('d3')).toBeLessThan(p.order.indexOf('d4'));
      for (const m of p.moves) {
        expect(m.reasons.length).toBeGreaterThan(0);
        expect(m.ifLeft.points).toBeGreaterThan(0);
        expect(m.ifLeft.breaks.length).toBeGreaterThan(0);
      }
    },
  );

  test('a move that would bring a caution is left out, and what it would bring is what its move brings', async () => {
    const storm = brokenRig.sounds.find((x) => x.name === 'Storm')!;
    // That sound alone: every move is tried in every sound there is.
    const rig: Rig = { ...brokenRig, sounds: [storm] };
    const p = valueOf(await proposeOrder(rig, storm));
    const [stays] = p.stays;
    expect(stays!.words).toMatch(
      /^Lantern Delay stays where it is: moved, it would bring caution: /,
    );
    expect(p.edits.some((e) => e.edit === 'moveDevice' && e.device === stays!.device)).toBe(false);
    expect(analyse(done(rig, p.edits)).findings.map((f) => f.what)).not.toContain(
      `${stays!.words.split('caution: ')[1]}.`,
    );
  });

  test('a pin is kept, and the other school turns its rule round', async () => {
    const pinned = done(wild, [{ edit: 'setDevice', device: 'd3', pinned: true }]);
    const p = valueOf(await proposeOrder(pinned, pinned.sounds[0]!));
    expect(p.moves.some((m) => m.device === 'd3')).toBe(false);
    const other: Rig = {
      ...wild,
      order: { stances: { 'filter-before-dirt': { stance: 'other' } } },
    };
    const q = valueOf(await proposeOrder(other, other.sounds[0]!));
    expect(q.order.indexOf('d3') > q.order.indexOf('d2')).toBe(true);
  });

  test('what is in order stays as it is', async () => {
    const p = valueOf(await proposeOrder(touringRig, touringRig.sounds[3]!));
    expect(p.edits).toEqual([]);
  });

  test('whatever stands wherever: it moves only for what is told, and one move where one cures', async () => {
    // A tuner that is on mutes.
    const pedals = START_PEDALS.filter((k) => k.job !== 'tuner').map((k) => k.id);
    await fc.assert(
      fc.asyncProperty(
        fc.uniqueArray(fc.constantFrom(...pedals), { minLength: 3, maxLength: 6 }),
        async (kinds) => {
          const chain = chainOf(['guitar-single-coil', ...kinds, 'combo-tube']);
          const rig = allOn(chain.devices, chain.leads);
          const told = (r: Rig) =>
            orderRemarks(evidenceOf(r, r.sounds[0]!)).flatMap((x) =>
              x.rule === 'buffer-place' ? [] : [x.what],
            );
          const p = valueOf(await proposeOrder(rig, rig.sounds[0]!));
          const after = valueOf(applyEdits(rig, p.edits)).rig;
          expect(p.cured.length > 0).toBe(p.edits.length > 0);
          expect(told(after).filter((what) => p.cured.includes(what))).toEqual([]);
          if (told(rig).length === 0) expect(p.edits).toEqual([]);
          if (p.cured.length === 1 && p.moves.length > 1) {
            // No single device, put anywhere, does it alone without something new being told.
            const places = rig.leads.map((l) => l.id);
            for (const { device } of p.moves)
              for (const lead of places) {
                const made = applyEdits(rig, [
                  { edit: 'moveDevice', device, lead, newLeads: ['n1', 'n2'] },
                ]);
                if (!made.ok) continue;
                const now = told(made.value.rig);
                expect(now.includes(p.cured[0]!) || now.length > told(after).length).toBe(true);
              }
          }
        },
      ),
      { numRuns: cases(8, 20) },
    );
  }, 120_000);
  test('it tells how far it is, and stops where it is told to', async () => {
    const shares: number[] = [];
    await expect(
      proposeOrder(wild, wild.sounds[0]!, (share) => {
        shares.push(share);
        if (shares.length > 20) throw new Error('cancelled');
      }),
    ).rejects.toThrow('cancelled');
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });

  test('into a head without a loop: in order already means that no single move is better', async () => {
    const pedals = START_PEDALS.filter((k) => k.job !== 'tuner').map((k) => k.id);
    await fc.assert(
      fc.asyncProperty(
        fc.uniqueArray(fc.constantFrom(...pedals), { minLength: 2, maxLength: 4 }),
        async (kinds) => {
          const chain = chainOf(['guitar-humbucker', ...kinds, 'head-tube', 'cabinet']);
          const last = chain.leads.at(-1)!;
          const speaker: Lead = {
            ...last,
            from: { ...last.from, jack: 'speaker' },
            type: 'speaker',
          };
          const rig = allOn(chain.devices, [...chain.leads.slice(0, -1), speaker]);
          const told = (r: Rig) =>
            orderRemarks(evidenceOf(r, r.sounds[0]!)).flatMap((x) =>
              x.rule === 'buffer-place' ? [] : [x.what],
            );
          const p = valueOf(await proposeOrder(rig, rig.sounds[0]!));
          // Nothing but a load belongs into the speaker line.
          expect(JSON.stringify([p.moves, p.stays])).not.toContain('load on its speaker output');
          if (p.edits.length) return;
          const before = told(rig);
          const trial = new FixTrial(rig);
          for (const device of chain.devices.slice(1, -2))
            for (const { id } of rig.leads) {
              const edits: Edit[] = [
                { edit: 'moveDevice', device: device.id, lead: id, newLeads: ['n1', 'n2'] },
              ];
              const made = applyEdits(rig, edits);
              if (!made.ok) continue;
              const after = told(made.value.rig);
              const isBetter =
                after.length < before.length && after.every((what) => before.includes(what));
              expect(isBetter && !harmOf(trial, edits).length && [kinds, device.kind, id]).toBe(
                false,
              );
            }
        },
      ),
      { numRuns: cases(8, 20) },
    );
  }, 120_000);
});

/** A compact modeler with five slots and more blocks than that; a drive stands in front. */
const crowded = (slots = 5): Rig =>
  rigOf(
    [
      device('g', 'guitar-humbucker', 'Guitar'),
      device('m', 'modeler-compact', 'Modeler', {
        figures: { slots: { value: slots, from: 'sheet' } },
      }),
      ...[
        ['comp', 'compressor'],
        ['drive', 'drive-low'],
        ['amp', 'amp-block'],
        ['cab', 'cab-block'],
        ['mod', 'chorus'],
        ['echo', 'delay'],
        ['hall', 'reverb'],
      ].map(([id, kind]) => device(id!, kind!, id!, { host: 'm' })),
      device('desk', 'console-input', 'House', { settings: { input: 'line' } }),
    ],
    [
      lead('1', 'g.out', 'm.in', 5),
      ...['comp', 'drive', 'amp', 'cab', 'mod', 'echo', 'hall'].map((id, i, all) =>
        inside(`i${i}`, i ? `${all[i - 1]}.out` : 'm.fromIn', `${id}.in`),
      ),
      inside('i7', 'hall.out', 'm.toOut'),
      lead('2', 'm.out', 'desk.in', 20, 'balanced'),
    ],
    [
      sound('a', 'Clean', ['comp', 'drive', 'hall'], {
        echo: { engaged: false, settings: { time: 2 } },
      }),
      sound('b', 'Lead', ['comp', 'drive', 'hall', 'echo', 'mod'], {
        echo: { engaged: true, settings: { time: 6 } },
      }),
    ],
  );

describe('inside or outside', () => {
  test('what is always on leaves first, to the front, and the rest fits', () => {
    const rig = crowded();
    expect(analyse(rig).findings.find((f) => f.rule === 'host-budget')!.what).toContain(
      '7 of 5 slots',
    );
    const p = valueOf(proposeInside(rig, 'm', solver));
    if (!p.possible) throw new Error(JSON.stringify(p));
    expect(p.moves.map((m) => [m.device, m.to, m.place])).toEqual([
      ['comp', 'outside', 'in front of Modeler'],
      ['drive', 'outside', 'in front of Modeler'],
    ]);
    expect(p.moves[0]!.reasons.join()).toContain('on in every sound');
    expect([p.now.slots, p.then.slots]).toEqual([7, 5]);
    const then = done(rig, p.edits);
    expect(analyse(then).findings.filter((f) => f.rule === 'host-budget')).toEqual([]);
    expect(analyse(then).sounds[0]!.destinations[0]!.levelDbu).not.toBeNull();
    expect(
      then.leads.map((l) => `${l.from.device}.${l.from.jack}>${l.to.device}.${l.to.jack}`),
    ).toEqual(
      expect.arrayContaining([
        'g.out>comp.in',
        'comp.out>drive.in',
        'drive.out>m.in',
        'm.fromIn>amp.in',
      ]),
    );
  });

  test('one held inside sends another out; more than the loops can carry is impossible, and says by how much', () => {
    const rig = crowded();
    const p = valueOf(proposeInside(rig, 'm', solver, new Map([['comp', true]])));
    if (!p.possible) throw new Error(JSON.stringify(p));
    expect(p.moves.map((m) => m.device)).not.toContain('comp');
    expect(p.then.slots).toBeLessThanOrEqual(5);
    expect(analyse(done(rig, p.edits)).sounds[1]!.destinations[0]!.levelDbu).not.toBeNull();
    const never = valueOf(proposeInside(crowded(1), 'm', solver));
    expect(!never.possible && never.short).toEqual(['1 slots short']);
  });

  test('it is as good as trying every choice', () => {
    const rig = crowded();
    const ids = ['comp', 'drive', 'mod', 'echo', 'hall'];
    const costs = Array.from({ length: 32 }, (_, mask) => {
      const held = new Map(ids.map((id, i) => [id, (mask >> i) % 2 === 0]));
      const p = valueOf(proposeInside(rig, 'm', solver, held));
      if (!p.possible) return Infinity;
      const out = ids.filter((id) => held.get(id) === false);
      return (
        p.candidates.reduce((s, c) => s + (out.includes(c.device) ? -c.outsidePoints + 1 : 0), 0) +
        (out.length ? runs(out) * 1.5 : 0)
      );
    });
    // Neighbours on the path share a loop; what stands before the amp block needs none, if all
    // before it left too.
    function runs(out: string[]): number {
      const row = ['comp', 'drive', 'amp', 'cab', 'mod', 'echo', 'hall'];
      const front = row.findIndex((id) => !out.includes(id));
      return row.filter((id, i) => i > front && out.includes(id) && !out.includes(row[i - 1]!))
        .length;
    }
    const best = valueOf(proposeInside(rig, 'm', solver));
    const chosen = best.possible ? best.moves.map((m) => m.device) : [];
    const mask = ids.reduce((m, id, i) => m | (chosen.includes(id) ? 1 << i : 0), 0);
    expect(costs[mask]).toBeCloseTo(Math.min(...costs), 6);
  });

  test('out onto a loop and back in again is the same rig', () => {
    const rig = crowded();
    const out = done(rig, [
      { edit: 'moveToLoop', device: 'echo', loops: ['loop1'], newLeads: ['n1', 'n2'] },
    ]);
    expect(out.devices.find((d) => d.id === 'echo')!.host).toBeUndefined();
    expect(analyse(out).sounds[1]!.destinations[0]!.levelDbu!.normal).toBeCloseTo(
      analyse(rig).sounds[1]!.destinations[0]!.levelDbu!.normal,
      0,
    );
    expect(done(out, [{ edit: 'moveFromLoop', device: 'echo' }])).toEqual(rig);
  });
});

describe('a mixed-integer problem', () => {
  test('is written in words that a solver reads, and an impossible one is told', () => {
    const lp = writeLp({
      minimise: [
        [-2, 'a'],
        [1, 'b'],
      ],
      rules: [
        {
          name: 'one',
          terms: [
            [1, 'a'],
            [-3, 'b'],
          ],
          is: '<=',
          value: 0,
        },
      ],
      binaries: ['a', 'b'],
    });
    expect(lp).toContain('one: + 1 a - 3 b <= 0');
    expect(
      solveMip(
        {
          minimise: [
            [-2, 'a'],
            [1, 'b'],
          ],
          rules: [
            {
              name: 'one',
              terms: [
                [1, 'a'],
                [-3, 'b'],
              ],
              is: '<=',
              value: 0,
            },
          ],
          binaries: ['a', 'b'],
        },
        solver,
      ),
    ).toMatchObject({ solved: true, cost: -1, values: { a: 1, b: 1 } });
    expect(
      solveMip(
        {
          minimise: [[1, 'a']],
          rules: [{ name: 'x', terms: [[1, 'a']], is: '>=', value: 2 }],
          binaries: ['a'],
        },
        solver,
      ),
    ).toEqual({ solved: false, why: 'impossible' });
  });
});

describe('isolating', () => {
  const twoAmps = (splitter: string, settings = {}) =>
    rigOf(
      [
        device('g', 'guitar-humbucker', 'G'),
        device('s', splitter, 'Split', { settings }),
        device('a', 'combo-tube', 'A'),
        device('b', 'combo-tube', 'B'),
      ],
      [lead('1', 'g.out', 's.in', 0.3), lead('2', 's.a', 'a.in', 5), lead('3', 's.b', 'b.in', 8)],
    );
  test('a switch that is there before a box to buy, and the longest lead where there is none', () => {
    const isolated = proposeIsolation(
      twoAmps('splitter-isolated', { isolateA: false, isolateB: false }),
    );
    expect(isolated).toMatchObject({ loopsNow: 1, loopsThen: 0 });
    expect(isolated.cuts.map((c) => c.words)).toEqual([
      expect.stringMatching(/^Isolate output [AB] of Split$/),
    ]);
    const passive = proposeIsolation(twoAmps('splitter-passive'));
    expect(passive.cuts.map((c) => c.words)).toEqual([
      'Put a buffer behind G and a hum isolator between Split and B',
    ]);
    expect(passive.loopsThen).toBe(0);
  });
  test('nothing is proposed where ground is open already, and never a protective earth', () => {
    expect(proposeIsolation(twoAmps('splitter-isolated')).cuts).toEqual([]);
    const p = proposeIsolation(touringRig, touringRig.sounds[0]);
    expect(JSON.stringify(p)).not.toMatch(/lift.*earth/i);
    expect(p.loopsThen + p.left.length).toBeLessThanOrEqual(p.loopsNow);
    expect(
      groundLoops(done(touringRig, p.edits), touringRig.sounds[0]).filter((l) => !isPair(l)),
    ).toHaveLength(p.loopsThen);
  });
});

describe('buffers', () => {
  test('one behind a long lead earns decibels at 5 kHz, told one by one', async () => {
    const rig = chainOf(['guitar-single-coil', 'wah', 'phaser', 'tremolo', 'combo-tube'], 6);
    const p = await proposeBuffers(rig, rig.sounds[0]!);
    expect(p.gains[0]!.gainDb).toBeGreaterThan(6);
    const put = done(rig, p.gains[0]!.edits);
    const at5k = (r: Rig) => {
      const s = analyse(r).sounds[0]!.stations.find((x) => x.device === 'd4')!.input!;
      return s.levelDbu!.normal + s.tiltDb!;
    };
    expect(at5k(put) - at5k(rig)).toBeCloseTo(p.gains[0]!.gainDb, 6);
    for (const [i, g] of p.gains.entries())
      if (i) expect(g.gainDb).toBeLessThanOrEqual(p.gains[i - 1]!.gainDb + 0.1);
  });
  test('a fuzz keeps its bare pickup', async () => {
    const rig = chainOf(
      ['guitar-single-coil', ['fuzz-low-impedance', { engaged: true }], 'combo-tube'],
      6,
    );
    const p = await proposeBuffers(rig, rig.sounds[0]!);
    expect(p.spared[0]).toContain('wants the bare pickup');
    expect(p.gains.some((g) => g.lead === 'l0')).toBe(false);
  });
});
