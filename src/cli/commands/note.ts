import { effectiveRig } from '../../core/control';
import { kindOf } from '../../core/kinds';
import { BANDS, type NoteFigures, notesAt, playNote } from '../../core/note';
import { nameOf } from '../../core/rig';
import { showLevel, withPrefix } from '../../core/units';
import { command } from '../command';
import { round } from '../round';

const figuresJson = (f: NoteFigures) => ({
  noteLevelDbu: round(f.levelDbu),
  loudnessDbu: round(f.loudnessDbu),
  truePeakDbu: round(f.truePeakDbu),
  crestDb: round(f.crestDb),
  brightnessHertz: round(f.brightnessHertz, 1),
  bandsDbu: Object.fromEntries(BANDS.map((hertz, i) => [hertz, round(f.bandsDbu[i] ?? null)])),
});

export const note = command({
  name: 'note',
  about: 'one played note at each destination: loudness, true peak, bands; what stages add to it',
  options: [],
  run: (written) => {
    const rig = effectiveRig(written);
    const ends = rig.devices.filter((d) => kindOf(d.kind).destination);
    const destinations = ends.flatMap((d) =>
      notesAt(rig, d.id).map(({ sound, note }) => {
        const [soft, normal, hard] = note?.touches ?? [];
        return {
          destination: d.name,
          device: d.id,
          sound: rig.sounds.find((s) => s.id === sound)?.name ?? sound,
          ...(soft && normal && hard
            ? { soft: figuresJson(soft), normal: figuresJson(normal), hard: figuresJson(hard) }
            : { silent: true }),
        };
      }),
    );
    const added = rig.sounds.flatMap((s) =>
      playNote(rig, s).added.map(({ device, stage, db }) => ({
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
            withPrefix(d.normal.brightnessHertz ?? 0, 'Hz')
          : `${d.sound} at ${d.destination}: silent`,
      ),
    };
  },
});
