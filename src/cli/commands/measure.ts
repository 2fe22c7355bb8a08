import { countTurned, type ToMeasure, whatToMeasure } from '../../core/report';
import { nameOf, type Rig } from '../../core/rig';
import { showFigure } from '../../core/units';
import { command } from '../command';

export const measure = command({
  name: 'measure',
  about: 'what to measure first: typical figures that turn verdicts within what is believable',
  options: [],
  run: async (rig) => {
    const found = await whatToMeasure(rig);
    return {
      json: found,
      lines: found.length
        ? found.flatMap((m) => linesOf(rig, m))
        : ['No typical figure turns a verdict within what is believable.'],
    };
  },
});

function linesOf(rig: Rig, m: ToMeasure): string[] {
  const show = (x: number) => showFigure(m.unit, x);
  const n = countTurned(m);
  return [
    `${nameOf(rig, m.device)}, ${m.label}: ${n} ${n === 1 ? 'verdict turns' : 'verdicts turn'} between ` +
      `${show(m.low)} and ${show(m.high)} (typical: ${show(m.typical)})`,
    ...m.turns.map((t) => `    at ${show(t.at)} ${t.appears ? 'told' : 'not told'}: ${t.what}`),
    `    with ${m.tool}: ${m.steps}`,
  ];
}
