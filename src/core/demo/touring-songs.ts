import type { Section, Song, SongSet } from '../rig/schema';

/** A section written short: name, bars, sound, and the tempo from its first bar where it changes. */
type Short = [name: string, bars: number, sound: string, bpm?: number];

const sections = (list: Short[]): Section[] =>
  list.map(([name, bars, sound, bpm], i) => ({
    id: `s${i + 1}`,
    name,
    bars,
    sound,
    ...(bpm !== undefined && { tempos: [{ bar: 1, bpm }] }),
  }));

const song = (
  id: string,
  title: string,
  bpm: number,
  key: string,
  tuning: string,
  list: Short[],
  rest: Partial<Song> = {},
): Song => ({ id, title, bpm, key, tuning, instrument: 'bari', sections: sections(list), ...rest });

const LOW = 'B standard';
const DROP = 'drop A';

/** A section that differs from its song. */
const sectionStates = (s: Song, id: string, states: NonNullable<Section['states']>): Song => ({
  ...s,
  sections: s.sections.map((x) => (x.id === id ? { ...x, states } : x)),
});

/** Text and chords of the first song. */
const LEDGER = `{start_of_verse: Intro}
[Em]  [C]  [G]  [D]
{end_of_verse}
{start_of_verse: Verse 1}
[Em]Weigh it in by [C]lamplight, [G]write it in the [D]sand
[Em]Every grain a [C]number, [Am]every line a [B]hand
{end_of_verse}
{start_of_chorus: Chorus}
[C]Carry [G]over, [D]carry [Em]down
[C]What the [G]tide took [B]out of town
{end_of_chorus}
{start_of_verse: Verse 2}
[Em]Columns of the [C]harbour, [G]margins of the [D]quay
[Em]Nothing in the [C]ledger [Am]ever left the [B]sea
{end_of_verse}
{start_of_chorus: Chorus 2}
[C]Carry [G]over, [D]carry [Em]down
[C]Leave the [G]balance [B]with the [Em]drowned
{end_of_chorus}
{start_of_bridge: Solo}
{comment: over the verse, twice}
{end_of_bridge}
{start_of_verse: Outro}
[Em]  [C]  [Em]
{end_of_verse}`;

/** The songs of the run. The same few sounds in all of them; the echo takes its time from clock. */
export const touringSongs: Song[] = [
  song(
    'ledger',
    'Salt Ledger',
    96,
    'E minor',
    LOW,
    [
      ['Intro', 4, 'flat'],
      ['Verse 1', 8, 'flat'],
      ['Chorus', 8, 'crunch'],
      ['Verse 2', 8, 'edge'],
      ['Chorus 2', 8, 'crunch'],
      ['Solo', 8, 'lead'],
      ['Outro', 4, 'flat'],
    ],
    { divisions: { echo: 'dotted eighth' }, chart: LEDGER },
  ),
  song('gangway', 'Third Gangway', 132, 'A minor', DROP, [
    ['Riff', 8, 'rhythm'],
    ['Verse', 12, 'crunch'],
    ['Riff 2', 8, 'rhythm'],
    ['Solo', 16, 'lead'],
    ['Riff 3', 8, 'rhythm'],
  ]),
  song(
    'kelp',
    'Kelp Parliament',
    72,
    'D',
    LOW,
    [
      ['Drone', 8, 'organ'],
      ['Verse', 16, 'flat'],
      ['Drone 2', 8, 'organ'],
      ['Rise', 8, 'edge'],
      ['Drone 3', 12, 'organ'],
    ],
    { meter: { beats: 6, unit: 8 } },
  ),
  song(
    'waltz',
    'Brackish Waltz',
    84,
    'G',
    'open G',
    [
      ['Swells', 16, 'steel'],
      ['Tune', 24, 'steel'],
      ['Swells 2', 16, 'steel'],
    ],
    { instrument: 'steel', meter: { beats: 3, unit: 4 }, divisions: { echo: 'quarter' } },
  ),
  song('lantern', 'Lantern Arithmetic', 120, 'B minor', LOW, [
    ['Pulse', 8, 'flat'],
    ['Verse', 16, 'edge'],
    ['Count', 8, 'crunch'],
    ['Verse 2', 16, 'edge'],
    ['Count 2', 8, 'rhythm'],
    ['Solo', 8, 'lead'],
    ['Pulse 2', 8, 'flat'],
  ]),
  song('winch', 'Slow Winch', 60, 'A minor', DROP, [
    ['Haul', 8, 'rhythm'],
    ['Slack', 8, 'flat'],
    ['Haul 2', 8, 'rhythm', 66],
    ['Let go', 8, 'lead', 72],
  ]),
  song('meridian', 'Meridian Room', 108, 'F sharp minor', LOW, [
    ['Stars', 8, 'organ'],
    ['Verse', 16, 'flat'],
    ['Chorus', 8, 'crunch'],
    ['Stars 2', 8, 'organ'],
    ['Chorus 2', 16, 'crunch'],
  ]),
  song('ropewalk', 'The Ropewalk Receipt', 144, 'E minor', LOW, [
    ['Riff', 8, 'crunch'],
    ['Verse', 16, 'edge'],
    ['Riff 2', 8, 'rhythm'],
    ['Verse 2', 16, 'edge'],
    ['Solo', 16, 'lead'],
    ['Riff 3', 8, 'rhythm'],
  ]),
  song(
    'ballast',
    'Ballast Hymn',
    66,
    'C',
    'open G',
    [
      ['Hymn', 16, 'steel'],
      ['Hymn 2', 16, 'steel'],
    ],
    { instrument: 'steel' },
  ),
  song(
    'census',
    'Low Water Census',
    100,
    'G minor',
    LOW,
    [
      ['Intro', 4, 'flat'],
      ['Verse', 16, 'flat'],
      ['Chorus', 8, 'rhythm'],
      ['Break', 5, 'organ'],
      ['Chorus 2', 8, 'rhythm'],
    ],
    {
      sections: [
        ...sections([
          ['Intro', 4, 'flat'],
          ['Verse', 16, 'flat'],
          ['Chorus', 8, 'rhythm'],
        ]),
        {
          id: 's4',
          name: 'Break',
          bars: 5,
          sound: 'organ',
          meter: { beats: 7, unit: 8 },
          notes: 'Count sevens; Wenna rides the wide pair.',
        },
        { id: 's5', name: 'Chorus 2', bars: 8, sound: 'rhythm' },
      ],
    },
  ),
  sectionStates(
    song(
      'unlit',
      'Dome Unlit',
      88,
      'D minor',
      LOW,
      [
        ['Dark', 8, 'flat'],
        ['Verse', 16, 'flat'],
        ['Light', 8, 'lead'],
        ['Dark 2', 8, 'flat'],
      ],
      {
        states: { dome: { settings: { decay: 8 }, program: { number: 3 } } },
        notes: 'The dome is longer in this song: programs of its own.',
      },
    ),
    's3',
    { dome: { program: { number: 4 } } },
  ),
  song('bells', 'Nine Bells Short', 152, 'A minor', DROP, [
    ['Riff', 9, 'rhythm'],
    ['Verse', 9, 'crunch'],
    ['Riff 2', 9, 'rhythm'],
    ['Solo', 9, 'lead'],
    ['Riff 3', 9, 'rhythm'],
  ]),
  song('vane', 'Weathervane Patience', 92, 'E', LOW, [
    ['Verse', 16, 'edge'],
    ['Chorus', 8, 'crunch'],
    ['Verse 2', 16, 'edge'],
    ['Chorus 2', 8, 'crunch'],
    ['Coda', 8, 'flat', 84],
  ]),
  song('home', 'Car Deck, Going Home', 112, 'G', LOW, [
    ['Intro', 8, 'flat'],
    ['Verse', 16, 'edge'],
    ['Chorus', 8, 'crunch'],
    ['Solo', 16, 'lead'],
    ['Chorus 2', 16, 'rhythm'],
    ['Last', 8, 'flat'],
  ]),
];

const entries = (ids: string[], notes: Record<string, string> = {}) =>
  ids.map((id, i) => ({ id: `e${i + 1}`, song: id, ...(notes[id] && { notes: notes[id] }) }));

export const touringSets: SongSet[] = [
  {
    id: 'warehouse',
    name: 'Salt warehouse',
    starts: '20:30',
    minutes: 60,
    entries: entries(
      [
        'ledger',
        'lantern',
        'meridian',
        'waltz',
        'ballast',
        'vane',
        'unlit',
        'census',
        'gangway',
        'bells',
        'winch',
        'home',
      ],
      {
        waltz: 'Steel on its stand before the last chord.',
        gangway: 'Third song in drop A follows: leave it down.',
      },
    ),
  },
  {
    id: 'ferry',
    name: 'Car ferry, one crossing',
    starts: '17:15',
    minutes: 35,
    entries: entries(['ropewalk', 'ledger', 'kelp', 'vane', 'gangway', 'winch', 'home'], {
      kelp: 'Engines are loudest here.',
    }),
  },
];
