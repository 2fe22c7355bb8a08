import { kindOf } from '../kinds';
import { ordersOf } from '../midi/commands';
import { reachIn } from '../midi/graph';
import { wantsClock } from '../midi/setup';
import { changesElsewhere } from '../midi/message-reach';
import { allControls } from '../control/all-controls';
import type { Rig } from '../rig/schema';
import { alwaysThere } from './always-there';
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
