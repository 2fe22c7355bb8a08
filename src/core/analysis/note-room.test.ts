import { playNote } from '../note';
import { analyse, FixTrial, isSafe } from '../report';
import { applyEdits, type Rig } from '../rig';
import { chainOf, sound } from '../testing/rigs';
import { valueOf } from '../testing/value-of';

/** A guitar, a boost, an equaliser and a pedal that is not meant to clip, all engaged. */
const rig = (low: number, level = 0, gain = 5, last = 'phaser'): Rig =>
  chainOf(
    [
      'guitar-humbucker',
      ['boost', { settings: { gain } }],
      ['eq', { settings: { low, level } }],
      last,
      'recorder',
    ],
    0.3,
    [sound('s1', 'One', ['d1', 'd2', 'd3'])],
  );
const told = (r: Rig) =>
  analyse(r).findings.filter((f) => f.rule === 'headroom' && f.subjects[0] === 'd3');

const room = (r: Rig) => analyse(r).sounds[0]!.stations.find((s) => s.device === 'd3')!.headroomDb!;
/** How much higher the note itself comes to the pedal than its level at 1 kHz. */
const higher = (r: Rig): number => {
  const [s1] = r.sounds;
  const stated = analyse(r).sounds[0]!.stations.find((s) => s.device === 'd3')!.input!.levelDbu!;
  return playNote(r, s1!).at('d3', 'in')!.touches[1].levelDbu - stated.normal;
};

test('lows that are lifted take room that levels at 1 kHz do not see: told from where a low note has too little', () => {
  for (const gain of [1, 2, 3, 4])
    for (const low of [-15, 0, 6, 12, 15]) {
      const r = rig(low, 0, gain);
      const left = room(r) - Math.max(0, higher(r));
      // At 82 Hz, by the filter's own formula: under 6 dB of lift the note is not listened to.
      const isListened = low >= 8;
      const words = told(r).map((f) => `${f.severity}: ${f.what}`);
      const name = 'Device 3';
      const by = 'Device 2 lifts lows.';
      expect([gain, low, words]).toEqual([
        gain,
        low,
        !isListened || left >= 3
          ? []
          : left < 0
            ? [`fault: ${name} clips on a low note, and it is not meant to: ${by}`]
            : [`caution: ${name} has little headroom for a low note: ${by}`],
      ]);
      // The room that is stated stays the one at 1 kHz, whatever the lows do.
      expect(room(r)).toBeCloseTo(room(rig(0, 0, gain)), 6);
    }
});

test('the figures in the reason are those of the note that was played', () => {
  const r = rig(12, 0, 4);
  const [f] = told(r);
  expect(f!.why).toContain(`there are ${room(r).toFixed(1)} dB of room`);
  expect(f!.why).toContain(`a low note comes ${higher(r).toFixed(1)} dB higher`);
  expect(f!.why).toContain(`${(higher(r) - room(r)).toFixed(1)} dB over what it takes`);
  expect(f!.subjects).toEqual(['d3', 'd2']);
});

test('what is only tight at 1 kHz, and clips on a low note, is told by both', () => {
  expect(
    told(rig(15, 0, 5))
      .map((f) => f.severity)
      .sort(),
  ).toEqual(['caution', 'fault']);
});

test('what is meant to clip, and an equaliser that is bypassed, draw nothing', () => {
  expect(told(rig(15, 0, 4, 'drive-low'))).toEqual([]);
  const off = { ...rig(15, 0, 4), sounds: [sound('s1', 'One', ['d1', 'd3'])] };
  expect(told(off)).toEqual([]);
});

test('turned down as little as gives the room, the lift is cured, and nothing else is made worse', () => {
  const r = rig(15, 0, 4);
  const trial = new FixTrial(r);
  const finding = trial.report.findings.find(
    (f) => f.rule === 'headroom' && f.subjects[0] === 'd3',
  )!;
  const ways = trial.waysOut(finding);
  const way = ways.find(({ fix }) => fix.words.startsWith('Turn Device 2 down: Low'))!;
  expect(isSafe(way.tried)).toBe(true);
  const made = valueOf(applyEdits(r, way.fix.edits)).rig;
  expect(told(made)).toEqual([]);
  const left = room(made) - Math.max(0, higher(made));
  expect(left).toBeGreaterThanOrEqual(3);
  expect(left).toBeLessThan(4.5);
});
