import { type MidiEvent, parseMidi } from 'midi-file';
import { setStage } from '../midi';
import { at as entryAt, done, type Outcome, refused, sure } from '../outcome';
import { cutText } from '../rig';
import { freshId } from '../rig/fresh-id';
import type { Meter, Rig, Section, Song, SongSet, Sound } from '../rig/schema';
import { quarterMs } from '../songs/tempo';
import { COMMON_TIME, quartersIn, timelineOf } from '../songs/timeline';
import { END_OF_SONG } from './smf';

const sameMeter = (a: Meter, b: Meter): boolean => a.beats === b.beats && a.unit === b.unit;

/** Places closer than this, in bars, are the same. */
const SLACK = 1e-3;

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

/** An event of a file with the tick at which it stands, from the beginning. */
type Ticked = { at: number; e: MidiEvent };

/** The meters of a file from their ticks on; one stands at the beginning, as the format says. */
function metersIn(all: readonly Ticked[]): { at: number; meter: Meter }[] {
  const changes = all.flatMap(({ at, e }) =>
    e.type === 'timeSignature'
      ? [{ at, meter: { beats: e.numerator, unit: e.denominator as Meter['unit'] } }]
      : [],
  );
  if (!changes.length || entryAt(changes, 0).at > 0) changes.unshift({ at: 0, meter: COMMON_TIME });
  return changes;
}

/** Bar and beat, both from 1, of a tick, where `per` ticks are a quarter note. */
function placeOf(
  tick: number,
  changes: readonly { at: number; meter: Meter }[],
  per: number,
): { bar: number; beat: number } {
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
}

/** Program changes with the bank that their channel last chose, in the order of the file. */
function programsIn(
  all: readonly Ticked[],
  place: (tick: number) => { bar: number; beat: number },
): SmfRead['programs'] {
  const banks = new Map<number, { msb?: number; lsb?: number }>();
  return all.flatMap(({ at, e }) => {
    if (e.type === 'controller' && (e.controllerType === 0 || e.controllerType === 32))
      banks.set(e.channel, {
        ...banks.get(e.channel),
        [e.controllerType === 0 ? 'msb' : 'lsb']: e.value,
      });
    if (e.type !== 'programChange') return [];
    const b = banks.get(e.channel);
    const bank =
      b && (b.msb !== undefined && b.lsb !== undefined ? (b.msb << 7) | b.lsb : (b.msb ?? b.lsb));
    return [
      {
        ...place(at),
        channel: e.channel + 1,
        number: e.programNumber,
        ...(bank !== undefined && { bank }),
      },
    ];
  });
}

/** Text of a file: UTF-8 where it is that, else one character a byte. */
function textOf(text: string): string {
  try {
    const bytes = Uint8Array.from(text, (c) => c.charCodeAt(0));
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return text;
  }
}

/** Which of a file's tracks is not there to its end; undefined where all are. */
function tornTrack(bytes: Uint8Array, tracks: number): number | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 14) return 1;
  let at = 8 + view.getUint32(4);
  for (let n = 1; n <= tracks;) {
    if (at + 8 > bytes.length || at + 8 + view.getUint32(at + 4) > bytes.length) return n;
    // Chunks of other programs may stand between the tracks.
    if (String.fromCharCode(...bytes.subarray(at, at + 4)) === 'MTrk') n++;
    at += 8 + view.getUint32(at + 4);
  }
  return undefined;
}

/** All events of a file in order, and how many ticks are a quarter note. */
function eventsOf(bytes: Uint8Array): Outcome<{ all: Ticked[]; per: number }> {
  let read: ReturnType<typeof parseMidi>;
  try {
    read = parseMidi(bytes);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return refused(`this is no Standard MIDI File, or it is torn: ${why}`);
  }
  const torn = tornTrack(bytes, read.header.numTracks);
  if (torn !== undefined)
    return refused(
      `the file is torn: track ${torn} of ${read.header.numTracks} is not there to its end; fetch it again`,
    );
  const per = read.header.ticksPerBeat;
  if (!per)
    return refused(
      'its times are in frames of film, not in notes; save it with ticks per quarter note',
    );
  const all = read.tracks
    .flatMap((t) => {
      let at = 0;
      return t.map((e): Ticked => ({ at: (at += e.deltaTime), e }));
    })
    .sort((a, b) => a.at - b.at);
  return done({ all, per });
}

/**
 * Reads tempo, meters, markers and program changes of a Standard MIDI File (formats 0 and 1, ticks
 * per quarter note).
 */
export function readSmf(bytes: Uint8Array): Outcome<SmfRead> {
  const events = eventsOf(bytes);
  return events.ok ? done(readEvents(events.value.all, events.value.per)) : events;
}

/** A marker up to a thirty-second note early belongs to the bar line that follows. */
const EARLY_SHARE = 1 / 8;

function readEvents(all: readonly Ticked[], per: number): SmfRead {
  const changes = metersIn(all);
  const place = (tick: number) => placeOf(tick, changes, per);
  const markerAt = (tick: number) => {
    const [here, soon] = [place(tick), place(tick + per * EARLY_SHARE)];
    return soon.bar > here.bar ? { bar: soon.bar, beat: 1 } : here;
  };
  return {
    title:
      all.flatMap(({ e }) => (e.type === 'trackName' && e.text ? [textOf(e.text)] : []))[0] ?? '',
    tempos: all.flatMap(({ at, e }) =>
      e.type === 'setTempo'
        ? [
            {
              bar: place(at).bar,
              bpm: Math.round((60_000_000 / e.microsecondsPerBeat) * 1000) / 1000,
            },
          ]
        : [],
    ),
    meters: changes.map((c) => ({ bar: place(c.at).bar, meter: c.meter })),
    markers: all.flatMap(({ at, e }) =>
      e.type === 'marker' || e.type === 'cuePoint'
        ? [{ ...markerAt(at), text: textOf(e.text) }]
        : [],
    ),
    programs: programsIn(all, place),
    bars: barsUntil(place(all.at(-1)?.at ?? 0)),
  };
}

type Program = SmfRead['programs'][number];

/** The sound in which a device that hears a program change keeps that program. */
const soundFor = (rig: Rig, stage: ReturnType<typeof setStage>, p: Program): Sound | undefined =>
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

/**
 * The programs of each section. They may go out on its beat or ahead of it, all by as much: the lead
 * is taken with which the fewest sections are left without one.
 */
function programsBySection(
  value: SmfRead,
  starts: readonly { bar: number; beat: number }[],
): (section: number) => Program[] {
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
  return (i) => programsOf(i, ahead);
}

/**
 * Makes a song of a Standard MIDI File: its markers are the sections, their bars the distance to
 * the next one, tempo changes land in them. A program change that one of the rig's sounds keeps
 * calls that sound; a section without one goes on with the sound before.
 */
function songOf(
  rig: Rig,
  value: SmfRead,
  name: string,
  { first, taken }: { first: Sound; taken: readonly string[] },
): Song {
  const starts = value.markers.length ? value.markers : [{ bar: 1, beat: 1, text: 'Song' }];
  const stage = setStage(rig);
  const soundOf = (p: Program) => soundFor(rig, stage, p);
  let sound = first.id;
  const ids: string[] = [];
  const programsOf = programsBySection(value, starts);
  const end = Math.max(value.bars, sure(starts.at(-1)).bar) + 1;
  const meterAt = (bar: number) => value.meters.findLast((m) => m.bar <= bar)?.meter ?? COMMON_TIME;
  const sections = starts.map((m, i): Section => {
    const next = starts[i + 1]?.bar ?? end;
    const own = programsOf(i)
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
    id: freshId(title, [...taken]),
    title,
    bpm,
    ...(meter && { meter }),
    sections,
  };
}

/**
 * Songs of a Standard MIDI File: of a whole set one from each cue point to its end, with the set that
 * they make; of any other file one. A song of the rig with the same title, tempo and sections is that
 * song, and is not read a second time.
 */
export function songsFromSmf(
  rig: Rig,
  bytes: Uint8Array,
  name: string,
): Outcome<{ songs: Song[]; set?: SongSet }> {
  const events = eventsOf(bytes);
  if (!events.ok) return events;
  const first = rig.sounds[0];
  if (!first) return refused('the rig has no sound that a song could call; add one first');
  const { all, per } = events.value;
  const parts = songParts(all);
  const had = rig.songs ?? [];
  const songs: Song[] = [];
  const taken = () => [...had, ...songs].map((s) => s.id);
  const read = parts.map((part) => {
    const value = readEvents(part.events, per);
    const song = songOf(rig, { ...value, title: part.title ?? value.title }, name, {
      first,
      taken: taken(),
    });
    const known = [...had, ...songs].find((s) => isSameSong(s, song));
    if (!known) songs.push(song);
    return known ?? song;
  });
  // Only a set names its songs by cue points, be it of one song.
  if (entryAt(parts, 0).title === undefined) return done({ songs: songs.length ? songs : read });
  const title = readEvents(all, per).title || name;
  const set = {
    id: freshId(
      title,
      (rig.sets ?? []).map((s) => s.id),
    ),
    name: cutText(title, 120) || 'Set',
    entries: read.map((s, i) => ({
      id: `e${i + 1}`,
      song: s.id,
      ...gapOf(entryAt(parts, i).gap, all, per),
    })),
  };
  return done({ songs, set });
}

/** From one tick of a file to another. */
interface Stretch {
  from: number;
  until: number;
}

/** Tempo of a file that says none, in bpm. */
const UNSAID_BPM = 120;

/** The time before a song, in whole seconds, where there is some, at the tempos that hold there. */
function gapOf({ from, until }: Stretch, all: readonly Ticked[], per: number): { gap?: number } {
  const tempos = all.flatMap(({ at, e }) =>
    e.type === 'setTempo' ? [{ at, ms: e.microsecondsPerBeat / 1000 }] : [],
  );
  const ms = [{ at: 0, ms: quarterMs(UNSAID_BPM) }, ...tempos].reduce((sum, tempo, i) => {
    const [start, end] = [Math.max(from, tempo.at), Math.min(until, tempos[i]?.at ?? Infinity)];
    return sum + (Math.max(0, end - start) / per) * tempo.ms;
  }, 0);
  const gap = Math.round(ms / 1000);
  return gap > 0 ? { gap } : {};
}

/** Whether two songs are the same to a file: title, sections, and every bar's length and tempo. */
function isSameSong(a: Song, b: Song): boolean {
  const sections = (song: Song) => JSON.stringify(song.sections.map((s) => [s.name, s.bars]));
  if (a.title !== b.title || sections(a) !== sections(b)) return false;
  const others = timelineOf(b).bars;
  return timelineOf(a).bars.every((bar, i) => {
    const other = entryAt(others, i);
    return bar.quarters === other.quarters && Math.abs(bar.bpm - other.bpm) < 0.01;
  });
}

/** The events of each song of a set, from its cue point to its end, counted from there; of a song all. */
function songParts(all: readonly Ticked[]): { title?: string; events: Ticked[]; gap: Stretch }[] {
  const cues = all.filter(({ e }) => e.type === 'cuePoint');
  const ends = all.filter(({ e }) => e.type === 'text' && e.text === END_OF_SONG);
  if (!cues.length || ends.length < cues.length)
    return [{ events: [...all], gap: { from: 0, until: 0 } }];
  return cues.map(({ at: from, e: cue }, i) => {
    const next = cues[i + 1]?.at ?? Infinity;
    // Where songs go straight on, the end of one stands where the next one begins.
    const end = ends.find((x) => x.at > from);
    const inside = all.filter(
      ({ at, e }) =>
        e === end?.e || (at >= from && at <= (end?.at ?? Infinity) && at < next && e !== cue),
    );
    // What held before it holds on: the last tempo; the meter is said anew.
    const tempo = all.findLast(({ at, e }) => at <= from && e.type === 'setTempo');
    const events = [...(tempo ? [{ ...tempo, at: from }] : []), ...inside];
    return {
      ...(cue.type === 'cuePoint' && { title: textOf(cue.text) }),
      events: events.map((t) => ({ ...t, at: t.at - from })),
      gap: { from: ends.findLast((x) => x.at <= from)?.at ?? 0, until: from },
    };
  });
}
