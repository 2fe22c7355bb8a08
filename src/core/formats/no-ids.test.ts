import { DEMO_RIGS } from '../demo';
import { analyse } from '../report';
import { withOtherIds } from '../testing/other-ids';
import * as formats from '.';

/** All text in a value, without the marks of a drawing. */
const textOf = (value: unknown): string[] =>
  typeof value === 'string'
    ? [value.replace(/<[^>]*>/g, '|')]
    : value !== null && typeof value === 'object'
      ? Object.values(value).flatMap(textOf)
      : [];

test.each(DEMO_RIGS.map((rig) => [rig.name, withOtherIds(rig)] as const))(
  'what is printed of %s calls things by name, never by id',
  (_, rig) => {
    const report = analyse(rig);
    const printed = textOf([
      formats.bookOf(rig, report),
      [formats.billCsv, formats.cutListCsv, formats.midiChartCsv].map((write) => write(rig)),
      [formats.powerPlanCsv, formats.programMapCsv].map((write) => write(rig)),
      (rig.sets ?? []).map((s) => formats.runningOrderToCsv(rig, s)),
      [formats.wiringSvg(rig), formats.stageSvg(rig)],
      (rig.boards ?? []).map((b) => formats.boardSvg(rig, b)),
      (rig.racks ?? []).map((r) => formats.rackSvg(rig, r)),
      report.sounds.map((s) => formats.walkSvg(rig, s)),
      formats.songsToChordPro(rig.songs ?? []),
      formats.LABEL_KINDS.map((k) => formats.labelSheets(rig, k, 'A4', 'http://127.0.0.1/x')),
    ]);
    expect(printed.length).toBeGreaterThan(100);
    expect(printed.filter((text) => text.includes('zq'))).toEqual([]);
  },
);
