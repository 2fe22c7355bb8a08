import { sure, at as entryAt } from '../core/outcome';
import {
  allPairs,
  numbersOn,
  bytesOf,
  hex,
  keyWords,
  messageWords,
  midiDevices,
  runChange,
  type Stage,
} from '../core/midi';
import { nameOf, type Rig } from '../core/rig';
import type { Scene } from '../core/songs';
import {
  cueSheet,
  delayTimes,
  programMap,
  runningOrder,
  soundsIn,
  soundUse,
  tempoDevices,
  timelineOf,
} from '../core/songs';
import { round } from './round';

/** A scene by its id, or by the name of a sound, or as "Song, Section". */
export function findScene(stage: Stage, rig: Rig, text: string): Scene | undefined {
  const wanted = text.trim().toLowerCase();
  const scenes = stage.orders.scenes;
  return (
    scenes.find((s) => s.id === text) ??
    scenes.find((s) => s.name.toLowerCase() === wanted) ??
    scenes.find((s) => rig.sounds.find((x) => x.id === s.id)?.name.toLowerCase() === wanted)
  );
}

const ms = (x: number) => round(x, 3) ?? NaN;

/**
 * One change as it happens: messages with bytes and times, what each device did and when, and how
 * everything stands at the end.
 */
export function changeJson(stage: Stage, rig: Rig, from: Scene, to: Scene, bpm?: number) {
  const change = runChange(stage, from, to, { bpm });
  const devices = midiDevices(rig);
  return {
    rig: rig.name,
    from: from.name,
    to: to.name,
    pressed: change.pressed,
    messages: change.traffic.sent.map((s) => ({
      lead: s.lead,
      from: s.from,
      to: s.to,
      bytes: hex(s.bytes),
      startMs: ms(s.start),
      endMs: ms(s.end),
      type: s.message.type,
      ...('channel' in s.message && { channel: s.message.channel }),
      words: messageWords(s.message),
    })),
    effects: change.landings.map((l) => ({
      device: l.device,
      name: nameOf(rig, l.device),
      message: hex(bytesOf(l.message)),
      arrivedMs: ms(l.arrived),
      effectMs: ms(l.at),
      what: l.effect.what,
      ...(l.effect.what === 'program' && { recalls: l.effect.recalled.name }),
    })),
    order: change.order.map((o) => ({ device: o.device, inPlaceMs: ms(o.at) })),
    doneMs: ms(change.doneMs),
    silentMs: ms(change.silentMs),
    endless: change.traffic.endless,
    endStates: [...change.end].map(([id, s]) => {
      const m = sure(devices.get(id));
      const wrong = change.mismatches.filter((x) => x.device === id);
      const address = s.program && {
        ...(m.bank !== 'none' && { bank: s.program.bank }),
        number: s.program.number,
      };
      return {
        device: id,
        name: m.device.name,
        ...(address && { program: { ...address, shown: numbersOn(m, address) } }),
        settings: Object.fromEntries(
          [...s.values].map(([k, v]) => [k, typeof v === 'number' ? round(v, 3) : v]),
        ),
        asMeant: wrong.length === 0,
      };
    }),
    mismatches: change.mismatches.map((m) => ({
      device: m.device,
      setting: m.key,
      wanted: m.wanted,
      got: m.got ?? null,
      because: m.because,
      words: keyWords(rig, m),
    })),
    ...(bpm !== undefined && {
      jitter: change.jitter.map((j) => ({
        device: j.device,
        ticks: j.ticks,
        worstMs: ms(j.worstMs),
        typicalMs: ms(j.typicalMs),
      })),
    }),
  };
}

/** How devices are set up, what every scene sends, and all ordered pairs. */
export function midiJson(stage: Stage, rig: Rig) {
  const pairs = allPairs(stage);
  const name = (id: string) => stage.orders.scenes.find((s) => s.id === id)?.name ?? id;
  return {
    rig: rig.name,
    devices: [...midiDevices(rig).values()].map((m) => ({
      device: m.device.id,
      name: m.device.name,
      channel: m.channel,
      thru: m.thru,
      bankSelect: m.bank,
      clock: m.clock,
      commander: stage.orders.commanderOf.get(m.device.id) ?? null,
      programMs: m.programMs,
      controlMs: m.controlMs,
      thruMs: m.thruMs,
    })),
    scenes: stage.orders.scenes.map((s) => ({
      scene: s.id,
      name: s.name,
      pressed: stage.orders.roots(s),
      doneMs: ms(pairs.doneMs[s.id] ?? 0),
      commands: [...stage.orders.commands(s).values()].flat().map((c) => ({
        from: c.from,
        to: c.to ?? null,
        bytes: hex(bytesOf(c.message)),
        words: messageWords(c.message),
        written: c.written,
        ...(c.waitMs !== undefined && { waitMs: c.waitMs }),
        ...(c.when && { when: c.when }),
      })),
    })),
    pairs: {
      count: pairs.pairs,
      good: pairs.good,
      byHand: pairs.byHand,
      slowest: pairs.slowest && {
        from: name(pairs.slowest.from),
        to: name(pairs.slowest.to),
        ms: ms(pairs.slowest.ms),
      },
      faults: pairs.faults.map((f) => ({
        device: f.device,
        because: f.because,
        cure: f.cure,
        settings: f.keys,
        count: f.count,
        pairs: f.pairs.map((p) => ({ from: name(p.from), to: name(p.to) })),
      })),
    },
  };
}

/** Songs in time with their delays, sets with clock times, the program map, and which sounds are used. */
export function songsJson(rig: Rig) {
  const use = soundUse(rig);
  const map = programMap(rig);
  return {
    rig: rig.name,
    songs: (rig.songs ?? []).map((song) => {
      const line = timelineOf(song);
      return {
        song: song.id,
        title: song.title,
        bpm: song.bpm,
        key: song.key ?? null,
        tuning: song.tuning ?? null,
        instrument: song.instrument ?? null,
        bars: line.bars.length,
        lengthMs: round(line.lengthMs, 1),
        sections: cueSheet(rig, song).map((c, i) => ({
          section: entryAt(song.sections, i).id,
          name: c.section,
          bar: c.bar,
          bars: c.bars,
          startMs: round(c.atMs, 1),
          bpm: c.bpm,
          sound: entryAt(song.sections, i).sound,
          programs: c.programs,
        })),
        delays: tempoDevices(rig)
          .filter((d) => soundsIn(rig, song, d))
          .flatMap((d) => delayTimes(rig, song, d))
          .map((t) => ({
            device: t.device,
            is: t.is,
            way: t.way,
            division: t.division,
            bar: t.bar,
            sections: t.sections,
            bpm: t.bpm,
            wanted: round(t.wanted, 3),
            gets: round(t.gets, 3),
            knob: round(t.knob, 2),
            clock: t.hour,
            inRange: t.inRange,
            errorMs: round(t.slip.errorMs, 3),
            slipsAtRepeat: t.slip.repeat,
            heard: t.slip.heard,
            how: t.how,
          })),
      };
    }),
    sets: (rig.sets ?? []).map((set) => {
      const order = runningOrder(rig, set);
      return {
        set: set.id,
        name: set.name,
        seconds: round(order.seconds, 1),
        musicSeconds: round(order.musicSeconds, 1),
        spareSeconds: order.spareSeconds === undefined ? null : round(order.spareSeconds, 1),
        songs: order.lines.map((l) => ({
          song: l.entry.song,
          startsAtS: round(l.startsAt, 1),
          clock: l.clock ?? null,
          changeover: l.changeover.words,
          changeoverS: l.changeover.seconds,
        })),
      };
    }),
    programs: [...map.songs, ...map.sounds].map((r) => ({
      song: r.song?.id ?? null,
      section: r.section ?? null,
      sound: r.scene.sound.id,
      at: r.at.map((a) => ({
        device: a.device,
        bank: a.address?.bank ?? null,
        number: a.address?.number ?? null,
        shown: a.shown,
      })),
    })),
    unusedSounds: use.unused,
    soundsPerSong: use.bySong.map((s) => ({
      song: s.song,
      count: s.sounds.length,
      sounds: s.sounds,
    })),
  };
}
