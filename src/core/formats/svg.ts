import { at } from '../outcome';
import type { SoundReport } from '../report/report';
import {
  LEAD_DASH,
  LEAD_TAGS,
  placeWalk,
  placeWiring,
  PLACE_NAMES,
  SIZE,
  walkView,
  type WalkChoice,
} from '../draw';
import { nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import { fixed } from '../units';
import { FAINT, finish, INK, lines, LIVE, RULE, sheet, TAPE, text } from './sheet';

/**
 * The walk of one sound as a drawing: strips in the order of the signal, with level, saturation and
 * noise under each.
 */
export function walkSvg(rig: Rig, report: SoundReport, choice: WalkChoice = {}): string {
  const rows = [
    ['Level', 'dBu'],
    ['Saturation', '%'],
    ['Noise', 'dBu'],
  ] as const;
  const view = walkView(rig, report, choice);
  const g = placeWalk(view, rig.leads, rows.length);
  const head = 34;
  const name = rig.sounds.find((s) => s.id === report.sound)?.name ?? report.sound;
  const svg = sheet(g.width + 12, g.height + head - SIZE.meter + 20, `${rig.name}: ${name}`);
  text(svg, 12, 22, `${rig.name}: ${name}`, { 'font-size': 15, 'font-weight': 700 });
  const all = svg.ele('g', { transform: `translate(0 ${head - 8})` });
  for (const w of g.ways)
    all.ele('path', {
      d: w.d,
      fill: 'none',
      stroke: w.live ? LIVE : RULE,
      'stroke-width': w.live ? 2.5 : 1.5,
      ...(LEAD_DASH[w.type] ? { 'stroke-dasharray': LEAD_DASH[w.type]! } : {}),
    });
  for (const p of g.stations) {
    const off = p.station.state === 'through' || p.station.state === 'unused';
    all.ele('rect', {
      x: p.x,
      y: p.y,
      width: p.width,
      height: SIZE.label,
      rx: 2,
      fill: off ? '#ffffff' : TAPE,
      stroke: off ? RULE : FAINT,
      ...(off ? { 'stroke-dasharray': '3 2' } : {}),
    });
    const words = nameOf(rig, p.station.device);
    if (p.narrow)
      text(all, 0, 0, at(lines(words, 10), 0), {
        transform: `translate(${p.x + p.width / 2 + 4} ${p.y + SIZE.label - 4}) rotate(-90)`,
        'font-size': 10,
        fill: FAINT,
      });
    else
      lines(words, 13).forEach((line, i) =>
        text(all, p.x + p.width / 2, p.y + 24 + 13 * i, line, {
          'text-anchor': 'middle',
          'font-weight': 600,
        }),
      );
    if (p.narrow) continue;
    const { output } = p.station;
    const values = [
      output.levelDbu ? fixed(output.levelDbu.normal) : 'silent',
      output.thdPercent ? fixed(output.thdPercent.normal) : '–',
      output.noiseDbu === null ? '–' : fixed(output.noiseDbu),
    ];
    values.forEach((v, i) =>
      text(all, p.x + p.width / 2, p.y + SIZE.label + 16 + 15 * i, v, { 'text-anchor': 'middle' }),
    );
  }
  for (const lane of g.lanes)
    rows.forEach(([label, unit], i) =>
      text(all, 8, lane.y + SIZE.label + 16 + 15 * i, `${label}, ${unit}`, {
        'font-size': 10,
        fill: FAINT,
      }),
    );
  for (const l of g.leads)
    text(all, l.x, l.y - 4, `${LEAD_TAGS[l.lead.type]}${l.count > 1 ? ` ×${l.count}` : ''}`, {
      'text-anchor': 'middle',
      'font-size': 9,
      fill: FAINT,
    });
  return finish(svg);
}

/** The wiring by place as a drawing. */
export function wiringSvg(rig: Rig, width = 1180): string {
  const g = placeWiring(rig, width);
  const svg = sheet(g.width + 12, g.height + 40, `${rig.name}: wiring`);
  text(svg, 12, 22, `${rig.name}: wiring`, { 'font-size': 15, 'font-weight': 700 });
  const all = svg.ele('g', { transform: 'translate(0 32)' });
  for (const b of g.bands) {
    all.ele('line', { x1: 8, x2: g.width, y1: b.y, y2: b.y, stroke: RULE });
    text(all, 8, b.y + 16, PLACE_NAMES[b.place], { 'font-weight': 700, 'font-size': 12 });
  }
  for (const w of g.ways) {
    all.ele('path', {
      d: w.d,
      fill: 'none',
      stroke: INK,
      'stroke-width': 1.4,
      ...(LEAD_DASH[w.lead.type] ? { 'stroke-dasharray': LEAD_DASH[w.lead.type]! } : {}),
    });
    text(all, w.tag.x + 2, w.tag.y, w.lead.label ?? LEAD_TAGS[w.lead.type], {
      'font-size': 8,
      fill: FAINT,
    });
  }
  for (const b of g.boxes) {
    all.ele('rect', {
      x: b.x,
      y: b.y,
      width: b.width,
      height: b.height,
      rx: 2,
      fill: TAPE,
      stroke: FAINT,
    });
    lines(b.device.name, 20).forEach((line, i) =>
      text(all, b.x + b.width / 2, b.y + 13 + 12 * i, line, {
        'text-anchor': 'middle',
        'font-weight': 700,
      }),
    );
    for (const j of b.jacks)
      text(all, j.side === 'in' ? j.x + 4 : j.x - 4, j.y + 3, j.text, {
        'font-size': 8.5,
        ...(j.side === 'out' ? { 'text-anchor': 'end' } : {}),
      });
  }
  return finish(svg);
}
