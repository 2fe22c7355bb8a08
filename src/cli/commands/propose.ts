import { command, SOUND } from '../command';
import { proposals } from '../proposals';
import { soundName, soundReport } from '../sound-report';

export const propose = command<{ sound?: string; host?: string }>({
  name: 'propose',
  about: 'proposals: order, inside or outside, where to isolate, where buffers earn their keep',
  options: [
    SOUND,
    {
      flags: '--host <id>',
      about: 'the modeler to decide about; the first one, if there is any',
    },
  ],
  run: async (rig, options) => {
    const { sound: id } = soundReport(rig, options.sound);
    const sound = rig.sounds.find((s) => s.id === id);
    const found = await proposals(
      rig,
      sound ?? { id, name: soundName(rig, id), states: {} },
      options.host,
    );
    return {
      json: found,
      lines: found.words.map(([what, words]) => `${what.padEnd(10)} ${words}`),
    };
  },
});
