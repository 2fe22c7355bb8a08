import { sure } from '../outcome';
import type { DestinationFigures } from '../signal';
import { isMicInput, type PhantomFeed, phantomFeeds } from '../circuit/phantom-feeds';
import { buildCircuit } from '../circuit';
import { type Hears, kindOf } from '../kinds';
import { deviceOf, leadInto, nameOf } from '../rig/find';
import type { End, Rig } from '../rig/schema';

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
  /** What phantom power is for here, or which other input feeds it. */
  phantomFor: string;
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
 * lives on it, at one of the inputs that metal joins it to, and off for all else.
 */
export function inputList(
  rig: Rig,
  sounds: readonly { destinations: readonly DestinationFigures[] }[],
): InputLine[] {
  const feeds = phantomFeeds(rig, buildCircuit(rig));
  return rig.devices.flatMap((d): InputLine[] => {
    const destination = kindOf(d.kind).destination;
    if (!destination || destination.hears === 'stage' || destination.hears === 'tuner') return [];
    const figures = sounds.flatMap((s) => s.destinations.find((x) => x.device === d.id) ?? []);
    return destination.jacks.map((jack, i): InputLine => {
      const lead = leadInto(rig, d.id, jack);
      const at = figures.map((f) => f.sides[i] ?? { levelDbu: f.levelDbu, sources: f.sources });
      const levels = at.flatMap((x) => (x.levelDbu ? [x.levelDbu.normal] : []));
      const mic = isMicInput(d);
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
        ...phantomAt(rig, feeds, { device: d.id, jack }),
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

/** Phantom power at one input: on where it is the one that feeds something. */
function phantomAt(
  rig: Rig,
  feeds: readonly PhantomFeed[],
  at: End,
): Pick<InputLine, 'phantom' | 'phantomFor'> {
  const isHere = (end: End) => end.device === at.device && end.jack === at.jack;
  const feed = feeds.find((f) => f.inputs.some(isHere));
  const first = feed?.inputs[0];
  if (!feed || !first) return { phantom: 'off', phantomFor: '' };
  return isHere(first)
    ? { phantom: 'on', phantomFor: `for ${feed.device.name}` }
    : { phantom: 'off', phantomFor: `${nameOf(rig, first.device)} feeds ${feed.device.name}` };
}
