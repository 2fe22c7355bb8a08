import { believable, KINDS, measuringWay } from '.';

const figures = KINDS.flatMap((k) => k.figures.map((f) => [`${k.id} ${f.id}`, f] as const));

test('every figure of every kind can be learnt somehow', () => {
  expect(figures.filter(([, f]) => !measuringWay(f)).map(([name]) => name)).toEqual([]);
});

test('what is believable lies within what can be entered, around what is typical', () => {
  for (const [name, f] of figures) {
    const [low, high] = believable(f);
    expect([name, f.min <= low && low <= f.typical && f.typical <= high && high <= f.max]).toEqual([
      name,
      true,
    ]);
  }
});

test('an impedance may be twice or half, a level 6 dB off, polarity either way', () => {
  const of = (kind: string, id: string) =>
    believable(KINDS.find((k) => k.id === kind)!.figures.find((f) => f.id === id)!);
  expect(of('buffer', 'inputOhms')).toEqual([500_000, 2_000_000]);
  expect(of('guitar-active', 'nominalDbu')).toEqual([-20, -8]);
  expect(of('combo-tube', 'turnsOver')).toEqual([0, 1]);
});
