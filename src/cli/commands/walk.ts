import { showLevel } from '../../core/units';
import { command, SOUND } from '../command';
import { soundName, soundReport, walkOf } from '../sound-report';

export const walk = command<{ sound?: string }>({
  name: 'walk',
  about: 'the walk of one sound',
  options: [SOUND],
  run: (rig, options) => {
    const report = soundReport(rig, options.sound);
    const stations = walkOf(rig, report);
    return {
      json: { sound: soundName(rig, report.sound), stations },
      lines: stations.map(
        (s) =>
          `${String(s.lane + 1).padStart(2)}  ${s.name.padEnd(28)} ${s.state.padEnd(8)} ` +
          `${showLevel(s.levelDbu).padStart(11)}  ${s.channels}`,
      ),
    };
  },
});
