import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { fromDot } from 'ts-graphviz';
import { analyse } from '../report';
import { brokenRig, touringRig } from '../demo';
import type { Rig } from '../rig';
import { toDot, toGraphml, walkGraph, walkSvg, wiringGraph, wiringSvg } from '.';

const hostile: Rig = {
  ...touringRig,
  name: 'A & B <rig> "one" \u0007\uFFFE',
  devices: touringRig.devices.map((d) =>
    d.id === 'kiln' ? { ...d, name: '</node>]]> & "quoted"' } : d,
  ),
};

interface Read {
  graphml: {
    key: unknown[];
    graph: {
      '@edgedefault': string;
      node: { '@id': string; data: { '@key': string; '#': string }[] }[];
      edge: {
        '@id': string;
        '@source': string;
        '@target': string;
        data: { '@key': string; '#': string }[];
      }[];
    };
  };
}
const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  textNodeName: '#',
  parseTagValue: false,
  trimValues: false,
  isArray: (name) => ['key', 'node', 'edge', 'data'].includes(name),
});
function read(xml: string): Read {
  expect(XMLValidator.validate(xml)).toBe(true);
  return parser.parse(xml) as Read;
}

describe('GraphML', () => {
  test.each([touringRig, brokenRig, hostile])(
    'of the wiring is read back whole, by an XML reader',
    (rig) => {
      const { graph } = read(toGraphml(wiringGraph(rig))).graphml;
      expect(graph['@edgedefault']).toBe('directed');
      expect(graph.node.map((n) => n['@id'])).toEqual(rig.devices.map((d) => d.id));
      expect(graph.edge.map((e) => [e['@id'], e['@source'], e['@target']])).toEqual(
        rig.leads.map((l) => [l.id, l.from.device, l.to.device]),
      );
      expect(graph.node.map((n) => n.data.find((d) => d['@key'] === 'node-name')!['#'])).toEqual(
        rig.devices.map((d) => d.name),
      );
      expect(
        graph.edge.map((e) => Number(e.data.find((d) => d['@key'] === 'edge-metres')!['#'])),
      ).toEqual(rig.leads.map((l) => l.metres));
    },
  );
  test('of a walk has a node a pass, with its level', () => {
    const report = analyse(touringRig).sounds[4]!;
    const { graph } = read(toGraphml(walkGraph(touringRig, report))).graphml;
    expect(graph.node.filter((n) => n['@id'].startsWith('head:'))).toHaveLength(2);
    const kiln = graph.node.find((n) => n['@id'] === 'kiln')!;
    expect(Number(kiln.data.find((d) => d['@key'] === 'node-levelDbu')!['#'])).toBeCloseTo(
      report.stations.find((s) => s.id === 'kiln')!.output.levelDbu!.normal,
      9,
    );
    expect(graph.edge).toHaveLength(report.steps.length);
  });
});

test.each([touringRig, hostile])(
  'DOT is read back by its own language’s parser, with every device and lead',
  (rig) => {
    const graph = fromDot(toDot(wiringGraph(rig)));
    expect(graph.nodes.map((n) => n.id).sort()).toEqual(rig.devices.map((d) => d.id).sort());
    expect(graph.edges).toHaveLength(rig.leads.length);
  },
);

describe('drawings', () => {
  const texts = (svg: string): string[] =>
    [...svg.matchAll(/<text[^>]*>([^<]*)<\/text>/g)].map((m) => m[1]!);
  test('the walk names what the signal meets and gives its level', () => {
    const report = analyse(touringRig).sounds[4]!;
    const svg = walkSvg(touringRig, report);
    expect(() => read(svg)).not.toThrow();
    expect(texts(svg)).toEqual(
      expect.arrayContaining(['Harbour Comp', 'Brine Drive', 'Level, dBu']),
    );
    expect(svg).not.toContain('NaN');
  });
  test('the wiring names every device, and hostile names stay text', () => {
    const svg = wiringSvg(hostile);
    expect(() => read(svg)).not.toThrow();
    expect(svg).toContain('&lt;/node&gt;');
    expect(texts(wiringSvg(touringRig))).toEqual(
      expect.arrayContaining(['Floor', 'Rack', 'House', 'Stage head']),
    );
  });
});
