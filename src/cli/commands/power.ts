import { betterWords, PATIENCE, planPower } from '../../core/build';
import { deviceOf, nameOf, outletsOf } from '../../core/rig';
import { command, refuse, saysWhy } from '../command';
import { exactSolver } from '../exact-solver';

export const power = command<{ headroom: string; seconds: string }>({
  name: 'power',
  about: 'the best assignment of devices to outlets, and why any is left without',
  options: [
    {
      flags: '--headroom <share>',
      about: 'share of the load that an outlet keeps free',
      initial: '0.2',
    },
    {
      flags: '--seconds <time>',
      about: 'how long to look for a better plan, for each of fed, shared and moved',
      initial: String(PATIENCE),
    },
  ],
  run: async (rig, options) => {
    const headroom = Number(options.headroom);
    if (!(headroom >= 0 && headroom <= 2))
      refuse(`"${options.headroom}" is no headroom; give 0 to 2, such as 0.2.`);
    const seconds = Number(options.seconds);
    if (!(seconds > 0 && seconds <= 3600))
      refuse(`"${options.seconds}" is no time; give seconds up to 3600, such as 20.`);
    const plan = planPower(rig, await exactSolver(), headroom, seconds);
    if (!plan.ok) return saysWhy(plan);
    const { fed, starved, shared, moved, isProven, atBest } = plan.value;
    return {
      json: { fed, starved, shared, moved, proven: isProven, atBest },
      lines: [
        ...fed.map((f) => {
          const at = deviceOf(rig, f.supply);
          const outlet = at && outletsOf(at)?.find((o) => o.id === f.outlet)?.label;
          return `${nameOf(rig, f.device)}: ${nameOf(rig, f.supply)}, ${outlet ?? f.outlet}, ${f.volts} V`;
        }),
        ...starved.map((s) => `${nameOf(rig, s.device)}: NO POWER, ${s.why}; it takes ${s.cure}`),
        ...(isProven ? [] : [betterWords(plan.value)]),
      ],
    };
  },
});
