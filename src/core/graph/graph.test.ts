import fc from 'fast-check';
import { DirectedGraph } from 'graphology';
import { bfsFromNode } from 'graphology-traversal';
import {
  byKey,
  circlesIn,
  Joined,
  JoinedNumbers,
  nearestFirst,
  orderByName,
  loopsThrough,
  orderNodes,
  reachable,
} from '.';

const NODES = 12;
const edges = fc.array(fc.tuple(fc.nat(NODES - 1), fc.nat(NODES - 1)), { maxLength: 30 });
const nextOf = (list: readonly (readonly [number, number])[]) => {
  const out = byKey(list, ([from]) => from);
  return (at: number) => (out.get(at) ?? []).map(([, to]) => to);
};
const graphOf = (list: readonly (readonly [number, number])[]) => {
  const graph = new DirectedGraph();
  for (let i = 0; i < NODES; i++) graph.addNode(i);
  for (const [a, b] of list) graph.mergeDirectedEdge(a, b);
  return graph;
};

test('what can be reached, and how near it is, agrees with a graph library', () => {
  fc.assert(
    fc.property(edges, fc.nat(NODES - 1), (list, start) => {
      const depth = new Map<number, number>();
      bfsFromNode(graphOf(list), String(start), (node, _, d) => void depth.set(Number(node), d), {
        mode: 'outbound',
      });
      const next = nextOf(list);
      expect(reachable([start], next)).toEqual(new Set(depth.keys()));
      const order = [...nearestFirst([start], next)].map((n) => depth.get(n) ?? -1);
      expect(order).toEqual([...order].sort((a, b) => a - b));
    }),
  );
});

test('each place is visited once, by the first way that comes to it, as its key says', () => {
  const ways = [
    ...nearestFirst(
      [['a']],
      (w) =>
        w.length < 4
          ? [
              [...w, 'b'],
              [...w, 'c'],
            ]
          : [],
      (w) => w[w.length - 1],
    ),
  ];
  expect(ways).toEqual([['a'], ['a', 'b'], ['a', 'c']]);
  expect([...nearestFirst([1, 1, 2], () => [])]).toEqual([1, 2]);
});

test('an order comes to each node after what leads to it, but for what leads back', () => {
  fc.assert(
    fc.property(edges, (list) => {
      const next = nextOf(list);
      const successors = Array.from({ length: NODES }, (_, i) => next(i));
      const { order, isBack, back } = orderNodes(successors);
      const loops = loopsThrough(back, successors);
      expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: NODES }, (_, i) => i));
      const place = new Map(order.map((n, i) => [n, i]));
      for (const [a, b] of list)
        expect(isBack(a, b) || (place.get(a) ?? 0) < (place.get(b) ?? 0)).toBe(true);
      // In a circle everything leads to everything; and there is a circle only where a step leads back.
      for (const loop of loops)
        for (const at of loop)
          expect(loop.every((to) => reachable(next(at), next).has(to))).toBe(true);
      expect(loops.length > 0).toBe(list.some(([a, b]) => isBack(a, b)));
    }),
  );
});

test('circles: a node that leads to itself, two that lead to each other, and none in a tree', () => {
  const circles = (list: [string, string][]) => {
    const out = byKey(list, ([a]) => a);
    return circlesIn('abcd', (n) => (out.get(n) ?? []).map(([, b]) => b)).map((c) => [...c].sort());
  };
  expect(circles([['a', 'a']])).toEqual([['a']]);
  expect(
    circles([
      ['a', 'b'],
      ['b', 'c'],
      ['c', 'b'],
    ]),
  ).toEqual([['b', 'c']]);
  expect(
    circles([
      ['a', 'b'],
      ['a', 'c'],
      ['b', 'd'],
    ]),
  ).toEqual([]);
});

test('joined pairwise, things fall into the groups that a library finds', () => {
  fc.assert(
    fc.property(edges, (list) => {
      const joined = new Joined<number>();
      const numbers = new JoinedNumbers();
      for (const [a, b] of list) {
        joined.join(a, b);
        numbers.join(a, b);
      }
      const both = nextOf([...list, ...list.map(([a, b]): [number, number] => [b, a])]);
      for (let a = 0; a < NODES; a++) {
        const group = reachable([a], both);
        for (let b = 0; b < NODES; b++) expect(joined.isJoined(a, b)).toBe(group.has(b));
        expect(group.has(joined.root(a))).toBe(true);
        // Both stand for a group by the same member.
        expect(numbers.root(a)).toBe(joined.root(a));
      }
    }),
  );
});

test('gathered under a key, in the order they come', () => {
  expect([...byKey([3, 1, 4, 1, 5], (n) => n % 2)]).toEqual([
    [1, [3, 1, 1, 5]],
    [0, [4]],
  ]);
});

test('an order by name cuts the same circles at the same steps, however the nodes are numbered', () => {
  const shuffled = fc.shuffledSubarray(
    Array.from({ length: NODES }, (_, i) => i),
    { minLength: NODES, maxLength: NODES },
  );
  fc.assert(
    fc.property(edges, shuffled, fc.nat(NODES - 1), (list, number, first) => {
      const nameOfNode = (at: number) => `n${String(at).padStart(2, '0')}`;
      const cuts = (of: readonly number[]) => {
        const name = new Map(of.map((to, at) => [to, nameOfNode(at)]));
        const next = nextOf(list.map(([a, b]) => [of[a]!, of[b]!]));
        const successors = Array.from({ length: NODES }, (_, i) => next(i));
        const { order, isBack, ...sorted } = orderByName(
          successors,
          (at) => at === of[first],
          (at) => name.get(at)!,
        );
        const loops = loopsThrough(sorted.back, successors);
        const names = order.map((at) => name.get(at)!);
        return {
          back: list.filter(([a, b]) => isBack(of[a]!, of[b]!)),
          loops: loops.map((l) => l.map((at) => name.get(at)!).sort()).sort(),
          names,
        };
      };
      const [one, two] = [cuts([...Array(NODES).keys()]), cuts(number)];
      expect([two.back, two.loops]).toEqual([one.back, one.loops]);
      // Where there is something to cut, the walk itself hangs on names alone, from the first node on.
      if (!one.back.length) return;
      expect(two.names).toEqual(one.names);
      const ahead = new Set(one.names.slice(0, one.names.indexOf(nameOfNode(first))));
      const next = nextOf(list);
      for (const at of reachable([first], next)) expect(ahead.has(nameOfNode(at))).toBe(false);
    }),
  );
});
