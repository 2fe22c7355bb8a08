import type { SoundReport, StationFigures } from '../../core/analysis';
import type { Lead } from '../../core/rig';

/** Sizes of the walk in pixels. */
export const SIZE = { gutter: 86, wide: 80, narrow: 26, gap: 30, label: 58, meter: 58, row: 17, laneGap: 26, top: 22 };

export interface PlacedStation { station: StationFigures; x: number; y: number; width: number; narrow: boolean }
export interface PlacedLead { lead: Lead; x: number; y: number; live: boolean; stereo: boolean }
export interface Way { key: string; d: string; live: boolean; type: Lead['type']; stereo: boolean; back: boolean }
export interface WalkGeometry { stations: PlacedStation[]; leads: PlacedLead[]; ways: Way[]; lanes: { y: number; height: number }[]; width: number; height: number }

const isSmall = (s: StationFigures): boolean => s.state === 'through' || s.state === 'unused';

/**
 * Places a sound's walk: stations in columns by when the signal meets them, parallel routes in lanes, the meter rows of each
 * lane under it. A column is narrow where nothing in it does more than pass the signal on.
 */
export function placeWalk(report: SoundReport, leads: readonly Lead[], rows: number): WalkGeometry {
  const laneHeight = SIZE.label + SIZE.meter + rows * SIZE.row + 10;
  const lanes = Array.from({ length: Math.max(1, report.lanes) }, (_, i) => ({ y: SIZE.top + i * (laneHeight + SIZE.laneGap), height: laneHeight }));
  const columnWidth = Array.from({ length: report.columns }, (_, c) => (report.stations.some((s) => s.column === c && !isSmall(s)) ? SIZE.wide : SIZE.narrow));
  const columnX: number[] = [];
  let x = SIZE.gutter;
  for (const width of columnWidth) {
    columnX.push(x);
    x += width + SIZE.gap;
  }
  const stations = report.stations.map((station) => {
    const narrow = isSmall(station) && columnWidth[station.column] === SIZE.narrow;
    return { station, x: columnX[station.column]!, y: lanes[station.lane]!.y, width: columnWidth[station.column]!, narrow };
  });
  const at = new Map(stations.map((s) => [s.station.id, s]));
  const byId = new Map(leads.map((l) => [l.id, l]));
  const ways: Way[] = [];
  const tags: PlacedLead[] = [];
  for (const step of report.steps) {
    const from = at.get(step.from);
    const to = at.get(step.to);
    const lead = byId.get(step.leads[0]!);
    if (!from || !to || !lead) continue;
    const live = !step.open && from.station.output.levelDbu !== null && from.station.state !== 'muted';
    const [x1, y1, x2, y2] = [from.x + from.width, from.y + SIZE.label / 2, to.x, to.y + SIZE.label / 2];
    const stereo = step.leads.length > 1;
    const splits = y1 !== y2 && report.steps.some((s) => s !== step && s.from === step.from && at.get(s.to)?.y === y1);
    const between = stations.find((s) => s.y === from.y && s.x > x1 && s.x < x2);
    let d: string;
    let tag: [number, number];
    if (step.back) {
      const over = Math.min(y1, y2) - SIZE.label / 2 - 5;
      d = `M${x1} ${y1}h6V${over}H${x2 - 6}V${y2}h6`;
      tag = [x2 - SIZE.gap / 2, y2];
    } else if (y1 === y2 && between) {
      // Another strip stands between in this lane: go over it.
      const over = y1 - SIZE.label / 2 - 10;
      d = `M${x1} ${y1}h6V${over}H${x2 - 6}V${y2}h6`;
      tag = [between.x + between.width / 2, over];
    } else if (y1 === y2) {
      d = `M${x1} ${y1}H${x2}`;
      tag = [x1 + (x2 - x1) / 2, y1];
    } else if (splits || from.station.lane < to.station.lane) {
      d = `M${x1} ${y1}h7V${y2}H${x2}`;
      tag = [x2 - SIZE.gap / 2, y2];
    } else {
      d = `M${x1} ${y1}H${x2 - 7}V${y2}h7`;
      tag = [x1 + SIZE.gap / 2, y1];
    }
    ways.push({ key: `${step.from}>${step.to}`, d, live, type: lead.type, stereo, back: step.back });
    tags.push({ lead, x: tag[0], y: tag[1], live, stereo });
  }
  return { stations, leads: tags, ways, lanes, width: x + 10, height: lanes.at(-1)!.y + laneHeight };
}

/** Two letters for a lead type. */
export const LEAD_TAGS: Record<Lead['type'], string> = { instrument: 'TS', balanced: 'BL', stereo: 'ST', insert: 'IN', speaker: 'SP', digital: 'DG', midi: 'MI', air: 'AR', inside: 'LK' };
/** Line pattern of a lead type. */
export const LEAD_DASH: Record<Lead['type'], string | undefined> = { instrument: undefined, balanced: '9 3', stereo: '12 3 3 3', insert: '6 2 2 2', speaker: '16 4', digital: '3 3', midi: '2 4', air: '1 5', inside: '1 3' };
export const LEAD_NAMES: Record<Lead['type'], string> = { instrument: 'instrument (TS)', balanced: 'balanced', stereo: 'stereo (TRS)', insert: 'insert', speaker: 'speaker', digital: 'digital', midi: 'MIDI', air: 'air', inside: 'link inside a host' };
