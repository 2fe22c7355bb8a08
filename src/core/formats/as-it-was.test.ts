import { DEMO_RIGS } from '../demo';
import { sure } from '../outcome';
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

/** A table with one cell at a time emptied, doubled, or made a word; and with each row twice or gone. */
function* spoilt(text: string): Generator<string> {
  const rows = text.split('\n');
  const most = Math.min(rows.length, 9);
  for (let r = 0; r < most; r++) {
    const cells = (rows[r] ?? '').split(',');
    for (let c = 0; c < cells.length; c++)
      for (const put of ['', 'nothing like it', '-1', '1e9', `${cells[c]} ${cells[c]}`]) {
        const row = cells.map((x, i) => (i === c ? put : x)).join(',');
        yield [...rows.slice(0, r), row, ...rows.slice(r + 1)].join('\n');
      }
    yield [...rows.slice(0, r), ...rows.slice(r + 1)].join('\n');
    yield [...rows, rows[r]].join('\n');
  }
}

test('tables that were spoilt are read or refused as they were', () => {
  const rig = sure(DEMO_RIGS.find((r) => r.songs?.length && r.sets?.length));
  const tables = {
    songs: [formats.songsToCsv(rig), formats.songsFromCsv],
    sets: [formats.setsToCsv(rig), formats.setsFromCsv],
    gear: [formats.gearToCsv(rig), formats.gearFromCsv],
    wiring: [formats.wiringToCsv(rig), formats.wiringFromCsv],
  } as const;
  const now = Object.entries(tables).map(
    ([name, [text, read]]) => `${name} ${digest([...spoilt(text)].map((t) => read(rig, t)))}`,
  );
  expect(now).toMatchSnapshot();
}, 120_000);

test('a file for a player that is torn or has a byte changed is read or refused as it was', () => {
  const rig = sure(DEMO_RIGS.find((r) => r.songs?.length && r.sets?.length));
  const song = [...formats.songToSmf(rig, sure(rig.songs?.[0]), { bars: 1 })];
  const read = (bytes: number[]) => formats.songsFromSmf(rig, Uint8Array.from(bytes), 'read');
  expect({
    whole: digest(read(song)),
    torn: digest(song.flatMap((_, i) => (i % 7 ? [] : [read(song.slice(0, i))]))),
    changed: digest(
      song.flatMap((b, i) => (i % 7 ? [] : [read(song.map((x, k) => (k === i ? b ^ 3 : x)))])),
    ),
  }).toMatchSnapshot();
}, 120_000);
