import { DirectedGraph, UndirectedGraph } from 'graphology';
import { connectedComponents, stronglyConnectedComponents } from 'graphology-components';
import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { groundTies } from '../ground';
import { type SoundReport } from '../../report/report';
import { whole, fixed } from './by-hand';

describe('circles and ground, against a graph library', () => {
  const matrix = rigOf(
    [
      d('g', 'guitar-active', 'G'),
      d('m1', 'mixer-stereo', 'Mix 1'),
      d('b1', 'boost', 'B1', { engaged: true }),
      d('s1', 'splitter-buffered', 'S1'),
      d('b2', 'boost', 'B2', { engaged: true }),
      d('s2', 'splitter-buffered', 'S2'),
      d('e', 'eq', 'E', { engaged: true }),
      d('c', 'console-input', 'C'),
    ],
    [
      l('1', 'g.out', 'm1.a', 1),
      l('2', 'm1.out', 'b1.in', 1),
      l('3', 'b1.out', 's1.in', 1),
      l('4', 's1.a', 'b2.in', 1),
      l('5', 's1.b', 'm1.b', 1),
      l('6', 'b2.out', 's2.in', 1),
      l('7', 's2.a', 'c.in', 1),
      l('8', 's2.b', 'e.in', 1),
      l('9', 'e.out', 'm1.c', 1),
    ],
    [
      s('x', 'X', []),
      s('y', 'Y', [], { s1: { settings: { select: 'a' } } }),
      s('z', 'Z', [], { s1: { settings: { select: 'a' } }, s2: { settings: { select: 'a' } } }),
    ],
  );
  const graphOf = (report: SoundReport) => {
    const graph = new DirectedGraph();
    for (const x of report.stations) graph.mergeNode(x.device);
    for (const x of report.steps)
      if (!x.open) graph.mergeEdge(x.from.split(':')[0]!, x.to.split(':')[0]!);
    return graph;
  };
  test('every circle is named with its gain and the press that opens it, in just the sounds that have it', () => {
    const r = whole(matrix);
    const named = (sound: string) =>
      r.sounds
        .find((x) => x.sound === sound)!
        .cycles.map((c) => [...c.devices].sort().join(' '))
        .sort();
    expect(named('x')).toEqual(['b1 b2 e m1 s1 s2', 'b1 m1 s1']);
    expect(named('y')).toEqual(['b1 b2 e m1 s1 s2']);
    expect(named('z')).toEqual([]);
    for (const report of r.sounds) {
      const tangled = stronglyConnectedComponents(graphOf(report))
        .filter((c) => c.length > 1)
        .flat()
        .sort();
      expect([...new Set(report.cycles.flatMap((c) => c.devices))].sort()).toEqual(tangled);
      for (const c of report.cycles) expect(c.opens!.edits).toHaveLength(1);
    }
    const pressed = fixed(
      matrix,
      {
        ...r,
        findings: r.findings.filter(
          (f) => f.rule === 'howl' && f.sounds.includes('y') && f.subjects.includes('e'),
        ),
      },
      'howl',
    );
    expect(whole(pressed).sounds.find((x) => x.sound === 'x')!.cycles.length).toBeLessThan(2);
  });
  test('as many hum loops as there are independent circles of ground', () => {
    for (const rig of [
      matrix,
      rigOf(
        matrix.devices,
        matrix.leads.filter((x) => x.id !== '9'),
      ),
    ]) {
      const ties = groundTies(rig, rig.sounds[0]).filter((t) => t.a !== t.b);
      const graph = new UndirectedGraph();
      ties.forEach((t) => {
        graph.mergeNode(t.a);
        graph.mergeNode(t.b);
        graph.mergeEdge(t.a, t.b);
      });
      expect(whole(rig).sounds[0]!.humLoops).toHaveLength(
        ties.length - graph.order + connectedComponents(graph).length,
      );
    }
  });
  test('every hum loop is closed: each of its chassis is met by two of its ties', () => {
    for (const loop of whole(matrix).sounds[0]!.humLoops) {
      const met = new Map<string, number>();
      for (const t of loop.ties) for (const n of [t.a, t.b]) met.set(n, (met.get(n) ?? 0) + 1);
      expect([...met.values()].every((n) => n === 2)).toBe(true);
    }
  });
});
