import { lineOfRig } from '../../core/start';
import { command, EXIT, saysWhy } from '../command';

export const line = command({
  name: 'line',
  about: 'the rig as one line, where a line can say it: devices, ways side by side, loops',
  options: [],
  run: (rig) => {
    const printed = lineOfRig(rig);
    return printed.ok
      ? { json: { rig: rig.name, line: printed.value }, lines: [printed.value] }
      : { ...saysWhy(printed), exit: EXIT.faulty };
  },
});
