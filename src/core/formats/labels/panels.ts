import { panelPlan, spotsOf } from '../../build';
import { at as entryAt, sure } from '../../outcome';
import { jackOf, nameOf } from '../../rig/find';
import type { Rig } from '../../rig/schema';
import { cells, type Label, line, MIDDLE } from './label';

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
    return cells(rows, { width: pitch, height: 10, most }, (at, r, middle) => {
      line(at, middle, 4.4, r.goes, pitch - 2, 3.6, MIDDLE);
      line(at, middle, 8.4, r.line, pitch - 2, 2.8, { 'text-anchor': 'middle' });
    });
  });
}
