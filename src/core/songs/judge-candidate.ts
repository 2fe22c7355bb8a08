import type { Candidate, ControllerWants } from '../rig/control-schema';
import type { Rig } from '../rig/schema';
import type { Needs } from './controller-choice';
import { fitLabel, widthOf } from './labels';
import { pageChanges, pagesFor } from './pads';
import { anyOf, howMany } from '../units';

/** One need, whether a candidate meets it, and why. */
export interface Point {
  need: string;
  met: boolean;
  why: string;
}

/**
 * How a candidate meets the needs: each point met or not, with the reason; how many pages of
 * switches the fullest song then takes, and how often one song changes pages at most.
 */
export interface Judged {
  candidate: string;
  points: Point[];
  misses: number;
  pages: number;
  pageChanges: number;
}

const UNSAID = 'its sheet does not say';

/** Holds a candidate against what the rig needs of it, and against what is wanted besides. */
export function judge(
  rig: Rig,
  needs: Needs,
  c: Candidate,
  wants: ControllerWants = rig.controllerWants ?? {},
): Judged {
  const songs = (rig.songs ?? []).map((song) => {
    const pages = pagesFor(rig, song.id, c.switches);
    return { song, pages: pages.length, changes: pageChanges(rig, song, pages) };
  });
  const most = Math.max(1, ...songs.map((s) => s.pages));
  const busiest = songs.toSorted((a, b) => b.changes - a.changes)[0];
  const points = [
    switchPoint(needs, c, most, busiest),
    pedalPoint(needs, c),
    ...sendPoints(needs, c),
    ...labelPoint(needs, c),
    ...yesNoPoints(c, wants),
    ...measuredPoints(c, wants),
  ];
  return {
    candidate: c.id,
    points,
    misses: points.filter((p) => !p.met).length,
    pages: most,
    pageChanges: busiest?.changes ?? 0,
  };
}

function switchPoint(
  { switches }: Needs,
  c: Candidate,
  pages: number,
  busiest: { song: { title: string }; changes: number } | undefined,
): Point {
  const met = c.switches >= switches.count;
  const short = switches.count - c.switches;
  const changes = busiest?.changes
    ? `, which ${busiest.song.title} changes ${busiest.changes === 1 ? 'once' : `${busiest.changes} times`}`
    : '';
  return {
    need: `${howMany(switches.count, 'switch', 'switches')} at once`,
    met,
    why: met
      ? `has ${c.switches}`
      : `has ${c.switches}: ${short} short${switches.song ? ` in ${switches.song}` : ''}, or ` +
        `${howMany(pages, 'page')}${changes}`,
  };
}

function pedalPoint({ pedals }: Needs, c: Candidate): Point {
  const jacks = c.pedals + c.pedalJacks;
  const met = jacks >= pedals.count;
  return {
    need: howMany(pedals.count, 'pedal'),
    met,
    why: met
      ? `${c.pedals} built in, ${c.pedalJacks} to plug in`
      : `takes ${jacks}; ${pedals.names.slice(jacks).join(', ')} would have no place`,
  };
}

const SENDS = { program: 'programs', control: 'control changes', clock: 'clock' } as const;

function sendPoints({ sends, twoWay }: Needs, c: Candidate): Point[] {
  const points = sends.map((s): Point => {
    const met = c.sends.includes(s.message);
    return {
      need: `sends ${SENDS[s.message]}`,
      met,
      why: met ? 'can' : `cannot, and ${s.because}`,
    };
  });
  if (!twoWay.needed) return points;
  const met = c.twoWay === true;
  return [...points, { need: 'hears back', met, why: met ? 'its lamps follow' : twoWay.because }];
}

function labelPoint({ letters }: Needs, c: Candidate): Point[] {
  if (c.labels !== 'screen' || c.letters === undefined) return [];
  const met = c.letters >= widthOf(letters.longest);
  return [
    {
      need: `shows "${letters.longest}"`,
      met,
      why: met
        ? howMany(c.letters, 'letter')
        : `${howMany(c.letters, 'letter')}: it reads "${fitLabel(letters.longest, c.letters)}"`,
    },
  ];
}

/** What a sheet says with yes or no: the need, what is said where it has it, and where not. */
const YES_NO = {
  toeSwitch: [
    'a toe switch',
    'the treadle switches what it moves',
    'what a treadle moves takes a switch of its own',
  ],
  quiet: [
    'quiet switches',
    'nothing clicks',
    'its switches click; a microphone close by hears them',
  ],
  softFloor: ['stands on soft floors', 'stands on carpet', 'rocks or sinks on carpet'],
  editor: ['is edited on a screen', 'has an editor', 'is programmed on itself only'],
} as const;

const yesNoPoints = (c: Candidate, wants: ControllerWants): Point[] =>
  (Object.keys(YES_NO) as (keyof typeof YES_NO)[])
    .filter((field) => wants[field])
    .map((field) => {
      const [need, has, lacks] = YES_NO[field];
      return {
        need,
        met: c[field] === true,
        why: c[field] === undefined ? UNSAID : c[field] ? has : lacks,
      };
    });

function measuredPoints(c: Candidate, wants: ControllerWants): Point[] {
  const points: Point[] = [];
  const { power, grams, price, widthMm, depthMm } = wants;
  if (power?.length)
    points.push({
      need: `runs on ${anyOf(power)}`,
      met: c.power !== undefined && power.includes(c.power),
      why: c.power ?? UNSAID,
    });
  if (widthMm !== undefined || depthMm !== undefined) {
    const says = c.widthMm !== undefined && c.depthMm !== undefined;
    points.push({
      need: `fits ${widthMm ?? 'any'} × ${depthMm ?? 'any'} mm`,
      met:
        says &&
        (c.widthMm ?? 0) <= (widthMm ?? Infinity) &&
        (c.depthMm ?? 0) <= (depthMm ?? Infinity),
      why: says ? `${c.widthMm} × ${c.depthMm} mm` : UNSAID,
    });
  }
  if (grams !== undefined)
    points.push(atMost('weighs', grams, c.grams, (g) => `${(g / 1000).toFixed(2)} kg`));
  if (price !== undefined) points.push(atMost('costs', price, c.price, String));
  return points;
}

function atMost(
  verb: string,
  most: number,
  value: number | undefined,
  show: (value: number) => string,
): Point {
  return {
    need: `${verb} ${show(most)} at most`,
    met: value !== undefined && value <= most,
    why: value === undefined ? UNSAID : show(value),
  };
}

/** What misses least first; of those alike, what changes pages least, then the cheapest. */
export const ranked = (rig: Rig, judged: readonly Judged[]): Judged[] => {
  const price = (j: Judged) => rig.candidates?.find((c) => c.id === j.candidate)?.price ?? Infinity;
  return judged.toSorted(
    (a, b) => a.misses - b.misses || a.pageChanges - b.pageChanges || price(a) - price(b) || 0,
  );
};
