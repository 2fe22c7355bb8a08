import { sure, at } from '../outcome';
import { isEngaged, stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import type { SceneRemark } from '../midi/number-remark';
import { deviceOf } from '../rig/find';
import type { Rig, Song } from '../rig/schema';
import { delayTimes, soundsIn, tempoDevices, withTimesKept } from './delays';
import { runningOrder } from './running-order';
import { sectionScene } from '../control/scene';
import { clockTime } from './timeline';
import { allOf, howMany } from '../units';

/**
 * What is wrong with songs and sets: sounds that are gone, instruments that do not sound, times
 * that run off the click, sets that are too long.
 */
export function songRemarks(rig: Rig): SceneRemark[] {
  const all = rig.sounds.map((s) => s.id);
  return [
    ...(rig.songs ?? []).flatMap((song) => [
      ...missingSounds(rig, song, all),
      ...silentInstrument(rig, song),
      ...slipping(rig, song),
    ]),
    ...longSets(rig, all),
  ];
}

function missingSounds(rig: Rig, song: Song, all: string[]): SceneRemark[] {
  const gone = song.sections.filter((s) => !rig.sounds.some((x) => x.id === s.sound));
  if (!gone.length) return [];
  return [
    {
      sounds: all,
      remark: {
        rule: 'song-sound',
        severity: 'fault',
        subjects: [],
        about: song.id,
        what: `${song.title} calls a sound that is gone.`,
        why:
          `${gone.map((s) => `${s.name} calls "${s.sound}"`).join(', ')}. ` +
          'What is played there cannot be told until another one is chosen.',
      },
    },
  ];
}

function silentInstrument(rig: Rig, song: Song): SceneRemark[] {
  const device = song.instrument === undefined ? undefined : deviceOf(rig, song.instrument);
  if (!device || kindOf(device.kind).job !== 'instrument') return [];
  const silent = song.sections.flatMap((s) => {
    const scene = sectionScene(rig, song, s.id);
    return scene && !isEngaged(kindOf(device.kind), device, stateIn(scene.sound, device.id))
      ? [{ section: s, sound: scene.sound.id }]
      : [];
  });
  if (!silent.length) return [];
  return [
    {
      sounds: [...new Set(silent.map((s) => s.sound))],
      remark: {
        rule: 'song-instrument',
        severity: 'fault',
        subjects: [device.id],
        about: `${song.id} ${device.id}`,
        what:
          `${song.title} is played on ${device.name}, which is silent ` +
          `in ${silent.length === song.sections.length ? 'all of it' : silent.map((s) => s.section.name).join(', ')}.`,
        why:
          [...new Set(silent.map((s) => sure(rig.sounds.find((x) => x.id === s.sound)).name))].join(
            ', ',
          ) +
          ' ' +
          (silent.length === 1 ? 'has' : 'have') +
          ' ' +
          'it turned off.',
        fix: {
          words: `Let ${device.name} sound in ${song.title}`,
          edits: [
            {
              edit: 'setSong',
              song: {
                ...song,
                states: {
                  ...song.states,
                  [device.id]: { ...song.states?.[device.id], engaged: true },
                },
              },
            },
          ],
        },
      },
    },
  ];
}

/**
 * Echoes that run off the click so far that it is heard before they have died away; only for
 * devices whose way of being set a person has chosen.
 */
function slipping(rig: Rig, song: Song): SceneRemark[] {
  return tempoDevices(rig)
    .filter((d) => d.tempo && kindOf(d.kind).tempo!.is === 'delay' && soundsIn(rig, song, d))
    .flatMap((d): SceneRemark[] => {
      const times = delayTimes(rig, song, d);
      const off =
        times.find((t) => t.slip.heard && t.way === 'program') ?? times.find((t) => !t.inRange);
      if (!off) return [];
      const sounds = [
        ...new Set(
          song.sections.map((s) => s.sound).filter((id) => rig.sounds.some((x) => x.id === id)),
        ),
      ];
      const unit = off.is === 'delay' ? 'ms' : 'Hz';
      const first = at(times, 0);
      const kept = withTimesKept(song, d, times);
      const where = song.sections.find((s) => s.id === off.sections[0])?.name;
      return [
        {
          sounds,
          remark: {
            rule: 'song-slip',
            severity: off.inRange ? 'advice' : 'caution',
            subjects: [d.id],
            about: `${song.id} ${d.id}`,
            what: off.inRange
              ? `${d.name} runs off the click in ${song.title}.`
              : `${d.name} cannot play a ${off.division} in ${song.title}.`,
            why: off.inRange
              ? (times.length > 1 && where ? `In ${where}: a` : 'A') +
                ` ${off.division} at ${off.bpm} bpm is ${off.wanted.toFixed(2)} ${unit}; it ` +
                `has ${off.gets.toFixed(2)} ${unit} (${off.how}). Repeat ${off.slip.repeat} is more ` +
                ('than 20 ms off, ' +
                  (off.slip.downDb! < 0.05
                    ? 'as loud as the first'
                    : `${off.slip.downDb!.toFixed(0)} dB under the first`) +
                  '.')
              : `It would be ${off.wanted.toFixed(2)} ${unit} at ${off.bpm} bpm, beyond its ` +
                `range.${off.instead ? ` A ${off.instead} is within it.` : ''}`,
            ...(off.inRange && kept
              ? {
                  fix: {
                    words:
                      times.length === 1
                        ? `Keep ${first.wanted.toFixed(0)} ms for ${song.title}`
                        : `Keep each section's own time in ${song.title}`,
                    edits: [{ edit: 'setSong', song: kept }],
                  },
                }
              : off.instead
                ? {
                    fix: {
                      words: `Play a ${off.instead} there`,
                      edits: [
                        {
                          edit: 'setSong',
                          song: { ...song, divisions: { ...song.divisions, [d.id]: off.instead } },
                        },
                      ],
                    },
                  }
                : {}),
          },
        },
      ];
    });
}

function longSets(rig: Rig, all: string[]): SceneRemark[] {
  return (rig.sets ?? []).flatMap((set): SceneRemark[] => {
    const order = runningOrder(rig, set);
    const gone = set.entries.filter((e) => !rig.songs?.some((s) => s.id === e.song));
    return [
      ...(order.spareSeconds !== undefined && order.spareSeconds < 0
        ? [
            {
              sounds: all,
              remark: {
                rule: 'set-long' as const,
                severity: 'caution' as const,
                subjects: [],
                about: set.id,
                what: `${set.name} is ${clockTime(-order.spareSeconds * 1000)} too long.`,
                why:
                  `Songs take ${clockTime(order.musicSeconds * 1000)} and ` +
                  `changeovers ${clockTime((order.seconds - order.musicSeconds) * 1000)}; there ` +
                  `${set.minutes === 1 ? 'is' : 'are'} ${howMany(set.minutes ?? 0, 'minute')}.`,
              },
            },
          ]
        : []),
      ...(gone.length
        ? [
            {
              sounds: all,
              remark: {
                rule: 'set-song' as const,
                severity: 'fault' as const,
                subjects: [],
                about: set.id,
                what:
                  `${set.name} holds ` +
                  (gone.length === 1 ? 'a song that is' : `${gone.length} songs that are`) +
                  ' gone.',
                why:
                  `${allOf(gone.map((e) => `"${e.song}"`))} ${gone.length === 1 ? 'is' : 'are'} ` +
                  'not among the songs of this rig.',
                fix: {
                  words: 'Take out of the set what is gone',
                  edits: [
                    {
                      edit: 'setSet' as const,
                      set: { ...set, entries: set.entries.filter((e) => !gone.includes(e)) },
                    },
                  ],
                },
              },
            },
          ]
        : []),
    ];
  });
}
