import fc from 'fast-check';
import { touringRig } from '../demo';
import { refused } from '../outcome';
import { controlRemarks } from '../report/checks';
import { applyEdits, type Song } from '../rig';
import { chainOf, device, lead, rigOf, sound } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import {
  allScenes,
  clockAfter,
  clockTime,
  controllerNeeds,
  cueSheet,
  delayTimes,
  knobFor,
  displayLabels,
  divisionMs,
  DIVISIONS,
  dueChanges,
  fitLabel,
  fitLabels,
  judge,
  numberSongs,
  pagesFor,
  ranked,
  programMap,
  quarterMs,
  rateHz,
  runningOrder,
  scorePractice,
  sectionScene,
  slipOf,
  soundUse,
  substitutesFor,
  tapped,
  temposOf,
  timelineOf,
  withStoredTime,
} from '.';
import type { ControllerWants } from '../rig/control-schema';
import { widthOf } from './labels';
import { changesOf, fewestChanges } from './switch-pages';

const song = (rest: Partial<Song> = {}): Song => ({
  id: 'x',
  title: 'Kelp',
  bpm: 96,
  sections: [
    { id: 'a', name: 'Verse', bars: 4, sound: 's1' },
    { id: 'b', name: 'Chorus', bars: 8, sound: 's2' },
  ],
  ...rest,
});

describe('tempo', () => {
  test.each([
    ['quarter', 625],
    ['dotted eighth', 468.75],
    ['quarter triplet', 416.67],
    ['eighth', 312.5],
    ['dotted quarter', 937.5],
    ['eighth triplet', 208.33],
    ['sixteenth', 156.25],
  ] as const)('96 bpm, %s: %d ms', (d, ms) => expect(divisionMs(96, d)).toBeCloseTo(ms, 2));
  test('a cycle of two beats at 120 bpm is 1 Hz', () => expect(rateHz(120, 2)).toBeCloseTo(1, 9));
  test('an echo 4 ms off slips 20 ms by its 5th repeat, over 20 by its 6th; 25 ms off is heard at once', () => {
    expect(slipOf(4, 0.9)).toMatchObject({ repeat: 6, heard: true });
    expect(slipOf(-25, 0.3)).toMatchObject({ repeat: 1, downDb: 0, heard: true });
    expect(slipOf(0, 1)).toMatchObject({ repeat: null, heard: false });
  });
  test(
    'whether it has died away by then: half the level each time is 6.02 dB, so the 8th ' +
      'lies 42 dB under the first',
    () => {
      const s = slipOf(2.7, 0.5);
      expect(s.repeat).toBe(8);
      expect(s.downDb).toBeCloseTo(7 * 6.0206, 3);
      expect(s.heard).toBe(false);
      expect(slipOf(2.7, 0.8).heard).toBe(true);
    },
  );
  test('taps: the mean interval, its spread, and how far the mean may be off', () => {
    expect(tapped([0, 620, 1250, 1875])).toMatchObject({ presses: 4, meanMs: 625, bpm: 96 });
    expect(tapped([0, 620, 1250, 1875])!.spreadMs).toBeCloseTo(5, 6);
    expect(tapped([0])).toBeUndefined();
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 200, max: 1200 }), { minLength: 1, maxLength: 12 }),
        (gaps) => {
          const times = gaps.reduce((list, g) => [...list, list.at(-1)! + g], [0]);
          return Math.abs(tapped(times)!.meanMs - times.at(-1)! / gaps.length) < 1e-6;
        },
      ),
    );
  });
});

describe('a song in time', () => {
  test('bars, sections and length; a tempo holds across sections until it changes', () => {
    const line = timelineOf(
      song({
        sections: [
          { id: 'a', name: 'Verse', bars: 4, sound: 's1', tempos: [{ bar: 3, bpm: 120 }] },
          { id: 'b', name: 'Chorus', bars: 2, sound: 's2' },
        ],
      }),
    );
    expect(line.sections.map((s) => [s.bar, s.startMs, s.bpm])).toEqual([
      [1, 0, 96],
      [5, 2 * 2500 + 2 * 2000, 120],
    ]);
    expect(line.lengthMs).toBe(9000 + 4000);
    expect(
      temposOf(
        song({
          sections: [{ id: 'a', name: 'V', bars: 4, sound: 's', tempos: [{ bar: 3, bpm: 120 }] }],
        }),
      ),
    ).toEqual([
      { bar: 1, bpm: 96 },
      { bar: 3, bpm: 120 },
    ]);
  });
  test('a tempo counts quarter notes whatever the meter: a bar of 6/8 has three, one of 7/8 three and a half', () => {
    expect(timelineOf(song({ bpm: 60, meter: { beats: 6, unit: 8 } })).bars[1]!.startMs).toBe(3000);
    expect(timelineOf(song({ bpm: 60, meter: { beats: 7, unit: 8 } })).bars[1]!.startMs).toBe(3500);
  });
  test('length is the sum of its bars, for any song', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            bars: fc.integer({ min: 1, max: 20 }),
            bpm: fc.option(fc.integer({ min: 40, max: 300 }), { nil: undefined }),
            beats: fc.integer({ min: 2, max: 7 }),
          }),
          { minLength: 1, maxLength: 6 },
        ),
        (list) => {
          const s = song({
            sections: list.map((x, i) => ({
              id: `s${i}`,
              name: 'S',
              bars: x.bars,
              sound: 's1',
              meter: { beats: x.beats, unit: 4 },
              ...(x.bpm && { tempos: [{ bar: 1, bpm: x.bpm }] }),
            })),
          });
          let bpm = s.bpm;
          const expected = list.reduce(
            (ms, x) => ms + x.bars * x.beats * quarterMs((bpm = x.bpm ?? bpm)),
            0,
          );
          return Math.abs(timelineOf(s).lengthMs - expected) < 1e-6;
        },
      ),
    );
  });
});

describe('a set', () => {
  const rig = { ...touringRig };
  const order = runningOrder(rig, rig.sets![0]!);
  test('another instrument and another tuning are told with their time; the same tuning asks for nothing', () => {
    const before = (id: string) => order.lines.find((l) => l.entry.song === id)!.changeover;
    expect(before('ledger')).toMatchObject({
      kind: 'first',
      seconds: 0,
      words: 'start on Baritone, in B standard',
    });
    expect(before('waltz')).toMatchObject({
      kind: 'instrument',
      seconds: 30,
      words: 'change to Lap steel',
    });
    expect(before('gangway')).toMatchObject({
      kind: 'retune',
      seconds: 60,
      words: 'retune Baritone to drop A',
    });
    expect(before('bells')).toMatchObject({ kind: 'plain', seconds: 8 });
    // The baritone stood in B standard while the steel was played.
    expect(before('vane')).toMatchObject({ kind: 'instrument', words: 'change to Baritone' });
  });
  test('times add up, and a set that is too long is found', () => {
    expect(order.seconds).toBeCloseTo(
      order.musicSeconds + order.lines.reduce((s, l) => s + l.changeover.seconds, 0),
      6,
    );
    expect(order.lines[1]!.clock).toBe(clockAfter('20:30', order.lines[1]!.startsAt));
    expect(clockAfter('23:59', 90)).toBe('00:00:30');
    const short = { ...rig, sets: [{ ...rig.sets![0]!, minutes: 20 }] };
    expect(controlRemarks(short).find((r) => r.remark.rule === 'set-long')!.remark.what).toContain(
      'too long',
    );
  });
});

describe('delay times', () => {
  const echo = device('e', 'delay', 'Echo', {
    tempo: { way: 'program', division: 'dotted eighth' },
    settings: { repeats: 5 },
  });
  const rig = {
    ...rigOf(
      [device('g', 'guitar-active', 'G'), echo, device('c', 'console-input', 'House')],
      [lead('1', 'g.out', 'e.in', 1), lead('2', 'e.out', 'c.in', 1)],
      [sound('s1', 'One', ['e']), sound('s2', 'Two', ['e'])],
    ),
    songs: [song()],
  };
  test('stored in a program: rounded to its steps; the knob by the clock', () => {
    const t = delayTimes(
      rig,
      withStoredTime(song(), echo, delayTimes(rig, song(), echo)[0]!.knob),
      echo,
    )[0]!;
    expect(t.wanted).toBeCloseTo(468.75, 6);
    expect(t.gets).toBe(469);
    expect(t.slip.errorMs).toBeCloseTo(0.25, 6);
    expect(t.hour).toBe("2 o'clock");
  });
  test('not stored: as the sound leaves it, found as a finding, and cured by keeping it', () => {
    const found = controlRemarks(rig).find((r) => r.remark.rule === 'song-slip')!.remark;
    expect(found.why).toContain('468.75 ms; it has 200.00 ms');
    const done = applyEdits(rig, found.fix!.edits);
    expect(done.ok && controlRemarks(done.value.rig).map((r) => r.remark.rule)).not.toContain(
      'song-slip',
    );
  });
  describe('section by section', () => {
    /** Verse and chorus, each with its tempo, its sound, and the time that the section keeps, in ms. */
    const parts = (...of: { bpm?: number; sound?: string; ms?: number }[]) =>
      song({
        sections: of.map(({ bpm, sound: s = 's1', ms }, i) => ({
          id: `p${i}`,
          name: `Part ${i}`,
          bars: 4,
          sound: s,
          ...(bpm && { tempos: [{ bar: 1, bpm }] }),
          ...(ms && { states: { e: { settings: { time: knobFor(20, 2000, ms) } } } }),
        })),
      });
    const told = (of: Song) =>
      controlRemarks({ ...rig, songs: [of] }).filter((r) => r.remark.rule === 'song-slip');
    const gets = (of: Song) =>
      delayTimes({ ...rig, songs: [of] }, of, echo).map((t) => [t.sections.join(), t.gets]);
    const right = (bpm: number) => Math.round(divisionMs(bpm, 'dotted eighth'));

    test('a chorus that is 50 ms off is told, though the verse is right; its fix keeps each its own', () => {
      const of = parts({ ms: right(96) }, { ms: right(96) + 50 });
      expect(gets(of)).toEqual([
        ['p0', 469],
        ['p1', 519],
      ]);
      const [found] = told(of);
      expect(found!.remark.why).toMatch(/^In Part 1: a dotted eighth at 96 bpm/);
      const done = applyEdits({ ...rig, songs: [of] }, found!.remark.fix!.edits);
      expect(done.ok && told(done.value.rig.songs![0]!)).toEqual([]);
    });
    test('sections that are right each at its own tempo draw nothing', () =>
      expect(told(parts({ ms: right(96) }, { bpm: 120, ms: right(120) }))).toEqual([]));
    test('two tempos are each kept where they are, by one fix', () => {
      const of = parts({}, { bpm: 120 });
      const [found] = told(of);
      expect(found!.remark.fix!.words).toBe("Keep each section's own time in Kelp");
      const done = applyEdits({ ...rig, songs: [of] }, found!.remark.fix!.edits);
      const kept = (done.ok && done.value.rig.songs![0]) || of;
      expect(gets(kept)).toEqual([
        ['p0', right(96)],
        ['p1', right(120)],
      ]);
    });
    test('a section in which it is bypassed asks nothing of it', () => {
      const silent = { ...rig, sounds: [...rig.sounds, sound('off', 'Off', [])] };
      const of = parts({ ms: right(96) }, { bpm: 140, sound: 'off' });
      expect(delayTimes(silent, of, echo).map((t) => t.sections)).toEqual([['p0']]);
    });
    test('a tempo that changes within a section cannot be kept by a program: told without a fix', () => {
      const of = parts({ ms: right(96) });
      const changing = {
        ...of,
        sections: of.sections.map((s) => ({ ...s, tempos: [{ bar: 3, bpm: 130 }] })),
      };
      const [found] = told(changing);
      expect(found!.remark.fix).toBeUndefined();
    });
  });
  test('by clock it is right at every tempo; by tap it may be off by its share of the spread', () => {
    const clocked = delayTimes(
      rig,
      song({
        sections: [{ id: 'a', name: 'V', bars: 4, sound: 's1', tempos: [{ bar: 3, bpm: 120 }] }],
      }),
      { ...echo, tempo: { way: 'clock', division: 'quarter' } },
    );
    expect(clocked.map((t) => [t.bpm, t.gets])).toEqual([
      [96, 625],
      [120, 500],
    ]);
    const byFoot = delayTimes(
      rig,
      song(),
      { ...echo, tempo: { way: 'tap', division: 'eighth' } },
      { presses: 4, meanMs: 625, spreadMs: 9, errorMs: 3, bpm: 96 },
    )[0]!;
    expect(byFoot.gets).toBeCloseTo(312.5 + 1.5, 6);
  });
  test('of two taps nothing is known: a typical foot stands in, for two presses', () => {
    const [t] = delayTimes(
      rig,
      song(),
      { ...echo, tempo: { way: 'tap', division: 'quarter' } },
      { presses: 2, meanMs: 625, spreadMs: null, errorMs: null, bpm: 96 },
    );
    expect(t!.gets).toBeCloseTo(625 + 12, 6);
    expect(t!.how).toContain('the mean of 2 presses may be 12.0 ms off (typical)');
  });
  test('beyond its range, a note value that fits is named', () => {
    const t = delayTimes(rig, song({ bpm: 40, divisions: { e: 'whole' } }), echo)[0]!;
    expect(t.inRange).toBe(false);
    expect(divisionMs(40, t.instead!)).toBeLessThanOrEqual(2000);
    expect(
      Object.values(DIVISIONS).filter((q) => q * 1500 <= 2000 && q > DIVISIONS[t.instead!]),
    ).toEqual([]);
  });
});

describe('labels', () => {
  test.each([
    ['Tide flat', 12, 'Tide flat'],
    ['The Ropewalk Receipt', 16, 'The Ropwlk Rcpt'],
    ['Light of the Salt', 12, 'Light Salt'],
    ['Observatory', 3, 'Obs'],
  ] as const)('%s in %i letters', (text, width, label) =>
    expect(fitLabel(text, width).length).toBeLessThanOrEqual(Math.max(width, label.length)),
  );
  test('never longer than the display, and never two the same', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ minLength: 1, maxLength: 30 }), { maxLength: 20 }),
        fc.integer({ min: 3, max: 20 }),
        (names, width) => {
          const labels = fitLabels(names, width);
          return (
            labels.every((l) => l.length <= width) &&
            new Set(labels.map((l) => l.toLowerCase())).size === labels.length
          );
        },
      ),
    );
    expect(fitLabel('Verse lead with delay 2', 10)).toBe('Vrs ld d 2');
    expect(fitLabel('Light of the Salt', 12)).toBe('Light Salt');
    expect(fitLabel('Kiln rhythm', 20)).toBe('Kiln rhythm');
  });
  test('numbers and what begins a name stay, and no character is cut', () => {
    const words = fc.constantFrom(
      'Lead',
      'Chörus',
      'rhythm',
      'é',
      '夜明け',
      '👩‍🚀',
      'a\u0308b',
      'of',
      'swell',
    );
    fc.assert(
      fc.property(
        fc.array(words, { minLength: 1, maxLength: 5 }),
        fc.integer({ min: 2, max: 99 }),
        fc.integer({ min: 5, max: 16 }),
        (some, number, width) => {
          const name = [...some, number].join(' ');
          const label = fitLabel(name, width);
          const parts = [...new Intl.Segmenter().segment(name)].map((s) => s.segment);
          expect(widthOf(label)).toBeLessThanOrEqual(width);
          expect(label.endsWith(String(number))).toBe(true);
          expect(label.startsWith(parts[0]!)).toBe(true);
          for (const { segment } of new Intl.Segmenter().segment(label))
            expect(parts).toContain(segment);
        },
      ),
    );
  });
  test('what two names share gives way before what tells them apart', () => {
    expect(fitLabels(['Chorus lead wide', 'Chorus lead dry', 'Chorus rhythm wide'], 8)).toEqual([
      'Chr ld w',
      'Chr ld d',
      'Chr rh w',
    ]);
    expect(new Set(fitLabels(['Harbour night', 'Harbour light', 'Harbour fight'], 5)).size).toBe(3);
  });
  test('two lines where the display has them: the song and the sound', () => {
    const rig = {
      ...rigOf(
        [device('y', 'loop-switcher', 'Yard')],
        [],
        [sound('s1', 'Clean with a very long name', []), sound('s2', 'Two', [])],
      ),
      songs: [song({ title: 'Observatory at dusk, again' })],
    };
    const [label] = displayLabels(rig, rig.songs[0], sectionScene(rig, rig.songs[0]!, 'a')!);
    expect(label!.lines).toHaveLength(2);
    expect(label!.lines.every((l) => l.length <= 16)).toBe(true);
  });
});

describe('program map', () => {
  const at = (number: number, bank?: number) => ({
    program: { number, ...(bank !== undefined && { bank }) },
  });
  const rig = {
    ...rigOf(
      [device('y', 'loop-switcher', 'Yard')],
      [],
      [sound('s1', 'One', [], { y: at(0, 0) }), sound('s2', 'Two', [], { y: at(1, 0) })],
    ),
    songs: [
      song(),
      song({
        id: 'z',
        title: 'Brine',
        sections: [{ id: 'a', name: 'All', bars: 8, sound: 's2', states: { y: at(2, 5) } }],
      }),
    ],
    sets: [
      {
        id: 't',
        name: 'Night',
        entries: [
          { id: '1', song: 'z' },
          { id: '2', song: 'x' },
        ],
      },
    ],
  };
  test('each section with its own address, on the wire and as shown', () => {
    expect(programMap(rig).songs.map((r) => r.at[0]!.words)).toEqual([
      'wire bank 0 program 0, screen 1-1',
      'wire bank 0 program 1, screen 1-2',
      'wire bank 5 program 2, screen 6-3',
    ]);
    expect(cueSheet(rig, rig.songs[1]!)[0]).toMatchObject({
      bar: 1,
      section: 'All',
      sound: 'Two',
      programs: 'Yard 6-3',
    });
  });
  test('a bank for each song of a set in running order, its sounds as slots', () => {
    const numbered = valueOf(applyEdits(rig, valueOf(numberSongs(rig, rig.sets[0]!, 'y')))).rig;
    expect(programMap(numbered).songs.map((r) => r.at[0]!.shown)).toEqual(['2-1', '2-2', '1-1']);
    expect(
      numberSongs({ ...rig, devices: [device('y', 'delay', 'Echo')] }, rig.sets[0]!, 'y'),
    ).toEqual(refused(expect.stringContaining('no bank select') as string));
  });
  test('sounds that no song calls, and songs that call what is gone', () => {
    expect(soundUse(touringRig).unused).toEqual(['tune']);
    const gone = {
      ...rig,
      songs: [song({ sections: [{ id: 'a', name: 'V', bars: 1, sound: 'nothing' }] })],
    };
    expect(controlRemarks(gone).find((r) => r.remark.rule === 'song-sound')!.remark.why).toContain(
      'V calls "nothing"',
    );
  });
  test('what a song says of itself makes scenes of its own; what it does not, shares the sound', () => {
    expect(allScenes(touringRig).map((s) => s.id)).toEqual([
      ...touringRig.sounds.map((s) => s.id),
      'unlit/flat',
      'unlit/s3',
    ]);
    expect(
      sectionScene(
        touringRig,
        touringRig.songs!.find((s) => s.id === 'unlit')!,
        's1',
      )!.sound.states.dome!.settings,
    ).toEqual({ decay: 8 });
  });
});

describe('practice', () => {
  const rig = {
    ...rigOf(
      [device('y', 'loop-switcher', 'Yard')],
      [],
      [sound('s1', 'One', []), sound('s2', 'Two', [], { y: { settings: { order: '1' } } })],
    ),
    songs: [
      song({
        bpm: 120,
        sections: [
          { id: 'a', name: 'A', bars: 2, sound: 's1' },
          { id: 'b', name: 'B', bars: 2, sound: 's2' },
          { id: 'c', name: 'C', bars: 2, sound: 's2' },
          { id: 'd', name: 'D', bars: 2, sound: 's1' },
        ],
      }),
    ],
  };
  const { due, countInMs } = dueChanges(rig, rig.songs[0]!);
  test('changes are due at their bars behind the count-in; a section that calls what is on asks for nothing', () => {
    expect(countInMs).toBe(4000);
    expect(due.map((d) => [d.section, d.atMs])).toEqual([
      ['b', 8000],
      ['d', 16_000],
    ]);
  });
  test('early, late, on time within an eighth of a beat, missed, wrong', () => {
    const score = scorePractice(due, [
      { atMs: 7960, scene: 's2' },
      { atMs: 16_150, scene: 's1' },
      { atMs: 15_000, scene: 's2' },
    ]);
    expect(score.hits.map((h) => [h.verdict, h.offMs, h.wrong])).toEqual([
      ['on time', -40, 0],
      ['late', 150, 1],
    ]);
    expect(score).toMatchObject({ onTime: 1, percent: 50, wrong: 1, meanOffMs: 55, meanAbsMs: 95 });
    expect(scorePractice(due, []).hits.every((h) => h.verdict === 'missed')).toBe(true);
    expect(scorePractice(due, [{ atMs: 7900, scene: 's2' }]).hits[0]!.verdict).toBe('early');
  });
});

describe('choosing a controller', () => {
  const needs = controllerNeeds(touringRig);
  test('needs follow from the fullest song and from what is always there', () => {
    const most = Math.max(
      ...touringRig.songs!.map((s) => new Set(s.sections.map((x) => x.sound)).size),
    );
    expect(needs.switches).toMatchObject({ sounds: most, count: most + 1, always: ['tuner'] });
    expect(needs.sends.map((s) => s.message)).toEqual(['program', 'clock']);
  });
  test('each miss has its reason; a page more for what does not fit', () => {
    const four = judge(touringRig, needs, touringRig.candidates![1]!);
    expect(four.points.filter((p) => !p.met).map((p) => p.need)).toEqual([
      '6 switches at once',
      'sends clock',
      'hears back',
    ]);
    expect(four.pages).toBe(2);
    expect(
      judge(touringRig, needs, touringRig.candidates![2]!, {
        widthMm: 500,
        depthMm: 300,
      }).points.find((p) => p.need.startsWith('fits')),
    ).toMatchObject({ met: false, why: '780 × 260 mm' });
  });
  test('all that a sheet says is held against what is wanted; what it does not say is missed', () => {
    const c = { ...touringRig.candidates![0]!, power: '9 V' as const, grams: 2400, price: 300 };
    const points = (says: Partial<typeof c>, wants: ControllerWants) =>
      judge(touringRig, needs, { ...c, ...says }, wants)
        .points.slice(judge(touringRig, needs, c, {}).points.length)
        .map((p) => [p.need, p.met, p.why]);
    expect(
      points(
        { quiet: true, editor: false, softFloor: undefined, toeSwitch: true },
        { quiet: true, editor: true, softFloor: true, toeSwitch: true },
      ),
    ).toEqual([
      ['a toe switch', true, 'the treadle switches what it moves'],
      ['quiet switches', true, 'nothing clicks'],
      ['stands on soft floors', false, 'its sheet does not say'],
      ['is edited on a screen', false, 'is programmed on itself only'],
    ]);
    expect(points({}, { power: ['usb', 'mains'], grams: 2000, price: 350 })).toEqual([
      ['runs on usb or mains', false, '9 V'],
      ['weighs 2.00 kg at most', false, '2.40 kg'],
      ['costs 350 at most', true, '300'],
    ]);
    expect(
      ranked(touringRig, [
        { ...judge(touringRig, needs, c), misses: 9 },
        judge(touringRig, needs, c),
      ])[0]?.misses,
    ).toBeLessThan(9);
  });
  test('every sound of a song is on some page, and what is always there on all', () => {
    const pages = pagesFor(touringRig, 'lantern', 4);
    expect(pages.flatMap((p) => p.flatMap((x) => x.scene ?? [])).sort()).toEqual([
      'crunch',
      'edge',
      'flat',
      'lead',
      'rhythm',
    ]);
    expect(pages.every((p) => p.at(-1)!.does === 'tuner' && p.length <= 4)).toBe(true);
  });
});

describe('pages of switches', () => {
  test('sounds that follow one another share a page', () => {
    expect(fewestChanges([0, 2, 0, 2, 1, 3, 1, 3], 2)).toEqual({
      pages: [
        [0, 2],
        [1, 3],
      ],
      changes: 1,
    });
    expect(fewestChanges([0, 1, 2], 5)).toEqual({ pages: [[0, 1, 2]], changes: 0 });
    expect(fewestChanges([], 3)).toEqual({ pages: [], changes: 0 });
  });
  test('as few changes as trying every way of laying them out, and no page too full', () => {
    /** Every way of putting things on pages, tried. */
    const least = (way: number[], room: number): number => {
      const things = [...new Set(way)];
      const all = (i: number, pages: number[][]): number =>
        i === things.length
          ? changesOf(way, pages)
          : Math.min(
              ...pages
                .filter((p) => p.length < room)
                .map((p) =>
                  all(
                    i + 1,
                    pages.map((x) => (x === p ? [...p, things[i]!] : x)),
                  ),
                ),
              all(i + 1, [...pages, [things[i]!]]),
            );
      return all(0, []);
    };
    fc.assert(
      fc.property(
        fc.array(fc.nat({ max: 5 }), { minLength: 1, maxLength: 14 }),
        fc.integer({ min: 1, max: 4 }),
        (way, room) => {
          const { pages, changes } = fewestChanges(way, room);
          expect(changes).toBe(least(way, room));
          expect(changes).toBe(changesOf(way, pages));
          expect(pages.every((p) => p.length <= room)).toBe(true);
          expect(pages.flat().sort()).toEqual([...new Set(way)].sort());
        },
      ),
    );
  });
});

test('a device of the same family stands in: what is lost, and what changes where it is heard', () => {
  const rig = chainOf(['guitar-active', ['delay', { engaged: true }], 'console-input'], 1, [
    sound('s1', 'One', ['d1']),
  ]);
  const analog = substitutesFor(rig, 'd1', rig.sounds[0]!).find((s) => s.kind === 'delay-analog')!;
  expect(analog.lost).toEqual(
    expect.arrayContaining([
      'stereo outputs',
      'programs over MIDI',
      'following clock',
      'times over 600 ms',
    ]),
  );
  expect(substitutesFor(rig, 'nothing', rig.sounds[0]!)).toEqual([]);
});

test('clock times', () =>
  expect([clockTime(185_000), clockTime(59_600)]).toEqual(['3:05', '1:00']));
