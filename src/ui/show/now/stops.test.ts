import { flyRig, touringRig } from '../../../core/demo';
import { pagesOf } from './chart';
import { delaysIn, pressesTo, stopsOf } from './stops';

const set = touringRig.sets![0]!;
const stops = stopsOf(touringRig, set);

test('a gap before each song, then its sections, one after the other in time', () => {
  const gaps = stops.filter((s) => !s.section);
  expect(gaps.map((s) => s.song!.id)).toEqual(set.entries.map((e) => e.song));
  for (const gap of gaps) {
    const at = stops.indexOf(gap);
    const names = gap.song!.sections.map((s) => s.name);
    expect(stops.slice(at + 1, at + 1 + names.length).map((s) => s.section!.name)).toEqual(names);
  }
  for (let i = 1; i < stops.length; i++)
    expect(stops[i]!.at).toBeCloseTo(stops[i - 1]!.at + stops[i - 1]!.seconds, 6);
});

test('a section lasts its bars at its tempo: four bars of four at 96 bpm are ten seconds', () => {
  const intro = stops.find((s) => s.section?.name === 'Intro')!;
  expect([intro.bars, intro.seconds]).toEqual([4, 10]);
});

test('what a foot does from section to section; nothing where the sound stays', () => {
  const verse = stops.findIndex((s) => s.section?.name === 'Verse 1' && s.song?.id === 'ledger');
  expect(pressesTo(touringRig, stops[verse - 1], stops[verse])).toEqual([]);
  expect(pressesTo(touringRig, stops[verse], stops[verse + 1]).length).toBeGreaterThan(0);
  expect(pressesTo(touringRig, stops[verse], undefined)).toEqual([]);
});

test('delay times of a section: a dotted eighth at 96 bpm is 468.8 ms', () => {
  const lead = stops.find((s) => s.section?.name === 'Solo' && s.song?.id === 'ledger');
  expect(delaysIn(touringRig, lead).join()).toContain('Gangway Echo 468.8 ms');
  expect(delaysIn(touringRig, stops[0])).toEqual([]);
});

test('a chart has pages, a song without one none; a rig without songs has no stops to make', () => {
  expect(pagesOf(touringRig.songs!.find((s) => s.chart))).toHaveLength(3);
  expect(pagesOf(touringRig.songs!.find((s) => !s.chart))).toEqual([]);
  expect(pagesOf(undefined)).toEqual([]);
  expect(stopsOf(flyRig, { id: 'x', name: 'X', entries: [] })).toEqual([]);
});
