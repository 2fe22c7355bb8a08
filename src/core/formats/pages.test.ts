import fc from 'fast-check';
import { analyse } from '../report';
import { DEMO_RIGS, touringRig } from '../demo';
import { cornersOf } from '../draw/spots';
import { connectorsOf, crossingsOf, cutsOf, type Stretch } from './pages';
import { bookOf, bookPages, drawnOn, stageSvg } from '.';
import { missingScripts } from './scripts';

const A4_ACROSS = { width: 785, height: 505 };

test('pieces cover a length without a gap, none longer than a page, none through anything solid that fits', () => {
  const solids = fc
    .array(fc.tuple(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 0, max: 20 })), {
      maxLength: 12,
    })
    .map((list) => {
      let x = 0;
      return list.map(([long, gap]): Stretch => {
        const from = x + gap;
        x = from + long;
        return [from, x];
      });
    });
  fc.assert(
    fc.property(solids, fc.integer({ min: 60, max: 200 }), (solid, room) => {
      const length = (solid.at(-1)?.[1] ?? 0) + 10;
      const cuts = cutsOf(length, room, solid);
      return (
        cuts[0]![0] === 0 &&
        cuts.at(-1)![1] === length &&
        cuts.every(([a, b], i) => b - a <= room && (i === 0 || a === cuts[i - 1]![1])) &&
        cuts.slice(1).every(([c]) => !solid.some(([a, b]) => a < c && c < b))
      );
    }),
  );
  // What is longer than a page is cut through.
  expect(cutsOf(100, 40, [[0, 100]])).toEqual([
    [0, 40],
    [40, 80],
    [80, 100],
  ]);
});

test('a way that leaves one page comes to the next at the same place', () => {
  const steps = fc.array(
    fc.record({ across: fc.boolean(), to: fc.integer({ min: 1, max: 299 }) }),
    { minLength: 1, maxLength: 8 },
  );
  fc.assert(
    fc.property(steps, fc.integer({ min: 20, max: 280 }), (list, cut) => {
      const d = `M7 9${list.map((s) => `${s.across ? 'H' : 'V'}${s.to + 0.5}`).join('')}`;
      const y: Stretch = [0, 400];
      const left = crossingsOf(d, { x: [0, cut], y });
      const right = crossingsOf(d, { x: [cut, 400], y });
      const places = (all: typeof left) => all.map((c) => `${c.x} ${c.y}`).sort();
      return (
        JSON.stringify(places(left)) === JSON.stringify(places(right)) &&
        left.filter((c) => c.leaves).length === right.filter((c) => !c.leaves).length &&
        left.length ===
          cornersOf(d)
            .slice(1)
            .filter((p, i) => p.x > cut !== cornersOf(d)[i]!.x > cut).length
      );
    }),
  );
});

test('names beside a page stand one under the other where their ways come close', () => {
  const named = [40, 43, 41, 120].map((y) => ({ d: `M0 ${y}H300`, words: () => 'to A' }));
  const { all } = connectorsOf(named, { x: [100, 200], y: [0, 400] });
  const right = all.filter((c) => c.later).map((c) => c.y + c.down);
  expect(right.sort((a, b) => a - b)).toEqual([40, 50, 60, 120]);
  expect(all.filter((c) => !c.later)).toHaveLength(4);
});

test('a drawing whose pages come out larger than their room is cut again until its letters can be read', () => {
  const asked: number[] = [];
  const drawing = {
    is: 'drawing' as const,
    svg: '<svg viewBox="0 0 9000 9000"/>',
    least: 8,
    // What stands beside a page takes a quarter more than was left for it.
    pages: ({ width, height }: { width: number; height: number }) => {
      asked.push(width);
      return [`<svg viewBox="0 0 ${width * 1.25} ${height * 1.25}"/>`];
    },
  };
  const [page] = drawnOn(drawing, A4_ACROSS);
  expect(page!.scale * 8).toBeGreaterThanOrEqual(6);
  expect(asked.length).toBeGreaterThan(1);
});

describe.each(DEMO_RIGS.map((r) => [r.id, r] as const))('the drawings of %s', (_, rig) => {
  const drawings = bookOf(rig, analyse(rig)).flatMap((p) =>
    p.blocks.flatMap((b) => (b.is === 'drawing' ? [[p.id, b] as const] : [])),
  );
  test('no letter under 6 pt on any page, and nothing wider or higher than the page', () => {
    for (const [, drawing] of drawings)
      for (const { svg, scale, width } of drawnOn(drawing, A4_ACROSS)) {
        const sizes = [...svg.matchAll(/font-size="([\d.]+)"/g)].map((m) => Number(m[1]) * scale);
        expect(Math.min(...sizes)).toBeGreaterThanOrEqual(5.99);
        expect(width * scale).toBeLessThanOrEqual(A4_ACROSS.width + 0.01);
      }
  });
  test('every strip of every sound is on some page, once; names of cut ways come in pairs', () => {
    for (const [id, drawing] of drawings) {
      if (id !== 'walks') continue;
      const words = (svg: string) =>
        [...svg.matchAll(/<text[^>]*font-weight="600"[^>]*>([^<]*)</g)].map((m) => m[1]!).sort();
      const pages = drawnOn(drawing, A4_ACROSS).map((p) => p.svg);
      expect(pages.flatMap(words).sort()).toEqual(words(drawing.svg));
      const named = pages.flatMap((svg) =>
        [...svg.matchAll(/data-connector="(to|from) ([A-Z]+)"/g)].map((m) => [m[1]!, m[2]!]),
      );
      for (const [, name] of named)
        expect(new Set(named.filter(([, n]) => n === name).map(([to]) => to))).toEqual(
          new Set(['to', 'from']),
        );
    }
  });
});

test('boxes of a stage plot do not hide one another, however close they stand', () => {
  const spots = touringRig.stage!.spots.map((s, i) => ({ ...s, x: 3 + 0.1 * i, y: 2 }));
  const svg = stageSvg({ ...touringRig, stage: { ...touringRig.stage!, spots } });
  const boxes = [
    ...svg.matchAll(
      /translate\((-?[\d.]+) (-?[\d.]+)\)">\s*<rect x="(-?[\d.]+)" y="(-?[\d.]+)" width="([\d.]+)" height="([\d.]+)"/g,
    ),
  ]
    // The floor is the first.
    .slice(1)
    .map((m) => m.slice(1).map(Number) as [number, number, number, number, number, number]);
  expect(boxes).toHaveLength(spots.length);
  for (const [i, [ax, ay, , , aw, ah]] of boxes.entries())
    for (const [bx, by, , , bw, bh] of boxes.slice(i + 1))
      expect(Math.abs(ax - bx) >= (aw + bw) / 2 || Math.abs(ay - by) >= (ah + bh) / 2).toBe(true);
});

test('scripts that the typeface has not are named on the first page', () => {
  expect(missingScripts(['Salt and Ferry', 'Ωλ Дом', 'señor'])).toEqual([]);
  expect(missingScripts(['海の歌', 'אור', 'ทะเล', 'بحر'])).toEqual([
    'Arabic',
    'Han',
    'Hebrew',
    'Hiragana',
    'Thai',
  ]);
  const rig = { ...touringRig, name: '海' };
  const parts = bookOf(rig, analyse(rig)).filter((p) => p.id === 'summary');
  const foot = { rig: rig.name, revision: 'r', date: 'd' };
  expect(JSON.stringify(bookPages(parts, [], 'A4', foot).content)).toContain(
    'has no letters for Han',
  );
  expect(JSON.stringify(bookPages(parts, [], 'A4', { ...foot, rig: 'Sea' }).content)).not.toContain(
    'has no letters',
  );
});
