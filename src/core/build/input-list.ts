import { sure } from '../outcome';
import type { DestinationFigures } from '../signal';
import { type Hears, kindOf, settingWith } from '../kinds';
import { deviceOf, leadInto, nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';

/**
 * One line for the house or the monitors: what comes, by which lead, how loud, whether it is one
 * side of a pair. Levels in dBu over all sounds in which it is heard.
 */
export interface InputLine {
  device: string;
  jack: string;
  name: string;
  hears: Hears;
  from: string;
  feed: string;
  stereo: string;
  sources: string[];
  quietDbu: number | null;
  loudDbu: number | null;
  peakDbu: number | null;
  phantom: 'on' | 'off';
  sounds: number;
  /** What holds it up. */ stand: string;
}

const FEEDS: Partial<Record<string, string>> = {
  balanced: 'balanced',
  instrument: 'unbalanced',
  stereo: 'balanced',
  insert: 'unbalanced',
  digital: 'digital',
  air: 'microphone in air',
  speaker: 'speaker',
};

/**
 * What the house, a recorder and the in-ears get of this rig, jack by jack. Levels are nominal,
 * playing normally, at their lowest and highest over the sounds. Phantom power is told on for what
 * lives on it, and off for all else.
 */
export function inputList(
  rig: Rig,
  sounds: readonly { destinations: readonly DestinationFigures[] }[],
): InputLine[] {
  return rig.devices.flatMap((d): InputLine[] => {
    const destination = kindOf(d.kind).destination;
    if (!destination || destination.hears === 'stage' || destination.hears === 'tuner') return [];
    const figures = sounds.flatMap((s) => s.destinations.find((x) => x.device === d.id) ?? []);
    return destination.jacks.map((jack, i): InputLine => {
      const lead = leadInto(rig, d.id, jack);
      const at = figures.map((f) => f.sides[i] ?? { levelDbu: f.levelDbu, sources: f.sources });
      const sender = lead && kindOf(sure(deviceOf(rig, lead.from.device)).kind);
      const levels = at.flatMap((x) => (x.levelDbu ? [x.levelDbu.normal] : []));
      const input = settingWith(kindOf(d.kind), 'microphone or line');
      const mic = input && (d.settings?.[input.id] ?? input.initial) === 'mic';
      const pair = figures.find((f) => f.pairedWith)?.pairedWith;
      return {
        device: d.id,
        jack,
        hears: destination.hears,
        from: lead ? nameOf(rig, lead.from.device) : 'not connected',
        feed: lead
          ? `${FEEDS[lead.type] ?? lead.type}${mic ? ', microphone level' : ', line level'}`
          : '–',
        name: destination.jacks.length > 1 ? `${d.name}, ${i === 0 ? 'left' : 'right'}` : d.name,
        stereo:
          destination.jacks.length > 1
            ? figures.some((f) => f.channels === 'stereo')
              ? i === 0
                ? 'left of a pair'
                : 'right of a pair'
              : 'two that differ'
            : pair
              ? `pair with ${nameOf(rig, pair)}`
              : 'mono',
        sources: [...new Set(at.flatMap((x) => x.sources))].map((s) => nameOf(rig, s)),
        quietDbu: levels.length ? Math.min(...levels) : null,
        loudDbu: levels.length ? Math.max(...levels) : null,
        peakDbu: !levels.length
          ? null
          : figures.reduce<number | null>(
              (most, f) => (f.peakDbu === null ? most : Math.max(most ?? -Infinity, f.peakDbu)),
              null,
            ),
        phantom: sender?.phantom && mic ? 'on' : 'off',
        sounds: levels.length,
        stand:
          lead &&
          deviceOf(rig, lead.from.device) &&
          kindOf(sure(deviceOf(rig, lead.from.device)).kind).job === 'microphone'
            ? 'low stand with a boom'
            : '',
      };
    });
  });
}
