import { bytesOf, hex, messageWords, WHEN_WORDS } from '../../midi';
import { nameOf } from '../../rig/find';
import { clockTime, cueSheet, meterWords, runningOrder } from '../../songs';
import { type Block, table, heading } from './blocks';
import type { PartMaker } from './part';

export const midi: PartMaker = {
  id: 'midi',
  title: 'MIDI chart',
  blocks: ({ rig, stage }) => [
    table(
      ['Sound', 'Sent by', 'For', 'On', 'Bytes', 'Means'],
      stage.orders.scenes.flatMap((s) =>
        [...stage.orders.commands(s).values()]
          .flat()
          .map((c) => [
            s.name,
            nameOf(rig, c.from),
            c.to ? nameOf(rig, c.to) : '',
            WHEN_WORDS[c.when ?? 'press'],
            hex(bytesOf(c.message)),
            messageWords(c.message),
          ]),
      ),
    ),
  ],
};

export const sets: PartMaker = {
  id: 'sets',
  title: 'Sets',
  isThere: ({ rig }) => (rig.sets?.length ?? 0) > 0,
  blocks: ({ rig }) =>
    rig.sets!.flatMap((set): Block[] => [
      heading(`${set.name}${set.starts ? `, ${set.starts}` : ''}`),
      table(
        ['#', 'Song', 'Before it', 'Begins', 'Tempo', 'Key', 'Tuning'],
        runningOrder(rig, set).lines.map((l, i) => [
          i + 1,
          l.song?.title ?? l.entry.song,
          [l.changeover.words, l.entry.notes].filter(Boolean).join('. '),
          l.clock ?? clockTime(l.startsAt * 1000),
          l.song?.bpm,
          l.song?.key,
          l.song?.tuning,
        ]),
        1,
      ),
    ]),
};

export const cues: PartMaker = {
  id: 'cues',
  title: 'Cue sheets',
  wide: true,
  isThere: ({ rig }) => (rig.songs?.length ?? 0) > 0,
  blocks: ({ rig }) =>
    rig.songs!.flatMap((song): Block[] => [
      heading(
        `${song.title}: ${song.bpm} bpm, ${meterWords(song.meter)}${song.key ? `, ${song.key}` : ''}`,
      ),
      table(
        ['Bar', 'Time', 'Section', 'Bars', 'Sound', 'Engaged', 'Programs', 'Notes'],
        cueSheet(rig, song).map((c) => [
          c.bar,
          clockTime(c.atMs),
          c.section,
          c.bars,
          c.sound,
          c.engaged.join(', '),
          c.programs,
          c.notes,
        ]),
      ),
    ]),
};
