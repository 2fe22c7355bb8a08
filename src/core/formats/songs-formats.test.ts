import fc from 'fast-check';
import { parseMidi, writeMidi } from 'midi-file';
import Papa from 'papaparse';
import { brokenRig, hybridRig, touringRig } from '../demo';
import { allPairs, type Message, midiDevices, setStage, type Standing } from '../midi';
import { take } from '../midi/stand-in';
import { applyEdits, problemLines, type Song } from '../rig';
import { at, done, type Outcome } from '../outcome';
import { runningOrder, timelineOf } from '../songs';
import { valueOf } from '../testing/value-of';
import {
  midiChartCsv,
  programMapCsv,
  readCsv,
  readSmf,
  runningOrderToCsv,
  setsFromCsv,
  setsToCsv,
  setToSmf,
  songsFromSmf,
  songsFromChordPro,
  songsFromCsv,
  songsToChordPro,
  songsToCsv,
  songToSmf,
  toCsv,
} from '.';

const lines = (r: { ok: boolean; problems?: Parameters<typeof problemLines>[0] }) =>
  r.ok ? [] : problemLines(r.problems!);

/** The one song of a file. */
function oneFrom(...asked: Parameters<typeof songsFromSmf>): Outcome<Song> {
  const read = songsFromSmf(...asked);
  return read.ok ? done(at(read.value.songs, 0)) : read;
}

describe('songs and sets as CSV', () => {
  test('written and read they are the same: titles, tempos, meters, sections, sounds', () => {
    const read = songsFromCsv(touringRig, songsToCsv(touringRig));
    if (!read.ok) throw new Error(lines(read).join());
    const bare = (s: Song) => ({ ...s, sections: s.sections.map(({ id: _id, ...x }) => x) });
    const usual = (s: Song): Song => ({ ...s, meter: s.meter ?? { beats: 4, unit: 4 } });
    expect(read.value.songs.map(bare)).toEqual(touringRig.songs!.map(usual).map(bare));
    const sets = setsFromCsv(touringRig, setsToCsv(touringRig));
    expect(
      sets.ok &&
        sets.value.sets.map((s) => [
          s.id,
          s.starts,
          s.minutes,
          s.entries.map((e) => [e.song, e.notes]),
        ]),
    ).toEqual(
      touringRig.sets!.map((s) => [
        s.id,
        s.starts,
        s.minutes,
        s.entries.map((e) => [e.song, e.notes]),
      ]),
    );
  });
  test('every row with something wrong is told, and nothing is taken', () => {
    const text =
      'song,bpm,section,bars,sound\nKelp,ninety,Verse,8,Tide ' +
      'flat\nBrine,100,Verse,0,Crunch\nBrine,100,Chorus,8,No such ' +
      'sound\n,100,Verse,8,Crunch\n';
    expect(lines(songsFromCsv(touringRig, text))).toEqual([
      'row 2: "ninety" is no tempo; give 20 to 400 bpm',
      'row 3: "0" is no number of bars; give 1 to 999',
      expect.stringMatching(
        /^row 4: there is no sound "No such sound"; the rig has Tide flat, Edge/,
      ),
      'row 5: the song has no title',
    ]);
    expect(lines(songsFromCsv(touringRig, 'title,tempo\n'))[0]).toContain(
      'there is no column "song", "bpm"',
    );
    expect(lines(songsFromCsv(touringRig, ''))[0]).toContain('the file is empty');
    expect(
      lines(songsFromCsv(touringRig, 'song,bpm,section,bars,sound\n"Kelp,1,V,8,Edge\n'))[0],
    ).toContain('a quotation mark is not closed');
    expect(
      lines(
        setsFromCsv(touringRig, 'set,song,gap s\nNight,Nothing of ours,5\nNight,Salt Ledger,-4\n'),
      ),
    ).toEqual([
      'row 2: there is no song "Nothing of ours" in this rig; read the songs in first',
      'row 3: "-4" is no gap; give 0 to 7200 seconds',
    ]);
  });
  test('songs of one title live side by side, told apart by their ids, in any rig', () => {
    const rig = {
      ...touringRig,
      songs: [...touringRig.songs!, { ...touringRig.songs![0]!, id: 'Other-1', bpm: 71 }],
    };
    for (const into of [rig, touringRig]) {
      const read = songsFromCsv(into, songsToCsv(rig));
      if (!read.ok) throw new Error(lines(read).join());
      expect(read.value.songs.map((s) => [s.id, s.title, s.bpm, s.sections.length])).toEqual(
        rig.songs.map((s) => [s.id, s.title, s.bpm, s.sections.length]),
      );
    }
    const bare = 'song,bpm,section,bars,sound\nSalt Ledger,98,Intro,4,Edge\n';
    expect(lines(songsFromCsv(rig, bare))).toEqual([
      'row 2: the rig has 2 songs called Salt Ledger; say which by the column "id": ledger, Other-1',
    ]);
    const sets = setsFromCsv(rig, setsToCsv(rig));
    expect(sets.ok && sets.value.sets.map((s) => s.entries.map((e) => e.song))).toEqual(
      rig.sets!.map((s) => s.entries.map((e) => e.song)),
    );
    expect(lines(setsFromCsv(rig, 'set,song\nNight,Salt Ledger\n'))[0]).toContain('"song id"');
  });
  test('what contradicts itself is told, in rows as a spreadsheet numbers them', () => {
    const text =
      'song,bpm,key,section,bars,sound,section bpm\n\nKelp,90,Am,"Verse\nand more",8,Edge,\n' +
      ',,,,,,\nKelp,100,Em,Chorus,8,Edge,95@9\nKelp,,,End,4,Edge,95@2.5\n';
    expect(lines(songsFromCsv(touringRig, text))).toEqual([
      'row 5: bpm is "100" here and "90" in row 3; a song has one, and "section bpm" is for changes',
      'row 5: key is "Em" here and "Am" in row 3; a song has one',
      'row 5: "95@9" is past the end of the section, which has 8 bars',
      'row 6: "95@2.5" changes the tempo within a bar; a tempo changes where a bar begins',
    ]);
    expect(
      lines(songsFromCsv(touringRig, 'song,bpm,section,bars,sound,BPM\nKelp,90,V,8,Edge,80\n')),
    ).toEqual(['row 1: two columns are called "bpm"; keep one, or give the other another name']);
    const long = 'x'.repeat(130);
    expect(
      lines(songsFromCsv(touringRig, `song,bpm,section,bars,sound\n${long},90,V,8,Edge\n`))[0],
    ).toBe(`${long}: it is too long; give at most 120 letters`);
  });
  test('a column that is not read is named', () => {
    const read = songsFromCsv(
      touringRig,
      'song,bpm,section,bars,sound,section tempo,who sings\nKelp,90,V,8,Edge,95,Ada\n',
    );
    expect(read.ok && read.value.notes).toEqual([
      'not read: the columns "section tempo", "who sings"',
    ]);
  });
  test('decimal commas are read where semicolons part the cells, and nowhere else', () => {
    const read = songsFromCsv(
      touringRig,
      'song;bpm;section;bars;sound;section bpm\nKelp;92,5;V;8;Edge;96,25@3\n',
    );
    const [song] = read.ok ? read.value.songs : [];
    expect([song?.bpm, song?.sections[0]?.tempos]).toEqual([92.5, [{ bar: 3, bpm: 96.25 }]]);
    expect(
      lines(songsFromCsv(touringRig, 'song,bpm,section,bars,sound\nKelp,"92,5",V,8,Edge\n')),
    ).toEqual(['row 2: "92,5" is no tempo; give 20 to 400 bpm']);
  });
  test('an empty cell keeps what is there, and clears it when that is asked; a missing column keeps', () => {
    const [was] = touringRig.songs!;
    const song = { ...was!, key: 'Am', tuning: 'drop', notes: 'keep this' };
    const rig = { ...touringRig, songs: [song] };
    const text = songsToCsv({ ...rig, songs: [{ ...song, key: undefined, tuning: undefined }] });
    const told = (r: ReturnType<typeof songsFromCsv>) => {
      const [s] = r.ok ? r.value.songs : [];
      return [s?.key, s?.tuning, s?.notes];
    };
    expect(told(songsFromCsv(rig, text))).toEqual(['Am', 'drop', 'keep this']);
    expect(told(songsFromCsv(rig, text, 'clear'))).toEqual([undefined, undefined, 'keep this']);
    const bare = 'song,bpm,section,bars,sound\nSalt Ledger,98,Intro,4,Edge\n';
    expect(told(songsFromCsv(rig, bare, 'clear'))).toEqual(['Am', 'drop', 'keep this']);
  });
  test('semicolons, a byte-order mark and Windows line ends are taken', () => {
    const read = songsFromCsv(
      touringRig,
      '\uFEFFsong;bpm;section;bars;sound;section bpm\r\nKelp Two;90;Verse;8;Edge;92 96@5\r\n',
    );
    expect(read.ok && read.value.songs[0]!.sections[0]!.tempos).toEqual([
      { bar: 1, bpm: 92 },
      { bar: 5, bpm: 96 },
    ]);
  });
  test('no cell runs as a formula in a spreadsheet, and each comes back as it was', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.array(
            fc
              .oneof(
                fc.string(),
                fc.constantFrom(
                  '=1+1',
                  '+cmd',
                  '-2+3',
                  '@x',
                  "'=quoted",
                  'a"b',
                  'a,b',
                  'x\ny',
                  'a;=1+1',
                  "a; '=1",
                  "''@x",
                  'a\t-1',
                ),
              )
              .map((s) => s.trim()),
            { minLength: 2, maxLength: 2 },
          ),
          { minLength: 1, maxLength: 6 },
        ),
        (rows) => {
          const text = toCsv(['a', 'b'], rows);
          const raw = Papa.parse<string[]>(text.trimEnd()).data.slice(1).flat();
          const back = readCsv(text, ['a', 'b']);
          const full = rows.filter((r) => r.some((c) => c !== ''));
          return (
            raw.every((c) => !/^[=+\-@\t\r]/.test(c) || /^[+-]?\d+(\.\d+)?$/.test(c)) &&
            raw.every((c) => !/[;\t]\s*[=+\-@]/.test(c)) &&
            back.ok &&
            JSON.stringify(back.value.rows.map((r) => [r.cells.a, r.cells.b])) ===
              JSON.stringify(full)
          );
        },
      ),
      { numRuns: 300 },
    );
  });
  test('names in the head of a table are made safe, too, and read again as they were', () => {
    const text = toCsv(['song', '=HYPERLINK(1)', 'a;@b'], [['x', 1, 2]]);
    expect(text.split('\r\n')[0]).toBe("song,'=HYPERLINK(1),a;'@b");
    const read = readCsv(text, ['song', '=hyperlink(1)', 'a;@b']);
    expect(read.ok && read.value.rows[0]?.cells).toEqual({
      song: 'x',
      '=hyperlink(1)': '1',
      'a;@b': '2',
    });
  });
  test('the charts: one row a message, wire and screen beside one another; the running order with its times', () => {
    const chart = Papa.parse<Record<string, string>>(midiChartCsv(touringRig).trimEnd(), {
      header: true,
    }).data;
    expect(chart.find((r) => r.sound === 'Lead' && r.for === 'Dome Reverb')).toMatchObject({
      channel: '2',
      'number on the wire': '1',
      'screen shows': '1',
      'bytes (hex)': 'C1 01',
      origin: 'derived',
    });
    expect(
      Papa.parse<Record<string, string>>(midiChartCsv(brokenRig).trimEnd(), {
        header: true,
      }).data.some((r) => r.origin === 'written'),
    ).toBe(true);
    const map = Papa.parse<Record<string, string>>(programMapCsv(hybridRig).trimEnd(), {
      header: true,
    }).data;
    expect(map.at(-1)).toMatchObject({
      sound: 'Wheel first',
      'Switchyard bank': '1',
      'Switchyard program (wire)': '0',
      'Switchyard shows': '2-1',
    });
    expect(
      Papa.parse<Record<string, string>>(
        runningOrderToCsv(touringRig, touringRig.sets![0]!).trimEnd(),
        { header: true },
      ).data[3],
    ).toMatchObject({ song: 'Brackish Waltz', changeover: 'change to Lap steel', 'gap s': '30' });
  });
});

describe('Standard MIDI Files', () => {
  const winch = touringRig.songs!.find((s) => s.id === 'winch')!;
  test('tempo map, markers and messages, read by a parser of its own', () => {
    const midi = parseMidi(songToSmf(touringRig, winch));
    expect(midi.header).toMatchObject({ format: 1, ticksPerBeat: 480 });
    const absolute = (t: (typeof midi.tracks)[number]) => {
      let at = 0;
      return t.map((e) => ({ ...e, at: (at += e.deltaTime) }));
    };
    const [conductor, skeg] = midi.tracks.map(absolute);
    expect(
      conductor!
        .filter((e) => e.type === 'setTempo')
        .map((e) => [e.at, e.type === 'setTempo' && e.microsecondsPerBeat]),
    ).toEqual([
      [0, 1_000_000],
      [16 * 4 * 480, 909_091],
      [24 * 4 * 480, 833_333],
    ]);
    expect(
      conductor!
        .filter((e) => e.type === 'marker')
        .map((e) => [e.at / (4 * 480), e.type === 'marker' && e.text]),
    ).toEqual([
      [0, 'Haul'],
      [8, 'Slack'],
      [16, 'Haul 2'],
      [24, 'Let go'],
    ]);
    expect(skeg![0]).toMatchObject({ type: 'trackName', text: 'Skeg' });
    expect(
      skeg!
        .filter((e) => e.type === 'programChange')
        .map((e) => [e.at / (4 * 480), e.type === 'programChange' && [e.channel, e.programNumber]])
        .slice(-2),
    ).toEqual([
      [24, [0, 1]],
      [24, [1, 1]],
    ]);
  });
  test('a bar ahead, or so many milliseconds; never before the file begins', () => {
    const bars = readSmf(songToSmf(touringRig, winch, { bars: 1 }));
    expect(bars.ok && bars.value.programs.map((p) => p.bar)).toEqual([1, 1, 8, 8, 16, 16, 24, 24]);
    const ms = readSmf(songToSmf(touringRig, winch, { ms: 500 }));
    // Half a second at 60 bpm is half a beat before bar 9.
    expect(ms.ok && ms.value.programs[2]).toMatchObject({ bar: 8, beat: 4.5 });
  });
  test.each(touringRig.songs!.map((s) => [s.title, s] as const))(
    '%s: written and read it has the same length, sections and sounds that its programs can tell',
    (_, song) => {
      for (const lead of [{}, { bars: 1 }]) {
        const read = oneFrom({ ...touringRig, songs: [] }, songToSmf(touringRig, song, lead), 'x');
        if (!read.ok) throw new Error(lines(read).join());
        expect(read.value.sections.map((s) => [s.name, s.bars])).toEqual(
          song.sections.map((s) => [s.name, s.bars]),
        );
        // Tempos are whole microseconds in such a file.
        expect(Math.abs(timelineOf(read.value).lengthMs - timelineOf(song).lengthMs)).toBeLessThan(
          5,
        );
      }
    },
  );
  test('program changes call the sounds that keep them, with banks, on the beat or a bar ahead', () => {
    const song: Song = {
      id: 'x',
      title: 'Yard',
      bpm: 100,
      sections: hybridRig.sounds.map((s, i) => ({
        id: `s${i}`,
        name: s.name,
        bars: 1 + (i % 2),
        sound: s.id,
      })),
    };
    for (const lead of [{}, { bars: 1 }, { ms: 50 }]) {
      const read = oneFrom(hybridRig, songToSmf(hybridRig, song, lead), 'x');
      expect(read.ok && read.value.sections.map((s) => s.sound)).toEqual(
        hybridRig.sounds.map((s) => s.id),
      );
    }
  });
  test('a switcher is called at its own program, once, and tells the others itself', () => {
    const song: Song = {
      id: 'x',
      title: 'Yard',
      bpm: 100,
      sections: hybridRig.sounds.map((s) => ({ id: s.id, name: s.name, bars: 2, sound: s.id })),
    };
    const stage = setStage(hybridRig);
    const root = at(stage.orders.roots(stage.scene('bare')!), 0);
    const m = midiDevices(hybridRig).get(root)!;
    const { tracks } = parseMidi(songToSmf(hybridRig, song));
    expect(tracks).toHaveLength(2);
    const told = tracks[1]!.filter((e) => 'channel' in e) as unknown as { channel: number }[];
    expect(new Set(told.map((e) => e.channel + 1))).toEqual(new Set([m.channel]));
    const calls = tracks[1]!.flatMap((e) => (e.type === 'programChange' ? [e.programNumber] : []));
    expect(calls).toEqual(hybridRig.sounds.map((s) => s.states[root]!.program!.number));
    // Played into the switcher, each section leaves it where the sound wants it.
    const standing: Standing = { values: new Map(), bank: 0 };
    const stands: unknown[] = [];
    for (const e of tracks[1]!) {
      const message: Message | undefined =
        e.type === 'programChange'
          ? { type: 'program', channel: e.channel + 1, number: e.programNumber }
          : e.type === 'controller'
            ? { type: 'control', channel: e.channel + 1, cc: e.controllerType, value: e.value }
            : undefined;
      if (message) take(stage.orders, stage.memory, m, standing, message);
      if (e.type === 'programChange') stands.push(standing.program);
    }
    expect(stands).toEqual(hybridRig.sounds.map((x) => ({ bank: 0, ...x.states[root]!.program })));
    // Called there, it does what a foot makes it do: every change ends as meant.
    expect(allPairs(stage).faults).toEqual([]);
  });
  test('a set is one file, its songs behind one another with their gaps', () => {
    const read = readSmf(setToSmf(touringRig, touringRig.sets![1]!));
    expect(
      read.ok &&
        read.value.markers
          .filter((m) => touringRig.songs!.some((s) => s.title === m.text))
          .map((m) => m.text),
    ).toEqual(
      touringRig.sets![1]!.entries.map(
        (e) => touringRig.songs!.find((s) => s.id === e.song)!.title,
      ),
    );
  });
  test.each(touringRig.sets!.map((s) => [s.name, s] as const))(
    '%s: its file comes back as the same set, into this rig and into an empty one',
    (_, set) => {
      const file = setToSmf(touringRig, set);
      const here = valueOf(songsFromSmf(touringRig, file, 'x'));
      expect(here.songs).toEqual([]);
      expect(here.set!.name).toBe(set.name);
      expect(here.set!.entries.map((e) => e.song)).toEqual(set.entries.map((e) => e.song));
      const gaps = runningOrder(touringRig, set).lines.map((l) => l.changeover.seconds);
      expect(here.set!.entries.map((e) => e.gap ?? 0)).toEqual(gaps);
      const there = valueOf(songsFromSmf({ ...touringRig, songs: [], sets: [] }, file, 'x'));
      const songs = set.entries.map((e) => touringRig.songs!.find((s) => s.id === e.song)!);
      const barsOf = (s: Song) => s.sections.map((x) => `${x.name} ${x.bars}`);
      expect(
        there.set!.entries.map((e) => barsOf(there.songs.find((s) => s.id === e.song)!)),
      ).toEqual(songs.map(barsOf));
    },
  );
  test('one tempo and one meter at the beginning, though the first section has its own', () => {
    const own: Song = {
      ...winch,
      sections: winch.sections.map((s, i) =>
        i ? s : { ...s, meter: { beats: 3, unit: 4 }, tempos: [{ bar: 1, bpm: 77 }] },
      ),
    };
    const first = parseMidi(songToSmf(touringRig, own)).tracks[0]!;
    let at = 0;
    const there = first.filter((e) => (at += e.deltaTime) === 0).map((e) => e.type);
    expect(there.filter((t) => t === 'setTempo' || t === 'timeSignature')).toEqual([
      'setTempo',
      'timeSignature',
    ]);
  });
  test('titles in any script come back; a file in another spelling is read a letter a byte', () => {
    const song: Song = { ...winch, title: '潮の歌, Łódź – עיר' };
    expect(
      valueOf(oneFrom({ ...touringRig, songs: [] }, songToSmf(touringRig, song), 'x')).title,
    ).toBe(song.title);
    const spelled = songToSmf(touringRig, { ...winch, title: 'Fae' });
    spelled.set(
      [0xe9],
      spelled.findIndex((b, i) => b === 0x65 && spelled[i - 1] === 0x61),
    );
    expect(valueOf(readSmf(spelled)).title).toBe('Faé');
  });
  test('a marker a tick early belongs to the bar line that follows', () => {
    const marker = (deltaTime: number, text: string) => ({
      deltaTime,
      meta: true as const,
      type: 'marker' as const,
      text,
    });
    const file = (early: number) =>
      Uint8Array.from(
        writeMidi({
          header: { format: 1, numTracks: 1, ticksPerBeat: 480 },
          tracks: [
            [
              marker(0, 'A'),
              marker(8 * 480 - early, 'B'),
              marker(16 * 480 + early, 'C'),
              { deltaTime: 4 * 480, meta: true, type: 'endOfTrack' },
            ],
          ],
        }),
      );
    const sections = (early: number) =>
      valueOf(oneFrom({ ...touringRig, songs: [] }, file(early), 'x')).sections;
    for (const early of [0, 1, 20])
      expect(sections(early).map((s) => [s.name, s.bars])).toEqual([
        ['A', 2],
        ['B', 4],
        ['C', 1],
      ]);
  });
  test('a file that was cut anywhere is refused', () => {
    const file = songToSmf(touringRig, winch);
    for (let left = 1; left < file.length; left++)
      expect(readSmf(file.slice(0, left)).ok).toBe(false);
    expect(lines(readSmf(file.slice(0, -3)))[0]).toContain('the file is torn: track');
  });
  test('a torn or foreign file is told in words', () => {
    expect(lines(readSmf(new Uint8Array([1, 2, 3])))[0]).toContain('no Standard MIDI File');
    expect(readSmf(songToSmf(touringRig, winch).slice(0, 60)).ok).toBe(false);
  });
});

describe('ChordPro', () => {
  test('headers in: title, tempo, time, key, tuning, the names of parts; several songs in one file', () => {
    const text =
      '{title: Kelp}\n{artist: nobody}\n{tempo: 96}\n{time: 6/8}\n{key: Em}\n{meta: ' +
      'tuning drop A}\n{start_of_verse: Verse 1}\nwords ' +
      '[Em]here\n{end_of_verse}\n{soc}\n{eoc}\n{new_song}\n{t:Brine}\n';
    const read = songsFromChordPro(touringRig, text);
    expect(read.ok && read.value).toEqual([
      expect.objectContaining({
        id: 'kelp-2',
        title: 'Kelp',
        bpm: 96,
        meter: { beats: 6, unit: 8 },
        key: 'Em',
        tuning: 'drop A',
      }),
      expect.objectContaining({
        title: 'Brine',
        bpm: 120,
        notes: 'The sheet names no tempo; 120 bpm stands in for it.',
      }),
    ]);
    expect(read.ok && read.value[0]!.sections.map((s) => s.name)).toEqual(['Verse 1', 'Chorus']);
    expect(lines(songsFromChordPro(touringRig, '{title: X}\n{tempo: fast}\n'))).toEqual([
      'line 2: "fast" is no tempo; give 20 to 400 bpm',
    ]);
    expect(lines(songsFromChordPro(touringRig, 'only words'))[0]).toContain('{title: …}');
  });
  test('written and read, headers are the same', () => {
    const read = songsFromChordPro(
      { ...touringRig, songs: [] },
      songsToChordPro(touringRig.songs!),
    );
    const head = (s: Song) => [s.title, s.bpm, s.key, s.tuning, s.sections.map((x) => x.name)];
    expect(read.ok && read.value.map(head)).toEqual(touringRig.songs!.map(head));
  });
  test('text and chords are kept with the song, and go out again with the headers as they are now', () => {
    const ledger = touringRig.songs!.find((s) => s.chart)!;
    const written = songsToChordPro([{ ...ledger, bpm: 99 }]);
    expect(written).toContain('{tempo: 99}');
    expect(written).toContain('[Em]Weigh it in by [C]lamplight');
    const read = songsFromChordPro({ ...touringRig, songs: [] }, written);
    expect(read.ok && read.value[0]!.chart).toContain('[C]Carry [G]over, [D]carry [Em]down');
    expect(songsToChordPro(read.ok ? read.value : [])).toBe(written);
  });
});

test('what is read in can be taken into the rig as one step', () => {
  const read = songsFromCsv(
    touringRig,
    'song,bpm,section,bars,sound\nSalt Ledger,98,Intro,4,Tide flat\nNew One,120,All,16,Lead\n',
  );
  if (!read.ok) throw new Error(lines(read).join());
  const [ledger, added] = read.value.songs;
  expect([ledger!.id, added!.id]).toEqual(['ledger', 'new-one']);
  expect(ledger!.divisions).toEqual({ echo: 'dotted eighth' });
  expect(
    applyEdits(touringRig, [
      { edit: 'setSong', song: ledger! },
      { edit: 'addSong', song: added! },
    ]).ok,
  ).toBe(true);
});
