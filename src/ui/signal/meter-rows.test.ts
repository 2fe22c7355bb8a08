import { analyse } from '../../core/report';
import { touringRig } from '../../core/demo';
import { notesOfStations } from '../../core/note';
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
  // Every strip that has level has a note, and none that has not.
  const all = analyse(touringRig).sounds.find((s) => s.sound === 'lead')!.stations;
  for (const s of all.filter((x) => x.outs.length))
    expect([s.id, notes.has(s.id)]).toEqual([s.id, s.output.levelDbu !== null]);
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
