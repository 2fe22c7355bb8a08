import { EXAMPLE_SHEETS } from '../demo';
import { kindOfSheet } from '../rig';
import { boxInside } from './box-inside';

test('the inside is drawn with every part once, nothing over another, from the inputs to the outputs', () => {
  for (const sheet of EXAMPLE_SHEETS) {
    if (sheet.is !== 'parts') continue;
    const { boxes, ways, width, height } = boxInside(sheet);
    expect(boxes.filter((b) => b.is === 'part').map((b) => b.id)).toEqual(
      sheet.parts.map((p) => p.id),
    );
    expect(ways.length).toBeGreaterThanOrEqual(sheet.links.length ? 2 : 1);
    boxes.forEach((a, i) => {
      expect(a.x >= 0 && a.y >= 0 && a.x + a.width <= width && a.y + a.height <= height).toBe(true);
      for (const b of boxes.slice(i + 1))
        expect(
          a.x + a.width <= b.x ||
            b.x + b.width <= a.x ||
            a.y + a.height <= b.y ||
            b.y + b.height <= a.y,
        ).toBe(true);
    });
    const x = (id: string) => boxes.find((b) => b.is === 'jack' && b.id === id)?.x;
    const { in: first, out: last } = kindOfSheet(sheet).through ?? { in: '', out: '' };
    expect(x(last)!).toBeGreaterThan(x(first)!);
  }
});
