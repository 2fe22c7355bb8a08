import { allControls, effectiveRig, reachOfControl, sweepOf } from '../../core/control';
import { analyse, type Report, type SoundReport } from '../../core/report';
import type { Rig } from '../../core/rig';
import type { DestinationFigures } from '../../core/signal';
import { fixed, showLevel } from '../../core/units';
import { command } from '../command';
import { round } from '../round';
import { soundName, walkOf } from '../sound-report';

const touches = (t: DestinationFigures['thdPercent']) =>
  t && { soft: round(t.soft), normal: round(t.normal), hard: round(t.hard) };

type Name = (id: string | null) => string | null;

const destinationJson = (rig: Rig, name: Name, s: SoundReport, d: DestinationFigures) => ({
  destination: d.name,
  device: d.device,
  hears: d.hears,
  sound: soundName(rig, s.sound),
  levelDbu: round(d.levelDbu?.normal ?? null),
  levelDbuByTouch: touches(d.levelDbu),
  peakDbu: round(d.peakDbu),
  noiseDbu: round(d.noiseDbu),
  idleNoiseDbu: round(d.idleNoiseDbu),
  signalToNoiseDb: round(d.signalToNoiseDb),
  noisiest: name(d.noisiest),
  thdPercent: touches(d.thdPercent),
  channels: d.channels,
  latencyMs: round(d.latencyMs, 3),
  polarity: d.polarity,
  sources: d.sources,
  wideners: d.wideners.map((w) => ({ ...w, device: name(w.device) })),
  widenedBy: name(d.widenedBy),
  collapsedAt: name(d.collapsedAt),
  side: d.side,
  pairedWith: name(d.pairedWith),
  notchHz: round(d.notchHz, 1),
  sides: d.sides.map((x) => ({
    jack: x.jack,
    sources: x.sources,
    levelDbu: round(x.levelDbu?.normal ?? null),
    noiseDbu: round(x.noiseDbu),
    latencyMs: round(x.latencyMs, 3),
  })),
  walk: walkOf(rig, s, d.route),
});

const sectionJson = (rig: Rig, name: Name, s: SoundReport) =>
  s.tones.map((t) => ({
    sound: soundName(rig, s.sound),
    from: name(t.driver),
    to: name(t.listener),
    fromDevice: t.driver,
    toDevice: t.listener,
    barePickup: t.bare,
    leadPf: round(t.leadPf, 1),
    peakHz: round(t.peakHz, 1),
    peakDb: round(t.peakDb, 3),
    at1kHzDb: round(t.at1kHzDb, 3),
    at5kHzDb: round(t.at5kHzDb, 3),
    minus3dBHz: round(t.minus3dBHz, 1),
  }));

const soundJson = (rig: Rig, s: SoundReport) => ({
  sound: soundName(rig, s.sound),
  cycles: s.cycles.map((c) => ({
    devices: c.devices,
    gainDb: round(c.gainDb),
    togetherDb: round(c.togetherDb),
    howls: c.fate === 'howls' || c.fate === 'howls together',
    rests: c.fate === 'rests',
    reaches: c.reaches,
    opens: c.opens ?? null,
  })),
  humLoops: s.humLoops.map((h) => ({
    devices: h.devices,
    leads: h.ties.flatMap((t) => t.lead ?? []),
    throughEarth: h.ties.some((t) => t.kind === 'earth'),
    throughSupply: h.ties.some((t) => t.kind === 'supply'),
    cure: h.cure,
  })),
  speakers: s.speakers.map((l) => ({
    ...l,
    loadOhms: round(l.loadOhms, 3),
    lossDb: round(l.lossDb, 3),
    loads: l.loads.map((x) => ({ ...x, watts: round(x.watts, 1), lossDb: round(x.lossDb, 3) })),
  })),
  hosts: s.hosts,
});

/** What each control that is moved from end to end changes, and what the level does on the way. */
const controlsJson = (rig: Rig) =>
  allControls(rig)
    .filter((c) => c.type !== 'tap' && c.type !== 'tempo')
    .flatMap((control) =>
      effectiveRig(rig).sounds.map((sound) => ({
        control: control.name,
        sound: sound.name,
        reaches: reachOfControl(rig, sound, control),
        sweep: sweepOf(rig, sound, control).destinations.map((d) => ({
          ...d,
          levels: d.levels.map((x) => round(x)),
          dipDb: round(d.dipDb),
          bumpDb: round(d.bumpDb),
        })),
      })),
    );

function reportJson(rig: Rig, result: Report) {
  const name: Name = (id) =>
    id === null ? null : (rig.devices.find((d) => d.id === id)?.name ?? id);
  return {
    rig: rig.name,
    destinations: result.sounds.flatMap((s) =>
      s.destinations.map((d) => destinationJson(rig, name, s, d)),
    ),
    passiveSections: result.sounds.flatMap((s) => sectionJson(rig, name, s)),
    sounds: result.sounds.map((s) => soundJson(rig, s)),
    promises: result.promises,
    controls: controlsJson(rig),
  };
}

const lineOf = (d: ReturnType<typeof destinationJson>): string => {
  const noise = d.signalToNoiseDb === null ? 'none' : `${fixed(d.signalToNoiseDb)} dB`;
  const { soft, normal, hard } = d.thdPercent ?? {};
  const saturation = d.thdPercent ? `${soft} / ${normal} / ${hard} %` : 'none';
  return (
    `${d.sound} at ${d.destination}: ${showLevel(d.levelDbu)}, signal-to-noise ${noise}, ` +
    `saturation ${saturation}, ${d.channels}, ${d.latencyMs ?? 0} ms`
  );
};

export const report = command({
  name: 'report',
  about: 'figures per destination and sound, and per passive section',
  options: [],
  run: (rig) => {
    const json = reportJson(rig, analyse(rig));
    return { json, lines: json.destinations.map(lineOf) };
  },
});
