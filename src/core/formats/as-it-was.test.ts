import { DEMO_RIGS } from '../demo';
import { analyse } from '../report';
import { digest } from '../testing/digest';
import * as formats from '.';

const reports = new Map(DEMO_RIGS.map((rig) => [rig, analyse(rig)]));

test.each(DEMO_RIGS.map((r) => [r.id, r] as const))('%s is written as it was', (_, rig) => {
  const report = reports.get(rig) ?? analyse(rig);
  const tables = [
    formats.billCsv,
    formats.cutListCsv,
    formats.gearToCsv,
    formats.midiChartCsv,
    formats.powerPlanCsv,
    formats.programMapCsv,
    formats.setsToCsv,
    formats.songsToCsv,
    formats.wiringToCsv,
  ];
  const parts = formats.bookOf(rig, report);
  const imperial = formats.bookOf(rig, report, { level: 'dBV', length: 'imperial' });
  expect({
    tables: tables.map((write) => digest(write(rig))),
    orders: (rig.sets ?? []).map((s) => digest(formats.runningOrderToCsv(rig, s))),
    drawings: [
      formats.wiringSvg(rig),
      formats.stageSvg(rig),
      ...(rig.boards ?? []).map((b) => formats.boardSvg(rig, b)),
      ...(rig.racks ?? []).map((r) => formats.rackSvg(rig, r)),
      ...report.sounds.map((s) => formats.walkSvg(rig, s)),
    ].map(digest),
    graphs: [
      formats.toDot(formats.wiringGraph(rig)),
      formats.toGraphml(formats.wiringGraph(rig)),
    ].map(digest),
    midi: [
      ...(rig.sets ?? []).map((s) => [...formats.setToSmf(rig, s)]),
      ...(rig.songs ?? []).map((s) => [...formats.songToSmf(rig, s, { bars: 1 })]),
    ].map(digest),
    songs: digest(formats.songsToChordPro(rig.songs ?? [])),
    book: [...parts, ...imperial].map((p) => `${p.id} ${digest(p)}`),
    labels: formats.LABEL_KINDS.flatMap((k) =>
      (['A4', 'Letter'] as const).map((paper) =>
        digest(formats.labelSheets(rig, k, paper, 'http://127.0.0.1/x')),
      ),
    ),
    pages: digest(
      formats.bookPages(parts, [], 'A4', {
        rig: rig.name,
        revision: 'revision 1',
        date: '2026-01-02',
      }),
    ),
  }).toMatchSnapshot();
});
