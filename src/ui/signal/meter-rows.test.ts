import { analyse } from '../../core/report';
import { effectiveRig } from '../../core/control';
import { DEMO_RIGS, touringRig } from '../../core/demo';
import { notesOfStations } from '../../core/note';
import { wired } from '../../core/testing/wired';
import { METER_ROWS, type MeterRow, rowUnit, USUAL_ROWS } from './meter-rows';

const station = (sound: string, id: string) =>
  analyse(touringRig)
    .sounds.find((s) => s.sound === sound)!
    .stations.find((s) => s.id === id)!;
const row = (id: string) => METER_ROWS.find((r) => r.id === id)!;
const units = { level: 'dBu', length: 'metric' } as const;

test('every row says something of every strip, and what it is', () => {
  for (const s of analyse(touringRig).sounds.flatMap((x) => x.stations))
    for (const r of METER_ROWS) expect(r.show(s, units).length).toBeGreaterThan(0);
  for (const r of METER_ROWS) expect(r.explain.length).toBeGreaterThan(10);
  expect(USUAL_ROWS.every((id) => METER_ROWS.some((r) => r.id === id))).toBe(true);
});

test('figures are those of the report, in the chosen unit', () => {
  const s = station('lead', 'kiln');
  expect(row('level').show(s, units)).toBe(s.output.levelDbu!.normal.toFixed(1).replace('-', '−'));
  expect(row('level').show(s, { ...units, level: 'dBV' })).toBe(
    (s.output.levelDbu!.normal - 2.218).toFixed(1).replace('-', '−'),
  );
  expect([row('touch').show(s, units), row('headroom').show(s, units)]).toEqual(['saturated', '–']);
  expect(row('width').show(station('flat', 'dome'), units)).toBe('stereo');
});

test('little headroom and long latency deserve attention', () => {
  const s = station('lead', 'flare');
  expect(row('headroom').warn!({ ...s, headroomDb: 2.9 })).toBe(true);
  expect(row('headroom').warn!({ ...s, headroomDb: 3.1 })).toBe(false);
  expect(row('latency').warn!({ ...s, output: { ...s.output, latencyMs: 10.5 } })).toBe(true);
});

test('loudness and bands are those of the note behind the strip', () => {
  const sound = touringRig.sounds.find((s) => s.id === 'lead')!;
  const notes = notesOfStations(touringRig, sound);
  const note = notes.get('kiln')!;
  expect(row('loudness').show(station('lead', 'kiln'), units, note)).toBe(
    note.loudnessDbu.toFixed(1).replace('-', '−'),
  );
  expect(row('loudness').show(station('lead', 'kiln'), units)).toBe('–');
  const words = row('bands').show(station('lead', 'kiln'), units, note);
  const highest = Math.max(...note.bandsDbu.map((v) => v ?? -Infinity));
  expect(words).toMatch(/^lows \S+, middles \S+, highs \S+$/);
  expect(words).toContain(highest.toFixed(1).replace('-', '−'));
});

test.each(DEMO_RIGS.map((r) => [r.name, r] as const))(
  '%s: every strip that has level has a note, where ways end too, and none that has not',
  (_, written) => {
    const rig = effectiveRig(written);
    for (const report of analyse(rig).sounds) {
      const notes = notesOfStations(
        rig,
        rig.sounds.find((s) => s.id === report.sound)!,
      );
      const loud = report.stations.filter((s) => s.output.levelDbu).map((s) => s.id);
      expect(report.stations.map((s) => s.id).filter((id) => notes.has(id))).toEqual(loud);
    }
  },
);

test('a selector shows what leaves it, by whichever of its outputs', () => {
  const rig = wired(
    { g: 'guitar-humbucker', s: 'splitter-isolated', a: 'combo-tube', b: 'combo-tube' },
    'g.out>s.in s.a>a.in s.b>b.in',
    { One: ['', { s: { select: 'a' } }], Other: ['', { s: { select: 'b' } }] },
  );
  const level = (sound: string) =>
    analyse(rig)
      .sounds.find((s) => s.sound === sound)!
      .stations.find((s) => s.device === 's')!.output.levelDbu?.normal;
  expect(level('One')).toBeCloseTo(level('Other')!, 6);
});

test('units are said once at the side', () =>
  expect([
    rowUnit('level', { level: 'dBV', length: 'metric' }),
    rowUnit('latency', units),
    rowUnit('width', units),
  ]).toEqual([', dBV', ', ms', '']));

test('a row more is its entry: it has a name, a figure and what it says', () => {
  const crest: MeterRow = {
    id: 'crest',
    name: 'Crest',
    explain: 'from the level to the peak',
    show: (s) => `${((s.output.peakDbu ?? 0) - (s.output.levelDbu?.normal ?? 0)).toFixed(1)} dB`,
  };
  (METER_ROWS as MeterRow[]).push(crest);
  expect(METER_ROWS.find((r) => r.id === 'crest')?.show(station('lead', 'kiln'), units)).toMatch(
    /^-?\d+\.\d dB$/,
  );
});
