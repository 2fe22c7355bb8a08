import { done, type Outcome, refused, sure } from '../outcome';
import { kindOf } from '../kinds';
import { addressIn } from '../midi/commands';
import { numbersOn, screenOn } from '../midi/programs';
import { type MidiDevice, midiDevices } from '../midi/setup';
import type { Edit } from '../rig/edits';
import { isEngaged, stateIn } from '../rig/device-state';
import type { Address, Rig, Song, SongSet, Sound } from '../rig/schema';
import { fitLabel } from './labels';
import { sceneOf, sectionScene, type Scene } from '../control/scene';
import { timelineOf } from './timeline';

/**
 * Where each device keeps what a section calls. `own` says whether the song has an address of its
 * own there.
 */
export interface ProgramRow {
  song?: Song;
  section?: string;
  sectionName?: string;
  scene: Scene;
  at: { device: string; address: Address | undefined; words: string; shown: string }[];
}

/** Devices that keep programs for anything in this rig. */
export const programDevices = (rig: Rig): MidiDevice[] =>
  [...midiDevices(rig).values()].filter(
    (m) =>
      m.programs &&
      (rig.sounds.some((s) => s.states[m.device.id]?.program) ||
        (rig.songs ?? []).some(
          (s) =>
            s.states?.[m.device.id]?.program ||
            s.sections.some((x) => x.states?.[m.device.id]?.program),
        )),
  );

const row = (devices: readonly MidiDevice[], scene: Scene): ProgramRow => ({
  scene,
  song: scene.song,
  section: scene.section,
  at: devices.map((m) => {
    const address = addressIn(scene, m.device.id);
    return {
      device: m.device.id,
      address,
      words: address ? numbersOn(m, address) : 'no program',
      shown: address ? screenOn(m, address) : '',
    };
  }),
});

/**
 * The program map: every sound, then every section of every song, with bank and program on every
 * device that keeps programs.
 */
export function programMap(rig: Rig): {
  devices: MidiDevice[];
  sounds: ProgramRow[];
  songs: ProgramRow[];
} {
  const devices = programDevices(rig);
  return {
    devices,
    sounds: rig.sounds.map((s) => row(devices, sceneOf(rig, s))),
    songs: (rig.songs ?? []).flatMap((song) =>
      song.sections.flatMap((s) => {
        const scene = sectionScene(rig, song, s.id);
        return scene
          ? [{ ...row(devices, { ...scene, song, section: s.id }), sectionName: s.name }]
          : [];
      }),
    ),
  };
}

/** What each display shows in a section: the song and the sound, fitted to its lines. */
export function displayLabels(
  rig: Rig,
  song: Song | undefined,
  scene: Scene,
): { device: string; lines: string[] }[] {
  return rig.devices.flatMap((d) => {
    const display = kindOf(d.kind).display;
    if (!display) return [];
    const sound = rig.sounds.find((s) => s.id === scene.sound.id)?.name ?? scene.name;
    const lines = !song ? [sound] : display.lines > 1 ? [song.title, sound] : [sound];
    return [{ device: d.id, lines: lines.map((l) => fitLabel(l, display.width)) }];
  });
}

/** One line of a cue sheet: a section, when it comes, what it calls, and what to press. */
export interface Cue {
  bar: number;
  atMs: number;
  section: string;
  sound: string;
  bars: number;
  bpm: number;
  /** What each device that a program is sent to shows there, in the order of the rig. */
  shown: { device: string; name: string; shown: string }[];
  /** The same in words. */
  programs: string;
  /** Devices that are engaged there, and not always. */
  engaged: string[];
  notes: string;
}

/** Names of the devices that a sound engages, of those that a foot could bypass. */
export const engagedIn = (rig: Rig, sound: Sound): string[] =>
  rig.devices
    .filter((d) => {
      const kind = kindOf(d.kind);
      const isSwitched = !kind.alwaysOn && !kind.stateWords && !kind.destination;
      return isSwitched && isEngaged(kind, d, stateIn(sound, d.id));
    })
    .map((d) => d.name);

/** The cue sheet of a song. */
export function cueSheet(rig: Rig, song: Song): Cue[] {
  const devices = programDevices(rig);
  return timelineOf(song).sections.map((p) => {
    const scene = sectionScene(rig, song, p.section.id);
    const shown = (scene ? row(devices, scene).at : [])
      .filter((a) => a.address)
      .map((a) => ({
        device: a.device,
        name: sure(devices.find((m) => m.device.id === a.device)).device.name,
        shown: a.shown,
      }));
    return {
      bar: p.bar,
      atMs: p.startMs,
      section: p.section.name,
      bars: p.section.bars,
      bpm: p.bpm,
      notes: p.section.notes ?? '',
      sound: scene
        ? (rig.sounds.find((s) => s.id === scene.sound.id)?.name ?? scene.name)
        : `"${p.section.sound}" is gone`,
      engaged: scene ? engagedIn(rig, scene.sound) : [],
      shown,
      programs: shown.map((a) => `${a.name} ${a.shown}`).join(', '),
    };
  });
}

/** Sounds that no song calls, and how many different ones each song needs. */
export function soundUse(rig: Rig): {
  unused: string[];
  bySong: { song: string; sounds: string[] }[];
  missing: { song: string; section: string; sound: string }[];
} {
  const bySong = (rig.songs ?? []).map((s) => ({
    song: s.id,
    sounds: [...new Set(s.sections.map((x) => x.sound))].filter((id) =>
      rig.sounds.some((x) => x.id === id),
    ),
  }));
  const used = new Set(bySong.flatMap((s) => s.sounds));
  return {
    unused: rig.sounds.filter((s) => !used.has(s.id)).map((s) => s.id),
    bySong,
    missing: (rig.songs ?? []).flatMap((s) =>
      s.sections
        .filter((x) => !rig.sounds.some((y) => y.id === x.sound))
        .map((x) => ({ song: s.id, section: x.id, sound: x.sound })),
    ),
  };
}

/**
 * Edits that number every sound on a device: one after the other from wire 0, or, for a set and a
 * device that takes banks, a bank for each song in running order with its different sounds as
 * slots.
 */
export function numberSounds(rig: Rig, device: string): Edit[] {
  const m = sure(midiDevices(rig).get(device));
  const size = m.bank !== 'none' && m.shows.size ? m.shows.size : 128;
  return rig.sounds.map((s, i): Edit => ({
    edit: 'setProgram',
    device,
    sound: s.id,
    program: m.bank === 'none' ? { number: i } : { bank: Math.floor(i / size), number: i % size },
  }));
}

/**
 * Gives each song of a set a bank of its own on a device, in running order, and its different
 * sounds the slots of it.
 */
export function numberSongs(rig: Rig, set: SongSet, device: string): Outcome<Edit[]> {
  const m = sure(midiDevices(rig).get(device));
  if (m.bank === 'none')
    return refused(
      `${m.device.name} takes no bank select, so songs cannot have banks of their own on it.`,
    );
  const size = m.shows.size ?? 128;
  const songs = [...new Set(set.entries.map((e) => e.song))]
    .map((id) => rig.songs?.find((s) => s.id === id))
    .filter((s) => s !== undefined);
  const big = songs.find((s) => new Set(s.sections.map((x) => x.sound)).size > size);
  if (big)
    return refused(
      `${big.title} calls ${new Set(big.sections.map((x) => x.sound)).size} different ` +
        `sounds; a bank of ${m.device.name} holds ${size}.`,
    );
  const numbered = songs.map((song, bank): Edit => {
    const slots = [...new Set(song.sections.map((s) => s.sound))];
    return {
      edit: 'setSong',
      song: {
        ...song,
        sections: song.sections.map((s) => ({
          ...s,
          states: {
            ...s.states,
            [device]: { ...s.states?.[device], program: { bank, number: slots.indexOf(s.sound) } },
          },
        })),
      },
    };
  });
  return done(numbered);
}
