import { type MidiEvent, parseMidi } from 'midi-file';
import { setStage } from '../midi';
import { at as entryAt, done, type Outcome, refused, sure } from '../outcome';
import { cutText } from '../rig';
import { freshId } from '../rig/fresh-id';
import type { Meter, Rig, Section, Song, Sound } from '../rig/schema';
import { COMMON_TIME, quartersIn } from '../songs/timeline';

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

/**
 * Reads tempo, meters, markers and program changes of a Standard MIDI File (formats 0 and 1, ticks
 * per quarter note).
 */
export function readSmf(bytes: Uint8Array): Outcome<SmfRead> {
  let read: ReturnType<typeof parseMidi>;
  try {
    read = parseMidi(bytes);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return refused(`this is no Standard MIDI File, or it is torn: ${why}`);
  }
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
  const changes = metersIn(all);
  const place = (tick: number) => placeOf(tick, changes, per);
  return done({
    title: all.flatMap(({ e }) => (e.type === 'trackName' && e.text ? [e.text] : []))[0] ?? '',
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
      e.type === 'marker' || e.type === 'cuePoint' ? [{ ...place(at), text: e.text }] : [],
    ),
    programs: programsIn(all, place),
    bars: barsUntil(place(all.at(-1)?.at ?? 0)),
  });
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
export function songFromSmf(rig: Rig, bytes: Uint8Array, name: string): Outcome<Song> {
  const read = readSmf(bytes);
  if (!read.ok) return read;
  const { value } = read;
  const first = rig.sounds[0];
  if (!first) return refused('the rig has no sound that a song could call; add one first');
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
