import { kindOf } from '../kinds';
import { ordersOf } from '../midi/commands';
import { reachIn } from '../midi/graph';
import { wantsClock } from '../midi/setup';
import { changesElsewhere } from '../midi/message-reach';
import { allControls } from '../control/all-controls';
import type { Candidate, Rig } from '../rig/schema';
import { fitLabel } from './labels';
import { allScenes, sectionScene } from '../control/scene';

/** What a foot controller has to do for this rig and its songs, each with where it comes from. */
export interface Needs {
  /** Switches within reach at once: the most different sounds in any song, and what is always there. */
  switches: { count: number; sounds: number; song?: string; always: string[] };
  pedals: { count: number; names: string[] };
  sends: { message: 'program' | 'control' | 'clock'; because: string }[];
  twoWay: { needed: boolean; because: string };
  letters: { count: number; longest: string };
}

/** Tempo devices that are tapped want a tap switch; so does a tuner or mute that no sound calls. */
function alwaysThere(rig: Rig): string[] {
  const tap = rig.devices.some((d) => d.tempo?.way === 'tap');
  const tuner = rig.devices.find((d) => kindOf(d.kind).job === 'tuner' && !kindOf(d.kind).alwaysOn);
  return [...(tap ? ['tap'] : []), ...(tuner ? ['tuner'] : [])];
}

/** Derives what a controller has to do from the rig and its songs; without songs, from all its sounds. */
export function controllerNeeds(rig: Rig): Needs {
  const songs = rig.songs ?? [];
  const most = songs
    .map((s) => ({
      song: s.title,
      sounds: new Set(s.sections.map((x) => sectionScene(rig, s, x.id)?.id).filter(Boolean)).size,
    }))
    .sort((a, b) => b.sounds - a.sounds)[0];
  const sounds = most?.sounds ?? rig.sounds.length;
  const always = alwaysThere(rig);
  const pedals = allControls(rig).filter(
    (c) =>
      c.type === 'pedal' &&
      (c.device === undefined ||
        !kindOf(rig.devices.find((d) => d.id === c.device)?.kind ?? 'expression-pedal').through),
  );
  const orders = ordersOf(rig, allScenes(rig));
  const commands = orders.scenes.flatMap((s) => [...orders.commands(s).values()].flat());
  const name = (id: string | undefined) => rig.devices.find((d) => d.id === id)?.name ?? 'a device';
  const program = commands.find((c) => c.message.type === 'program');
  const control = commands.find((c) => c.message.type === 'control');
  const clocked = [...orders.graph.devices.values()].filter(wantsClock);
  const led =
    clocked.length > 0 &&
    !clocked.every((m) =>
      [...orders.graph.devices.values()].some(
        (s) =>
          s.clock === 'send' && !s.commands && reachIn(orders.graph, s.device.id).has(m.device.id),
      ),
    );
  const elsewhere = [...orders.graph.devices.values()].filter(
    (m) => !m.commands && changesElsewhere(m) && commands.some((c) => c.to === m.device.id),
  );
  const names = [...songs.map((s) => s.title), ...rig.sounds.map((s) => s.name)];
  const longest = names.reduce((a, b) => (b.length > a.length ? b : a), '');
  return {
    switches: { count: sounds + always.length, sounds, ...(most && { song: most.song }), always },
    pedals: { count: pedals.length, names: pedals.map((p) => p.name) },
    sends: [
      ...(program
        ? [
            {
              message: 'program' as const,
              because: `${name(program.to)} keeps its sounds as programs`,
            },
          ]
        : []),
      ...(control
        ? [
            {
              message: 'control' as const,
              because: `${name(control.to)} is set by control changes`,
            },
          ]
        : []),
      ...(led
        ? [
            {
              message: 'clock' as const,
              because:
                `${clocked.map((m) => m.device.name).join(', ')} ` +
                `follow${clocked.length === 1 ? 's' : ''} clock and nothing else leads`,
            },
          ]
        : []),
    ],
    twoWay: elsewhere.length
      ? {
          needed: true,
          because:
            `${elsewhere.map((m) => m.device.name).join(', ')} can be changed ` +
            `on ${elsewhere.length === 1 ? 'itself' : 'themselves'}: lamps go stale ` +
            'without word back',
        }
      : { needed: false, because: 'nothing is switched elsewhere' },
    letters: { count: longest.length, longest },
  };
}

/**
 * How a candidate meets the needs: each point met or not, with the reason, and how many pages of
 * switches each song then takes.
 */
export interface Judged {
  candidate: string;
  points: { need: string; met: boolean; why: string }[];
  misses: number;
  pages: number;
}

/** Holds a candidate against the needs. `room` is what is left on the board, in mm. */
export function judge(
  rig: Rig,
  needs: Needs,
  c: Candidate,
  room?: { width: number; depth: number },
): Judged {
  const pages = Math.max(
    1,
    ...(rig.songs ?? []).map((s) => pagesFor(rig, s.id, c.switches).length),
  );
  const jacks = c.pedals + c.pedalJacks;
  const points = [
    {
      need: `${needs.switches.count} switches at once`,
      met: c.switches >= needs.switches.count,
      why:
        c.switches >= needs.switches.count
          ? `has ${c.switches}`
          : `has ${c.switches}: ${needs.switches.count - c.switches} ` +
            `short${needs.switches.song ? ` in ${needs.switches.song}` : ''}, or ${pages} pages`,
    },
    {
      need: `${needs.pedals.count} ${needs.pedals.count === 1 ? 'pedal' : 'pedals'}`,
      met: jacks >= needs.pedals.count,
      why:
        jacks >= needs.pedals.count
          ? `${c.pedals} built in, ${c.pedalJacks} to plug in`
          : `takes ${jacks}; ${needs.pedals.names.slice(jacks).join(', ')} would have no place`,
    },
    ...needs.sends.map((s) => ({
      need: `sends ${s.message === 'control' ? 'control changes' : s.message === 'program' ? 'programs' : 'clock'}`,
      met: c.sends.includes(s.message),
      why: c.sends.includes(s.message) ? 'can' : `cannot, and ${s.because}`,
    })),
    ...(needs.twoWay.needed
      ? [
          {
            need: 'hears back',
            met: c.twoWay === true,
            why: c.twoWay ? 'its lamps follow' : needs.twoWay.because,
          },
        ]
      : []),
    ...(c.labels === 'screen' && c.letters !== undefined
      ? [
          {
            need: `shows "${needs.letters.longest}"`,
            met: c.letters >= needs.letters.count,
            why:
              c.letters >= needs.letters.count
                ? `${c.letters} letters`
                : `${c.letters} letters: it reads "${fitLabel(needs.letters.longest, c.letters)}"`,
          },
        ]
      : []),
    ...(room && c.widthMm !== undefined && c.depthMm !== undefined
      ? [
          {
            need: `fits ${room.width} × ${room.depth} mm`,
            met: c.widthMm <= room.width && c.depthMm <= room.depth,
            why: `${c.widthMm} × ${c.depthMm} mm`,
          },
        ]
      : []),
  ];
  return { candidate: c.id, points, misses: points.filter((p) => !p.met).length, pages };
}

/** One switch of a page: what it calls or does, and its label. */
export interface Pad {
  label: string;
  scene?: string;
  does?: string;
}

/**
 * Pages of switches for a song: its different sounds in the order in which they are first called,
 * what is always there at the end of every page. A change between pages costs a press, so sounds
 * that follow one another share a page where they can.
 */
export function pagesFor(rig: Rig, songId: string, switches: number, letters = 12): Pad[][] {
  const song = rig.songs?.find((s) => s.id === songId);
  const always = alwaysThere(rig).slice(0, Math.max(0, switches - 1));
  const scenes = song
    ? song.sections.map((s) => sectionScene(rig, song, s.id)).filter((s) => s !== undefined)
    : rig.sounds.map((s) => ({ id: s.id, name: s.name, sound: s }));
  const different = [...new Map(scenes.map((s) => [s.id, s])).values()];
  const room = Math.max(1, switches - always.length);
  const pages: Pad[][] = [];
  const soundName = (s: (typeof different)[number]) =>
    rig.sounds.find((x) => x.id === s.sound.id)?.name ?? s.name;
  for (let i = 0; i < different.length || i === 0; i += room) {
    const own = different
      .slice(i, i + room)
      .map((s): Pad => ({ label: fitLabel(soundName(s), letters), scene: s.id }));
    pages.push([...own, ...always.map((does): Pad => ({ label: does, does }))]);
  }
  return pages;
}
