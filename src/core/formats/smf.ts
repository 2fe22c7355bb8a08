import { type MidiEvent, parseMidi, writeMidi } from 'midi-file';
import { type Message, setStage, sortOf } from '../midi';
import { at as entryAt, type Outcome, sure } from '../outcome';
import { cutText } from '../rig';
import { nameOf } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Meter, Rig, Section, Song, SongSet } from '../rig/schema';
import { allScenes, runningOrder, sectionScene, timelineOf } from '../songs';
import { quarterMs } from '../songs/tempo';
import { COMMON_TIME, quartersIn } from '../songs/timeline';

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

const sameMeter = (a: Meter, b: Meter): boolean => a.beats === b.beats && a.unit === b.unit;

/** Places closer than this, in bars, are the same. */
const SLACK = 1e-3;

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

/** midi-file writes one byte a letter; other letters are spelled out plainly. */
const ascii = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[’‘]/g, "'")
    .replace(/[^\x20-\x7e]/g, '?');

/** Where songs stand in a file: each with the tick at which it begins. */
function put(
  rig: Rig,
  songs: readonly { song: Song; gapMs: number }[],
  lead: Lead,
): { conductor: Timed[]; messages: Map<string, Timed[]>; end: number } {
  const stage = setStage(rig, allScenes(rig));
  const conductor: Timed[] = [];
  const messages = new Map<string, Timed[]>();
  let tick = 0;
  let last: { bpm?: number; meter?: string } = {};
  const tempo = (at: number, bpm: number, meter: Meter) => {
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
  for (const { song, gapMs } of songs) {
    // A gap is counted at the tempo of the song that follows.
    tempo(tick, song.bpm, song.meter ?? COMMON_TIME);
    tick += (gapMs / quarterMs(song.bpm)) * TICKS;
    if (songs.length > 1)
      conductor.push({
        tick,
        rank: 2,
        event: { deltaTime: 0, type: 'cuePoint', meta: true, text: ascii(song.title) },
      });
    const line = timelineOf(song);
    const tickOfBar = new Map<number, number>();
    let at = tick;
    for (const b of line.bars) {
      tempo(at, b.bpm, b.meter);
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
          text: ascii(p.section.name),
        },
      });
      const scene = sectionScene(rig, song, p.section.id);
      if (!scene) continue;
      const before = line.bars.findLast((b) => b.number < p.bar);
      const ahead =
        lead.ms !== undefined
          ? (lead.ms / quarterMs((before ?? p).bpm)) * TICKS
          : (lead.bars ?? 0) * quartersIn(before?.meter ?? p.meter) * TICKS;
      // Nothing goes out before the file begins.
      const when = Math.max(0, start - ahead);
      for (const root of stage.orders.roots(scene)) {
        const list = messages.get(root) ?? [];
        messages.set(root, list);
        (stage.orders.commands(scene).get(root) ?? []).forEach((c, i) => {
          const event = message(c.message);
          if (event) list.push({ tick: when, rank: 10 + i, event });
        });
      }
    }
    tick = at;
  }
  return { conductor, messages, end: tick };
}

function file(
  rig: Rig,
  name: string,
  songs: readonly { song: Song; gapMs: number }[],
  lead: Lead,
): Uint8Array {
  const { conductor, messages, end } = put(rig, songs, lead);
  const named = (text: string): MidiEvent => ({
    deltaTime: 0,
    type: 'trackName',
    meta: true,
    text: ascii(text),
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
  file(rig, song.title, [{ song, gapMs: 0 }], lead);

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
  );
}

/**
 * A Standard MIDI File, read: tempo changes, meters, markers and program changes, each at its bar
 * (from 1) and beat.
 */
export interface SmfRead {
  title: string;
  tempos: { bar: number; bpm: number }[];
  meters: { bar: number; meter: Meter }[];
  markers: { bar: number; beat: number; text: string }[];
  programs: { bar: number; beat: number; channel: number; bank?: number; number: number }[];
  bars: number;
}

const barsUntil = ({ bar, beat }: { bar: number; beat: number }): number =>
  beat > 1 + SLACK ? bar : bar - 1;

/**
 * Reads tempo, meters, markers and program changes of a Standard MIDI File (formats 0 and 1, ticks
 * per quarter note).
 */
export function readSmf(bytes: Uint8Array): Outcome<SmfRead> {
  let read: ReturnType<typeof parseMidi>;
  try {
    read = parseMidi(bytes);
  } catch (error) {
    return {
      ok: false,
      problems: [
        {
          where: '',
          what:
            'this is no Standard MIDI File, or it is ' +
            `torn: ${error instanceof Error ? error.message : String(error)}`,
        },
      ],
    };
  }
  const per = read.header.ticksPerBeat;
  if (!per)
    return {
      ok: false,
      problems: [
        {
          where: '',
          what: 'its times are in frames of film, not in notes; save it with ticks per quarter note',
        },
      ],
    };
  const all = read.tracks
    .flatMap((t) => {
      let at = 0;
      return t.map((e) => ({ at: (at += e.deltaTime), e }));
    })
    .sort((a, b) => a.at - b.at);
  const changes = all.flatMap(({ at, e }) =>
    e.type === 'timeSignature'
      ? [{ at, meter: { beats: e.numerator, unit: e.denominator as Meter['unit'] } }]
      : [],
  );
  if (!changes.length || entryAt(changes, 0).at > 0) changes.unshift({ at: 0, meter: COMMON_TIME });
  const place = (tick: number): { bar: number; beat: number } => {
    let bar = 1;
    for (const [i, c] of changes.entries()) {
      const size = quartersIn(c.meter) * per;
      const until = changes[i + 1]?.at ?? Infinity;
      if (tick < until) {
        const inside = tick - c.at;
        return {
          bar: bar + Math.floor(inside / size + 1e-9),
          beat: 1 + (inside % size) / ((per * 4) / c.meter.unit),
        };
      }
      bar += Math.round((until - c.at) / size);
    }
    return { bar, beat: 1 };
  };
  const banks = new Map<number, { msb?: number; lsb?: number }>();
  const result: SmfRead = {
    title: '',
    tempos: [],
    meters: changes.map((c) => ({ bar: place(c.at).bar, meter: c.meter })),
    markers: [],
    programs: [],
    bars: barsUntil(place(all.at(-1)?.at ?? 0)),
  };
  for (const { at, e } of all) {
    if (e.type === 'trackName' && !result.title) result.title = e.text;
    else if (e.type === 'setTempo')
      result.tempos.push({
        bar: place(at).bar,
        bpm: Math.round((60_000_000 / e.microsecondsPerBeat) * 1000) / 1000,
      });
    else if (e.type === 'marker' || e.type === 'cuePoint')
      result.markers.push({ ...place(at), text: e.text });
    else if (e.type === 'controller' && (e.controllerType === 0 || e.controllerType === 32))
      banks.set(e.channel, {
        ...banks.get(e.channel),
        [e.controllerType === 0 ? 'msb' : 'lsb']: e.value,
      });
    else if (e.type === 'programChange') {
      const b = banks.get(e.channel);
      const bank =
        b && (b.msb !== undefined && b.lsb !== undefined ? (b.msb << 7) | b.lsb : (b.msb ?? b.lsb));
      result.programs.push({
        ...place(at),
        channel: e.channel + 1,
        number: e.programNumber,
        ...(bank !== undefined && { bank }),
      });
    }
  }
  return { ok: true, value: result };
}

/**
 * Makes a song of a Standard MIDI File: its markers are the sections, their bars the distance to
 * the next one, tempo changes land in them. A program change that one of the rig's sounds keeps
 * calls that sound; a section without one goes on with the sound before.
 */
export function songFromSmf(rig: Rig, bytes: Uint8Array, name: string): Outcome<Song> {
  const read = readSmf(bytes);
  if (!read.ok) return read;
  const { value } = read;
  const first = rig.sounds[0];
  if (!first)
    return {
      ok: false,
      problems: [{ where: '', what: 'the rig has no sound that a song could call; add one first' }],
    };
  const starts = value.markers.length ? value.markers : [{ bar: 1, beat: 1, text: 'Song' }];
  const stage = setStage(rig);
  const soundOf = (p: SmfRead['programs'][number]) =>
    rig.sounds.find((s) =>
      [...stage.orders.graph.devices.values()].some(
        (m) =>
          m.programs &&
          (m.channel === 'all' || m.channel === p.channel) &&
          s.states[m.device.id]?.program?.number === p.number &&
          (s.states[m.device.id]!.program!.bank ?? 0) ===
            (m.bank === 'none' ? (s.states[m.device.id]!.program!.bank ?? 0) : (p.bank ?? 0)),
      ),
    );
  let sound = first.id;
  const ids: string[] = [];
  const whereIs = (x: { bar: number; beat: number }) =>
    x.bar + (x.beat - 1) / (value.meters.findLast((m) => m.bar <= x.bar)?.meter.beats ?? 4);
  /**
   * The programs of a section, where all go out so much ahead, in bars; those of the first may have
   * no room to.
   */
  const programsOf = (i: number, ahead: number) => {
    const [from, until] = [
      i === 0 ? -Infinity : whereIs(entryAt(starts, i)) - ahead - SLACK,
      starts[i + 1] ? whereIs(entryAt(starts, i + 1)) - ahead - SLACK : Infinity,
    ];
    return value.programs.filter((p) => whereIs(p) >= from && whereIs(p) < until);
  };
  // On the beat or ahead of it: the lead with which the fewest sections are left without a program.
  const leads = [
    ...new Set([
      0,
      1,
      ...value.programs.flatMap((p) => {
        const next = starts.find((m) => whereIs(m) >= whereIs(p) - SLACK);
        return next ? [Math.max(0, whereIs(next) - whereIs(p))] : [];
      }),
    ]),
  ].sort((x, y) => x - y);
  const empty = (ahead: number) =>
    starts.slice(1).filter((_, i) => programsOf(i + 1, ahead).length === 0).length;
  const ahead = leads.reduce((best, x) => (empty(x) < empty(best) ? x : best), 0);
  const end = Math.max(value.bars, sure(starts.at(-1)).bar) + 1;
  const meterAt = (bar: number) => value.meters.findLast((m) => m.bar <= bar)?.meter ?? COMMON_TIME;
  const sections = starts.map((m, i): Section => {
    const next = starts[i + 1]?.bar ?? end;
    const own = programsOf(i, ahead)
      .map(soundOf)
      .findLast((s) => s !== undefined);
    if (own) sound = own.id;
    const id = freshId(m.text || 'section', ids);
    ids.push(id);
    const tempos = value.tempos
      .filter((t) => t.bar >= m.bar && t.bar < next && !(i === 0 && t.bar === m.bar))
      .map((t) => ({ bar: t.bar - m.bar + 1, bpm: t.bpm }));
    return {
      id,
      name: cutText(m.text || `Section ${i + 1}`, 120),
      bars: Math.max(1, next - m.bar),
      sound,
      ...(sameMeter(meterAt(m.bar), meterAt(1)) ? {} : { meter: meterAt(m.bar) }),
      ...(tempos.length && { tempos }),
    };
  });
  const title = cutText(value.title || name, 120) || 'Song';
  const bpm = Math.min(400, Math.max(20, value.tempos[0]?.bpm ?? 120));
  const meter = value.meters[0]?.meter;
  return {
    ok: true,
    value: {
      id: freshId(
        title,
        (rig.songs ?? []).map((s) => s.id),
      ),
      title,
      bpm,
      ...(meter && { meter }),
      sections,
    },
  };
}
