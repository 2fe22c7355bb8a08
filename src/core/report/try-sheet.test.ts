import { EXAMPLE_SHEETS } from '../demo';
import type { Sheet } from '../rig';
import { trySheet } from '.';

const sheetOf = (id: string): Sheet => EXAMPLE_SHEETS.find((s) => s.id === id)!;

test('what a box does is read at its output: a boost of 20 dB, less what a usual input takes of it', () => {
  const [out] = trySheet(sheetOf('shorebird-lift'), -40, { gain: 10 });
  const [off] = trySheet(sheetOf('shorebird-lift'), -40, { gain: 10 }, false);
  // 1 kΩ behind the boost and 100 Ω behind the buffer, each into the 10 kΩ of the bench.
  const into = (ohms: number) => 20 * Math.log10(10_000 / (10_000 + ohms));
  expect(out!.levelDbu! - off!.levelDbu!).toBeCloseTo(20 + into(1000) - into(100), 2);
  expect(out!.hardDbu! - out!.levelDbu!).toBeCloseTo(6, 1);
});

test('each output is told by itself: the dry one knows nothing of the effect', () => {
  const [dry, effect] = trySheet(sheetOf('drift-and-dry'), -18);
  expect([dry!.label, effect!.label]).toEqual(['dry out', 'effect out']);
  expect(dry!.latencyMs).toBe(0);
  expect(effect!.latencyMs).toBeGreaterThan(1);
});

test('a drive that is turned up is more saturated when picked hard', () => {
  const at = (firstDrive: number) =>
    trySheet(sheetOf('tandem-drive'), -12, { firstOn: true, firstDrive }).find(
      (j) => j.jack === 'out',
    )!.hardPercent!;
  expect(at(9)).toBeGreaterThan(at(1));
});
