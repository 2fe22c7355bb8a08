import { mountedIn, PANEL_MM, spotsOf, UNIT_MM } from '../build';
import type { Rack, Rig } from '../rig/schema';
import { FAINT, finish, INK, RULE, sheet, TAPE, text } from './sheet';
import { type Looked, scaleBar, label } from './drawn';

/**
 * A rack from the front and from the rear, to scale in mm, unit by unit; what hangs on the other
 * rails is dashed.
 */
export function rackSvg(rig: Rig, rack: Rack, look: Looked = {}): string {
  const list = mountedIn(rig, rack);
  const high = rack.units * UNIT_MM;
  const [gap, top, side] = [90, 40, 44];
  const faces = look.faces ?? (['front', 'rear'] as const);
  const wideAll = faces.length * (PANEL_MM + gap) - gap + 2 * side;
  const letters = look.letters ?? 1;
  const svg = sheet(wideAll, high + top + 44, `${rig.name}: ${rack.name}`);
  for (const [n, face] of faces.entries()) {
    const x0 = side + n * (PANEL_MM + gap);
    const g = svg.ele('g', { transform: `translate(${x0} ${top})` });
    text(g, 0, -14, `${rack.name}, ${face}`, { 'font-size': 14 * letters, 'font-weight': 700 });
    g.ele('rect', {
      x: 0,
      y: 0,
      width: PANEL_MM,
      height: high,
      fill: '#f7f6f1',
      stroke: INK,
      'stroke-width': 2,
    });
    for (let u = 1; u <= rack.units; u++) {
      const y = high - u * UNIT_MM;
      g.ele('line', { x1: 0, x2: PANEL_MM, y1: y, y2: y, stroke: RULE, 'stroke-width': 0.6 });
      text(g, -8, y + UNIT_MM / 2 + 4, String(u), {
        'text-anchor': 'end',
        'font-size': 11 * letters,
        fill: FAINT,
      });
    }
    const inset = (PANEL_MM - 450) / 2;
    for (const m of [...list].sort(
      (a, b) => Number(a.rear === (face === 'rear')) - Number(b.rear === (face === 'rear')),
    )) {
      const here = m.rear === (face === 'rear');
      const wide = m.shelf ? m.width : PANEL_MM;
      const left = m.shelf ? inset + m.x : 0;
      const x = face === 'rear' ? PANEL_MM - left - wide : left;
      const y = high - m.to * UNIT_MM;
      const tall = (m.to - m.from + 1) * UNIT_MM;
      const body =
        here ||
        !list.some(
          (o) =>
            o !== m &&
            o.rear === (face === 'rear') &&
            o.from <= m.to &&
            m.from <= o.to &&
            o.x < m.x + m.width &&
            m.x < o.x + o.width,
        );
      if (!body) continue;
      const item = g.ele('g', { 'data-item': m.device.id });
      item.ele('rect', {
        x: x + 1,
        y: y + 1,
        width: wide - 2,
        height: tall - 2,
        rx: 2,
        fill: here ? TAPE : '#ffffff',
        stroke: look.selected === m.device.id ? INK : FAINT,
        'stroke-width': look.selected === m.device.id ? 4 : 1.2,
        ...(here ? {} : { 'stroke-dasharray': '5 4' }),
      });
      const spots = spotsOf(m.device).filter((s) => s.edge === 'rear' && face === 'rear');
      label(item, m.device.name, x, y, wide, spots.length ? tall - 12 : tall, letters);
      for (const s of spots)
        item.ele('circle', {
          cx: x + wide - s.mm * (wide / Math.max(m.width, 1)),
          cy: y + tall - 9,
          r: 3.4,
          fill: '#ffffff',
          stroke: INK,
          'stroke-width': 1,
        });
    }
  }
  scaleBar(svg, side, high + top + 24);
  return finish(svg);
}
