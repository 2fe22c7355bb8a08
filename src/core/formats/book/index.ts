import { summary, walks, wiring, findings } from './sound-parts';
import { stage, inputs, boards, racks } from './stage-parts';
import { power } from './power-parts';
import { settings } from './setting-parts';
import { midi, sets, cues } from './song-parts';
import { cuts, bill, pack, connect, checklistPart, cautions } from './making-parts';
import type { Report } from '../../report/report';
import type { Rig } from '../../rig/schema';
import type { UnitChoice } from '../../units';
import { type Material, materialOf } from './material';
import type { BookPart, PartMaker } from './part';

export { type Block, drawnOn } from './blocks';
export { cautionsFor } from './cautions';
export type { BookPart } from './part';

/** Every part of the book, in the order in which a rig is read. One more is its maker and its place here. */
const PARTS: readonly PartMaker[] = [
  summary,
  stage,
  inputs,
  walks,
  settings,
  wiring,
  boards,
  racks,
  power,
  midi,
  sets,
  cues,
  cuts,
  bill,
  pack,
  connect,
  checklistPart,
  cautions,
  findings,
];

const make = (part: PartMaker, material: Material): BookPart => ({
  id: part.id,
  title: part.title,
  ...(part.wide && { wide: true }),
  blocks: part.blocks(material),
});

/** Everything about a rig on paper, part by part. Made from the rig and its report alone. */
export function bookOf(
  rig: Rig,
  report: Report,
  units: UnitChoice = { level: 'dBu', length: 'metric' },
): BookPart[] {
  const material = materialOf(rig, report, units);
  return PARTS.filter((p) => p.isThere?.(material) ?? true).map((p) => make(p, material));
}
