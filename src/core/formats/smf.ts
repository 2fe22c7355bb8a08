import { type MidiEvent, writeMidi } from 'midi-file';
import {
  addressIn,
  type Message,
  programMessages,
  setStage,
  sortOf,
  type Stage,
  timed,
} from '../midi';
import { sure } from '../outcome';
import { nameOf } from '../rig/find';
import type { Meter, Rig, Song, SongSet } from '../rig/schema';
import type { Scene } from '../control/scene';
import { allScenes, runningOrder, sectionScene, timelineOf } from '../songs';
import { quarterMs } from '../songs/tempo';
import { COMMON_TIME, quartersIn, type Timeline } from '../songs/timeline';

/** Ticks in a quarter note. */
export const TICKS = 480;

/**
 * When the messages of a section go out: on its first beat, or so much ahead. Half a beat ahead
 * unless said otherwise.
 */
export interface Lead {
  bars?: number;
  ms?: number;
}

interface Timed {
  tick: number;
  rank: number;
  event: MidiEvent;
}

const message = (m: Message): MidiEvent | undefined => {
  const event = sortOf(m).event(m);
  return event && { deltaTime: 0, ...event };
};

/** Delta times from times; text is kept to what every reader shows. */
function track(events: Timed[], end: number): MidiEvent[] {
  let at = 0;
  const sorted = [...events].sort((a, b) => a.tick - b.tick || a.rank - b.rank);
  const out = sorted.map(({ tick, event }) => {
    const deltaTime = Math.max(0, Math.round(tick) - at);
    at = Math.max(at, Math.round(tick));
    return { ...event, deltaTime };
  });
  return [...out, { deltaTime: Math.max(0, Math.round(end) - at), type: 'endOfTrack', meta: true }];
}

/** Text of any script as a file has it: the bytes of UTF-8, each as one character. */
const fileText = (text: string): string => String.fromCharCode(...new TextEncoder().encode(text));

/** What a text of a file that stands at the end of a song says, so that a gap belongs to none. */
export const END_OF_SONG = 'end of song';

/** Writes tempo and meter where they change; said again where they do not, they are left out. */
function tempoTrack(conductor: Timed[]) {
  let last: { bpm?: number; meter?: string } = {};
  const from = (at: number, bpm: number, meter: Meter): void => {
    if (last.bpm !== bpm)
      conductor.push({
        tick: at,
        rank: 0,
        event: {
          deltaTime: 0,
          type: 'setTempo',
          meta: true,
          microsecondsPerBeat: Math.round(quarterMs(bpm) * 1000),
        },
      });
    const text = `${meter.beats}/${meter.unit}`;
    if (last.meter !== text)
      conductor.push({
        tick: at,
        rank: 1,
        event: {
          deltaTime: 0,
          type: 'timeSignature',
          meta: true,
          numerator: meter.beats,
          denominator: meter.unit,
          metronome: 24,
          thirtyseconds: 8,
        },
      });
    last = { bpm, meter: text };
  };
  /** What comes next says its meter, whatever came before: its first bar begins there. */
  const anew = (): void => void (last = { ...last, meter: '' });
  return { from, anew };
}

/** How far ahead of its section a message goes out, in ticks at the tempo of the bar before it. */
function ticksAhead(lead: Lead, line: Timeline, p: Timeline['sections'][number]): number {
  const before = line.bars.findLast((b) => b.number < p.bar);
  return lead.ms !== undefined
    ? (lead.ms / quarterMs((before ?? p).bpm)) * TICKS
    : (lead.bars ?? 0) * quartersIn(before?.meter ?? p.meter) * TICKS;
}

/**
 * How a scene is called on a sender. A switcher or modeler that keeps it at a program of its own is
 * called there, and tells the others itself; what only gives its list on a foot's press has the list
 * played in its place.
 */
function callOf(stage: Stage, scene: Scene, root: string): { message: Message; afterMs: number }[] {
  const m = stage.orders.graph.devices.get(root);
  const address = addressIn(scene, root);
  if (!m || m.commands || !m.recalls || !m.programs || !address)
    return timed(stage.orders.commands(scene).get(root) ?? [], 'message');
  const channel = m.channel === 'all' ? 1 : m.channel;
  const select = m.bank === 'none' && address.bank !== undefined ? 'none' : m.bank;
  return programMessages(channel, address.number, address.bank, select).map((message) => ({
    message,
    afterMs: 0,
  }));
}

/** Where songs stand in a file: each with the tick at which it begins. */
function put(
  rig: Rig,
  songs: readonly { song: Song; gapMs: number }[],
  lead: Lead,
  isSet: boolean,
): { conductor: Timed[]; messages: Map<string, Timed[]>; end: number } {
  const stage = setStage(rig, allScenes(rig));
  const conductor: Timed[] = [];
  const messages = new Map<string, Timed[]>();
  const send = (scene: Scene, tick: number, bpm: number) => {
    for (const root of stage.orders.roots(scene)) {
      const list = messages.get(root) ?? [];
      messages.set(root, list);
      callOf(stage, scene, root).forEach((c, i) => {
        const event = message(c.message);
        const late = (c.afterMs / quarterMs(bpm)) * TICKS;
        if (event) list.push({ tick: tick + late, rank: 10 + i, event });
      });
    }
  };
  let tick = 0;
  const tempo = tempoTrack(conductor);
  for (const { song, gapMs } of songs) {
    // A gap is counted at the tempo of the song that follows; bars are counted anew behind it.
    if (gapMs > 0) tempo.from(tick, song.bpm, song.meter ?? COMMON_TIME);
    tick += (gapMs / quarterMs(song.bpm)) * TICKS;
    tempo.anew();
    if (isSet)
      conductor.push({
        tick,
        rank: 2,
        event: { deltaTime: 0, type: 'cuePoint', meta: true, text: fileText(song.title) },
      });
    const line = timelineOf(song);
    const tickOfBar = new Map<number, number>();
    let at = tick;
    for (const b of line.bars) {
      tempo.from(at, b.bpm, b.meter);
      tickOfBar.set(b.number, at);
      at += b.quarters * TICKS;
    }
    for (const p of line.sections) {
      const start = sure(tickOfBar.get(p.bar));
      conductor.push({
        tick: start,
        rank: 3,
        event: {
          deltaTime: 0,
          type: 'marker',
          meta: true,
          text: fileText(p.section.name),
        },
      });
      const scene = sectionScene(rig, song, p.section.id);
      // Nothing goes out before the file begins.
      if (scene) send(scene, Math.max(0, start - ticksAhead(lead, line, p)), p.bpm);
    }
    tick = at;
    if (isSet)
      conductor.push({
        tick,
        rank: 4,
        event: { deltaTime: 0, type: 'text', meta: true, text: END_OF_SONG },
      });
  }
  return { conductor, messages, end: tick };
}

function file(
  rig: Rig,
  name: string,
  songs: readonly { song: Song; gapMs: number }[],
  lead: Lead,
  isSet: boolean,
): Uint8Array {
  const { conductor, messages, end } = put(rig, songs, lead, isSet);
  const named = (text: string): MidiEvent => ({
    deltaTime: 0,
    type: 'trackName',
    meta: true,
    text: fileText(text),
  });
  const tracks = [
    [named(name), ...track(conductor, end)],
    ...[...messages].map(([sender, list]) => [named(nameOf(rig, sender)), ...track(list, end)]),
  ];
  return Uint8Array.from(
    writeMidi({ header: { format: 1, numTracks: tracks.length, ticksPerBeat: TICKS }, tracks }),
  );
}

/**
 * A song as a Standard MIDI File: tempo map, meters, a marker for each section, and what each
 * sender sends, at its beat or ahead of it.
 */
export const songToSmf = (rig: Rig, song: Song, lead: Lead = {}): Uint8Array =>
  file(rig, song.title, [{ song, gapMs: 0 }], lead, false);

/**
 * A set as one Standard MIDI File, its songs one after the other with their changeovers; a cue
 * point names each.
 */
export function setToSmf(rig: Rig, set: SongSet, lead: Lead = {}): Uint8Array {
  const lines = runningOrder(rig, set).lines.filter((l) => l.song);
  return file(
    rig,
    set.name,
    lines.map((l) => ({ song: l.song!, gapMs: l.changeover.seconds * 1000 })),
    lead,
    true,
  );
}
