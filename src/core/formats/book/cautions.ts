import { cutList, gramsOf, inputList, mainsSums, packingOf, TWO_PERSONS_GRAMS } from '../../build';
import { CAUTIONS } from '../../findings/cautions';
import { kindOf } from '../../kinds';
import type { Report } from '../../report/report';
import type { Rig } from '../../rig/schema';

/** Which cautions apply to a rig. */
export function cautionsFor(rig: Rig, report: Pick<Report, 'sounds'>): typeof CAUTIONS {
  const speakers = report.sounds.flatMap((s) => s.speakers);
  const { takers } = mainsSums(rig, 230);
  const made = cutList(rig).joints > 0;
  const applies: Record<string, boolean> = {
    mains: takers.length > 0,
    tubes: speakers.some((l) => l.tube),
    speakers: speakers.length > 0,
    hearing: report.sounds.some((s) => s.destinations.length > 0),
    radio: rig.devices.some(
      (d) => kindOf(d.kind).job === 'wireless' || kindOf(d.kind).destination?.hears === 'in-ears',
    ),
    lifting:
      packingOf(rig).pieces.some((p) => p.lift) ||
      rig.devices.some((d) => (gramsOf(d) ?? 0) > TWO_PERSONS_GRAMS),
    solder: made,
    phantom: inputList(rig, report.sounds).length > 0,
  };
  return CAUTIONS.filter((c) => applies[c.id] ?? true);
}
