import { effectiveRig } from '../../core/control';
import { kindOf } from '../../core/kinds';
import {
  BANDS,
  type Mains,
  type NoiseFigures,
  type NoteFigures,
  notesAt,
  playNote,
} from '../../core/note';
import { nameOf, type Rig } from '../../core/rig';
import { fixed, showLevel, withPrefix } from '../../core/units';
import { command, refuse } from '../command';
import { round } from '../round';

const bandsJson = (bands: readonly (number | null)[]) =>
  Object.fromEntries(BANDS.map((hertz, i) => [hertz, round(bands[i] ?? null)]));

const noiseJson = (f: NoiseFigures | null, rig: Rig) =>
  f && {
    noiseDbu: round(f.levelDbu),
    weightedNoiseDbu: round(f.weightedDbu),
    weightedHumDbu: round(f.humDbu),
    noisiest: nameOf(rig, f.device),
    noisiestBandHertz: f.band,
    noiseBandsDbu: bandsJson(f.bandsDbu),
  };

const mainsOf = (said: string | undefined): Mains | undefined => {
  if (said === undefined) return undefined;
  return said === '50' || said === '60'
    ? (Number(said) as Mains)
    : refuse(`Mains are of 50 or 60 Hz, not of "${said}".`);
};

const figuresJson = (f: NoteFigures) => ({
  noteLevelDbu: round(f.levelDbu),
  loudnessDbu: round(f.loudnessDbu),
  truePeakDbu: round(f.truePeakDbu),
  crestDb: round(f.crestDb),
  brightnessHertz: round(f.brightnessHertz, 1),
  bandsDbu: bandsJson(f.bandsDbu),
});

export const note = command({
  name: 'note',
  about:
    'one played note at each destination: loudness, true peak, bands; what stages add to it; ' +
    'the noise beside it, weighted',
  options: [{ flags: '--mains <hertz>', about: 'mains that hum, 50 or 60 Hz; 60' }],
  run: (written, { mains }: { mains?: string }) => {
    const rig = effectiveRig(written);
    const ends = rig.devices.filter((d) => kindOf(d.kind).destination);
    const destinations = ends.flatMap((d) =>
      notesAt(rig, d.id, mainsOf(mains)).map(({ sound, note, noise, weightedSignalToNoiseDb }) => {
        const [soft, normal, hard] = note?.touches ?? [];
        return {
          destination: d.name,
          device: d.id,
          sound: rig.sounds.find((s) => s.id === sound)?.name ?? sound,
          ...(soft && normal && hard
            ? { soft: figuresJson(soft), normal: figuresJson(normal), hard: figuresJson(hard) }
            : { silent: true }),
          weightedSignalToNoiseDb: round(weightedSignalToNoiseDb),
          noise: { playing: noiseJson(noise.playing, rig), idle: noiseJson(noise.idle, rig) },
        };
      }),
    );
    const added = rig.sounds.flatMap((s) =>
      playNote(rig, s)
        .added()
        .map(({ device, stage, db }) => ({
          sound: s.name,
          name: nameOf(rig, device),
          device,
          stage,
          addedDb: db.map((x) => round(x)),
        })),
    );
    return {
      json: { rig: rig.name, destinations, added },
      lines: destinations.map((d) =>
        'normal' in d && d.normal
          ? `${d.sound} at ${d.destination}: loudness ${showLevel(d.normal.loudnessDbu)}, ` +
            `level ${showLevel(d.normal.noteLevelDbu)}, true peak ` +
            `${showLevel(d.normal.truePeakDbu)}, brightness ` +
            withPrefix(d.normal.brightnessHertz ?? 0, 'Hz') +
            noiseWords(d)
          : `${d.sound} at ${d.destination}: silent`,
      ),
    };
  },
});

/** How far the note is over the noise, and where most of that comes from. */
function noiseWords(d: {
  weightedSignalToNoiseDb: number | null;
  noise: { playing: ReturnType<typeof noiseJson> };
}): string {
  const { playing } = d.noise;
  if (!playing || d.weightedSignalToNoiseDb === null) return '';
  return (
    `, S/N weighted ${fixed(d.weightedSignalToNoiseDb)} dB, most of the noise from ` +
    `${playing.noisiest} about ${withPrefix(playing.noisiestBandHertz, 'Hz')}`
  );
}
