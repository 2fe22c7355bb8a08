import { panelPlan, spotsOf } from '../../build';
import { at as entryAt, sure } from '../../outcome';
import { jackOf, nameOf } from '../../rig/find';
import type { Rig } from '../../rig/schema';
import { box, type Label, line, pieces, rule } from './label';

/**
 * A strip under each row of panel sockets: a cell at each socket, where the sockets are. Longer
 * than the sheet, it comes in pieces.
 */
export function panels(rig: Rig, most: number): Label[] {
  const plan = panelPlan(rig);
  return [...new Set(plan.map((l) => l.panel))].flatMap((panel): Label[] => {
    const rows = plan
      .filter((l) => l.panel === panel)
      .map((l) => {
        const lead = rig.leads.find((x) => x.id === l.outsideLead);
        const far = lead && (lead.from.device === panel.id ? lead.to : lead.from);
        return {
          mm: sure(spotsOf(panel).find((s) => s.jack.id === l.outside)).mm,
          line: jackOf(panel, l.outside)?.label.replace(', outside', '') ?? l.outside,
          goes: far ? nameOf(rig, far.device) : 'spare',
        };
      })
      .sort((a, b) => a.mm - b.mm);
    const pitch = Math.min(...rows.slice(1).map((r, i) => r.mm - entryAt(rows, i).mm), 70);
    const inPiece = Math.max(1, Math.floor(most / pitch));
    return pieces(rows, inPiece).map((piece): Label => ({
      width: pitch * piece.length,
      height: 10,
      draw: (at) => {
        box(at, pitch * piece.length, 10);
        piece.forEach((r, i) => {
          if (i) rule(at, i * pitch, 10);
          line(at, (i + 0.5) * pitch, 4.4, r.goes, pitch - 2, 3.6, {
            'font-weight': 700,
            'text-anchor': 'middle',
          });
          line(at, (i + 0.5) * pitch, 8.4, r.line, pitch - 2, 2.8, { 'text-anchor': 'middle' });
        });
      },
    }));
  });
}
