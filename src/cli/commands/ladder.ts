import { effectiveRig } from '../../core/control';
import { notesAt } from '../../core/note';
import { analyse, gainLadder } from '../../core/report';
import { fixed, showChange, showLevel } from '../../core/units';
import { command, named, refuse } from '../command';
import { round } from '../round';

interface Options {
  at?: string;
}

export const ladder = command<Options>({
  name: 'ladder',
  about: 'the gain ladder: level, loudness, dirt and presses from sound to sound',
  options: [{ flags: '--at <destination>', about: 'where it is heard; the first destination' }],
  run: (rig, { at }) => {
    const report = analyse(rig);
    const heard = report.sounds[0]?.destinations ?? [];
    const destination =
      at === undefined
        ? (heard[0] ?? refuse('The rig has no destination.'))
        : named(
            heard.map((d) => ({ ...d, id: d.device })),
            at,
            (d) => d.name,
            'destination',
          );
    const order = rig.sounds.map((s) => s.id);
    const loud = new Map(
      notesAt(effectiveRig(rig), destination.device).map(({ sound, note }) => [
        sound,
        note?.touches,
      ]),
    );
    const rungs = gainLadder(rig, report, order, destination.device).map((r) => {
      const levels = report.sounds
        .find((s) => s.sound === r.sound)
        ?.destinations.find((d) => d.device === destination.device)?.levelDbu;
      const [soft, normal, hard] = (loud.get(r.sound) ?? []).map((f) => round(f.loudnessDbu));
      return {
        sound: r.name,
        levelDbu: levels && {
          soft: round(levels.soft),
          normal: round(levels.normal),
          hard: round(levels.hard),
        },
        loudnessDbu: normal === undefined ? null : { soft, normal, hard },
        thdPercent: r.thdPercent && {
          soft: round(r.thdPercent.soft),
          normal: round(r.thdPercent.normal),
          hard: round(r.thdPercent.hard),
        },
        idleNoiseDbu: round(r.idleNoiseDbu),
        signalToNoiseDb: round(r.signalToNoiseDb),
        presses: r.presses,
        levelChangeDb: r.change && round(r.change.levelDb),
      };
    });
    return {
      json: { rig: rig.name, destination: destination.name, rungs },
      lines: rungs.map(
        (r) =>
          `${r.sound} at ${destination.name}: ${showLevel(r.levelDbu?.normal ?? null)} ` +
          `(soft ${showLevel(r.levelDbu?.soft ?? null)}, hard ${showLevel(r.levelDbu?.hard ?? null)}), ` +
          `loudness ${showLevel(r.loudnessDbu?.normal ?? null)}, saturation ` +
          `${fixed(r.thdPercent?.normal ?? 0)} %, ${r.presses} ${r.presses === 1 ? 'press' : 'presses'}` +
          (r.levelChangeDb === null ? '' : `, ${showChange(r.levelChangeDb)} from the one before`),
      ),
    };
  },
});
