import { KINDS } from '../kinds';
import { device } from '../testing/rigs';
import { sizeOf, spotsOf, spotsOnBox } from '.';

const withBody = KINDS.filter((k) => k.size);

test('every jack of every kind with a body is on an edge of it, and no two sit in one place', () => {
  for (const kind of withBody) {
    const own = device('d', kind.id, kind.name);
    const size = sizeOf(own)!;
    const spots = spotsOf(own);
    expect(spots.map((s) => s.jack.id)).toEqual(
      kind.jacks.filter((j) => !j.inside && j.signal !== 'air').map((j) => j.id),
    );
    for (const { edge, mm, jack } of spots) {
      const long = edge === 'rear' || edge === 'front' ? size.width : size.depth;
      expect([kind.id, jack.id, mm >= 0 && mm <= long]).toEqual([kind.id, jack.id, true]);
    }
    const places = spots.map((s) => `${s.edge} ${Math.round(s.mm * 100)}`);
    expect([kind.id, new Set(places).size]).toEqual([kind.id, places.length]);
  }
});

test('what is said of this very box goes before what its kind says, jack by jack', () => {
  const said = { out: { edge: 'rear', mm: 12 } } as const;
  for (const kind of withBody.filter((k) => k.jacks.some((j) => j.id === 'out' && !j.inside))) {
    const size = sizeOf(device('d', kind.id, kind.name))!;
    const [plain, own] = [spotsOnBox(kind, size), spotsOnBox(kind, size, said)];
    expect(own.find((s) => s.jack.id === 'out')).toMatchObject(said.out);
    const others = (list: typeof plain) => list.filter((s) => s.jack.id !== 'out');
    expect(others(own)).toEqual(others(plain));
  }
});

test('the same box turned into one of twice the size has its jacks at twice the way', () => {
  for (const kind of withBody.filter((k) => !k.jackSpots && (k.size?.width ?? 0) < 100)) {
    const size = kind.size!;
    const twice = { width: 2 * size.width, depth: 2 * size.depth };
    // From 200 mm on, a box has all its jacks at the rear.
    if (twice.width >= 200 || kind.rackUnits) continue;
    const [small, large] = [spotsOnBox(kind, size), spotsOnBox(kind, twice)];
    small.forEach((s, i) => {
      expect(large[i]!.edge).toBe(s.edge);
      expect(large[i]!.mm).toBeCloseTo(2 * s.mm, 9);
    });
  }
});
