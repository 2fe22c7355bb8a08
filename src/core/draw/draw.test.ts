import { analyse } from '../report';
import { brokenRig, hybridRig, touringRig } from '../demo';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { freeJacks, placeOf } from '../rig';
import type { Rig } from '../rig/schema';
import { placeWalk, placeWiring, walkView } from '.';
import { smallWalk } from './small-walk';

const inside = (id: string, from: string, to: string) => lead(id, from, to, 0, 'inside');
const hosted = rigOf(
  [
    device('g', 'guitar-humbucker', 'Guitar'),
    device('g2', 'lap-steel', 'Steel', { engaged: false }),
    device('mix', 'mixer-line', 'Joiner'),
    device('m', 'modeler-floor', 'Modeler'),
    device('comp', 'compressor', 'Comp', { host: 'm', engaged: true }),
    device('drv', 'drive-mid', 'Drive', { engaged: true }),
    device('amp', 'amp-block', 'Amp', { host: 'm' }),
    device('cab', 'cab-block', 'Cab', { host: 'm' }),
    device('desk', 'console-input', 'House', { settings: { input: 'line' } }),
    device('rec', 'recorder', 'Recorder'),
  ],
  [
    lead('1', 'g.out', 'mix.a', 3),
    lead('2', 'g2.out', 'mix.b', 3),
    lead('3', 'mix.out', 'm.in', 3),
    lead('4', 'm.send1', 'drv.in', 1),
    lead('5', 'drv.out', 'm.return1', 1),
    lead('6', 'm.out', 'desk.in', 20, 'balanced'),
    lead('7', 'm.out2', 'rec.in', 3, 'balanced'),
    inside('a', 'm.fromIn', 'comp.in'),
    inside('b', 'comp.out', 'm.toSend1'),
    inside('c', 'm.fromReturn1', 'amp.in'),
    inside('d', 'amp.out', 'cab.in'),
    inside('e', 'cab.out', 'm.toOut'),
    inside('f', 'amp.out', 'm.toOut2'),
  ],
  [sound('a', 'A', [])],
);

describe('looking at a walk', () => {
  const report = analyse(hosted).sounds[0]!;
  const devices = (view: ReturnType<typeof walkView>) => view.stations.map((s) => s.device);

  test('what no played instrument reaches is told apart, and shown when asked for', () => {
    const view = walkView(hosted, report);
    expect(view.quiet).toEqual(['g2']);
    expect(devices(view)).not.toContain('g2');
    expect(devices(walkView(hosted, report, { quiet: true }))).toContain('g2');
  });
  test('a folded host is one strip a pass, in the order of the signal, with the figures of its ends', () => {
    const view = walkView(hosted, report, { folded: new Set(['m']) });
    const order = [...view.stations].sort((a, b) => a.column - b.column).map((s) => s.id);
    expect(order.slice(0, 5)).toEqual(['g', 'mix', 'm~0', 'drv', 'm~1']);
    const [first, second] = ['m~0', 'm~1'].map((id) => view.stations.find((s) => s.id === id)!);
    expect(first!.folded).toEqual(['comp']);
    expect(second!.folded).toEqual(['amp', 'cab']);
    expect(second!.output.levelDbu).toEqual(
      report.stations.find((s) => s.device === 'm' && s.outs.includes('out'))!.output.levelDbu,
    );
    expect(view.steps.every((s) => !s.back)).toBe(true);
    expect(view.steps.find((s) => s.from === 'm~1' && s.to === 'desk')!.leads).toEqual(['6']);
  });
  test('following a destination leaves only its ways; following a source only what it reaches', () => {
    expect(new Set(devices(walkView(hosted, report, { follow: 'rec' })))).toEqual(
      new Set(['g', 'mix', 'm', 'comp', 'drv', 'amp', 'rec']),
    );
    expect(devices(walkView(hosted, report, { follow: 'cab' }))).toEqual(['cab', 'm', 'desk']);
    expect(new Set(devices(walkView(hosted, report, { follow: 'g', quiet: true })))).not.toContain(
      'g2',
    );
  });
  test('the report is not changed by looking at it', () => {
    const before = JSON.stringify(report);
    walkView(hosted, report, { folded: new Set(['m']), follow: 'rec' });
    expect(JSON.stringify(report)).toBe(before);
  });
  test('every strip has a place of its own, and every way a path', () => {
    const g = placeWalk(walkView(hosted, report, { quiet: true }), hosted.leads, 5);
    expect(new Set(g.stations.map((s) => `${s.x} ${s.y}`)).size).toBe(g.stations.length);
    expect(g.ways.every((w) => !w.d.includes('NaN'))).toBe(true);
  });
});

test('the small walk has every strip of the walk in its order and lane, and none where nothing is plugged', () => {
  const small = smallWalk(touringRig, analyse(touringRig).sounds[0])!;
  const { stations, lanes, width } = placeWalk(
    walkView(touringRig, analyse(touringRig).sounds[0]!),
    touringRig.leads,
    0,
  );
  expect(small.strips.map(([x, y]) => [x, y])).toEqual(
    stations.map((p) => [Math.round(p.x), Math.round(p.y)]),
  );
  expect([small.lanes, small.width]).toEqual([lanes.length, Math.round(width)]);
  expect(small.strips.every(([x, y, w]) => x + w <= small.width && y < small.height)).toBe(true);
  const bare = rigOf([device('g', 'guitar-active', 'G')], []);
  expect(smallWalk(bare, undefined)).toBeNull();
  expect(small.strips.some(([, , , isLive]) => isLive === 1)).toBe(true);
});

describe('the wiring by place', () => {
  test.each<[Rig, string | undefined]>([
    ...[hosted, hybridRig, touringRig, brokenRig].map((rig): [Rig, undefined] => [rig, undefined]),
    ...[hosted, hybridRig, brokenRig].flatMap((rig) =>
      [...new Set(rig.devices.flatMap((d) => d.host ?? []))].map((h): [Rig, string] => [rig, h]),
    ),
  ])(
    'on the stage or inside a host every device has a box in its band, every lead a way from its jack to its jack',
    (rig, inside) => {
      const g = placeWiring(rig, 900, { inside });
      expect(g.boxes.map((b) => b.device.id).sort()).toEqual(
        rig.devices
          .filter((d) => d.host === inside || (inside !== undefined && d.id === inside))
          .map((d) => d.id)
          .sort(),
      );
      const leads = rig.leads.filter((l) => placeOf(rig, l.from) === (inside ?? ''));
      expect(leads.length).toBeGreaterThan(0);
      expect(leads.every((l) => (l.type === 'inside') === (inside !== undefined))).toBe(true);
      expect(g.bands.length > 1).toBe(inside === undefined);
      expect(g.ways.map((w) => w.lead.id)).toEqual(leads.map((l) => l.id));
      for (const w of g.ways) {
        const jack = (id: string, jackId: string, side: string) =>
          g.boxes
            .find((b) => b.device.id === id)!
            .jacks.find((j) => j.id === jackId && j.side === side)!;
        const [from, to] = [
          jack(w.lead.from.device, w.lead.from.jack, 'out'),
          jack(w.lead.to.device, w.lead.to.jack, 'in'),
        ];
        expect(w.d.startsWith(`M${from.x} ${from.y}H`)).toBe(true);
        expect(w.d.endsWith(`V${to.y}H${to.x}`)).toBe(true);
      }
      for (const a of g.boxes) {
        expect(a.x + a.width).toBeLessThanOrEqual(g.width);
        for (const b of g.boxes)
          if (a !== b)
            expect(
              a.x + a.width <= b.x ||
                b.x + b.width <= a.x ||
                a.y + a.height <= b.y ||
                b.y + b.height <= a.y,
            ).toBe(true);
      }
    },
  );
  test('a switcher with twenty leads: every jack is read in full, and leads side by side stay apart', () => {
    const heads = [1, 2, 3, 4];
    const rig = rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('sw', 'amp-switcher', 'Switcher'),
        ...heads.flatMap((n) => [
          device(`h${n}`, 'head-tube', `Head ${n}`),
          device(`c${n}`, 'cabinet', `Cabinet ${n}`),
        ]),
      ],
      [
        lead('1', 'g.out', 'sw.inRear', 6),
        ...heads.flatMap((n) => [
          lead(`a${n}`, `sw.amp${n}`, `h${n}.in`, 2),
          lead(`s${n}`, `h${n}.speaker`, `sw.speaker${n}`, 2, 'speaker'),
          lead(`x${n}`, `h${n}.send`, `sw.send${n}`, 2),
          lead(`y${n}`, `sw.return${n}`, `h${n}.return`, 2),
          lead(`c${n}`, `sw.cab${n}`, `c${n}.in`, 2, 'speaker'),
        ]),
      ],
    );
    const g = placeWiring(rig, 900);
    const box = g.boxes.find((b) => b.device.id === 'sw')!;
    expect(box.jacks).toHaveLength(21);
    for (const j of box.jacks) expect(j.text).toBe(j.label);
    expect(new Set(box.jacks.map((j) => j.y)).size).toBe(21);
    const uprights = g.ways.flatMap((w) => {
      const at = [...w.d.matchAll(/H([\d.]+)V([\d.]+)/g)].map(
        (m) => [Number(m[1]), Number(m[2])] as const,
      );
      const ys = [Number(w.d.match(/^M[\d.]+ ([\d.]+)/)![1]), ...at.map((x) => x[1])];
      return at.map(([x], i) => ({
        lead: w.lead.id,
        x,
        from: Math.min(ys[i]!, ys[i + 1]!),
        to: Math.max(ys[i]!, ys[i + 1]!),
      }));
    });
    for (const a of uprights)
      for (const b of uprights)
        if (a.lead !== b.lead && a.from < b.to && b.from < a.to)
          expect(Math.abs(a.x - b.x)).toBeGreaterThan(3);
  });
  test('with free jacks, every jack that a lead could be plugged into is drawn once, and as high as a finger', () => {
    for (const rig of [hosted, touringRig, brokenRig]) {
      const free = (['in', 'out'] as const).flatMap((side) =>
        freeJacks(rig, side, '').flatMap(({ device: d, jacks }) =>
          jacks.map((j) => `${d.id} ${j.id}`),
        ),
      );
      const drawn = placeWiring(rig, 900, { free: true }).boxes.flatMap((b) =>
        b.jacks.map((j) => ({ jack: `${b.device.id} ${j.id}`, y: j.y, x: j.x, free: j.free })),
      );
      expect(new Set(drawn.filter((j) => j.free).map((j) => j.jack))).toEqual(new Set(free));
      const once = drawn.filter((j) => j.free).map((j) => j.jack);
      expect(once.filter((j) => once.filter((k) => k === j).length > 1)).toEqual([]);
      for (const a of drawn)
        for (const b of drawn)
          if (a !== b && a.x === b.x) expect(Math.abs(a.y - b.y)).toBeGreaterThanOrEqual(24);
      // Leads go where they went, and without free jacks none is drawn.
      expect(
        placeWiring(rig, 900)
          .boxes.flatMap((b) => b.jacks)
          .some((j) => j.free),
      ).toBe(false);
    }
  });
  test('inside a host each jack takes as many links as wanted, and may be chosen', () => {
    const jacks = placeWiring(hosted, 900, { free: true, inside: 'm' }).boxes.flatMap(
      (b) => b.jacks,
    );
    expect(jacks.length).toBeGreaterThan(10);
    expect(jacks.every((j) => j.free)).toBe(true);
    const [stage] = placeWiring(hosted, 900).boxes.filter((b) => b.device.id === 'm');
    expect(stage!.inside).toBe(3);
    // One that holds nothing yet can be begun there.
    const bare = rigOf([device('m', 'modeler-floor', 'Modeler')], []);
    expect(placeWiring(bare, 900).boxes[0]!.inside).toBe(0);
    const own = placeWiring(bare, 900, { free: true, inside: 'm' }).boxes;
    expect(own.map((b) => [b.device.id, b.inside])).toEqual([['m', undefined]]);
    expect(own[0]!.jacks.length).toBeGreaterThan(3);
  });
  test('no way runs through a box', () => {
    const g = placeWiring(touringRig, 900);
    for (const w of g.ways) {
      const numbers = w.d.match(/[MHV][^MHV]*/g)!;
      let [x, y] = numbers[0].slice(1).split(' ').map(Number) as [number, number];
      for (const part of numbers.slice(1)) {
        const to = Number(part.slice(1));
        const [x2, y2] = part.startsWith('H') ? [to, y] : [x, to];
        for (const b of g.boxes) {
          const inside =
            Math.max(Math.min(x, x2), b.x + 1) < Math.min(Math.max(x, x2), b.x + b.width - 1) ||
            (x === x2 && x > b.x + 1 && x < b.x + b.width - 1);
          const across =
            Math.max(Math.min(y, y2), b.y + 1) < Math.min(Math.max(y, y2), b.y + b.height - 1) ||
            (y === y2 && y > b.y + 1 && y < b.y + b.height - 1);
          expect(inside && across).toBe(false);
        }
        [x, y] = [x2, y2];
      }
    }
  });
});
